// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message dutyText{
    "“{shot}” needs {0} as a root mean square; the motor is rated for {1} continuously."};

/// Torque that the motor stands for hours over the root mean square of what the shot asks. Steppers warm by
/// their current instead, see case_temperature.
static Finding judgeDuty(const AxisView& view) {
    if (view.evaluation.model.stepper()) return std::nullopt;
    const auto ratio = [](const ShotEvaluation& s) { return allowedOver(s.torque.continuous, s.torque.rms); };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), dutyText,
                 {{{Kind::Torque, e->torque.rms}, {Kind::Torque, e->torque.continuous}}});
}

constinit const Rule duty = advising(
    {"The motor needs pauses, gentler ramps or a larger size."},
    judging(criteria::duty, {"Duty"}, judgeDuty, words::listOf<dutyText>,
            tries<&fixes::shotAcceleration, &fixes::slowerShot, &fixes::reduction, &fixes::largerMotor>));

} // namespace gantry::rules
