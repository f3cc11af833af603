// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message stoppingText{"Stopping from {0} takes {1}; shot “{shot}” leaves {2} of travel."};

static Figure leftBehind(const AxisView& view, const ShotEvaluation& s) {
    return view.evaluation.model.travel - s.distance;
}

/// Whether a stop begun where the shot ends still finds room. Only the shot's own ramp counts, not an end
/// switch.
static Finding judge(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return (leftBehind(view, s) / s.motion.stoppingDistance).map([](double r) {
            return std::clamp(r, 0.0, plenty);
        });
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), stoppingText,
                 {{{view.speedKind(), e->motion.topSpeed},
                   {view.travelKind(), e->motion.stoppingDistance},
                   {view.travelKind(), greater(0.0, leftBehind(view, *e))}}});
}

constinit const Rule stopping = judging(criteria::stopping, {"Stopping distance"}, judge,
                                        words::listOf<stoppingText>, tries<&fixes::slowerShot>);

} // namespace gantry::rules
