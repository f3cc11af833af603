// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

/// A travel used to its last micrometre; a ratio [1] beyond which more room says nothing.
constexpr double slack = 1e-9, most = 100.0;

constexpr Message stoppingText{
    "Shot “{shot}” brakes from {0} within {1}, its own ramp; behind its end {2} of travel are left."};

static Figure leftBehind(const AxisView& view, const ShotEvaluation& s) {
    return view.evaluation.model.travel - s.distance;
}

/// Way from where the shot begins to brake to the end of the travel, over its braking distance. The ramp
/// itself is part of the shot; only its own ramp counts, not an end switch.
static Finding judgeStopping(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return (leftBehind(view, s) / s.motion.stoppingDistance).map([](double r) {
            return r > -slack ? std::min(1.0 + std::max(0.0, r), most) : std::max(0.0, 1.0 + r);
        });
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), stoppingText,
                 {{{view.speedKind(), e->motion.topSpeed},
                   {view.travelKind(), e->motion.stoppingDistance},
                   {view.travelKind(), greater(0.0, leftBehind(view, *e))}}});
}

constinit const Rule stopping =
    advising({"It needs more room, a lower top speed or a harder ramp to stop within its travel."},
             judging(criteria::stopping, {"Stopping distance"}, judgeStopping, words::listOf<stoppingText>,
                     tries<&fixes::slowerShot, &fixes::shorterTravel>));

} // namespace gantry::rules
