// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/simulation_view.h"
#include "core/model/overload.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

using namespace simulation;
using std::numbers::pi;
constexpr double stiffestFrequency = 400.0; // [Hz]

MechanismParams mechanismOf(const DriveModel& m, const Axis& axis) {
    const bool measuredMode = axis.vibration.frequency.value > 0.0;
    MechanismParams out;
    double forward = 1.0, back = 1.0, turns = 1.0, motorInertia = m.chain.motorInertia;
    for (const drivetrain::Stage& s : m.chain.stages) {
        forward *= s.efficiency;
        back *= std::max(0.0, s.backEfficiency);
        motorInertia += s.inputInertia / (turns * turns);
        turns *= s.ratio;
    }
    out.motorInertia = std::max(motorInertia, 1e-9);
    out.outputPerRad = m.outputPerRad;
    out.efficiency = forward;
    out.backEfficiency = back;
    out.loadInertia = std::max(m.chain.load.inertia, 1e-9);
    out.steady = m.chain.load.steady;
    out.coulomb = m.chain.load.coulomb;
    out.staticFriction = std::max(m.staticFriction, m.chain.load.coulomb);
    out.viscous = m.chain.load.viscous;
    out.backlash = m.backlash;
    const double motorAtOutput = out.motorInertia / (m.outputPerRad * m.outputPerRad);
    const double both = 1.0 / (1.0 / motorAtOutput + 1.0 / out.loadInertia);
    const double w = 2.0 * pi * stiffestFrequency;
    out.stiffness = std::min(m.outputStiffness, both * w * w);
    // A spring of the drive swings its load as much damped as the axis is; one that stands for a rigid drive
    // only has to keep quiet.
    out.damping = out.stiffness < both * w * w
                      ? 2.0 * axis.vibration.damping.value * std::sqrt(out.stiffness * out.loadInertia)
                      : 2.0 * 0.03 * std::sqrt(out.stiffness * both);
    // A mode that is only the drive's own spring is simulated as that spring.
    if (m.mode && measuredMode) {
        out.modeFrequency = m.mode->frequency;
        out.modeDamping = m.mode->damping;
    }
    return out;
}

/// Position bandwidth [Hz] that a loop on the motor's encoder can have. Above the drive's resonance the motor
/// sees its own inertia alone, so the speed loop's gain is bounded by that and by the loop's dead time (0.3
/// ms).
double reachableBandwidth(const MechanismParams& m, double inertia) {
    constexpr double crossover = 1000.0; // [rad/s], about a third of what the dead time takes
    const double load = std::max(inertia - m.motorInertia, 1e-12);
    const double resonance =
        std::sqrt(m.stiffness * m.outputPerRad * m.outputPerRad * (1.0 / m.motorInertia + 1.0 / load));
    if (resonance > 2.0 * crossover) return 1e9;
    return crossover * m.motorInertia / (4.0 * 2.0 * pi * inertia);
}

/// The time that a profile may take to be simulated.
double longestOf(const motion::Profile& profile, double commandStep) {
    return commandStep > 0.0 ? std::min(longestSimulated, mostPulses * commandStep / profile.peakSpeed)
                             : longestSimulated;
}

/// A motor that comes to its place by a loop, as fast as its mechanism allows.
ServoDriveParams loopDrive(const PositionLoop& loop, const DriveModel& m, const MechanismParams& mechanism,
                           double inertia) {
    ServoDriveParams d;
    d.curve = m.curve;
    d.inertia = inertia;
    d.bandwidth = std::min(loop.bandwidth.value, reachableBandwidth(mechanism, inertia));
    d.feedforward = loop.feedforward.value;
    d.countAngle = 2.0 * pi / loop.countsPerTurn;
    d.motors = m.motors;
    return d;
}

StepperDriveParams stepperDrive(const Stepper& stepper, const Driver& driver, const DriveModel& m) {
    const motor::StepperParams& p = *m.stepper();
    StepperDriveParams d;
    d.rotorTeeth = p.rotorTeeth;
    d.torqueConstant = motor::torqueConstant(p);
    d.resistance = p.resistance;
    d.inductance = p.inductance;
    d.supplyVoltage = p.supplyVoltage;
    d.peakCurrent = p.peakCurrent;
    d.holdShare = m.torqueAmplitude > 0.0 ? m.holdAmplitude / m.torqueAmplitude : 1.0;
    d.idleDelay = driver.idleDelay;
    d.detentTorque = m.detentTorque;
    d.microsteps = std::max(1, static_cast<int>(std::lround(m.fullStepAngle / m.commandAngle)));
    d.motors = m.motors;
    if (stepper.winding == Winding::Unipolar) d.holdShare = 1.0;
    return d;
}

