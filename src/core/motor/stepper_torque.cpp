// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motor/stepper_torque.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace gantry::motor {
namespace {

/// The currents (id, iq) that the voltage allows at one speed: a disc.
struct VoltageDisc {
    double d = 0.0, q = 0.0, radius = 0.0; ///< [A]
};

VoltageDisc voltageDisc(const StepperParams& p, double speed) {
    const double reactance = p.rotorTeeth * speed * p.inductance;
    const double impedanceSquared = p.resistance * p.resistance + reactance * reactance;
    const double emf = torqueConstant(p) * speed;
    return {-emf * reactance / impedanceSquared, -emf * p.resistance / impedanceSquared,
            p.supplyVoltage / std::sqrt(impedanceSquared)};
}

double largestQuadratureCurrent(const VoltageDisc& disc, double peak) {
    const double top = disc.q + disc.radius;
    if (disc.d * disc.d + top * top <= peak * peak) return top;
    const double gap = peak - disc.q;
    if (disc.d * disc.d + gap * gap <= disc.radius * disc.radius) return peak;
    const double centre = std::hypot(disc.d, disc.q);
    if (centre == 0.0 || centre > disc.radius + peak) return 0.0; // no current satisfies both
    // Intersection of |i| = peak with the disc's edge; the one with the larger iq lies towards −d, +q.
    const double along = (peak * peak - disc.radius * disc.radius + centre * centre) / (2.0 * centre);
    const double across = std::sqrt(std::max(0.0, peak * peak - along * along));
    return (along * disc.q + across * std::abs(disc.d)) / centre;
}

double torqueAtVoltage(const StepperParams& p, double speed, double voltage) {
    StepperParams scaled = p;
    scaled.supplyVoltage = voltage;
    const double torque =
        torqueConstant(p) * largestQuadratureCurrent(voltageDisc(scaled, speed), p.peakCurrent);
    return torque < 0.0 ? 0.0 : torque; // not std::max, which would turn NaN into 0
}

} // namespace

double torqueConstant(const StepperParams& p) {
    return p.holdingTorque / (std::numbers::sqrt2 * p.ratedCurrentRms);
}

double pullOutTorque(const StepperParams& p, double speed) {
    return torqueAtVoltage(p, speed, p.supplyVoltage);
}

double pullOutTorqueAtBest(const StepperParams& p, double speed) {
    return torqueAtVoltage(p, speed, p.supplyVoltage * 4.0 / std::numbers::pi);
}

double cornerSpeed(const StepperParams& p) {
    // (R I + kt ω)² + (Nr ω L I)² = V², a quadratic in ω.
    const double kt = torqueConstant(p);
    const double drop = p.resistance * p.peakCurrent;
    const double reactive = p.rotorTeeth * p.inductance * p.peakCurrent;
    const double a = kt * kt + reactive * reactive;
    const double b = drop * kt;
    const double c = drop * drop - p.supplyVoltage * p.supplyVoltage;
    if (c >= 0.0 || a == 0.0) return 0.0;
    return -c / (b + std::sqrt(b * b - a * c));
}

double leastPeakCurrent(const StepperParams& p, double torque, double speed) {
    const double iq = torque / torqueConstant(p);
    const VoltageDisc disc = voltageDisc(p, speed);
    const double up = iq - disc.q;
    if (up > disc.radius) return std::numeric_limits<double>::infinity();
    // Of all id that the voltage allows with this iq, the one nearest to zero.
    const double half = std::sqrt(std::max(0.0, disc.radius * disc.radius - up * up));
    const double id = std::min(0.0, disc.d + half);
    return std::hypot(id, iq);
}

} // namespace gantry::motor
