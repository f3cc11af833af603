// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/drive/make_drive.h"

#include "core/evaluate/drive/motor_view.h"
#include "core/evaluate/drive/output_view.h"
#include "core/evaluate/drive/stage_view.h"

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

} // namespace

DriveModel makeDriveModel(const RigSetup& rig, std::size_t index) {
    const Axis& axis = rig.axes[index];
    const AxisMasses& masses = rig.masses[index];
    DriveModel m;
    m.kind = kindOf(axis);
    m.wantedMargin = axis.wantedMargin;
    m.travel = usableTravel(axis);
    m.pulseCeiling = rig.controller.pulseCeiling / (rig.controller.pulsesShared ? masses.pulsedAtOnce : 1);
    fillMotor(m, rig.supply, axis, rig.conditions.ambient);

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
    const std::optional<Ratio> perTurn = addOutput(m, series, axis, masses, rig.conditions.windSpeed);
    if (m.motors > 1) { // each motor comes with its own links
        m.chain.motorInertia *= m.motors;
        for (std::size_t i = 0; i < views.size(); ++i) m.chain.stages[i].inputInertia *= m.motors;
    }
    m.settings = keptLimits(axis, rig.controller.ramps);
    m.atOnce = startsAtOnce(axis, rig.controller.ramps);
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
    // Measured, or the load on the drive's own spring and the motor's field.
    if (const double measured = axis.vibration.frequency.value; measured > 0.0)
        m.mode = motion::Mode{measured, axis.vibration.damping.value};
    else if (std::isfinite(m.outputStiffness) && m.chain.load.inertia > 0.0)
        m.mode =
            motion::Mode{std::sqrt(m.stiffnessWithField() / m.chain.load.inertia) / (2.0 * std::numbers::pi),
                         axis.vibration.damping.value};
    return m;
}

} // namespace gantry
