// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/shot/picture_errors.h"

#include "core/evaluate/rig_setup.h"
#include "core/evaluate/shot/shot_steps.h"
#include "core/motion/friction_settling.h"
#include "core/motion/rocking.h"
#include "core/motor/stepper_motion.h"
#include "core/optics/picture.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

/// Errors of the motor and of its friction band, in the picture. A motor on a knob keeps no place, so it has
/// none.
void fillPlaceErrors(ShotEvaluation& e, const DriveModel& m, const Shot& shot, double speed) {
    const double px = e.pixelsPerUnit;
    if (!(m.commandAngle > 0.0)) return;
    e.place.lag = e.lag.travel * px;
    e.place.step = Figure::of(m.microstep() * px);
    const double accuracy = m.angleError * m.outputPerRad * px;
    e.place.accuracy = accuracy;
    // Standing still, a picture is off by where the rotor came to rest: half a command, and the step's own
    // error, either way. A hobby servo's error is against what is asked, half a command counted in it.
    const bool hobby = m.dc() != nullptr && !m.pulses;
    e.place.stepping = Figure::of(stepwise(shot) ? (hobby ? 0.0 : m.jump() * px) + 2.0 * accuracy
                                                 : steppingOf(m).jitter(shot, px, speed));

    const double frictionLag = m.lag(m.chain.load.coulomb * m.outputPerRad, 0.0);
    e.place.frictionBand = Figure::of(frictionLag * m.outputPerRad * px, m.missing);
    if (const motor::StepperParams* p = m.stepper()) {
        // At rest the axes below rest too, so only gravity counts, not what their ramps bring.
        const double gravity = std::max(std::abs(m.gravityLow), std::abs(m.gravityHigh)) * m.outputPerRad;
        const double hold = m.motors * m.holdAmplitude;
        const double held = hold > 0.0      ? motor::rotorLag(p->rotorTeeth, hold, gravity)
                            : gravity > 0.0 ? std::numbers::pi / (2.0 * p->rotorTeeth)
                                            : 0.0;
        e.place.idleShift = Figure::of((held - m.lag(gravity, 0.0)) * m.outputPerRad * px, m.missing);
    } else {
        e.place.idleShift = Figure::of(0.0);
    }
}

/// What bends under the camera shifts the picture, and turning it shifts it more: the worst is a camera that
/// looks along the rail or arm, where sag and slope fall together.
void fillSag(ShotEvaluation& e, const AxisStructure& s, const Shot& shot, const Camera& camera,
             double speed) {
    if (s.problem != Reason::None) return;
    const double focal = deliveredFocal(camera, shot);
    const double perMetre = optics::lateralPixelsPerMetre(focal, shot.subjectDistance);
    e.sag.pixels = perMetre * s.sagShift + focal * (s.slopeShift + s.twistShift);
    e.sag.drift = (perMetre * s.sagRate + focal * s.slopeRate) * speed / shot.frameRate;
}

} // namespace

Stepping steppingOf(const DriveModel& m) {
    return {m.jump(), m.angleError * m.outputPerRad, m.stepper() != nullptr ? m.fullStep() : 0.0};
}

double Stepping::jitter(const Shot& shot, double px, double speed) const {
    // The error of a full step comes back with every step: slow ones wander, only their change per frame
    // jitters.
    const double ripple =
        fullStep > 0.0 ? optics::rippleJitter(accuracy * px, speed / fullStep, shot.frameRate, shot.exposure)
                       : 0.0;
    return optics::steppingJitter(jump * px, speed / jump, shot.exposure) + ripple;
}

void fillFlank(ShotEvaluation& e, const DriveModel& m, const drivetrain::Flank& flank, const Shot& shot,
               double sense) {
    if (m.backlash <= 0.0) return;
    e.flank.ratio = Figure::of(flank.ratio());
    e.flank.holding = Figure::of(std::max(0.0, flank.holding));
    e.flank.disturbing = Figure::of(flank.disturbing);
    if (flank.kept) return;
    e.flank.play = Figure::of(flank.play);
    e.flank.missing = Figure::of(flank.missing);
    const motion::Profile& p = e.profile;
    const double resting = flank.side * flank.holding;
    if (flank.place)
        e.flank.place = Figure::of(std::clamp(*flank.place - m.lowPlace, 0.0, m.travel));
    else if (!shot.thereAndBack) {
        const bool pushes = resting * (resting + sense * m.chain.load.inertia * p.in.acceleration) < 0.0;
        e.flank.moment = Figure::of(pushes ? p.in.time() : p.time() - p.out.time());
    }
}

