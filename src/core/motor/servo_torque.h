// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::motor {

/// Brushless or AC servo with its drive, as its data sheet draws it. Domain: positive, topSpeed ≥ ratedSpeed.
struct ServoParams {
    double ratedTorque = 0.0;  ///< [N·m] continuous
    double peakTorque = 0.0;   ///< [N·m]
    double ratedSpeed = 0.0;   ///< [rad/s] at ratedVoltage
    double topSpeed = 0.0;     ///< [rad/s] at ratedVoltage
    double ratedVoltage = 1.0; ///< [V]
    double voltage = 1.0; ///< [V] of the bus; a lower one lowers both speeds in proportion, a higher one none

    friend bool operator==(const ServoParams&, const ServoParams&) = default;
};

/// Speed [rad/s] beyond which the drive gives no torque at its bus voltage.
double topSpeed(const ServoParams& p);

/// Peak torque [N·m] at `speed` [rad/s] ≥ 0: full up to rated speed, falling straight to the continuous
/// torque at top speed, none beyond. The usual outline of data sheets (Hughes & Drury, Electric Motors and
/// Drives).
double peakTorque(const ServoParams& p, double speed);

/// Continuous torque [N·m]: rated up to rated speed, then at constant power, none beyond top speed.
double continuousTorque(const ServoParams& p, double speed);

} // namespace gantry::motor
