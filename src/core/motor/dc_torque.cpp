// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motor/dc_torque.h"

#include <algorithm>

namespace gantry::motor {
namespace {

double winding(const DcParams& p) {
    return p.nominalVoltage / p.stallCurrent;
}

/// Volts per rad/s, from running free: what is left of the nominal voltage after the no-load current's drop.
double speedConstant(const DcParams& p) {
    return (p.nominalVoltage - p.noLoadCurrent * winding(p)) / p.noLoadSpeed;
}

/// Resistance that the motor's mean current meets. With a capacitor the source sees I·duty steadily and its
/// drop counts duty once more at the motor; without one the pulses themselves drop over it, for duty of the
/// time.
double loopResistance(const DcParams& p) {
    return winding(p) + p.sourceResistance * p.duty * (p.busCapacitor ? p.duty : 1.0);
}

} // namespace

double torqueConstant(const DcParams& p) {
    return p.stallTorque > 0.0 ? p.stallTorque / (p.stallCurrent - p.noLoadCurrent) : speedConstant(p);
}

double motorCurrent(const DcParams& p, double torque) {
    return torque / torqueConstant(p) + p.noLoadCurrent;
}

double sourceCurrent(const DcParams& p, double torque) {
    return p.duty * motorCurrent(p, torque);
}

double speedUnder(const DcParams& p, double torque) {
    return std::max(0.0,
                    (p.duty * p.voltage - motorCurrent(p, torque) * loopResistance(p)) / speedConstant(p));
}

double noLoadSpeed(const DcParams& p) {
    return speedUnder(p, 0.0);
}

double stallCurrent(const DcParams& p) {
    return p.duty * p.voltage / loopResistance(p);
}

double stallTorque(const DcParams& p) {
    return std::max(0.0, torqueConstant(p) * (stallCurrent(p) - p.noLoadCurrent));
}

double peakTorque(const DcParams& p, double speed) {
    const double current = (p.duty * p.voltage - speedConstant(p) * speed) / loopResistance(p);
    const double allowed = p.currentLimit > 0.0 ? std::min(current, p.currentLimit) : current;
    return std::max(0.0, torqueConstant(p) * (allowed - p.noLoadCurrent));
}

double continuousTorque(const DcParams& p, double speed) {
    return std::min(p.ratedTorque, peakTorque(p, speed));
}

double reversalCurrent(const DcParams& p, double speed) {
    return (p.voltage + speedConstant(p) * speed) / (winding(p) + p.sourceResistance);
}

double dutyFor(const DcParams& p, double speed, double torque) {
    // Solved without the source's drop, then once more with it; it changes the duty by a few per cent at
    // most.
    const double current = motorCurrent(p, torque);
    double duty = (speedConstant(p) * speed + current * winding(p)) / p.voltage;
    for (int i = 0; i < 8; ++i) {
        DcParams q = p;
        q.duty = std::min(duty, 1.0);
        duty = (speedConstant(p) * speed + current * loopResistance(q)) / p.voltage;
    }
    return duty;
}

} // namespace gantry::motor