void fillPicture(ShotEvaluation& e, const DriveModel& m, const AxisStructure& structure,
                 const Figure& roundingShare, const Shot& shot, const Camera& camera, double speed,
                 double acceleration, const drivetrain::Flank& flank) {
    const double px = e.pixelsPerUnit;
    fillPlaceErrors(e, m, shot, speed);
    e.loadReverses = !flank.kept;
    e.errors.backlash = Figure::of(flank.play * px);
    e.stretchTravel = Figure::of(2.0 * m.chain.load.inertia * acceleration / m.outputStiffness);
    e.errors.stretch = e.stretchTravel * px;
    e.roundingPixels = m.pulses
                           ? roundingShare.map([](double share) { return std::abs(share); }) * e.distance * px
                           : Figure::none(Reason::NotApplicable);

    // The four kinds. Contributions add, since nothing keeps them from falling together; what has no meaning
    // for a drive adds nothing.
    const auto orNothing = [](const Figure& f) {
        return f.reason() == Reason::NotApplicable ? Figure(0.0) : f;
    };
    const Figure letGo = e.errors.backlash;
    const auto shown = [&](const Figure& travel) {
        return orNothing(travel).map([&](double u) { return std::abs(u) * px; });
    };
    const double framesPerJerkPhase =
        std::max(1.0, std::min(e.profile.in.jerkTime, e.profile.out.jerkTime) * shot.frameRate);
    // Without a ramp the spring swings at the start, which is kept out of a take, and then it is even.
    e.errors.drift = m.atOnce ? Figure(0.0) : e.errors.stretch / 2.0 / framesPerJerkPhase;
    // Whatever rocks carries the picture no farther in a frame than its own swing of that size does.
    if (m.mode)
        e.errors.drift =
            lesser(e.errors.drift,
                   e.errors.stretch *
                       std::sin(std::numbers::pi * std::min(0.5, m.mode->frequency / shot.frameRate)));
    e.errors.jitter = orNothing(e.place.stepping) + orNothing(e.windUp.jumpPixels) + letGo;
    e.errors.repeat = letGo + shown(e.windUp.repeat) + orNothing(e.place.frictionBand) +
                      orNothing(e.place.idleShift).map([](double shift) { return std::abs(shift); });
    e.errors.framing = orNothing(e.place.lag) + shown(e.windUp.travel) + orNothing(e.place.accuracy) +
                       orNothing(e.roundingPixels);

    // Taken standing still, the clip moves by one step a picture and has no blur.
    const bool steps = stepwise(shot);
    const double pace = steps ? e.profile.distance * shot.frameRate : speed;
    e.picture.speed = Figure::of(pace * px);
    e.picture.perFrame = Figure::of(pace * px / shot.frameRate);
    e.picture.blur = Figure::of(steps ? 0.0 : speed * px * shot.exposure);
    e.picture.crossingTime = Figure::of(camera.deliveredWidth / (pace * px));
    fillSag(e, structure, shot, camera, pace);
}

void fillRocking(ShotEvaluation& e, const DriveModel& m, const Shot& shot, bool measured,
                 double acceleration) {
    if (!m.mode || e.follows) return;
    const double rate = 2.0 * std::numbers::pi * m.mode->frequency, speed = e.profile.peakSpeed;
    double left = 0.0;
    const bool seen = shot.swingSeen > 0.0 && e.pixelsPerUnit > 0.0;
    if (seen)
        left = shot.swingSeen / e.pixelsPerUnit;
    else if (m.atOnce)
        left =
            acceleration > 0.0 ? speed / (rate * std::hypot(1.0, rate * speed / acceleration)) : speed / rate;
    else
        left = measured ? motion::rockingAfter(e.profile, *m.mode)
                        : motion::mostRockingAfter(e.profile, *m.mode);
    // While it brakes, friction holds the load that much behind; the swing turns as much nearer to its
    // middle.
    const double amplitude = seen ? left : std::max(0.0, left - m.swingBand);
    const motion::DyingSwing swing{amplitude, m.swingBand, *m.mode};
    const double px = e.pixelsPerUnit;
    e.rocking.pixels = Figure::of(swing.held() ? 0.0 : 2.0 * amplitude * px);
    if (m.swingBand > 0.0) e.rocking.rest = Figure::of(std::abs(swing.rest()) * px);
    const auto settled = swing.settled(shot.limits.jitter / px);
    e.rocking.settling = settled ? Figure::of(*settled) : Figure::none(Reason::Unbounded);
}

} // namespace gantry
