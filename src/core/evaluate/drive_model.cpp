// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/drive_model.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace gantry {
namespace {

using drivetrain::Ratio;
using drivetrain::Stage;
constexpr double pi = std::numbers::pi;

struct StageView {
    Stage stage;
    std::optional<Ratio> ratio;
    double stiffness = 0.0; ///< [N·m/rad] at the stage's output, 0 not given
    double backlash = 0.0;  ///< [rad] at the stage's output
};

StageView viewOf(const Coupling& c) {
    return {{1.0, 1.0, 1.0, c.inertia.value}, Ratio{}, c.stiffness.value, 0.0};
}

template <class S>
StageView toothedStage(const S& s) {
    const double efficiency = s.efficiency.value;
    return {{static_cast<double>(s.loadTeeth) / s.motorTeeth, efficiency,
             drivetrain::backEfficiencyOf(efficiency), s.inertia.value},
            Ratio::of(s.loadTeeth, s.motorTeeth),
            s.stiffness.value,
            s.backlash.value};
}
StageView viewOf(const BeltStage& s) {
    return toothedStage(s);
}
StageView viewOf(const GearStage& s) {
    return toothedStage(s);
}

std::optional<Ratio> product(const std::optional<Ratio>& a, const std::optional<Ratio>& b) {
    return a && b ? a->times(*b) : std::nullopt;
}

/// Springs and plays in series, all brought to the output.
struct Series {
    double compliance = 0.0; ///< [U/N] or [rad/(N·m)]
    double backlash = 0.0;   ///< [U]

    void addSpring(double stiffness) {
        if (stiffness > 0.0) compliance += 1.0 / stiffness;
    }
};

void fillMotor(DriveModel& m, const Project& project, const Axis& axis, const Stepper& stepper) {
    const auto given = [&](const Estimate& e, Reason reason) {
        if (e.value > 0.0) return e.value;
        if (m.missing == Reason::None) m.missing = reason;
        return std::numeric_limits<double>::quiet_NaN();
    };
    const Driver& driver = axis.driver;
    motor::StepperParams& p = m.stepper;
    p.rotorTeeth = stepper.rotorTeeth;
    p.holdingTorque = given(stepper.holdingTorque, Reason::NeedsHoldingTorque);
    p.ratedCurrentRms = given(stepper.ratedCurrent, Reason::NeedsRatedCurrent);
    p.resistance = given(stepper.resistance, Reason::NeedsResistance) + driver.bridgeResistance.value +
                   project.supply.sourceResistance.value;
    p.inductance = given(stepper.inductance, Reason::NeedsInductance);
    p.supplyVoltage = project.supply.voltage.value;
    p.peakCurrent = driver.runCurrent * std::numbers::sqrt2;
    m.lowVoltage = project.supply.lowVoltage.value;
    m.torqueAmplitude = motor::torqueConstant(p) * p.peakCurrent;
    m.holdAmplitude = motor::torqueConstant(p) * driver.holdCurrent * std::numbers::sqrt2;
    m.detentTorque = stepper.detentTorque.value;
    m.stepAccuracy = stepper.stepAccuracy.value;
    m.fullStepAngle = pi / (2.0 * stepper.rotorTeeth);
    m.microsteps = driver.microsteps;
    m.chain.motorInertia = stepper.rotorInertia.value;
}

/// Adds what lies behind the last shaft; returns the travel of one turn of it, exactly: [mm] or [°].
std::optional<Ratio> addOutput(DriveModel& m, const LinearMechanism& linear, Series& series) {
    const BeltOutput& belt = linear.output;
    const double radius = belt.teeth * belt.pitch.value / (2.0 * pi);
    const double efficiency = belt.efficiency.value;
    m.chain.stages.push_back(
        {1.0 / radius, efficiency, drivetrain::backEfficiencyOf(efficiency), belt.pulleyInertia.value});
    m.chain.load = {linear.movingMass.value,
                    linear.movingMass.value * standardGravity * std::sin(linear.slope.value),
                    linear.runningFriction.value, 0.0};
    m.staticFriction = std::max(linear.staticFriction.value, linear.runningFriction.value);
    // Open-ended belt EA(1/L1 + 1/L2) at mid travel, where it is softest.
    series.addSpring(4.0 * belt.tensileStiffness.value / linear.railLength);
    series.addSpring(linear.frameStiffness.value);
    series.backlash += belt.backlash.value;
    m.settings = {linear.motion.maxSpeed, linear.motion.maxAcceleration, linear.motion.jerk};
    const std::optional<Ratio> pitch = drivetrain::exactMetres(belt.pitch.value);
    const std::optional<Ratio> teeth = Ratio::of(belt.teeth, 1);
    return product(product(pitch, teeth), Ratio::of(1000, 1));
}

std::optional<Ratio> addOutput(DriveModel& m, const RotaryMechanism& rotary, Series& series) {
    if (const auto* ring = std::get_if<RingOutput>(&rotary.output)) {
        const double efficiency = ring->efficiency.value;
        m.chain.stages.push_back({static_cast<double>(ring->ringTeeth) / ring->pinionTeeth, efficiency,
                                  drivetrain::backEfficiencyOf(efficiency), 0.0});
        m.exactRatio = product(m.exactRatio, Ratio::of(ring->ringTeeth, ring->pinionTeeth));
        series.backlash += ring->backlash.value;
        series.addSpring(ring->stiffness.value);
    } else {
        series.addSpring(std::get<DirectOutput>(rotary.output).stiffness.value);
    }
    m.chain.load = {rotary.inertia.value + rotary.pointMass.value * rotary.pointRadius * rotary.pointRadius,
                    rotary.unbalance.value, rotary.friction.value, 0.0};
    m.staticFriction = std::max(rotary.staticFriction.value, rotary.friction.value);
    m.settings = {rotary.motion.maxSpeed, rotary.motion.maxAcceleration, rotary.motion.jerk};
    return Ratio::of(360, 1);
}

} // namespace

