// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// A motor with a top speed of its own against the fastest shot, or its lowest steady speed against the
/// slowest.
Finding motorSpeed(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.motorTopSpeed.reason() == Reason::NotApplicable) return std::nullopt;
    const auto fast = [&](const ShotEvaluation& s) {
        return allowedOver(e.motorTopSpeed.value(), s.topSpeed.value());
    };
    const auto slow = [&](const ShotEvaluation& s) {
        return s.slowestSetting ? allowedOver(1.0, s.slowestSetting.value()) : 1e6;
    };
    const ShotEvaluation* fastest = worstShot(view, fast);
    const ShotEvaluation* slowest = worstShot(view, slow);
    if (fastest == nullptr) return std::nullopt;
    if (slow(*slowest) < fast(*fastest))
        return found(slowest, slow(*slowest), slowest->topSpeed.reason(), M::MotorSlowText,
                     {{{view.speedKind(), slowest->topSpeed.value()},
                       {view.speedKind(), e.model.lowestSpeed * e.model.outputPerRad}}});
    return found(fastest, fast(*fastest), fastest->topSpeed.reason(),
                 fastest->speedSetting ? M::MotorSettingText : M::MotorSpeedText,
                 {{{view.speedKind(), fastest->topSpeed.value()},
                   {view.speedKind(), e.motorTopSpeed.value()},
                   {Kind::Percentage, fastest->speedSetting.value()}}});
}

} // namespace gantry::rules