using Drive = decltype(AxisSimulation::drive);

Drive driveOf(const Motor& motor, const Driver& driver, const DriveModel& m, const MechanismParams& mechanism,
              double inertia) {
    return std::visit(
        overload{[&](const Stepper& s) -> Drive { return stepperDrive(s, driver, m); },
                 [&](const ServoMotor& s) -> Drive { return loopDrive(s.loop, m, mechanism, inertia); },
                 [&](const DcServo& s) -> Drive { return loopDrive(s.loop, m, mechanism, inertia); },
                 [&](const GearedDc&) -> Drive {
                     return KnobDriveParams{*m.dc(), static_cast<double>(m.motors)};
                 },
                 [&](const HobbyServo& s) -> Drive {
                     return HobbyDriveParams{*m.dc(),
                                             s.updateRate,
                                             std::max(1e-9, m.commandAngle),
                                             m.jumpAngle,
                                             s.fullTorqueError.value,
                                             static_cast<double>(m.motors)};
                 }},
        motor);
}

} // namespace

Reason simulationProblem(const AxisEvaluation& e, const ShotEvaluation& shot) {
    if (e.model.missing != Reason::None) return e.model.missing;
    if (shot.problem != Reason::None) return shot.problem;
    const motion::Profile& p = shot.profile;
    if (!(p.distance > 0.0) || !(p.peakSpeed > 0.0)) return Reason::NoDistance;
    const double step = e.model.pulses ? e.model.microstep() : 0.0;
    if (!(p.in.time() + p.out.time() <= longestOf(p, step))) return Reason::TooLongToSimulate;
    return Reason::None;
}

std::optional<AxisSimulation> simulationOf(const Axis& axis, const AxisEvaluation& e,
                                           const ShotEvaluation& shot) {
    const DriveModel& m = e.model;
    if (simulationProblem(e, shot) != Reason::None) return std::nullopt;
    AxisSimulation s;
    s.mechanism = mechanismOf(m, axis);
    s.profile = shot.profile;
    s.commandStep = m.pulses ? m.microstep() : 0.0;
    s.pulseCeiling = m.pulseCeiling;
    s.leftOut = std::clamp(s.profile.time() - longestOf(s.profile, s.commandStep), 0.0, s.profile.cruiseTime);
    s.profile.cruiseTime -= s.leftOut;
    s.profile.distance -= s.leftOut * s.profile.peakSpeed;
    s.tail = m.mode && m.mode->damping > 0.0
                 ? std::clamp(3.0 / (m.mode->damping * 2.0 * pi * m.mode->frequency), 0.3, 6.0)
                 : 1.0;
    s.drive = driveOf(axis.motor, axis.driver, m, s.mechanism, e.inertiaAtMotor.valueOr(0.0));
    if (const auto* stepper = std::get_if<Stepper>(&axis.motor))
        s.mechanism.motorDamping =
            2.0 * stepper->rotorDamping.value *
            std::sqrt(m.stepper()->rotorTeeth * m.motors * m.torqueAmplitude * m.chain.motorInertia);
    return s;
}

Lag lagOf(const simulation::AxisSimulation& input, const simulation::SimulationResult& result) {
    Lag out{result.peakLag, std::nullopt, std::holds_alternative<StepperDriveParams>(input.drive)};
    const double speed = input.profile.at(result.peakLagAt).speed;
    // Near the ends, where hardly anything moves, a lag in time means nothing.
    if (speed > 0.1 * input.profile.peakSpeed) out.time = result.peakLag / speed;
    return out;
}

StallCause stallCause(const AxisEvaluation& e, const AxisSimulation& in, const SimulationResult& r) {
    if (r.lostFullSteps == 0 || r.lostAt < 0.0) return StallCause::None;
    if (in.fault.kind != FaultKind::None &&
        (in.fault.kind == FaultKind::EndStop || r.lostAt >= in.fault.time))
        return StallCause::Fault;
    const bool inBand = e.resonance.low && e.resonance.high && r.lostSpeed >= e.resonance.low.value() &&
                        r.lostSpeed <= e.resonance.high.value();
    return inBand ? StallCause::Resonance : StallCause::Torque;
}

} // namespace gantry