double DriveModel::availableAtLowVoltage(double motorSpeed) const {
    motor::StepperParams low = stepper;
    low.supplyVoltage = lowVoltage;
    return motor::pullOutTorque(low, motorSpeed);
}

double DriveModel::rampTorque(double speed, double acceleration) const {
    return drivetrain::worstTorque(chain, speed / outputPerRad, acceleration / outputPerRad);
}

double DriveModel::breakawayTorque() const {
    // The recursion again, with static in place of running friction; cheap enough to build a copy of the load
    // only.
    drivetrain::Chain still = chain;
    still.load.coulomb = staticFriction;
    return drivetrain::worstTorque(still, 0.0, 0.0);
}

double DriveModel::margin(double speed, double acceleration) const {
    const double ramp = available(speed / outputPerRad) / rampTorque(speed, acceleration);
    const double start = available(0.0) / breakawayTorque();
    return std::min(ramp, start);
}

double DriveModel::largestAcceleration(double speed) const {
    // Pull-out torque only falls with speed and the need only grows with it, so the ramp's end binds;
    // break-away binds at its start, before any acceleration.
    if (available(0.0) < wantedMargin * breakawayTorque()) return 0.0;
    const double motorSpeed = speed / outputPerRad;
    return drivetrain::largestAcceleration(chain, motorSpeed, available(motorSpeed) / wantedMargin) *
           outputPerRad;
}

DriveModel makeDriveModel(const Project& project, const Axis& axis) {
    DriveModel m;
    m.kind = kindOf(axis);
    m.wantedMargin = axis.wantedMargin;
    m.travel = usableTravel(axis);
    std::visit([&](const auto& motor) { fillMotor(m, project, axis, motor); }, axis.motor);

    Series series;
    m.chain.stages.reserve(axis.links.size() + 1);
    m.exactRatio = Ratio{};
    std::vector<StageView> views;
    views.reserve(axis.links.size());
    for (const Link& link : axis.links) {
        views.push_back(std::visit([](const auto& l) { return viewOf(l); }, link));
        m.chain.stages.push_back(views.back().stage);
        m.exactRatio = product(m.exactRatio, views.back().ratio);
    }
    const std::optional<Ratio> perTurn =
        std::visit([&](const auto& mechanism) { return addOutput(m, mechanism, series); }, axis.mechanism);
    // A jerk that the controller cannot keep to limits nothing.
    if (project.controller.ramps != RampKind::SCurve) m.settings.jerk = 0.0;
    const std::optional<Ratio> stepsPerTurn = Ratio::of(4LL * m.stepper.rotorTeeth * m.microsteps, 1);
    if (const std::optional<Ratio> steps = product(m.exactRatio, stepsPerTurn); steps && perTurn)
        m.exactStepsPerUnit = steps->dividedBy(*perTurn);
    m.outputPerRad = 1.0 / drivetrain::totalRatio(m.chain);

    // A stage's spring and play reach the output through the ratio of everything behind it.
    double behind = 1.0; // turns of the stage's output per output unit
    for (std::size_t i = m.chain.stages.size(); i-- > 0;) {
        if (i < views.size()) {
            series.addSpring(views[i].stiffness * behind * behind);
            series.backlash += views[i].backlash / behind;
        }
        behind *= m.chain.stages[i].ratio;
    }
    m.outputStiffness =
        series.compliance > 0.0 ? 1.0 / series.compliance : std::numeric_limits<double>::infinity();
    m.backlash = series.backlash;
    return m;
}

} // namespace gantry
