// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motor/hobby_servo.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry::motor {

ServoResolution servoResolution(double range, double pulseSpan, double pulseStep, double deadBand) {
    ServoResolution r;
    r.step = range * pulseStep / pulseSpan;
    r.deadBand = range * deadBand / pulseSpan;
    r.worstError = 0.5 * (r.step + r.deadBand);
    r.distinct = static_cast<int>(std::min(1e9, std::floor(pulseSpan / pulseStep + 1e-9))) + 1;
    return r;
}

DcParams hobbyServoMotor(double ratedVoltage, double voltage, double secondsPer60, double stallTorque) {
    DcParams p;
    p.nominalVoltage = ratedVoltage;
    p.voltage = voltage;
    p.noLoadSpeed = std::numbers::pi / 3.0 / secondsPer60;
    p.stallTorque = stallTorque;
    // It stands a third of its stall torque for long, a common rule where no rating is given.
    p.ratedTorque = stallTorque / 3.0;
    return p;
}

} // namespace gantry::motor
