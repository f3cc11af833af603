// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message roomText{"“{part}” begins with {axis} {0} from its soft limit; {1} of room are needed to "
                           "take up its backlash. What is missing is seen at the first pose."};
constexpr Message fromText{
    "{axis} comes to the first pose of “{part}” from {2}, so that its backlash of {1} is taken up."};

/// Room before the first pose to take up the backlash on the way to it. Without it the first pose is off by
/// what is left: no more.
static Finding judgeMoveApproach(const RigView& view) {
    const MoveAxisView worst = worstMoveAxis(view, [](const MoveAxisResults& r) { return r.approachRoom; });
    if (!worst) return std::nullopt;
    const std::size_t axis = worst.axis;
    const Figure least = worst.results->approachRoom;
    const Kind kind = kindOf(view.project.axes[axis]) == AxisKind::Linear ? Kind::Length : Kind::Angle;
    // Ranges move the rig without its axes, and look at the ratio alone.
    const std::vector<AxisEvaluation>& axes = view.evaluation.axes;
    const double backlash = axis < axes.size() ? axes[axis].model.backlash : 0.0;
    Verdict v = found(nullptr, least.map([](double r) { return std::clamp(r, 1.0, plenty); }),
                      less(least, 1.0) ? roomText : fromText,
                      {{{kind, least * backlash}, {kind, backlash}, {kind, worst.results->approachFrom}}});
    if (less(least, 1.0)) v.ceiling = State::Tight;
    v.axis = static_cast<int>(axis);
    nameMove(v, view.project, worst.move);
    return v;
}

constinit const Rule moveApproach =
    advising({"Begin farther from the limit, or come to the first pose by hand from the other side."},
             ofAllAxes(namingAxis(harmless(judging(criteria::moveApproach, {"Way to the first pose"},
                                                   judgeMoveApproach, words::listOf<roomText, fromText>,
                                                   tries<&fixes::startFarther, &fixes::noPlay>)))));

} // namespace gantry::rules
