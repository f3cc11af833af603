// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/trajectory/through_keys.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace gantry::trajectory {
namespace {

using Two = std::array<double, 2>;
/// Row by row.
using Block = std::array<double, 4>;

Two operator*(const Block& m, const Two& v) {
    return {m[0] * v[0] + m[1] * v[1], m[2] * v[0] + m[3] * v[1]};
}
Block operator*(const Block& a, const Block& b) {
    return {a[0] * b[0] + a[1] * b[2], a[0] * b[1] + a[1] * b[3], a[2] * b[0] + a[3] * b[2],
            a[2] * b[1] + a[3] * b[3]};
}
Block inverse(const Block& m) {
    const double d = m[0] * m[3] - m[1] * m[2];
    return {m[3] / d, -m[1] / d, -m[2] / d, m[0] / d};
}

/// Speeds and accelerations at the keys of one axis between two stops, such that jerk and its derivative are
/// continuous: two equations a key in its own and its neighbours' two, solved by blocks.
///
/// From the quintic between two states over h, at its ends, with Δ the distance:
/// jerk  at start (60Δ − 36 h v₀ − 24 h v₁ − 9 h² a₀ + 3 h² a₁)/h³, at end (60Δ − 24 h v₀ − 36 h v₁ − 3 h² a₀
/// + 9 h² a₁)/h³; its derivative at start (−360Δ + 192 h v₀ + 168 h v₁ + 36 h² a₀ − 24 h² a₁)/h⁴, at end
/// (360Δ − 168 h v₀ − 192 h v₁ − 24 h² a₀ + 36 h² a₁)/h⁴.
void solveSmooth(std::span<const double> x, std::span<const double> t, std::span<State> out) {
    const std::size_t last = x.size() - 1;
    std::vector<Block> upper(x.size());
    std::vector<Two> right(x.size());
    for (std::size_t i = 1; i < last; ++i) {
        const double h = t[i] - t[i - 1], k = t[i + 1] - t[i], d = x[i] - x[i - 1], e = x[i + 1] - x[i];
        const double h2 = h * h, h3 = h2 * h, h4 = h3 * h, k2 = k * k, k3 = k2 * k, k4 = k3 * k;
        // End of the piece before minus start of the piece behind, as factors of (v, a) of each key.
        const Block below{-24.0 / h2, -3.0 / h, -168.0 / h3, -24.0 / h2};
        const Block own{-36.0 / h2 + 36.0 / k2, 9.0 / h + 9.0 / k, -192.0 / h3 - 192.0 / k3,
                        36.0 / h2 - 36.0 / k2};
        const Block above{24.0 / k2, -3.0 / k, -168.0 / k3, 24.0 / k2};
        Two wants{60.0 * (e / k3 - d / h3), -360.0 * (e / k4 + d / h4)};
        Block pivot = own;
        if (i > 1) { // at a stop both are nothing
            const Block by = below * upper[i - 1];
            const Two with = below * right[i - 1];
            for (std::size_t n = 0; n < 4; ++n) pivot[n] -= by[n];
            wants = {wants[0] - with[0], wants[1] - with[1]};
        }
        const Block solved = inverse(pivot);
        upper[i] = solved * above;
        right[i] = solved * wants;
    }
    for (std::size_t i = last; i-- > 1;) {
        Two v = right[i];
        if (i + 1 < last) {
            const Two with = upper[i] * Two{out[i + 1].speed, out[i + 1].acceleration};
            v = {v[0] - with[0], v[1] - with[1]};
        }
        out[i].speed = v[0];
        out[i].acceleration = v[1];
    }
}

/// Speeds that keep an axis between its neighbouring keys; accelerations are nothing.
void solveWithin(std::span<const double> x, std::span<const double> t, std::span<State> out) {
    for (std::size_t i = 1; i + 1 < x.size(); ++i) {
        const double h = t[i] - t[i - 1], k = t[i + 1] - t[i];
        const double before = (x[i] - x[i - 1]) / h, behind = (x[i + 1] - x[i]) / k;
        if (!(before * behind > 0.0)) continue; // it turns, or stands on one side
        const double mean = (before * k + behind * h) / (h + k);
        out[i].speed =
            std::copysign(std::min({2.0 * std::abs(before), 2.0 * std::abs(behind), std::abs(mean)}), mean);
    }
}

} // namespace

