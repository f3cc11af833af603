// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/profile.h"

#include "core/solve/root.h"

#include <algorithm>
#include <cmath>

namespace gantry::motion {
namespace {

/// State inside a ramp from rest, `t` after its start.
MotionState inRamp(const Ramp& r, double t) {
    const double tj = r.jerkTime, a = r.acceleration;
    if (r.halfSine) {
        const double w = Ramp::pi / r.constantTime, u = w * t;
        return {a / w * (t - std::sin(u) / w), a / w * (1.0 - std::cos(u)), a * std::sin(u)};
    }
    const double j = r.jerk();
    if (t < tj) return {j * t * t * t / 6.0, j * t * t / 2.0, j * t};
    const double x1 = j * tj * tj * tj / 6.0, v1 = j * tj * tj / 2.0;
    if (t < tj + r.constantTime) {
        const double u = t - tj;
        return {x1 + v1 * u + a * u * u / 2.0, v1 + a * u, a};
    }
    // The end of the ramp mirrors its start, which loses no digits near the arrival.
    const double left = std::max(0.0, r.time() - t);
    const double speed = r.speed();
    return {speed * r.time() / 2.0 - speed * left + j * left * left * left / 6.0,
            speed - j * left * left / 2.0, j * left};
}

/// Time of the fastest ramp to a speed.
double rampTime(double speed, const Limits& l) {
    if (l.jerk <= 0.0) return speed / l.acceleration;
    if (speed * l.jerk >= l.acceleration * l.acceleration)
        return speed / l.acceleration + l.acceleration / l.jerk;
    return 2.0 * std::sqrt(speed / l.jerk);
}

Profile withPeakSpeed(double distance, double speed, double cruiseTime, const Limits& l) {
    Profile p;
    p.distance = distance;
    p.peakSpeed = speed;
    p.cruiseTime = std::max(0.0, cruiseTime);
    p.in = p.out = fastestRamp(speed, l);
    return p;
}

} // namespace

MotionState Profile::at(double t) const {
    if (t <= 0.0) return {};
    if (t >= time()) return {distance, 0.0, 0.0};
    if (t < in.time()) return inRamp(in, t);
    const double cruised = t - in.time();
    if (cruised < cruiseTime) return {peakSpeed * in.time() / 2.0 + peakSpeed * cruised, peakSpeed, 0.0};
    const MotionState mirrored = inRamp(out, time() - t);
    return {distance - mirrored.position, mirrored.speed, -mirrored.acceleration};
}

Ramp fastestRamp(double speed, const Limits& l) {
    if (l.jerk <= 0.0) return {l.acceleration, 0.0, speed / l.acceleration};
    if (speed * l.jerk >= l.acceleration * l.acceleration) {
        const double tj = l.acceleration / l.jerk;
        return {l.acceleration, tj, std::max(0.0, speed / l.acceleration - tj)};
    }
    const double tj = std::sqrt(speed / l.jerk);
    return {l.jerk * tj, tj, 0.0};
}

Ramp rampInTime(double speed, double time, double jerk) {
    if (jerk <= 0.0) return {speed / time, 0.0, time};
    const double room = time * time - 4.0 * speed / jerk;
    if (room <= 0.0) return {2.0 * speed / time, time / 2.0, 0.0};
    const double tj = 2.0 * speed / jerk / (time + std::sqrt(room)); // smaller root of j tj² − j T tj + v = 0
    return {jerk * tj, tj, time - 2.0 * tj};
}

double stoppingDistance(double speed, const Limits& limits) {
    return speed * rampTime(speed, limits) / 2.0;
}

Profile plan(double distance, const Limits& l) {
    if (distance <= 0.0) return {};
    const double full = rampTime(l.speed, l);
    const double cruise = distance / l.speed - full;
    if (cruise >= 0.0) return withPeakSpeed(distance, l.speed, cruise, l);
    if (l.jerk <= 0.0) return withPeakSpeed(distance, std::sqrt(distance * l.acceleration), 0.0, l);
    const double tj = l.acceleration / l.jerk;
    // Acceleration reached, speed not: v²/a + v a/j = D. Written so that no digits cancel.
    const double reached = 2.0 * distance / (tj + std::sqrt(tj * tj + 4.0 * distance / l.acceleration));
    if (reached >= l.acceleration * tj) return withPeakSpeed(distance, reached, 0.0, l);
    const double t = std::cbrt(distance / (2.0 * l.jerk));
    return withPeakSpeed(distance, l.jerk * t * t, 0.0, l);
}

std::optional<Profile> planInTime(double distance, double time, const Limits& l) {
    if (distance <= 0.0) return Profile{};
    Limits unlimited = l;
    unlimited.speed = 1e300;
    const Profile fastest = plan(distance, unlimited);
    const double least = fastest.time();
    if (time < least * (1.0 - 1e-12)) return std::nullopt;
    if (time <= least) return fastest;
    const double tj = l.jerk > 0.0 ? l.acceleration / l.jerk : 0.0;
    // D = v (T − v/a − tj)
    const double b = time - tj;
    const double room = b * b - 4.0 * distance / l.acceleration;
    if (b > 0.0 && room >= 0.0) {
        const double v = 2.0 * distance / (b + std::sqrt(room));
        if (l.jerk <= 0.0 || v >= l.acceleration * tj)
            return withPeakSpeed(distance, v, distance / v - rampTime(v, l), l);
    }
    // Acceleration not reached: D = v T − 2 v √(v/j). Its left side grows up to the fastest profile's speed.
    const auto missing = [&](double v) { return distance - v * time + 2.0 * v * std::sqrt(v / l.jerk); };
    const double low = distance / time; // never slower than without ramps
    const double high = std::max(low, fastest.peakSpeed);
    if (missing(high) > 0.0) return withPeakSpeed(distance, high, 0.0, l);
    const std::optional<double> root = solve::rootBetween(missing, low, high, 50);
    if (!root || !(*root > 0.0)) return std::nullopt;
    const double v = *root;
    return withPeakSpeed(distance, v, distance / v - rampTime(v, l), l);
}

std::optional<Profile> planWithRamps(double distance, const Ramp& in, const Ramp& out) {
    const double speed = in.speed();
    const double ramps = speed * (in.time() + out.time()) / 2.0;
    if (speed <= 0.0 || ramps > distance * (1.0 + 1e-12)) return std::nullopt;
    Profile p;
    p.distance = distance;
    p.peakSpeed = speed;
    p.in = in;
    p.out = out;
    p.cruiseTime = std::max(0.0, (distance - ramps) / speed);
    return p;
}

std::vector<Profile> synchronise(std::span<const AxisMove> moves) {
    double time = 0.0;
    std::vector<Profile> profiles;
    profiles.reserve(moves.size());
    for (const AxisMove& m : moves) {
        profiles.push_back(plan(m.distance, m.limits));
        time = std::max(time, profiles.back().time());
    }
    for (std::size_t i = 0; i < moves.size(); ++i)
        if (moves[i].distance > 0.0 && profiles[i].time() < time)
            if (const std::optional<Profile> slower = planInTime(moves[i].distance, time, moves[i].limits))
                profiles[i] = *slower;
    return profiles;
}

} // namespace gantry::motion
