// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

using M = words::MessageId;

/// A controller set lower than a shot needs would stretch the shot without a word.
Finding settings(const AxisView& view) {
    const motion::Limits& set = view.evaluation.model.settings;
    // A profile planned from the settings themselves may exceed them by a rounding of the last digit.
    constexpr double slack = 1.0 + 1e-9;
    const auto bySpeed = [&](const ShotEvaluation& s) {
        return allowedOver(set.speed * slack, s.motion.topSpeed.value());
    };
    const auto byAcceleration = [&](const ShotEvaluation& s) {
        return allowedOver(set.acceleration * slack, s.motion.acceleration.value());
    };
    const auto ratio = [&](const ShotEvaluation& s) { return std::min(bySpeed(s), byAcceleration(s)); };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    if (bySpeed(*e) <= byAcceleration(*e))
        return found(e, ratio(*e), e->motion.topSpeed.reason(), M::SettingsSpeedText,
                     {{{view.speedKind(), e->motion.topSpeed.value()}, {view.speedKind(), set.speed}}});
    return found(e, ratio(*e), e->motion.topSpeed.reason(), M::SettingsAccelerationText,
                 {{{view.accelerationKind(), e->motion.acceleration.value()},
                   {view.accelerationKind(), set.acceleration}}});
}

} // namespace gantry::rules
