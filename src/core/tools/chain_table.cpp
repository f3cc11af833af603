// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/chain_table.h"
#include "core/model/kind_traits.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

using units::Kind;

Cell cell(double value, Kind kind) {
    return {Figure::of(value), kind};
}
Cell cell(const Figure& f, Kind kind) {
    return {f, kind};
}

/// Whether a linear axis pulls its load by something of its own length.
bool beltOrCord(const Axis& axis) {
    return outputTraits(axis).flexible;
}

/// The finest command, as an angle of a shaft that turns so many times slower than the motor.
Cell commandCell(const DriveModel& m, double turns) {
    return m.commandAngle > 0.0 ? cell(m.commandAngle / turns, Kind::Angle)
                                : Cell{Figure::none(Reason::NotApplicable), Kind::Angle};
}

/// Torque behind each stage, load to motor, at the ramp's worst corner: uphill or against friction and what
/// the axes below bring, speeding up.
std::vector<double> neededBehindStages(const DriveModel& m, double motorAcceleration, double carried) {
    drivetrain::Chain part = m.chain;
    std::vector<double> out(m.chain.stages.size());
    part.load.steady = std::abs(part.load.steady) + carried;
    double before = 1.0; // motor turns per turn of the shaft in hand
    for (std::size_t i = 0; i < m.chain.stages.size(); ++i) {
        before *= m.chain.stages[i].ratio;
        // The rest of the chain seen from behind stage i, with no motor of its own.
        drivetrain::Chain rest{
            0.0,
            {m.chain.stages.begin() + static_cast<std::ptrdiff_t>(i) + 1, m.chain.stages.end()},
            part.load};
        out[i] = drivetrain::motorTorque(rest, 0.0, motorAcceleration / before, 1);
    }
    return out;
}

} // namespace

std::vector<ChainColumn> chainColumns(const Axis& axis, const AxisEvaluation& e, const ShotEvaluation& s) {
    const DriveModel& m = e.model;
    const bool linear = m.kind == AxisKind::Linear;
    const Kind travel = linear ? Kind::Length : Kind::Angle,
               speedKind = linear ? Kind::Speed : Kind::AngularSpeed;
    const Kind force = linear ? Kind::Force : Kind::Torque;
    const double px = s.pixelsPerUnit;
    const double acceleration = s.motion.acceleration.valueOr(0.0) / m.outputPerRad; // at the motor
    std::vector<ChainColumn> out;
    out.reserve(m.chain.stages.size() + 5);

    ChainColumn driver;
    driver.part = ChainPart::Driver;
    // Pulses, or the knob where there are none.
    driver.speed = m.pulses ? cell(s.pulseRate, Kind::Frequency) : cell(s.knob.setting, Kind::Percentage);
    driver.needed = cell(s.torque.leastCurrent, Kind::Current);
    if (motorTraits(axis).currentSet) driver.available = cell(axis.driver.runCurrent, Kind::Current);
    if (m.pulses) driver.microstep = cell(1.0, Kind::Count);
    out.push_back(driver);

    ChainColumn motor;
    motor.part = ChainPart::Motor;
    motor.speed = cell(s.motion.motorSpeed, Kind::RotationRate);
    motor.needed = cell(s.torque.needed, Kind::Torque);
    motor.available = cell(s.torque.available, Kind::Torque);
    motor.inertia = cell(e.rotorInertia, Kind::Inertia);
    motor.microstep = commandCell(m, 1.0);
    motor.lag = cell(s.lag.angle, Kind::Angle);
    out.push_back(motor);

    // What is left of the motor's torque after its own rotor, then after each stage.
    // Never less than none: a motor past its speed pulls nothing, it does not push back.
    Figure available = greater(s.torque.available - m.chain.motorInertia * acceleration, 0.0);
    double turns = 1.0;
    const std::vector<double> needed = neededBehindStages(m, acceleration, s.carried.valueOr(0.0));
    for (std::size_t i = 0; i < m.chain.stages.size(); ++i) {
        const drivetrain::Stage& stage = m.chain.stages[i];
        const bool isLink = i < axis.links.size();
        if (linear && !isLink) { // the pulley sits on the shaft before the belt
            ChainColumn pulley;
            pulley.part = ChainPart::Output;
            pulley.speed = cell(s.motion.motorSpeed / turns, Kind::RotationRate);
            pulley.needed =
                cell(needed[i] / (stage.ratio * stage.efficiency) + stage.inputInertia * acceleration / turns,
                     Kind::Torque);
            pulley.available = cell(available, Kind::Torque);
            pulley.inertia = cell(stage.inputInertia, Kind::Inertia);
            pulley.microstep = commandCell(m, turns);
            out.push_back(pulley);
        }
        const bool hasBelt = linear && !isLink && beltOrCord(axis);
        available = greater(available - stage.inputInertia * acceleration / turns, 0.0) * stage.ratio *
                    stage.efficiency;
        turns *= stage.ratio;
        if (linear && !isLink && !hasBelt) continue; // the load's own column says what it brings
        ChainColumn c;
        c.part = isLink ? ChainPart::Link : linear ? ChainPart::Belt : ChainPart::Output;
        c.link = isLink ? static_cast<int>(i) : -1;
        const bool moving = linear && !isLink;
        c.speed = moving ? cell(s.motion.topSpeed, speedKind)
                         : cell(s.motion.motorSpeed / turns, Kind::RotationRate);
        c.needed = cell(needed[i], moving ? force : Kind::Torque);
        c.available = cell(available, moving ? force : Kind::Torque);
        if (!moving) {
            c.inertia = cell(stage.inputInertia, Kind::Inertia);
            c.microstep = commandCell(m, turns);
        }
        if (moving) c.stretch = cell(s.stretchTravel, travel);
        out.push_back(c);
    }

    ChainColumn load;
    load.part = ChainPart::Load;
    load.speed = cell(s.motion.topSpeed, speedKind);
    load.needed = cell(s.torque.force, force);
    load.available = cell(available, force);
    load.inertia = cell(e.loadInertia, Kind::Inertia);
    load.microstep = cell(e.step, travel);
    load.lag = cell(s.lag.travel, travel);
    if (!linear) load.stretch = cell(s.stretchTravel, travel);
    load.play = cell(m.backlash, travel);
    out.push_back(load);

    ChainColumn picture;
    picture.part = ChainPart::Picture;
    picture.speed = cell(s.picture.perFrame, Kind::PixelsPerFrame);
    picture.inertia = cell(e.inertiaRatio, Kind::Ratio);
    picture.microstep = cell(s.place.step, Kind::Pixels);
    picture.lag = cell(s.place.lag, Kind::Pixels);
    picture.stretch = cell(s.errors.stretch, Kind::Pixels);
    picture.play = cell(m.backlash * px, Kind::Pixels);
    out.push_back(picture);
    return out;
}

} // namespace gantry
