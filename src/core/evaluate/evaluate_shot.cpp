// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate_shot.h"

#include "core/motor/stepper_motion.h"
#include "core/optics/picture.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

/// Whether the force between drive and load changes sign while the shot runs, so that backlash lets go. On
/// rotary axes the unbalance may stand on either side within the range, so both are tried.
bool loadReverses(const DriveModel& m, double acceleration, double sense) {
    const drivetrain::Load& load = m.chain.load;
    bool positive = false, negative = false;
    const auto take = [&](double steady) {
        for (const double a : {acceleration, 0.0, -acceleration}) {
            const double force = steady + sense * (load.coulomb + load.inertia * a);
            positive = positive || force > 0.0;
            negative = negative || force < 0.0;
        }
    };
    take(load.steady);
    if (m.kind == AxisKind::Rotary && load.steady != 0.0) take(-load.steady);
    return positive && negative;
}

/// Largest force at the mechanism and torque at the last shaft, both directions.
double worstForce(const DriveModel& m, double acceleration) {
    const drivetrain::Load& load = m.chain.load;
    return std::abs(load.steady) + load.coulomb + load.inertia * acceleration;
}

double lastShaftTorque(const DriveModel& m, double acceleration) {
    const drivetrain::Stage& last = m.chain.stages.back();
    return worstForce(m, acceleration) / (last.ratio * last.efficiency);
}

void fillTorque(ShotEvaluation& e, const DriveModel& m, double speed, double acceleration,
                Searches searches) {
    const double motorSpeed = speed / m.outputPerRad;
    const double needed = m.rampTorque(speed, acceleration);
    const double available = m.available(motorSpeed);
    e.forceNeeded = Figure::of(worstForce(m, acceleration));
    e.outputTorque = m.chain.stages.empty() ? Figure::none(Reason::NotApplicable)
                                            : Figure::of(lastShaftTorque(m, acceleration));
    e.torqueNeeded = Figure::of(needed);
    e.breakawayTorque = Figure::of(m.breakawayTorque());
    e.torqueAvailable = Figure::of(available, m.missing);
    e.torqueAvailableLow = Figure::of(m.availableAtLowVoltage(motorSpeed), m.missing);
    e.torqueMargin = Figure::of(std::min(available / needed, m.available(0.0) / e.breakawayTorque.value()),
                                m.missing == Reason::None ? Reason::Unbounded : m.missing);
    const double wanted = m.wantedMargin;
    e.leastCurrent =
        Figure::of(std::max(motor::leastPeakCurrent(m.stepper, wanted * needed, motorSpeed),
                            motor::leastPeakCurrent(m.stepper, wanted * e.breakawayTorque.value(), 0.0)) /
                       std::numbers::sqrt2,
                   m.missing == Reason::None ? Reason::Unbounded : m.missing);
    if (searches == Searches::Yes)
        e.maxAcceleration = Figure::of(m.largestAcceleration(speed),
                                       m.missing == Reason::None ? Reason::Unbounded : m.missing);

    e.lag = Figure::of(motor::rotorLag(m.stepper.rotorTeeth, m.torqueAmplitude, needed), m.missing);
    e.lagTravel = Figure::of(e.lag.value() * m.outputPerRad, m.missing);
}

void fillPicture(ShotEvaluation& e, const AxisEvaluation& axis, const Shot& shot, const Camera& camera,
                 double sense) {
    const DriveModel& m = axis.model;
    const double px = e.pixelsPerUnit;
    const double speed = e.profile.peakSpeed;
    const double acceleration = std::max(e.profile.in.acceleration, e.profile.out.acceleration);
    const int teeth = m.stepper.rotorTeeth;

    e.lagPixels = Figure::of(e.lagTravel.value() * px, m.missing);
    e.stepPixels = Figure::of(m.microstep() * px);
    e.accuracyPixels = Figure::of(m.stepAccuracy * m.fullStep() * px);
    // The error of a full step comes back with every step: slow ones wander, only their change per frame
    // jitters.
    const double ripple =
        optics::rippleJitter(e.accuracyPixels.value(), speed / m.fullStep(), shot.frameRate, shot.exposure);
    e.steppingPixels =
        Figure::of(optics::steppingJitter(m.microstep() * px, speed / m.microstep(), shot.exposure) + ripple);
    e.backlashPixels = Figure::of(m.backlash * px);
    e.loadReverses = loadReverses(m, acceleration, sense);
    e.stretchTravel = Figure::of(2.0 * m.chain.load.inertia * acceleration / m.outputStiffness);
    e.stretchPixels = Figure::of(e.stretchTravel.value() * px);

    const double frictionAtMotor = m.chain.load.coulomb * m.outputPerRad;
    e.frictionBandPixels = Figure::of(
        motor::rotorLag(teeth, m.torqueAmplitude, frictionAtMotor) * m.outputPerRad * px, m.missing);
    const double gravity = m.gravityAtMotor();
    const double held = m.holdAmplitude > 0.0 ? motor::rotorLag(teeth, m.holdAmplitude, gravity)
                        : gravity > 0.0       ? std::numbers::pi / (2.0 * teeth)
                                              : 0.0;
    e.idleShiftPixels = Figure::of(
        (held - motor::rotorLag(teeth, m.torqueAmplitude, gravity)) * m.outputPerRad * px, m.missing);
    e.roundingPixels = Figure::of(std::abs(axis.roundingShare.value()) * e.profile.distance * px);

    // The four kinds. Contributions add, since nothing keeps them from falling together.
    const double letGo = e.loadReverses ? e.backlashPixels.value() : 0.0;
    const double framesPerJerkPhase =
        std::max(1.0, std::min(e.profile.in.jerkTime, e.profile.out.jerkTime) * shot.frameRate);
    e.driftPixels = Figure::of(e.stretchPixels.value() / 2.0 / framesPerJerkPhase);
    e.jitterPixels = Figure::of(e.steppingPixels.value() + letGo);
    e.repeatPixels =
        Figure::of(letGo + e.frictionBandPixels.value() + std::abs(e.idleShiftPixels.value()), m.missing);
    e.framingPixels =
        Figure::of(e.lagPixels.value() + e.accuracyPixels.value() + e.roundingPixels.value(), m.missing);

    e.pictureSpeed = Figure::of(speed * px);
    e.pixelsPerFrame = Figure::of(speed * px / shot.frameRate);
    e.blurPixels = Figure::of(speed * px * shot.exposure);
    e.crossingTime = Figure::of(camera.deliveredWidth / (speed * px));
}

} // namespace

