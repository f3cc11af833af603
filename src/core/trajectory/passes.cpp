// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/trajectory/passes.h"

#include <algorithm>
#include <cmath>

namespace gantry::trajectory {

Stop soonestStop(double speed, double accelerationNow, const motion::Limits& limits) {
    if (!(limits.jerk > 0.0)) return stopAlone(speed, limits.acceleration);
    const double j = limits.jerk, a0 = std::max(accelerationNow, -limits.acceleration);
    // From a₀ down to −â, held, and back to nothing; what the two jerk phases leave of the speed is held
    // away.
    const double peak = std::min(limits.acceleration, std::sqrt(j * speed + 0.5 * a0 * a0));
    double v = speed, x = 0.0, a = a0, time = 0.0;
    const auto phase = [&](double t, double jerk) {
        if (!(t > 0.0)) return;
        x += t * (v + t * (0.5 * a + t * jerk / 6.0));
        v += t * (a + 0.5 * t * jerk);
        a += t * jerk;
        time += t;
    };
    if (a0 < -peak) { // braking harder than it need: it comes to rest while the braking is let go
        phase(std::sqrt(2.0 * speed / j), 0.0);
        return {x, time};
    }
    phase((a0 + peak) / j, -j);
    phase((v - 0.5 * peak * peak / j) / peak, 0.0);
    phase(peak / j, j);
    return {x, time};
}

Stop stopAlone(double speed, double brake) {
    return {0.5 * speed * speed / brake, std::abs(speed) / brake};
}

namespace {

/// The rate of a pause's time, 1 − (10 x³ − 15 x⁴ + 6 x⁵), with its first two derivatives in x and its
/// integral.
struct Rate {
    double value, first, second, integral;
};
Rate quinticRate(double x) {
    const double x2 = x * x, x3 = x2 * x;
    return {1.0 - x3 * (10.0 - 15.0 * x + 6.0 * x2), -30.0 * x2 * (1.0 - 2.0 * x + x2),
            -60.0 * x * (1.0 - 3.0 * x + 2.0 * x2), x - x2 * x2 * (2.5 - 3.0 * x + x2)};
}

Pause standsAt(const Trajectory& t, double at, double moveTime, double time) {
    Pause out{time, moveTime, {}, {}};
    for (std::size_t a = 0; a < t.axisCount(); ++a) {
        out.places.push_back(t.at(a, moveTime).place);
        out.runOn.push_back(out.places.back() - t.at(a, at).place);
    }
    return out;
}

} // namespace

std::optional<Pause> pauseFrom(const Trajectory& t, double at, std::span<const motion::Limits> limits) {
    // By how much the limits are used at most, at moments close enough that none is missed by a thousandth.
    const auto used = [&](double T) {
        constexpr int steps = 200;
        double most = 0.0;
        for (int i = 0; i <= steps; ++i) {
            const Rate r = quinticRate(static_cast<double>(i) / steps);
            const double moment = at + r.integral * T, rises = r.first / T, bends = r.second / (T * T);
            for (std::size_t a = 0; a < t.axisCount(); ++a) {
                const State s = t.at(a, moment);
                const double acceleration = s.acceleration * r.value * r.value + s.speed * rises;
                const double jerk = s.jerk * r.value * r.value * r.value +
                                    3.0 * s.acceleration * r.value * rises + s.speed * bends;
                most = std::max(most, std::abs(acceleration) / limits[a].acceleration);
                if (limits[a].jerk > 0.0) most = std::max(most, std::abs(jerk) / limits[a].jerk);
            }
        }
        return most;
    };
    // The move itself may stand at its limits; from there a pause needs what rounding leaves.
    constexpr double allowed = 1.0 + 1e-9;
    double low = 0.0, high = 0.05;
    const double longest = 2.0 * (t.duration() - at); // it runs on for half of it
    while (used(high) > allowed) {
        low = high;
        high *= 1.5;
        if (low > longest) return std::nullopt;
    }
    for (int i = 0; i < 50; ++i) {
        const double middle = 0.5 * (low + high);
        (used(middle) > allowed ? low : high) = middle;
    }
    if (at + 0.5 * high > t.duration()) return std::nullopt;
    return standsAt(t, at, at + 0.5 * high, high);
}

Pause stopOnPath(const Trajectory& t, double at, std::span<const double> brakes) {
    // In small steps of the move's time: the least rate r of the next moment with |q″r² + q′ r r′| ≤ a.
    constexpr int steps = 20000;
    const double step = std::max(t.duration() - at, 1e-9) / steps;
    double square = 1.0, time = 0.0, s = at; // rate², spent, and the move's own time
    for (int i = 0; i < steps && square > 0.0; ++i) {
        double falls = -1e300; // d(rate²)/ds, at most as steep as every axis allows
        for (std::size_t a = 0; a < t.axisCount(); ++a) {
            const State q = t.at(a, s);
            if (std::abs(q.speed) < 1e-12) continue;
            // q″ b + q′ b′/2 within ±a, solved for the steepest fall.
            const double sign = q.speed > 0.0 ? 1.0 : -1.0;
            falls = std::max(falls, 2.0 * (-brakes[a] - sign * q.acceleration * square) / std::abs(q.speed));
        }
        if (falls == -1e300) break; // nothing moves
        const double next = std::max(0.0, square + step * falls);
        // Where it comes to rest within the step only a part of it is run.
        const double part = next > 0.0 ? 1.0 : square / (square - (square + step * falls));
        time += 2.0 * part * step / (std::sqrt(square) + std::sqrt(next));
        s += part * step;
        square = next;
    }
    return standsAt(t, at, s, time);
}

Approach approachTo(double start, int firstDirection, double backlash, double margin, double low,
                    double high) {
    const double away = backlash + margin, wanted = start - (firstDirection < 0 ? -1.0 : 1.0) * away;
    Approach out;
    out.from = std::clamp(wanted, low, high);
    // Only the play itself has to fit; the margin is for good measure.
    out.shortOf = std::max(0.0, backlash - std::abs(start - out.from));
    out.takenUp = out.shortOf == 0.0;
    return out;
}

} // namespace gantry::trajectory
