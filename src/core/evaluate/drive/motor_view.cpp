// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/drive/motor_view.h"

#include "core/criteria/criteria.h"
#include "core/evaluate/supply/resistance.h"
#include "core/motor/hobby_servo.h"
#include "core/motor/hot_copper.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace gantry {
namespace {

using std::numbers::pi;

/// The axis' surroundings, as its motor feels them.
struct Surroundings {
    const Supply& supply;
    const Driver& driver;
    double ambient = 25.0; ///< [°C]
};

void fill(DriveModel& m, const Surroundings& around, const Stepper& stepper) {
    const auto& [supply, driver, ambient] = around;
    const auto given = [&](const Estimate& e, Reason reason) {
        if (e.value > 0.0) return e.value;
        if (m.missing == Reason::None) m.missing = reason;
        return std::numeric_limits<double>::quiet_NaN();
    };
    motor::StepperParams p;
    p.rotorTeeth = stepper.rotorTeeth;
    p.holdingTorque = given(stepper.holdingTorque, Reason::NeedsHoldingTorque);
    p.ratedCurrentRms = given(stepper.ratedCurrent, Reason::NeedsRatedCurrent);
    const double cold = given(stepper.resistance, Reason::NeedsResistance),
                 before = driver.bridgeResistance.value + supplyResistance(supply);
    p.inductance = given(stepper.inductance, Reason::NeedsInductance);
    p.supplyVoltage = supply.voltage.value;
    p.peakCurrent = driver.runCurrent * std::numbers::sqrt2;
    const bool switched = stepper.winding == Winding::Unipolar;
    // Torque is asked for after hours too, when the copper is hot.
    p.resistance =
        before + motor::hotResistance(cold, {switched ? 0.0 : p.peakCurrent, p.supplyVoltage, before},
                                      ambient, stepper.body.thermalResistance.value, criteria::windingLimit);
    int microsteps = driver.microsteps;
    if (switched) {
        // Switched straight to the supply: the winding's resistance sets the current, two phases on at once,
        // and only whole or half steps can be made.
        p.peakCurrent = std::numbers::sqrt2 * p.supplyVoltage / p.resistance;
        microsteps = std::min(microsteps, 2);
    }
    m.torqueAmplitude = motor::torqueConstant(p) * p.peakCurrent;
    m.holdAmplitude =
        switched ? m.torqueAmplitude : motor::torqueConstant(p) * driver.holdCurrent * std::numbers::sqrt2;
    m.detentTorque = stepper.detentTorque.value;
    m.fullStepAngle = pi / (2.0 * stepper.rotorTeeth);
    m.angleError = stepper.stepAccuracy.value * m.fullStepAngle;
    m.commandAngle = m.jumpAngle = m.fullStepAngle / microsteps;
    m.chain.motorInertia = stepper.rotorInertia.value;
    m.curve = p;
}

void fillLoop(DriveModel& m, const PositionLoop& loop) {
    const double count = 2.0 * pi / loop.countsPerTurn;
    m.commandAngle = count * loop.gear.numerator / loop.gear.denominator;
    m.jumpAngle = std::max(m.commandAngle, count);
    m.angleError = count;
    m.followDelay = (1.0 - loop.feedforward.value) / (2.0 * pi * loop.bandwidth.value);
}

void fill(DriveModel& m, const Surroundings& around, const ServoMotor& s) {
    fillLoop(m, s.loop);
    // What it gives for a moment is set by magnets and driver, what it gives for hours by the air around it.
    const double rated =
        s.ratedTorque.value * motor::ratingInAir(around.ambient, criteria::servoAir, criteria::windingLimit,
                                                 criteria::servoIronShare);
    m.curve = motor::ServoParams{rated,
                                 s.peakTorque.value,
                                 s.ratedSpeed.value,
                                 s.topSpeed.value,
                                 s.ratedVoltage.value,
                                 around.supply.voltage.value};
    m.holdAmplitude = rated;
    m.detentTorque = s.coggingTorque.value;
    m.chain.motorInertia = s.rotorInertia.value;
}

motor::DcParams dcParams(const DcFigures& f) {
    motor::DcParams p;
    p.nominalVoltage = f.nominalVoltage.value;
    p.noLoadSpeed = f.noLoadSpeed.value;
    // A label that gives no more at stall than when running free would mean a motor without torque.
    p.noLoadCurrent = std::min(f.noLoadCurrent.value, 0.9 * f.stallCurrent.value);
    p.stallCurrent = f.stallCurrent.value;
    p.stallTorque = f.stallTorque.value;
    p.ratedTorque = f.ratedTorque.value;
    return p;
}

void fill(DriveModel& m, const Surroundings& around, const DcServo& s) {
    const auto& [supply, driver, ambient] = around;
    fillLoop(m, s.loop);
    motor::DcParams p = dcParams(s.figures);
    p.voltage = supply.voltage.value;
    p.sourceResistance = supplyResistance(supply) + driver.bridgeResistance.value;
    p.currentLimit = driver.runCurrent;
    m.curve = p;
    m.holdAmplitude = motor::continuousTorque(p, 0.0);
    m.chain.motorInertia = s.rotorInertia.value;
}

/// Voltage [V] behind a linear regulator: the chosen one as long as the supply leaves it room.
double regulatedVoltage(const GearedDc& s, double volts) {
    return std::max(0.0, std::min(s.appliedVoltage, volts - s.regulatorDropout));
}

void fill(DriveModel& m, const Surroundings& around, const GearedDc& s) {
    const Supply& supply = around.supply;
    motor::DcParams p = dcParams(s.figures);
    p.sourceResistance = supplyResistance(supply);
    if (s.control == SpeedControl::Knob) {
        p.voltage = supply.voltage.value;
        p.duty = s.knob;
    } else if (s.control == SpeedControl::LinearRegulator) {
        p.voltage = regulatedVoltage(s, supply.voltage.value);
        p.sourceResistance = 0.0; // it holds its output
        m.regulated = true;
    } else {
        p.voltage = s.appliedVoltage;
    }
    m.curve = p;
    m.pulses = false;
    m.oneSpeed = s.control != SpeedControl::Knob;
    m.lowestSpeed = s.lowestSteady.value * motor::noLoadSpeed(p);
    const double n = static_cast<double>(s.gearNumerator) / s.gearDenominator;
    m.chain.motorInertia = s.rotorInertia.value * n * n;
}

void fill(DriveModel& m, const Surroundings&, const HobbyServo& s) {
    const motor::DcParams p = motor::hobbyServoMotor(s.ratedVoltage.value, s.supplyVoltage,
                                                     s.secondsPer60.value, s.stallTorque.value);
    const motor::ServoResolution r =
        motor::servoResolution(s.range, s.pulseSpan, s.pulseStep, s.deadBand.value);
    m.curve = p;
    m.pulses = false;
    m.commandAngle = r.step;
    m.jumpAngle = std::max(r.step, r.deadBand);
    m.angleError = r.worstError;
    m.followCompliance = s.fullTorqueError.value / s.stallTorque.value;
    m.holdAmplitude = motor::stallTorque(p);
    m.chain.motorInertia = s.outputInertia.value;
}

} // namespace

void fillMotor(DriveModel& m, const Supply& supply, const Axis& axis, double ambient) {
    m.lowVoltage = supply.lowVoltage.value;
    std::visit([&](const auto& motor) { fill(m, {supply, axis.driver, ambient}, motor); }, axis.motor);
    // A motor run from its own chosen voltage does not feel the supply sag.
    if (const auto* geared = std::get_if<GearedDc>(&axis.motor);
        geared && geared->control == SpeedControl::SupplyVoltage)
        m.lowVoltage = geared->appliedVoltage;
    else if (geared && m.regulated)
        m.lowVoltage = regulatedVoltage(*geared, m.lowVoltage);
    if (const auto* hobby = std::get_if<HobbyServo>(&axis.motor)) m.lowVoltage = hobby->supplyVoltage;
}

} // namespace gantry
