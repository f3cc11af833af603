// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::motor {

/// Brushed motor from its label: figures at nominal voltage, at the shaft that comes out. Domain: positive,
/// stallCurrent > noLoadCurrent ≥ 0.
struct DcParams {
    double nominalVoltage = 12.0;  ///< [V]
    double noLoadSpeed = 100.0;    ///< [rad/s]
    double noLoadCurrent = 0.0;    ///< [A]
    double stallCurrent = 1.0;     ///< [A]
    double stallTorque = 0.0;      ///< [N·m]; 0: what the electrical figures give
    double ratedTorque = 0.0;      ///< [N·m] continuous
    double voltage = 12.0;         ///< [V] of the source
    double duty = 1.0;             ///< [1] share of the time that the bridge is on
    double sourceResistance = 0.0; ///< [ohm]
    bool busCapacitor = true;      ///< evens out the source's current, so the source resistance counts duty²
    double currentLimit = 0.0;     ///< [A] of the driver; 0: none

    friend bool operator==(const DcParams&, const DcParams&) = default;
};

/// Torque per ampere above the no-load current [N·m/A].
double torqueConstant(const DcParams& p);

/// Largest torque [N·m] at `speed` [rad/s] ≥ 0: straight from stall to no load, both in proportion to the
/// voltage, cut by the current limit; none beyond the no-load speed. Continuous conduction (Hughes & Drury,
/// Electric Motors and Drives, chapters 2 and 3).
double peakTorque(const DcParams& p, double speed);

/// Continuous torque [N·m]: the rated one, never more than peakTorque.
double continuousTorque(const DcParams& p, double speed);

/// Speed [rad/s] under a shaft torque [N·m]; zero when it stalls.
double speedUnder(const DcParams& p, double torque);

double noLoadSpeed(const DcParams& p); ///< [rad/s] at this voltage and duty
double stallTorque(const DcParams& p); ///< [N·m] at this voltage and duty, without current limit
double motorCurrent(const DcParams& p, double torque);  ///< [A]
double sourceCurrent(const DcParams& p, double torque); ///< [A] mean
double stallCurrent(const DcParams& p);                 ///< [A] at this voltage and duty
/// Current [A] at the moment of reversing at full voltage while turning at `speed` [rad/s].
double reversalCurrent(const DcParams& p, double speed);

/// Least duty that reaches `speed` [rad/s] under `torque` [N·m]; more than 1 if the voltage is too low.
double dutyFor(const DcParams& p, double speed, double torque);

} // namespace gantry::motor
