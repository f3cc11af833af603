// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Torque that the motor stands for hours over the root mean square of what the shot asks. Steppers warm by
/// their current instead, see case_temperature.
Finding duty(const AxisView& view) {
    if (view.evaluation.model.stepper()) return std::nullopt;
    const auto ratio = [](const ShotEvaluation& s) {
        return allowedOver(s.torque.continuous.value(), s.torque.rms.value());
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), e->torque.rms.reason(), M::DutyText,
                 {{{Kind::Torque, e->torque.rms.value()}, {Kind::Torque, e->torque.continuous.value()}}});
}

} // namespace gantry::rules
