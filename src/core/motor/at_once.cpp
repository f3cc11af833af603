// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motor/at_once.h"

#include "core/solve/root.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry::motor {
namespace {

/// Resistance and constant of the straight line that a brushed motor follows: torque falls from stall to
/// nothing at its free speed, the no-load losses in it.
struct Line {
    double stallTorque = 0.0, freeSpeed = 0.0;
    double slope() const { return freeSpeed / stallTorque; } ///< [rad/s per N·m] R/k²
};

Line lineOf(const DcParams& p) {
    return {std::max(motor::stallTorque(p), 1e-300), noLoadSpeed(p)};
}

} // namespace

SwitchedOn switchedOn(const DcParams& p, double inertia, double torque) {
    SwitchedOn out;
    out.timeConstant = inertia * lineOf(p).slope();
    out.finalSpeed = speedUnder(p, torque);
    out.peakCurrent = stallCurrent(p);
    out.supplyDrop = p.duty * out.peakCurrent * p.sourceResistance;
    return out;
}

std::optional<SwitchedOff> switchedOff(const DcParams& p, double inertia, double torque, double speed,
                                       StopWay way) {
    if (way == StopWay::Open) {
        if (!(torque > 0.0)) return std::nullopt;
        const double time = inertia * speed / torque;
        return SwitchedOff{time, 0.5 * speed * time};
    }
    DcParams loop = p;
    if (way == StopWay::Shorted) loop.sourceResistance = 0.0; // the source is not in the loop
    const Line line = lineOf(loop);
    // The no-load losses brake too; they stand in the line's torque.
    const double losses = torqueConstant(p) * p.noLoadCurrent;
    const double stall = way == StopWay::Reversed ? line.stallTorque + losses : 0.0;
    const double a = (stall + torque + losses) * line.slope(), constant = inertia * line.slope();
    if (!(a > 0.0)) return std::nullopt;
    const double time = constant * std::log1p(speed / a);
    return SwitchedOff{time, speed * constant - a * time};
}

double startDuty(const DcParams& p, double torque, double inductance, double frequency, double diode) {
    const double current = torque / torqueConstant(p) + p.noLoadCurrent,
                 resistance = p.nominalVoltage / p.stallCurrent, needed = current * resistance;
    if (!(needed < p.voltage)) return needed / p.voltage;
    const double period = 1.0 / frequency, electric = inductance / resistance;
    const auto mean = [&](double duty) {
        if (!(electric > 0.0)) return duty * p.voltage;
        // With the switch off the current dies away towards −diode/R, and stops at nothing.
        const double on = std::exp(-duty * period / electric),
                     off = std::exp(-(1.0 - duty) * period / electric);
        const double continuousLow = (p.voltage * (1.0 - on) * off - diode * (1.0 - off)) / (1.0 - on * off);
        if (continuousLow >= 0.0) return duty * p.voltage - (1.0 - duty) * diode;
        const double tail = electric * std::log1p(p.voltage * (1.0 - on) / diode);
        return duty * p.voltage - tail / period * diode;
    };
    return solve::rootBetween([&](double duty) { return mean(duty) - needed; }, 0.0, 1.0).value_or(1.0);
}

double catchSpeed(int rotorTeeth, double amplitude, double friction, double inertia) {
    if (!(friction < amplitude)) return 0.0;
    const double lag = std::asin(friction / amplitude);
    const double energy =
        (2.0 * amplitude * std::cos(lag) - friction * (std::numbers::pi - 2.0 * lag)) / rotorTeeth;
    return std::sqrt(2.0 * std::max(0.0, energy) / inertia);
}

} // namespace gantry::motor
