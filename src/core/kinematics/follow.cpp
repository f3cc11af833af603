// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/kinematics/follow.h"
#include "core/solve/root.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace gantry::kinematics {
namespace {

struct Spot {
    double x, v, a;
};

/// Pan and tilt with their first two derivatives at a place along the track; x counts from square to the
/// subject.
struct Angles {
    double pan, panRate, panAcceleration, tilt, tiltRate, tiltAcceleration;
};

Angles anglesAt(const Spot& p, double d, double h) {
    const double q = p.x * p.x + d * d;
    Angles a{};
    a.pan = std::atan2(p.x, d);
    a.panRate = d * p.v / q;
    a.panAcceleration = d * (p.a * q - 2.0 * p.x * p.v * p.v) / (q * q);
    // tilt = atan(h / r) with r = √q; r' = x v / r, r'' = (v² + x a − r'²) / r
    const double r = std::sqrt(q), r1 = p.x * p.v / r, r2 = (p.v * p.v + p.x * p.a - r1 * r1) / r;
    const double s = r * r + h * h;
    a.tilt = std::atan2(h, r);
    a.tiltRate = -h * r1 / s;
    a.tiltAcceleration = -h * (r2 * s - 2.0 * r * r1 * r1) / (s * s);
    return a;
}

} // namespace

Follow followSubject(double travel, double speed, double acceleration, double passAt, double distance,
                     double height) {
    const double v = std::min(speed, std::sqrt(acceleration * travel)), ramp = v / acceleration;
    const double cruise = std::max(0.0, travel / v - ramp);
    const auto pointAt = [&](int phase, double t) -> Spot {
        if (phase == 0) return {0.5 * acceleration * t * t - passAt, acceleration * t, acceleration};
        if (phase == 1) return {0.5 * v * ramp + v * t - passAt, v, 0.0};
        const double left = ramp - t;
        return {travel - 0.5 * acceleration * left * left - passAt, acceleration * left, -acceleration};
    };
    Follow out;
    const std::array lengths{ramp, cruise, ramp};
    double lowTilt = 1e9, highTilt = -1e9;
    const auto take = [&](const Angles& a) {
        lowTilt = std::min(lowTilt, a.tilt);
        highTilt = std::max(highTilt, a.tilt);
    };
    // Largest magnitude of one angle's derivative over all phases: samples, then a search about the
    // best.
    const auto largest = [&](auto pick) {
        double best = 0.0;
        for (int phase = 0; phase < 3; ++phase) {
            const double length = lengths[static_cast<std::size_t>(phase)];
            if (!(length > 0.0)) continue;
            constexpr int samples = 48;
            const auto value = [&](double t) {
                return std::abs(pick(anglesAt(pointAt(phase, t), distance, height)));
            };
            int top = 0;
            double topValue = 0.0;
            for (int i = 0; i <= samples; ++i)
                if (const double f = value(length * i / samples); f > topValue) topValue = f, top = i;
            const double low = length * std::max(0, top - 1) / samples,
                         high = length * std::min(samples, top + 1) / samples;
            best = std::max(
                {best, topValue, -solve::leastBetween([&](double t) { return -value(t); }, low, high)});
        }
        return best;
    };
    out.panRate = largest([](const Angles& a) { return a.panRate; });
    out.panAcceleration = largest([](const Angles& a) { return a.panAcceleration; });
    const Angles start = anglesAt({-passAt, 0, 0}, distance, height);
    const Angles end = anglesAt({travel - passAt, 0, 0}, distance, height);
    out.panAngle = std::abs(end.pan - start.pan);
    take(start);
    take(end);
    if (passAt > 0.0 && passAt < travel) take(anglesAt({0, 0, 0}, distance, height));
    out.tiltAngle = highTilt - lowTilt;
    if (height != 0.0) {
        out.tiltRate = largest([](const Angles& a) { return a.tiltRate; });
        out.tiltAcceleration = largest([](const Angles& a) { return a.tiltAcceleration; });
    }
    return out;
}

} // namespace gantry::kinematics
