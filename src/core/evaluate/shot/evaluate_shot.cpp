// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/shot/evaluate_shot.h"

#include "core/criteria/criteria.h"
#include "core/drivetrain/wind_up.h"
#include "core/evaluate/drive/checks.h"
#include "core/evaluate/shot/focus_pull.h"
#include "core/evaluate/shot/picture_errors.h"
#include "core/evaluate/shot/shot_steps.h"
#include "core/evaluate/supply/supply_view.h"
#include "core/model/kind_traits.h"
#include "core/motor/at_once.h"
#include "core/optics/picture.h"
#include "core/power/regulator.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace gantry {
namespace {

/// Whether the play of the drive stays on one side through the shot. A movement that is told no place is
/// looked at over the whole range, the way it goes.
drivetrain::Flank flankIn(const DriveModel& m, const Movement& movement, bool thereAndBack, double speed,
                          double acceleration, double carried) {
    const double distance = distanceOf(movement), sense = distance < 0.0 ? -1.0 : 1.0;
    drivetrain::FlankQuestion q;
    q.load = m.lasting;
    if (const auto start = startOf(movement)) {
        q.from = m.lowPlace + *start;
        q.to = q.from + distance;
    } else {
        q.from = sense > 0.0 ? m.lowPlace : m.lowPlace + m.travel;
        q.to = q.from + sense * m.travel;
    }
    q.from -= sense * m.tilted;
    q.to += sense * m.tilted;
    q.bothWays = thereAndBack;
    q.friction = m.friction;
    q.inertia = m.chain.load.inertia;
    q.acceleration = acceleration;
    q.disturbance = carried + m.chain.load.coulomb - m.friction; // what the axes below bring, and the wind
    q.speed = speed;
    q.backlash = m.backlash;
    return drivetrain::flankOf(q, criteria::flank);
}

/// Largest force at the mechanism and torque at the last shaft, both directions.
double worstForce(const DriveModel& m, double acceleration) {
    const drivetrain::Load& load = m.chain.load;
    return std::abs(load.steady) + load.coulomb + load.inertia * acceleration;
}

double lastShaftTorque(const DriveModel& m, double acceleration) {
    if (m.chain.stages.empty()) return worstForce(m, acceleration);
    const drivetrain::Stage& last = m.chain.stages.back();
    return worstForce(m, acceleration) / (last.ratio * last.efficiency);
}

/// Current limit that gives this torque of all motors together; what is drawn, on a brushed motor.
double currentFor(const DriveModel& m, double torque, double motorSpeed) {
    if (const motor::StepperParams* p = m.stepper())
        return motor::leastPeakCurrent(*p, torque / m.motors, motorSpeed) / std::numbers::sqrt2;
    if (const motor::DcParams* p = m.dc()) return motor::motorCurrent(*p, torque / m.motors);
    return std::numeric_limits<double>::quiet_NaN();
}

/// Mean square over the move, in both directions, with the torque straight between the points of each phase.
double torqueRms(const DriveModel& m, const motion::Profile& profile) {
    motor::RmsTorque rms;
    for (const int direction : {1, -1}) {
        const auto at = [&](double speed, double acceleration) {
            return drivetrain::motorTorque(m.chain, speed / m.outputPerRad,
                                           direction * acceleration / m.outputPerRad, direction);
        };
        const auto phase = [&](double time, double fromAcceleration, double toAcceleration) {
            if (time > 0.0) rms.add(time, at(0.0, fromAcceleration), at(0.0, toAcceleration));
        };
        for (const auto& [ramp, sense] : {std::pair{profile.in, 1.0}, std::pair{profile.out, -1.0}}) {
            const double a = sense * ramp.acceleration;
            phase(ramp.jerkTime, 0.0, a);
            phase(ramp.constantTime, a, a);
            phase(ramp.jerkTime, a, 0.0);
        }
        phase(profile.cruiseTime, 0.0, 0.0);
    }
    return rms.value();
}

/// Whether the motor's speed is set by hand or duty; servos set their own.
bool onKnob(const DriveModel& m) {
    return m.dc() != nullptr && !(m.commandAngle > 0.0);
}

/// Whether the axis hangs on a cord that can go slack.
bool slackens(const LinearMechanism& linear) {
    const auto* winch = std::get_if<WinchOutput>(&linear.output);
    return winch != nullptr && !winch->closedLoop;
}

/// What a brushed motor needs set, and how slowly it can go.
void fillSpeedSetting(ShotEvaluation& e, const DriveModel& m, double motorSpeed, double needed) {
    if (!onKnob(m) || m.oneSpeed) return;
    const motor::DcParams* p = m.dc();
    const double share = p->duty > 0.0 ? motor::dutyFor(*p, motorSpeed, needed / m.motors) : 0.0;
    e.knob.setting = Figure::of(share);
    e.knob.slowest = Figure::of(m.lowestSpeed / motorSpeed);
}

/// Speed [U/s] that a motor comes to by itself under what the load asks while it runs; 0: it does not start.
double ownSpeed(const DriveModel& m) {
    return m.outputPerRad * motor::speedUnder(*m.dc(), m.rampTorque(0.0, 0.0) / m.motors);
}

/// The same motor at the setting that a shot needs.
motor::DcParams atSetting(const DriveModel& m, const ShotEvaluation& e) {
    motor::DcParams p = *m.dc();
    if (e.knob.setting) p.duty = std::min(1.0, e.knob.setting.value());
    return p;
}

motor::StopWay stopWay(Stopping stopping) {
    switch (stopping) {
    case Stopping::SwitchedOff:
        return motor::StopWay::Open;
    case Stopping::Shorted:
        return motor::StopWay::Shorted;
    case Stopping::Reversed:
        return motor::StopWay::Reversed;
    }
    return motor::StopWay::Open;
}

/// How a drive comes to its speed without a ramp, and to rest: inertia makes a time, not a lack of torque.
/// Returns the acceleration [U/s²] of the first moment.
double fillSuddenStart(ShotEvaluation& e, const Axis& axis, const DriveModel& m, double frequency,
                       double speed) {
    const double torque = m.rampTorque(speed, 0.0), inertia = m.inertiaToSpeedUp();
    if (const motor::StepperParams* p = m.stepper()) {
        const double all = m.motors * m.torqueAmplitude;
        e.start.catchSpeed =
            Figure::of(motor::catchSpeed(p->rotorTeeth, all, torque, inertia) * m.outputPerRad, m.missing);
        // Swinging into its field, and past it when the field stops.
        const double rate = 2.0 * std::numbers::pi * frequency;
        e.motion.stoppingDistance = Figure::of(speed / rate, m.missing);
        return speed * rate;
    }
    const motor::DcParams p = atSetting(m, e);
    const motor::SwitchedOn on = motor::switchedOn(p, inertia / m.motors, torque / m.motors);
    e.start.time = Figure::of(on.time95());
    e.start.lost = Figure::of(speed * on.timeConstant);
    e.start.supplyDrop = Figure::of(m.motors * on.supplyDrop);
    const auto* geared = std::get_if<GearedDc>(&axis.motor);
    const double most = geared->stopping == Stopping::Reversed
                            ? motor::reversalCurrent(p, speed / m.outputPerRad)
                            : on.peakCurrent;
    e.start.current = Figure::of(m.motors * most);
    const auto off = motor::switchedOff(p, inertia / m.motors, m.slowingTorque(speed) / m.motors,
                                        speed / m.outputPerRad, stopWay(geared->stopping));
    e.motion.stoppingDistance =
        off ? Figure::of(off->angle * m.outputPerRad) : Figure::none(Reason::Unbounded);
    // A spring in between is not pulled faster than it swings.
    const double swing =
        std::isfinite(m.outputStiffness) ? std::sqrt(m.chain.load.inertia / m.outputStiffness) : 0.0;
    return speed / std::hypot(on.timeConstant, swing);
}

/// Torque at the setting over what breaking away takes.
void fillStartSetting(ShotEvaluation& e, const Axis& axis, const DriveModel& m) {
    const auto* geared = std::get_if<GearedDc>(&axis.motor);
    if (geared == nullptr || !e.knob.setting) return;
    const double least = motor::startDuty(*m.dc(), m.breakawayTorque() / m.motors, geared->inductance.value,
                                          geared->pulseFrequency, criteria::diodeVoltage);
    e.start.share = e.knob.setting.map([&](double setting) { return std::min(1.0, setting) / least; });
}

/// What friction and gravity wind up of the drive's springs. The rotor's own field counts as lag.
void fillWindUp(ShotEvaluation& e, const DriveModel& m, const Shot& shot, double smoothFrom, double speed) {
    if (!std::isfinite(m.outputStiffness)) return;
    const drivetrain::Sprung s = m.sprung();
    e.windUp.travel = Figure::of(drivetrain::lagForward(s));
    e.windUp.reversalLost = Figure::of(drivetrain::reversalLost(s));
    e.windUp.jump = Figure::of(drivetrain::breakawayJump(s));
    // Where it stops from one side the springs keep what breaking away leaves; from both sides all of it.
    e.windUp.repeat = shot.thereAndBack ? e.windUp.reversalLost : e.windUp.jump;
    e.windUp.smoothFrom = Figure::of(smoothFrom, Reason::Unbounded);
    e.windUp.startDelay = Figure::of(s.breakaway / s.stiffness / speed);
    // Each step of a stepwise shot begins at rest.
    e.windUp.jumpPixels =
        speed < smoothFrom || stepwise(shot) ? e.windUp.jump * e.pixelsPerUnit : Figure(0.0);
}

/// Heat that lasts, so by the motor's mean current rather than that of its ramps.
void fillRegulator(ShotEvaluation& e, const RigSetup& rig, const Axis& axis, const DriveModel& m) {
    e.regulator.heat = e.torque.rms.map([&](double rms) {
        const double current = m.motors * motor::motorCurrent(*m.dc(), rms / m.motors);
        return power::regulatorHeat(rig.supply.voltage.value, m.dc()->voltage, current);
    });
    e.regulator.temperature =
        rig.conditions.ambient + e.regulator.heat * std::get<GearedDc>(axis.motor).regulatorResistance.value;
}

void fillTorque(ShotEvaluation& e, const RigSetup& rig, const Axis& axis, const DriveModel& m, double speed,
                double acceleration, bool searches) {
    const double motorSpeed = speed / m.outputPerRad;
    const double needed = m.rampTorque(speed, acceleration), breakaway = m.breakawayTorque();
    const double available = m.available(motorSpeed);
    e.torque.force = Figure::of(worstForce(m, acceleration));
    e.torque.lastShaft = m.chain.stages.empty() ? Figure::none(Reason::NotApplicable)
                                                : Figure::of(lastShaftTorque(m, acceleration));
    e.torque.needed = Figure::of(needed);
    e.torque.breakaway = Figure::of(breakaway);
    e.torque.available = Figure::of(available, m.missing);
    e.torque.availableLow = Figure::of(m.availableAtLowVoltage(motorSpeed), m.missing);
    // Whatever runs at its own speed gives there what is asked; what counts is that it starts.
    if (m.oneSpeed) e.torque.available = Figure::of(m.available(0.0));
    e.torque.margin = Figure::of(
        std::min((m.oneSpeed ? m.available(0.0) : available) / needed, m.available(0.0) / breakaway),
        m.missing == Reason::None ? Reason::Unbounded : m.missing);
    const double wanted = m.wantedMargin;
    const Reason noCurrent = m.missing != Reason::None                             ? m.missing
                             : std::holds_alternative<motor::ServoParams>(m.curve) ? Reason::NotApplicable
                                                                                   : Reason::Unbounded;
    e.torque.leastCurrent = Figure::of(
        std::max(currentFor(m, wanted * needed, motorSpeed), currentFor(m, wanted * breakaway, 0.0)),
        noCurrent);
    if (const motor::DcParams* p = m.dc())
        e.sourceCurrent = Figure::of(m.motors * motor::sourceCurrent(*p, needed / m.motors));
    const double ramps = torqueRms(m, e.profile);
    e.torque.rms = Figure::of(ramps);
    if (const double rest = e.motion.time.valueOr(0.0) - e.profile.time();
        (e.follows || e.fromMove) && rest > 0.0) {
        // Slower than its peak for the rest of the time, against friction and gravity alone.
        const double steady = m.rampTorque(speed, 0.0);
        const double share = rest / (e.profile.time() + rest); // in shares, so that no square is too large
        e.torque.rms = Figure::of(std::hypot(std::sqrt(1.0 - share) * ramps, std::sqrt(share) * steady));
    }
    if (m.regulated) fillRegulator(e, rig, axis, m);
    e.torque.electricalPower = electricalPower(rig.supply, axis, m, e);
    e.torque.continuous = Figure::of(m.continuous(motorSpeed), m.missing);
    fillSpeedSetting(e, m, motorSpeed, needed);
    fillStartSetting(e, axis, m);
    if (searches && !m.atOnce)
        e.torque.maxAcceleration = Figure::of(m.largestAcceleration(speed),
                                              m.missing == Reason::None ? Reason::Unbounded : m.missing);

    // A motor on a knob has no command to lag behind.
    if (!(m.commandAngle > 0.0)) return;
    const double lag = m.lag(needed, motorSpeed);
    e.lag = {Figure::of(lag, m.missing), Figure::of(lag * m.outputPerRad, m.missing)};
}

/// With its drum empty a winch turns faster and pulls at a shorter radius: where that leaves less, it counts.
void fillBareDrum(ShotEvaluation& e, const DriveModel& full, double speed, double acceleration) {
    const DriveModel m = full.withBareDrum();
    e.motion.motorSpeed = Figure::of(speed / m.outputPerRad);
    if (m.pulses) e.pulseRate = Figure::of(speed / m.microstep());
    const double needed = m.rampTorque(speed, acceleration), available = m.available(speed / m.outputPerRad);
    const Figure moving = Figure::of(available / needed, m.missing);
    if (!less(moving, e.torque.margin)) return;
    e.torque.needed = Figure::of(needed);
    e.torque.available = Figure::of(available, m.missing);
    e.torque.availableLow = Figure::of(m.availableAtLowVoltage(speed / m.outputPerRad), m.missing);
    e.torque.margin = moving;
}

/// Largest |sin φ cos φ| of an arm in a movement.
double mostAslant(const Movement& movement, const DriveModel& m) {
    using std::numbers::pi;
    const auto start = startOf(movement);
    const double a = start ? m.lowPlace + *start : m.lowPlace,
                 b = start ? a + distanceOf(movement) : m.lowPlace + m.travel;
    const auto [low, high] = std::minmax(a, b);
    // Half way between level and upright it is a half.
    const double next = (std::ceil((low - pi / 4) / (pi / 2))) * (pi / 2) + pi / 4;
    return next <= high ? 0.5 : 0.5 * std::max(std::abs(std::sin(2 * low)), std::abs(std::sin(2 * high)));
}

/// Torque [N·m] that the axes below bring to this one while they move in the same shot, through the offset of
/// its centre of gravity: carriage ramps, the swing of a boom and its pull outwards. An arm that is turned
/// about the upright is pulled level by its own inertia even where it is balanced, J ω² sin φ cos φ. A pan
/// that holds its picture turns back against a swing.
double carriedTorque(const Course& course, const Axis& axis, const DriveModel& m) {
    if (m.kind == AxisKind::Linear) return 0.0;
    if (gravityTurns(axis.role)) {
        const double levelling =
            course.turnBelow > 0.0
                ? m.chain.load.inertia * course.turnBelow * course.turnBelow * mostAslant(course.movement, m)
                : 0.0;
        return m.carriedMass * m.carriedReach * course.accelerationBelow + levelling;
    }
    const double swing = axis.role == Role::Pan ? m.chain.load.inertia * course.swingBelow : 0.0;
    return m.carriedMass * m.carriedAlong * course.accelerationBelow + swing;
}

/// A drive for which the shot cannot be planned: what would have a number has the reason instead, what has no
/// meaning for the drive stays without.
void failPlan(ShotEvaluation& e, const Axis& axis, const DriveModel& m, const AxisStructure& structure,
              Reason why) {
    const Figure none = Figure::none(why);
    results::failAll(e.motion, why);
    results::failAll(e.torque, why);
    results::failAll(e.errors, why);
    results::failAll(e.picture, why);
    e.stretchTravel = none;
    if (m.backlash > 0.0) results::failAll(e.flank, why);
    if (m.pulses) e.pulseRate = e.roundingPixels = none;
    if (m.dc() != nullptr) e.sourceCurrent = none;
    if (onKnob(m) && !m.oneSpeed) {
        results::failAll(e.knob, why);
        e.start.share = none;
    }
    if (m.atOnce) {
        if (m.stepper() != nullptr)
            e.start.catchSpeed = none;
        else
            e.start.time = e.start.lost = e.start.current = e.start.supplyDrop = none;
    }
    if (std::isfinite(m.outputStiffness)) results::failAll(e.windUp, why);
    if (m.regulated) results::failAll(e.regulator, why);
    if (m.commandAngle > 0.0) {
        results::failAll(e.lag, why);
        results::failAll(e.place, why);
    }
    if (m.mode && !e.follows) {
        e.rocking.pixels = e.rocking.settling = none;
        if (m.swingBand > 0.0) e.rocking.rest = none;
    }
    if (structure.problem == Reason::None) results::failAll(e.sag, why);
    if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism)) {
        e.guidePixels = none;
        if (slackens(*linear)) e.slackDeceleration = none;
    }
}

