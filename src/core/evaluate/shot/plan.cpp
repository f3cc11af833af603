// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/shot/plan.h"

#include "core/kinematics/follow.h"
#include "core/solve/root.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

template <AxisKind Kind>
PlannedShot planMovement(const BySpeed<Kind>& m, const motion::Limits& settings) {
    PlannedShot out;
    out.profile = motion::plan(std::abs(m.distance), {m.speed, m.acceleration, settings.jerk});
    return out;
}

/// Cruise speed for a distance in a time, where an ease of zero means "as the controller's acceleration gives
/// it": v (T − fixed/2 − k r(v)/2) = D with k such ramps of r(v) = v/a + a/j, or 2√(v/j) where a is not
/// reached. Nothing if impossible.
std::optional<double> cruiseSpeed(double distance, double time, double fixedEase, int freeRamps,
                                  const motion::Limits& l) {
    const double room = time - fixedEase / 2.0;
    if (room <= 0.0) return std::nullopt;
    if (l.jerk > 0.0 && freeRamps > 0) {
        const auto covered = [&](double v) { return v * (room - freeRamps * std::sqrt(v / l.jerk)); };
        // Grows up to the smaller of its own maximum and the speed from which the acceleration is reached.
        const double slowest = std::min(l.jerk * std::pow(room / (1.5 * freeRamps), 2),
                                        l.acceleration * l.acceleration / l.jerk);
        if (covered(slowest) >= distance)
            return solve::rootBetween([&](double v) { return covered(v) - distance; }, 0.0, slowest);
    }
    const double withJerk = room - (l.jerk > 0.0 ? freeRamps * l.acceleration / l.jerk / 2.0 : 0.0);
    const double discriminant = withJerk * withJerk - 2.0 * freeRamps * distance / l.acceleration;
    if (withJerk <= 0.0 || discriminant < 0.0) return std::nullopt;
    return 2.0 * distance / (withJerk + std::sqrt(discriminant));
}

template <AxisKind Kind>
PlannedShot planMovement(const ByTime<Kind>& m, const motion::Limits& settings) {
    PlannedShot out;
    const double distance = std::abs(m.distance);
    const int freeRamps = (m.easeIn <= 0.0 ? 1 : 0) + (m.easeOut <= 0.0 ? 1 : 0);
    std::optional<motion::Profile> profile;
    if (freeRamps == 2) {
        profile = motion::planInTime(distance, m.time, settings);
    } else if (const auto speed = cruiseSpeed(distance, m.time, m.easeIn + m.easeOut, freeRamps, settings)) {
        const auto ramp = [&](double ease) {
            return ease > 0.0 ? motion::rampInTime(*speed, ease, settings.jerk)
                              : motion::fastestRamp(*speed, settings);
        };
        const motion::Ramp in = ramp(m.easeIn), outRamp = ramp(m.easeOut);
        if (in.time() + outRamp.time() <= m.time * (1.0 + 1e-9))
            profile = motion::planWithRamps(distance, in, outRamp);
        const double limit = settings.jerk * (1.0 + 1e-9);
        out.jerkExceeded = settings.jerk > 0.0 && (in.jerk() > limit || outRamp.jerk() > limit);
    }
    if (profile)
        out.profile = *profile;
    else
        out.problem = Reason::TimeTooShort;
    return out;
}

} // namespace

PlannedShot planShot(const Movement& movement, const motion::Limits& settings) {
    if (distanceOf(movement) == 0.0) return {{}, Reason::NoDistance, false};
    return std::visit([&](const auto& m) { return planMovement(m, settings); }, movement);
}

PlannedShot planAtOnce(const Movement& movement) {
    const double distance = std::abs(distanceOf(movement));
    if (distance == 0.0) return {{}, Reason::NoDistance, false};
    const double speed = std::visit(
        [&](const auto& m) {
            if constexpr (requires { m.time; })
                return distance / m.time;
            else
                return m.speed;
        },
        movement);
    return {{distance, speed, distance / speed, {}, {}}, Reason::None, false};
}

bool startsAtOnce(const Axis& axis, RampKind ramps) {
    if (const auto* geared = std::get_if<GearedDc>(&axis.motor))
        return geared->control != SpeedControl::Knob || ramps == RampKind::None;
    return ramps == RampKind::None && std::holds_alternative<Stepper>(axis.motor);
}

motion::Limits keptLimits(const Axis& axis, RampKind ramps) {
    return std::visit(
        [&](const auto& mechanism) {
            const auto& set = mechanism.motion;
            return motion::Limits{set.maxSpeed, set.maxAcceleration,
                                  ramps == RampKind::SCurve ? set.jerk : 0.0};
        },
        axis.mechanism);
}

std::optional<Following> followingMovement(const Shot& shot, Role role, const motion::Profile& slide) {
    const double acceleration = std::max(slide.in.acceleration, slide.out.acceleration);
    const kinematics::Follow f = kinematics::followSubject(slide.distance, slide.peakSpeed, acceleration,
                                                           shot.subjectPlace * slide.distance,
                                                           shot.subjectDistance, shot.subjectHeight);
    const bool pan = role == Role::Pan;
    const BySpeed<AxisKind::Rotary> wanted{pan ? f.panAngle : f.tiltAngle, pan ? f.panRate : f.tiltRate,
                                           pan ? f.panAcceleration : f.tiltAcceleration};
    if (!(wanted.distance > 0.0 && wanted.speed > 0.0 && wanted.acceleration > 0.0)) return std::nullopt;
    return Following{wanted, slide.time()};
}

} // namespace gantry
