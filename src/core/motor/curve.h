// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/motor/dc_torque.h"
#include "core/motor/servo_torque.h"
#include "core/motor/stepper_torque.h"

#include <variant>

namespace gantry::motor {

/// Torque against speed of any kind of motor.
using Curve = std::variant<StepperParams, ServoParams, DcParams>;

/// Torque [N·m] to size moves against: pull-out of a stepper, peak of a servo, the line of a brushed motor.
double peakTorque(const Curve& curve, double speed);

/// Torque [N·m] that it stands for hours. A stepper's equals its peak; its heat is that of its current.
double continuousTorque(const Curve& curve, double speed);

/// The best it may do where that differs: a stepper on a saturated chopper.
double torqueAtBest(const Curve& curve, double speed);

/// The same motor on another supply voltage [V].
Curve atVoltage(Curve curve, double voltage);

/// Root mean square [N·m] of a torque that runs straight from T0 to T1 in each segment of t seconds:
/// √(Σ t (T0² + T0 T1 + T1²)/3 / Σ t).
class RmsTorque {
public:
    void add(double seconds, double from, double to) {
        time_ += seconds;
        squares_ += seconds * (from * from + from * to + to * to) / 3.0;
    }
    double value() const;

private:
    double time_ = 0.0, squares_ = 0.0;
};

/// Copper heat [W] of a stepper on a sine drive: Ipk² R at any angle. `peakCurrent` [A], `resistance` [ohm]
/// of a phase.
double stepperHeat(double peakCurrent, double resistance);

} // namespace gantry::motor
