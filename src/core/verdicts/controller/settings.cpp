// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message settingsSpeedText{"Shot “{shot}” runs at {0}; the controller is set to {1} at most."};
constexpr Message settingsAccelerationText{
    "Shot “{shot}” speeds up at {0}; the controller is set to {1} at most."};

/// A controller set lower than a shot needs would stretch the shot without a word.
static Finding judge(const AxisView& view) {
    const motion::Limits& set = view.evaluation.model.settings;
    // A profile planned from the settings themselves may exceed them by a rounding of the last digit.
    constexpr double slack = 1.0 + 1e-9;
    const auto bySpeed = [&](const ShotEvaluation& s) {
        return allowedOver(set.speed * slack, s.motion.topSpeed);
    };
    const auto byAcceleration = [&](const ShotEvaluation& s) {
        return allowedOver(set.acceleration * slack, s.motion.acceleration);
    };
    const auto ratio = [&](const ShotEvaluation& s) { return lesser(bySpeed(s), byAcceleration(s)); };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    const Figure speed = bySpeed(*e), acceleration = byAcceleration(*e);
    if (!speed || (acceleration && speed.value() <= acceleration.value()))
        return found(e, ratio(*e), settingsSpeedText,
                     {{{view.speedKind(), e->motion.topSpeed}, {view.speedKind(), set.speed}}});
    return found(
        e, ratio(*e), settingsAccelerationText,
        {{{view.accelerationKind(), e->motion.acceleration}, {view.accelerationKind(), set.acceleration}}});
}

constinit const Rule settings = judging(criteria::settings, {"Settings against shots"}, judge,
                                        words::listOf<settingsSpeedText, settingsAccelerationText>,
                                        tries<&fixes::settingsUpToShot, &fixes::slowerShot>);

} // namespace gantry::rules