double pixelsPerUnit(const Camera& camera, const Shot& shot, AxisKind kind) {
    const double recorded = optics::focalPixels(shot.focalLength, camera.sensorWidth, camera.pixelsAcross);
    const double delivered = recorded * camera.deliveredWidth / camera.pixelsAcross;
    return kind == AxisKind::Linear ? optics::lateralPixelsPerMetre(delivered, shot.subjectDistance)
                                    : optics::panPixelsPerRad(delivered, 0.0);
}

ShotEvaluation evaluateShot(const Project& project, const AxisEvaluation& axis, int shotIndex,
                            const Movement& movement, Searches searches) {
    const Shot& shot = project.shots[static_cast<std::size_t>(shotIndex)];
    const DriveModel& m = axis.model;
    ShotEvaluation e;
    e.shot = shotIndex;
    e.pixelsPerUnit = pixelsPerUnit(project.camera, shot, m.kind);
    e.distance = Figure::of(std::abs(distanceOf(movement)));
    PlannedShot planned = planShot(movement, m.settings);
    if (project.controller.ramps == RampKind::None) planned = {{}, Reason::NoRamp, false};
    e.problem = planned.problem;
    if (planned.problem != Reason::None) {
        for (Figure* f : {&e.topSpeed,
                          &e.acceleration,
                          &e.jerkNeeded,
                          &e.time,
                          &e.stoppingDistance,
                          &e.motorSpeed,
                          &e.pulseRate,
                          &e.forceNeeded,
                          &e.outputTorque,
                          &e.torqueNeeded,
                          &e.breakawayTorque,
                          &e.torqueAvailable,
                          &e.torqueAvailableLow,
                          &e.torqueMargin,
                          &e.leastCurrent,
                          &e.maxAcceleration,
                          &e.lag,
                          &e.lagTravel,
                          &e.lagPixels,
                          &e.stepPixels,
                          &e.steppingPixels,
                          &e.accuracyPixels,
                          &e.backlashPixels,
                          &e.stretchTravel,
                          &e.stretchPixels,
                          &e.frictionBandPixels,
                          &e.idleShiftPixels,
                          &e.roundingPixels,
                          &e.driftPixels,
                          &e.jitterPixels,
                          &e.repeatPixels,
                          &e.framingPixels,
                          &e.pictureSpeed,
                          &e.pixelsPerFrame,
                          &e.blurPixels,
                          &e.crossingTime})
            *f = Figure::none(planned.problem);
        return e;
    }
    e.profile = planned.profile;
    e.jerkExceeded = planned.jerkExceeded;
    const double speed = e.profile.peakSpeed;
    const double acceleration = std::max(e.profile.in.acceleration, e.profile.out.acceleration);
    e.topSpeed = Figure::of(speed);
    e.acceleration = Figure::of(acceleration);
    e.jerkNeeded = Figure::of(std::max(e.profile.in.jerk(), e.profile.out.jerk()));
    e.time = Figure::of(e.profile.time());
    e.stoppingDistance = Figure::of(speed * e.profile.out.time() / 2.0);
    e.motorSpeed = Figure::of(speed / m.outputPerRad);
    e.pulseRate = Figure::of(speed / m.microstep());
    fillTorque(e, m, speed, acceleration, searches);
    fillPicture(e, axis, shot, project.camera, distanceOf(movement) < 0.0 ? -1.0 : 1.0);
    return e;
}

} // namespace gantry
