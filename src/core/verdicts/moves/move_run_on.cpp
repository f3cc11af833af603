// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

#include <algorithm>

namespace gantry::rules {

/// A ratio beyond which more room says nothing.
constexpr double most = 100.0;

constexpr Message runsOnText{
    "After an emergency stop at {2} of “{part}” {axis} runs on by {0}; its travel ends after "
    "{1}. Keep hands off the end, and put a stop there that takes the blow."};

/// Way to the end of travel over the way on after an emergency stop, at the worst moment. A carriage that
/// reaches the end does so with what speed is left.
static Finding judgeMoveRunOn(const RigView& view) {
    const auto ratio = [](const MoveAxisResults& r) { return r.endAway / r.runOn; };
    const MoveAxisView worst = worstMoveAxis(view, ratio);
    if (!worst) return std::nullopt;
    const MoveAxisResults& r = *worst.results;
    const Kind kind = kindOf(view.project.axes[worst.axis]) == AxisKind::Linear ? Kind::Length : Kind::Angle;
    Verdict v = found(nullptr, ratio(r).map([](double x) { return std::min(x, most); }), runsOnText,
                      {{{kind, r.runOn}, {kind, r.endAway}, {Kind::Time, r.runOnAt}}});
    v.axis = static_cast<int>(worst.axis);
    nameMove(v, view.project, worst.move, r.runOnAt);
    return v;
}

constinit const Rule moveRunOn =
    advising({"Let the stop keep the current, give the move more time, or keep away from the ends."},
             ofAllAxes(namingAxis(judging(criteria::moveRunOn, {"Run-on after a stop"}, judgeMoveRunOn,
                                          words::listOf<runsOnText>,
                                          tries<&fixes::stopBehaviour, &fixes::moveSlower, &fixes::brake>))));

} // namespace gantry::rules
