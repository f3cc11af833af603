// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/drive_model.h"

#include "core/evaluate/motor_view.h"
#include "core/evaluate/output_view.h"
#include "core/evaluate/stage_view.h"
#include "core/motor/stepper_motion.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>

namespace gantry {
namespace {

using drivetrain::Ratio;

std::optional<Ratio> product(const std::optional<Ratio>& a, const std::optional<Ratio>& b) {
    return a && b ? a->times(*b) : std::nullopt;
}

/// Commands for one turn of the motor, exactly.
std::optional<Ratio> commandsPerTurn(const DriveModel& m, const Axis& axis) {
    if (const auto* stepper = std::get_if<Stepper>(&axis.motor))
        return Ratio::of(std::llround(4.0 * stepper->rotorTeeth * (m.fullStepAngle / m.commandAngle)), 1);
    const auto ofLoop = [](const PositionLoop& loop) -> std::optional<Ratio> {
        return product(Ratio::of(loop.countsPerTurn, 1),
                       Ratio::of(loop.gear.denominator, loop.gear.numerator));
    };
    if (const auto* servo = std::get_if<ServoMotor>(&axis.motor)) return ofLoop(servo->loop);
    if (const auto* servo = std::get_if<DcServo>(&axis.motor)) return ofLoop(servo->loop);
    return std::nullopt;
}

/// Axes with pulses that move in the same shot as this one, itself among them, at most.
int axesAtOnce(const Project& project, const Axis& axis) {
    int most = 1;
    for (const Shot& shot : project.shots) {
        if (findMovement(shot, axis.id) == nullptr) continue;
        int moving = 0;
        for (const Axis& other : project.axes)
            moving += findMovement(shot, other.id) != nullptr &&
                      !std::holds_alternative<GearedDc>(other.motor) &&
                      !std::holds_alternative<HobbyServo>(other.motor);
        most = std::max(most, moving);
    }
    return most;
}

} // namespace

double DriveModel::availableAtLowVoltage(double motorSpeed) const {
    return motors * motor::peakTorque(motor::atVoltage(curve, lowVoltage), motorSpeed);
}

double DriveModel::lag(double torque, double motorSpeed) const {
    if (const motor::StepperParams* p = stepper())
        return motor::rotorLag(p->rotorTeeth, motors * torqueAmplitude, torque);
    return followDelay * motorSpeed + followCompliance * torque / motors;
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
    // Torque only falls with speed and the need only grows with it, so the ramp's end binds;
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
    m.pulseCeiling =
        project.controller.pulseCeiling / (project.controller.pulsesShared ? axesAtOnce(project, axis) : 1);
    fillMotor(m, project, axis);

    Series series;
    m.chain.stages.reserve(axis.links.size() + 1);
    m.exactRatio = Ratio{};
    std::vector<StageView> views;
    views.reserve(axis.links.size());
    for (const Link& link : axis.links) {
        views.push_back(stageView(link));
        m.chain.stages.push_back(views.back().stage);
        m.exactRatio = product(m.exactRatio, views.back().ratio);
        m.shaftRatio *= views.back().stage.ratio;
    }
    const std::optional<Ratio> perTurn = addOutput(m, series, project, axis);
    if (m.motors > 1) { // each motor comes with its own links
        m.chain.motorInertia *= m.motors;
        for (std::size_t i = 0; i < views.size(); ++i) m.chain.stages[i].inputInertia *= m.motors;
    }
    // A jerk that the controller cannot keep to limits nothing.
    if (project.controller.ramps != RampKind::SCurve) m.settings.jerk = 0.0;
    if (m.pulses)
        if (const std::optional<Ratio> steps = product(m.exactRatio, commandsPerTurn(m, axis));
            steps && perTurn)
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
    if (const auto* geared = std::get_if<GearedDc>(&axis.motor))
        series.backlash += geared->gearboxBacklash.value / behind;
    m.outputStiffness =
        series.compliance > 0.0 ? 1.0 / series.compliance : std::numeric_limits<double>::infinity();
    m.backlash = series.backlash;
    // Measured, or the load on the drive's own spring with the motor held.
    if (const double measured = axis.vibration.frequency.value; measured > 0.0)
        m.mode = motion::Mode{measured, axis.vibration.damping.value};
    else if (std::isfinite(m.outputStiffness) && m.chain.load.inertia > 0.0)
        m.mode = motion::Mode{std::sqrt(m.outputStiffness / m.chain.load.inertia) / (2.0 * std::numbers::pi),
                              axis.vibration.damping.value};
    return m;
}

} // namespace gantry
