// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/parts/identify.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry::parts {
namespace {

using std::numbers::pi;

void takeWarmTest(const WarmTest& test, MotorBody& body, Estimate& ratedCurrent) {
    const WarmResult warm = evaluateWarmTest(test);
    if (warm.thermalResistance.value <= 0.0) return;
    body.thermalResistance = warm.thermalResistance;
    ratedCurrent = warm.ratedCurrent;
}

} // namespace

WarmResult evaluateWarmTest(const WarmTest& t) {
    WarmResult out;
    double products = 0.0, squares = 0.0, last = 0.0;
    int counted = 0;
    for (const WarmReading& r : t.readings) {
        last = std::max(last, r.current);
        out.stop = out.stop || r.caseTemperature >= t.limit;
        const double watts = t.windings * r.current * r.current * t.resistance;
        const double rise = r.caseTemperature - t.air;
        if (watts <= 0.0 || rise <= 0.0) continue;
        products += rise * watts;
        squares += watts * watts;
        ++counted;
    }
    const double room = t.limit - t.air;
    if (counted > 0 && room > 0.0) {
        // One reading tells less than several that agree.
        const double tolerance = counted > 1 ? 0.15 : 0.25;
        out.thermalResistance = {products / squares, Source::Measured, tolerance};
        // Current goes with the root of the heat, so half the tolerance.
        out.ratedCurrent = {std::sqrt(room / (t.windings * t.resistance * out.thermalResistance.value)),
                            Source::Measured, tolerance / 2.0};
    }
    if (out.stop) return out;
    // Small steps; never one that the readings so far take beyond the limit.
    out.nextCurrent = last > 0.0 ? 1.25 * last : 0.1;
    if (out.ratedCurrent.value > 0.0) {
        if (last >= 0.95 * out.ratedCurrent.value) out.stop = true;
        out.nextCurrent = out.stop ? 0.0 : std::min(out.nextCurrent, out.ratedCurrent.value);
    }
    return out;
}

IdentifiedStepper identify(const StepperReadings& r) {
    IdentifiedStepper out;
    StepperLabel size = r.size;
    const double rotorTurns = static_cast<double>(r.gearTurnsIn) / r.gearTurnsOut;
    const double steps = r.stepsPerTurn > 0 ? r.stepsPerTurn / rotorTurns : 2.0 * pi / size.stepAngle;
    size.stepAngle = 2.0 * pi / steps;
    Stepper s = stepperFromLabel(size);
    s.name = "Identified on the bench";
    s.winding = r.leads == 5 ? Winding::Unipolar : Winding::Bipolar;
    if (steps < 100.0) {
        s.holdingTorque.value *= 0.4;
        s.holdingTorque.tolerance = 0.5;
        s.detentTorque.value = 0.1 * s.holdingTorque.value; // magnets on the rotor hold more of it
    }
    if (r.resistance > 0.0) {
        s.resistance = estimate(r.resistance, Source::Measured);
        s.inductance.value = r.resistance * 0.0019 * size.frame / 0.042;
    }
    WarmTest warm = r.warm;
    warm.resistance = r.resistance;
    takeWarmTest(warm, s.body, s.ratedCurrent);
    if (r.pull > 0.0 && r.pullArm > 0.0 && r.pullCurrent > 0.0) {
        const double torque = r.pull * r.pullArm / rotorTurns;
        if (s.ratedCurrent.value <= 0.0) s.ratedCurrent = {r.pullCurrent, Source::Measured, 0.05};
        // Torque goes with current up to there.
        s.holdingTorque = {torque * s.ratedCurrent.value / r.pullCurrent, Source::Measured,
                           r.gearTurnsIn == r.gearTurnsOut ? 0.1 : 0.3};
    }
    out.motor = s;
    if (r.gearTurnsIn != r.gearTurnsOut) {
        ReducerStage box;
        box.numerator = r.gearTurnsIn;
        box.denominator = r.gearTurnsOut;
        box.figures.efficiency = {0.65, Source::Guess, 0.4};
        box.figures.backlash = {0.03, Source::Guess, 0.5};
        out.gearbox = box;
    }
    return out;
}

std::optional<GearedDc> identify(const DcReadings& r) {
    if (r.voltage <= 0.0 || r.turns <= 0.0 || r.time <= 0.0 || r.resistance <= 0.0) return std::nullopt;
    const double stall = r.voltage / r.resistance;
    if (r.freeCurrent < 0.0 || r.freeCurrent >= stall) return std::nullopt;
    const bool geared = r.gearTurnsIn != r.gearTurnsOut;
    GearedDc m;
    m.name = "Identified on the bench";
    m.gearNumerator = r.gearTurnsIn;
    m.gearDenominator = r.gearTurnsOut;
    DcFigures& f = m.figures;
    f.nominalVoltage = {r.voltage, Source::Measured, 0.01};
    f.noLoadSpeed = {2.0 * pi * r.turns / r.time, Source::Measured, 0.02};
    f.noLoadCurrent = {r.freeCurrent, Source::Measured, 0.05};
    f.stallCurrent = {stall, Source::Measured, 0.1};
    const double constant = (r.voltage - r.freeCurrent * r.resistance) / f.noLoadSpeed.value;
    const double efficiency = geared ? 0.65 : 1.0;
    f.stallTorque = {constant * efficiency * (stall - r.freeCurrent), Source::Guess, geared ? 0.4 : 0.15};
    if (r.stallPull > 0.0 && r.stallArm > 0.0 && r.stallVoltage > 0.0)
        // Stall torque goes with voltage, less what friction keeps.
        f.stallTorque = {r.stallPull * r.stallArm * (stall - r.freeCurrent) /
                             std::max(r.stallVoltage / r.resistance - r.freeCurrent, 0.05 * stall),
                         Source::Measured, 0.15};
    Estimate rated{0.2 * stall, Source::Guess, 0.4};
    WarmTest warm = r.warm;
    warm.resistance = r.resistance;
    warm.windings = 1;
    takeWarmTest(warm, m.body, rated);
    const double share = std::clamp((rated.value - r.freeCurrent) / (stall - r.freeCurrent), 0.02, 1.0);
    f.ratedTorque = {share * f.stallTorque.value, rated.source,
                     std::hypot(rated.tolerance, f.stallTorque.tolerance)};
    if (r.frame > 0.0 && r.length > 0.0) {
        m.body.mass = {4500.0 * pi / 4.0 * r.frame * r.frame * r.length, Source::Guess, 0.25};
        m.body.length = r.length;
        // A wound rotor of half the can's diameter and two thirds of its length, steel and copper.
        m.rotorInertia = {0.5 * pi * 7500.0 * std::pow(0.25 * r.frame, 4) * r.length * 2.0 / 3.0,
                          Source::Guess, 0.5};
    }
    if (!geared) m.gearboxBacklash = {0.0, Source::Measured, 0.0};
    return m;
}

} // namespace gantry::parts