Trajectory throughKeys(std::span<const Key> keys, std::span<const double> times,
                       const std::vector<bool>& stops, std::span<const Through> through) {
    std::vector<std::vector<Quintic>> axes(keys.front().size());
    std::vector<double> x(keys.size());
    for (std::size_t a = 0; a < axes.size(); ++a) {
        std::vector<State> states(keys.size());
        for (std::size_t i = 0; i < keys.size(); ++i) states[i].place = x[i] = keys[i][a];
        const auto rests = [&](std::size_t i) {
            return i == 0 || i + 1 == keys.size() || stops[i] || x[i] == x[i - 1] || x[i] == x[i + 1];
        };
        for (std::size_t from = 0; from + 1 < keys.size();) {
            std::size_t to = from + 1;
            while (!rests(to)) ++to;
            const std::size_t count = to - from + 1;
            const auto part = [&](auto list) { return list.subspan(from, count); };
            (through[a] == Through::Smooth ? solveSmooth : solveWithin)(
                part(std::span<const double>(x)), part(times), part(std::span<State>(states)));
            from = to;
        }
        for (std::size_t i = 0; i + 1 < keys.size(); ++i)
            axes[a].push_back(Quintic::between(states[i], states[i + 1], times[i + 1] - times[i]));
    }
    std::vector<double> from0(times.begin(), times.end());
    for (double& t : from0) t -= times.front();
    return Trajectory(std::move(from0), std::move(axes));
}

motion::Limits sharedLimits(std::span<const double> from, std::span<const double> to,
                            std::span<const motion::Limits> limits) {
    motion::Limits out;
    const auto least = [](double& of, double value) {
        if (value > 0.0 && (of == 0.0 || value < of)) of = value;
    };
    for (std::size_t a = 0; a < from.size(); ++a) {
        const double distance = std::abs(to[a] - from[a]);
        if (distance == 0.0) continue;
        least(out.speed, limits[a].speed / distance);
        least(out.acceleration, limits[a].acceleration / distance);
        least(out.jerk, limits[a].jerk / distance);
    }
    return out;
}

Trajectory along(std::span<const double> from, std::span<const double> to, const motion::Profile& share) {
    std::vector<double> times{0.0};
    std::vector<Quintic> course;
    State now;
    const auto phase = [&](double time, double jerk) {
        if (!(time > 0.0)) return;
        Quintic q({now.place, now.speed, 0.5 * now.acceleration, jerk / 6.0, 0.0, 0.0}, time);
        now = q.at(time);
        course.push_back(q);
        times.push_back(times.back() + time);
    };
    // A half sine is no polynomial; in so many pieces it is off by less than 1e-6 of its ramp's way.
    const auto halfSine = [&](const motion::Ramp& r, double sign) {
        constexpr int pieces = 8;
        const State start = now;
        const double peak = sign * r.acceleration, T = r.constantTime, w = motion::Ramp::pi / T;
        for (int i = 1; i <= pieces; ++i) {
            const double t = T * i / pieces;
            const State end{start.place + start.speed * t + peak / w * (t - std::sin(w * t) / w),
                            start.speed + peak / w * (1.0 - std::cos(w * t)),
                            i < pieces ? peak * std::sin(w * t) : 0.0, 0.0};
            course.push_back(Quintic::between(now, end, T / pieces));
            times.push_back(times.back() + T / pieces);
            now = end;
        }
    };
    const auto ramp = [&](const motion::Ramp& r, double sign) {
        if (r.halfSine && r.constantTime > 0.0) return halfSine(r, sign);
        const double jerk = sign * r.jerk();
        phase(r.jerkTime, jerk);
        now.acceleration = sign * r.acceleration; // at once where there is no jerk phase
        phase(r.constantTime, 0.0);
        phase(r.jerkTime, -jerk);
        now.acceleration = 0.0;
    };
    ramp(share.in, 1.0);
    now.speed = share.peakSpeed;
    phase(share.cruiseTime, 0.0);
    ramp(share.out, -1.0);
    std::vector<std::vector<Quintic>> axes(from.size());
    if (course.empty()) return Trajectory({}, std::move(axes));
    // What rounding lacks of the whole way is put right over all of it.
    const double whole = now.place;
    for (std::size_t a = 0; a < from.size(); ++a)
        for (const Quintic& q : course) axes[a].push_back(q.mapped((to[a] - from[a]) / whole, from[a]));
    return Trajectory(std::move(times), std::move(axes));
}

Trajectory straight(std::span<const double> from, std::span<const double> to,
                    std::span<const motion::Limits> limits) {
    const motion::Limits shared = sharedLimits(from, to, limits);
    return along(from, to, shared.speed > 0.0 ? motion::plan(1.0, shared) : motion::Profile{});
}

} // namespace gantry::trajectory
