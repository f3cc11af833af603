// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Strength of the anchors of a wall or overhead mount over their pull: entered, never presumed.
Finding anchors(const RigView& view) {
    const BaseKind kind = view.project.base.kind;
    if (kind != BaseKind::WallBracket && kind != BaseKind::Overhead) return std::nullopt;
    const RigStructure& rig = view.evaluation.rig;
    Verdict v = found(
        nullptr, rig.anchors.value(), rig.anchors.reason(), M::AnchorText,
        {{{Kind::Force, rig.anchorPull.value()}, {Kind::Force, view.project.base.anchorStrength.value}}});
    v.hazard = true;
    return v;
}

} // namespace gantry::rules