/// Nothing says how the axis moves the picture, so what it does there has no number. Guides and sag do not
/// come through the axis' own movement.
void failPicture(ShotEvaluation& e, Reason why) {
    results::failWhatApplies(e.place, why);
    results::failWhatApplies(e.errors, why);
    results::failWhatApplies(e.picture, why);
    results::failWhatApplies(e.rocking, why);
    if (e.roundingPixels.reason() != Reason::NotApplicable) e.roundingPixels = Figure::none(why);
}

/// A lens ring without stops: nothing to count its place from.
bool endlessRing(const Axis& axis) {
    const auto* rotary = std::get_if<RotaryMechanism>(&axis.mechanism);
    const auto* ring = rotary != nullptr ? std::get_if<LensRingOutput>(&rotary->output) : nullptr;
    return ring != nullptr && !ring->hardStops;
}

} // namespace

ShotEvaluation evaluateShot(const RigSetup& rig, std::size_t index, const AxisEvaluation& evaluation,
                            const Course& course, bool searches) {
    const Axis& axis = rig.axes[index];
    const Shot& shot = rig.shots[course.shot.at()];
    const Movement& movement = course.movement;
    ShotEvaluation e;
    e.shot = course.shot;
    e.follows = course.followsFor.has_value();
    e.fromMove = course.movesFor.has_value();
    const Figure scale = pixelsPerUnit(rig.camera, shot, axis, rig.masses[index].reach);
    e.pixelsPerUnit = scale ? scale.value() : 0.0;
    const double carried = carriedTorque(course, axis, evaluation.model);
    DriveModel loaded;
    if (carried > 0.0) {
        loaded = evaluation.model;
        loaded.chain.load.steady = std::abs(loaded.chain.load.steady) + carried;
    }
    const DriveModel& m = carried > 0.0 ? loaded : evaluation.model;
    e.carried = Figure::of(carried);
    e.distance = Figure::of(std::abs(distanceOf(movement)));
    const PlannedShot& planned = course.plan;
    e.problem = planned.problem;
    if (planned.problem != Reason::None) {
        failPlan(e, axis, m, evaluation.structure, planned.problem);
        return e;
    }
    e.profile = planned.profile;
    e.jerkExceeded = planned.jerkExceeded;
    double speed = e.profile.peakSpeed;
    double acceleration = std::max(e.profile.in.acceleration, e.profile.out.acceleration);
    if (e.follows || course.movesFor) {
        // Its largest rate and acceleration fall at different moments; both are asked.
        std::visit(
            [&](const auto& wanted) {
                if constexpr (requires { wanted.acceleration; }) {
                    speed = wanted.speed;
                    acceleration = wanted.acceleration;
                }
            },
            movement);
    }
    if (m.oneSpeed) {
        // Nothing sets its speed, so the shot runs at the motor's own.
        if (const double own = ownSpeed(m); own > 0.0) speed = own;
        e.profile.peakSpeed = speed;
        e.profile.cruiseTime = e.profile.distance / speed;
    }
    e.motion.topSpeed = Figure::of(speed);
    e.motion.acceleration = Figure::of(acceleration);
    e.motion.jerk = Figure::of(std::max(e.profile.in.jerk(), e.profile.out.jerk()));
    e.motion.time =
        Figure::of(course.followsFor ? *course.followsFor : course.movesFor.value_or(e.profile.time()));
    e.motion.stoppingDistance = Figure::of(speed * e.profile.out.time() / 2.0);
    e.motion.motorSpeed = Figure::of(speed / m.outputPerRad);
    e.motion.energy = evaluation.inertiaAtMotor * (0.5 * speed * speed / (m.outputPerRad * m.outputPerRad));
    e.pulseRate = m.pulses ? Figure::of(speed / m.microstep()) : Figure::none(Reason::NotApplicable);
    fillTorque(e, rig, axis, m, speed, acceleration, searches);
    if (m.layerSpread() > 1.0 && !m.oneSpeed) fillBareDrum(e, m, speed, acceleration);
    if (m.atOnce) {
        acceleration = fillSuddenStart(e, axis, m, evaluation.resonance.frequency.valueOr(0.0), speed);
        e.motion.acceleration = Figure::of(acceleration, m.missing);
        e.motion.jerk = Figure::none(Reason::NoRamp);
        if (searches) e.torque.maxAcceleration = Figure::none(Reason::NoRamp);
        if (!std::isfinite(acceleration)) acceleration = 0.0;
    }
    fillWindUp(e, m, shot, evaluation.smoothFrom, speed);
    const drivetrain::Flank flank = flankIn(m, movement, shot.thereAndBack, speed, acceleration, carried);
    fillFlank(e, m, flank, shot, distanceOf(movement) < 0.0 ? -1.0 : 1.0);
    fillPicture(e, m, evaluation.structure, evaluation.steps.roundingShare, shot, rig.camera, speed,
                acceleration, flank);
    fillRocking(e, m, shot, axis.vibration.frequency.value > 0.0, acceleration);
    e.noise = noiseOf(axis, m, speed / m.outputPerRad);
    if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism)) {
        if (axis.role != Role::Lift) e.focus = focusPull(rig, shot, movement);
        const double pan = optics::panPixelsPerRad(deliveredFocal(rig.camera, shot), 0.0);
        e.guidePixels = Figure::of(linear->guide.play.value / linear->guide.wheelbase * pan);
        if (slackens(*linear))
            // Pulled up: the cart must not outrun the cord that slows it. Let down: gravity must pull harder
            // than friction.
            e.slackDeceleration = Figure::of(
                std::max(0.0, distanceOf(movement) * linear->slope.value >= 0.0
                                  ? (std::abs(m.chain.load.steady) + m.friction) / m.chain.load.inertia
                                  : (std::abs(m.chain.load.steady) - m.friction) / m.chain.load.inertia));
    }
    if (!scale) failPicture(e, scale.reason());
    if (endlessRing(axis)) e.errors.repeat = e.errors.framing = Figure::none(Reason::NoFixedMarks);
    return e;
}

} // namespace gantry
