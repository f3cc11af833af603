// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

namespace gantry::rules {

constexpr Message speedText{"“{part}” needs {0} of {axis} at {2}; {1} is set. In {3} it would do."};
constexpr Message accelerationText{
    "“{part}” needs {0} of acceleration of {axis} at {2}; {1} is set. In {3} it would do."};
constexpr Message jerkText{"“{part}” needs {0} of jerk of {axis} at {2}; {1} is set. In {3} it would do."};

/// Limits of the controller against the exact peaks of the planned move; a plan right at its limits holds.
static Finding judgeMoveLimits(const RigView& view) {
    const SegmentView s =
        worstSegment(view.evaluation, [](std::size_t, const MoveSegmentResults& r) { return limitRatio(r); });
    if (!s) return std::nullopt;
    const MoveSegmentResults& r = *s.results;
    const bool linear = kindOf(view.project.axes[static_cast<std::size_t>(r.axis)]) == AxisKind::Linear;
    const Kind kind = r.binds == MoveBinds::Speed ? (linear ? Kind::Speed : Kind::AngularSpeed)
                      : r.binds == MoveBinds::Acceleration
                          ? (linear ? Kind::Acceleration : Kind::AngularAcceleration)
                          : (linear ? Kind::Jerk : Kind::AngularJerk);
    const Message text = r.binds == MoveBinds::Speed          ? speedText
                         : r.binds == MoveBinds::Acceleration ? accelerationText
                                                              : jerkText;
    Verdict v = found(nullptr, limitRatio(r), text,
                      {{{kind, r.asked}, {kind, r.limit}, {Kind::Time, r.at}, {Kind::Time, r.least}}});
    v.axis = r.axis;
    nameMove(v, view.project, s.move, r.at);
    v.part = segmentName(view.project, s.move, r.pose);
    return v;
}

constinit const Rule moveLimits = advising(
    {"The move is too quick for its axes: more time, gentler ease, or higher limits."},
    ofAllAxes(namingAxis(judging(
        criteria::moveLimits, {"Limits along the move"}, judgeMoveLimits,
        words::listOf<speedText, accelerationText, jerkText>,
        tries<&fixes::moveGentler, &fixes::moveInLeastTime, &fixes::moveFastest, &fixes::settingsToMove>))));

} // namespace gantry::rules
