// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/rocking.h"

#include <algorithm>
#include <cmath>
#include <complex>
#include <numbers>

namespace gantry::motion {
namespace {

using Complex = std::complex<double>;
using std::numbers::pi;

struct Poles {
    double omega, damped;
    Complex s;
};
Poles polesOf(const Mode& m) {
    const double w = 2.0 * pi * m.frequency, d = w * std::sqrt(1.0 - m.damping * m.damping);
    return {w, d, {-m.damping * w, d}};
}

/// ∫ a(t) e^{−st} dt over a ramp from its own start.
Complex ramped(const Ramp& r, const Complex& s) {
    const double T = r.time();
    if (T <= 0.0) return 0.0;
    if (r.halfSine) {
        const double p = pi / T;
        return r.acceleration * p * (1.0 + std::exp(-s * T)) / (s * s + p * p);
    }
    const auto at = [&](double t) { return std::exp(-s * t); };
    if (r.jerkTime <= 0.0) return r.acceleration * (1.0 - at(T)) / s;
    const double a = r.jerkTime, b = a + r.constantTime;
    return r.jerk() * (1.0 - at(a) - at(b) + at(T)) / (s * s);
}

} // namespace

double rockingAfter(const Profile& p, const Mode& mode) {
    const Poles q = polesOf(mode);
    const double end = p.time();
    // ∫ a(t) e^{s(T−t)} dt, the ramp out with its sign.
    const Complex in = std::exp(q.s * end) * ramped(p.in, q.s);
    const Complex out = std::exp(q.s * p.out.time()) * ramped(p.out, q.s);
    return std::abs(in - out) / q.damped;
}

double mostRockingAfter(const Profile& profile, const Mode& mode) {
    const double w = 2.0 * std::numbers::pi * mode.frequency;
    const auto most = [&](const Ramp& r) {
        double out = std::min(2.0 * r.acceleration / (w * w), profile.peakSpeed / w);
        if (r.jerkTime > 0.0) out = std::min(out, 4.0 * r.jerk() / (w * w * w));
        return out;
    };
    const double since = std::max(0.0, profile.time() - profile.in.time());
    const double slower = std::sqrt(1.0 - mode.damping * mode.damping); // damped over undamped frequency
    return (most(profile.out) + most(profile.in) * std::exp(-mode.damping * w * since)) / slower;
}

double rockingDuring(const Profile& p, const Mode& mode) {
    const double w = 2.0 * pi * mode.frequency;
    double worst = 0.0;
    for (const Ramp& r : {p.in, p.out}) {
        if (r.time() <= 0.0) continue;
        // The quasi-static share, and what its first jerk phase sets ringing round it.
        const double still = r.acceleration / (w * w);
        const double phase = r.halfSine ? r.time() / 2.0 : r.jerkTime;
        const double x = 0.5 * w * phase;
        const double ring = x > 1e-9 ? std::abs(std::sin(x) / x) : 1.0;
        worst = std::max(worst, still * (1.0 + ring));
    }
    return worst;
}

std::optional<double> settlingTime(double amplitude, double tolerance, const Mode& mode) {
    if (amplitude <= tolerance) return 0.0;
    if (mode.damping <= 0.0 || tolerance <= 0.0) return std::nullopt;
    return std::log(amplitude / tolerance) / (mode.damping * 2.0 * pi * mode.frequency);
}

Ramp tunedRamp(double speed, double acceleration, double period) {
    if (speed < acceleration * period) return {speed / period, period, 0.0};
    return {acceleration, period, speed / acceleration - period};
}

namespace {

Profile withRamps(double distance, const Ramp& ramp) {
    Profile p;
    p.distance = distance;
    p.in = p.out = ramp;
    p.peakSpeed = ramp.speed();
    p.cruiseTime = p.peakSpeed > 0.0 ? std::max(0.0, distance / p.peakSpeed - ramp.time()) : 0.0;
    return p;
}

} // namespace

Profile planTuned(double distance, const Limits& l, double period) {
    if (distance <= 0.0) return {};
    // A jerk limit that a period's phase would exceed lowers the acceleration.
    const double a = l.jerk > 0.0 ? std::min(l.acceleration, l.jerk * period) : l.acceleration;
    const Ramp full = tunedRamp(l.speed, a, period);
    if (l.speed * full.time() <= distance) return withRamps(distance, full);
    // Without cruise: D = v (2 T₀ + t_c), v = a (T₀ + t_c).
    const double shortest = 2.0 * a * period * period;
    if (distance <= shortest) return withRamps(distance, {distance / (2.0 * period * period), period, 0.0});
    // a (T₀ + t)(2T₀ + t) = D: positive root in t.
    const double c = 2.0 * period * period - distance / a;
    const double t = (-3.0 * period + std::sqrt(9.0 * period * period - 4.0 * c)) / 2.0;
    return withRamps(distance, {a, period, std::max(0.0, t)});
}

Profile planTunedTrapezoid(double distance, const Limits& l, double period) {
    if (distance <= 0.0) return {};
    const double speed = std::min(l.speed, std::sqrt(distance * l.acceleration));
    const double periods = std::max(1.0, std::ceil(speed / l.acceleration / period - 1e-9));
    const double time = periods * period;
    // D = v T at least: a slower top speed where the ramps alone would be longer.
    const double v = std::min(speed, distance / time);
    return withRamps(distance, {v / time, 0.0, time});
}

Profile planHalfSine(double distance, const Limits& l) {
    if (distance <= 0.0) return {};
    const auto ramp = [&](double speed) {
        double time = pi * speed / (2.0 * l.acceleration);
        // Largest jerk Aπ/T with A = πv/2T.
        if (l.jerk > 0.0) time = std::max(time, pi * std::sqrt(speed / (2.0 * l.jerk)));
        Ramp r;
        r.halfSine = true;
        r.acceleration = pi * speed / (2.0 * time);
        r.constantTime = time;
        return r;
    };
    const Ramp full = ramp(l.speed);
    if (l.speed * full.time() <= distance) return withRamps(distance, full);
    // D = v T(v), and T grows with v: either branch in closed form, the slower one binds.
    double v = std::sqrt(2.0 * l.acceleration * distance / pi);
    if (l.jerk > 0.0) v = std::min(v, std::cbrt(2.0 * l.jerk * distance * distance / (pi * pi)));
    return withRamps(distance, ramp(v));
}

} // namespace gantry::motion
