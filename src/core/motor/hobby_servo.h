// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/motor/dc_torque.h"

namespace gantry::motor {

/// How finely a hobby servo can be placed. Angles [rad], times [s].
struct ServoResolution {
    double step = 0.0;       ///< of the finest pulse change
    double deadBand = 0.0;   ///< whole width
    double worstError = 0.0; ///< (dead band + step) / 2
    int distinct = 1;        ///< places between the ends
};

/// @param range [rad] over the pulse span; @param pulseSpan, pulseStep, deadBand [s]
ServoResolution servoResolution(double range, double pulseSpan, double pulseStep, double deadBand);

/// A hobby servo's horn as a brushed motor: no-load speed 60° in the given time, stall torque; both at rated
/// voltage.
DcParams hobbyServoMotor(double ratedVoltage, double voltage, double secondsPer60, double stallTorque);

} // namespace gantry::motor
