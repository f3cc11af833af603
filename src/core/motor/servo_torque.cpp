// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motor/servo_torque.h"

#include <algorithm>

namespace gantry::motor {
namespace {
double voltageShare(const ServoParams& p) {
    return std::clamp(p.voltage / p.ratedVoltage, 0.0, 1.0);
}
} // namespace

double topSpeed(const ServoParams& p) {
    return std::max(p.topSpeed, p.ratedSpeed) * voltageShare(p);
}

double continuousTorque(const ServoParams& p, double speed) {
    if (speed > topSpeed(p)) return 0.0;
    const double rated = p.ratedSpeed * voltageShare(p);
    return speed <= rated ? p.ratedTorque : p.ratedTorque * rated / speed;
}

double peakTorque(const ServoParams& p, double speed) {
    const double top = topSpeed(p), rated = p.ratedSpeed * voltageShare(p);
    if (speed > top) return 0.0;
    const double peak = std::max(p.peakTorque, p.ratedTorque);
    if (speed <= rated) return peak;
    const double atTop = continuousTorque(p, top);
    return peak + (atTop - peak) * (speed - rated) / (top - rated);
}

} // namespace gantry::motor
