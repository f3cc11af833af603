// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message anchorText{"The anchors must hold {0}; they are rated for {1}. Over people local rules and "
                             "a qualified rigger decide."};

/// Strength of the anchors of a wall or overhead mount over their pull: entered, never presumed.
static Finding judgeAnchors(const RigView& view) {
    const BaseKind kind = view.project.base.kind;
    if (kind != BaseKind::WallBracket && kind != BaseKind::Overhead) return std::nullopt;
    const RigStructure& rig = view.evaluation.rig;
    Verdict v =
        found(nullptr, rig.anchors, anchorText,
              {{{Kind::Force, rig.anchorPull}, {Kind::Force, view.project.base.anchorStrength.value}}});
    v.hazard = true;
    return v;
}

constinit const Rule anchors = advising(
    {"The mount needs stronger or more anchors, set by somebody qualified for this wall or ceiling."},
    judging(criteria::anchors, {"Anchors"}, judgeAnchors, words::listOf<anchorText>,
            tries<&fixes::anchorSpread>));

} // namespace gantry::rules
