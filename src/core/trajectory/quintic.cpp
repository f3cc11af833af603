// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/trajectory/quintic.h"

#include <algorithm>
#include <cmath>

namespace gantry::trajectory {
namespace {

/// n (n−1) … of the power that remains after differentiating.
constexpr double factors[4][6] = {
    {1, 1, 1, 1, 1, 1}, {0, 1, 2, 3, 4, 5}, {0, 0, 2, 6, 12, 20}, {0, 0, 0, 6, 24, 60}};

/// Root of a derivative that is monotone between two moments of different sign: Newton's steps kept inside
/// the bracket, which halves it where they leave it.
double rootIn(const Quintic& q, Order order, double low, double high, double atLow) {
    const auto next = static_cast<Order>(static_cast<int>(order) + 1);
    const bool rises = atLow < 0.0;
    double t = 0.5 * (low + high);
    for (int i = 0; i < 100; ++i) {
        const double f = q.value(order, t);
        if (f == 0.0) return t;
        ((f < 0.0) == rises ? low : high) = t;
        const double slope = q.value(next, t);
        double to = slope != 0.0 ? t - f / slope : low;
        if (!(to > low && to < high)) to = 0.5 * (low + high);
        if (std::abs(to - t) <= 1e-15 * q.duration() || !(to > low && to < high)) return to;
        t = to;
    }
    return t;
}

} // namespace

Quintic Quintic::between(const State& from, const State& to, double duration) {
    const double T = duration, d = to.place - from.place;
    std::array<double, 6> c{from.place, from.speed, 0.5 * from.acceleration, 0.0, 0.0, 0.0};
    // In shares of the duration, where the three equations have whole numbers.
    const double e0 = d - T * from.speed - 0.5 * T * T * from.acceleration,
                 e1 = T * (to.speed - from.speed) - T * T * from.acceleration,
                 e2 = T * T * (to.acceleration - from.acceleration);
    c[3] = (10.0 * e0 - 4.0 * e1 + 0.5 * e2) / (T * T * T);
    c[4] = (-15.0 * e0 + 7.0 * e1 - e2) / (T * T * T * T);
    c[5] = (6.0 * e0 - 3.0 * e1 + 0.5 * e2) / (T * T * T * T * T);
    return Quintic(c, duration);
}

double Quintic::value(Order order, double t) const {
    const auto n = static_cast<std::size_t>(order);
    double out = 0.0;
    for (std::size_t i = 6; i-- > n;) out = out * t + factors[n][i] * c_[i];
    return out;
}

State Quintic::at(double t) const {
    return {value(Order::Place, t), value(Order::Speed, t), value(Order::Acceleration, t),
            value(Order::Jerk, t)};
}

Moments Quintic::roots(Order order) const {
    Moments out;
    const auto add = [&](double t) {
        if (t > 0.0 && t < duration_ && (out.count == 0 || t > out.at[out.count - 1]))
            out.at[out.count++] = t;
    };
    if (order == Order::Jerk) {
        const double a = 60.0 * c_[5], b = 24.0 * c_[4], c = 6.0 * c_[3];
        // In shares of the duration, or a long piece would seem straight where a short one is not.
        if (std::abs(a) * duration_ * duration_ <= 1e-14 * (std::abs(b) * duration_ + std::abs(c))) {
            if (b != 0.0) add(-c / b);
            return out;
        }
        const double inside = b * b - 4.0 * a * c;
        if (inside < 0.0) return out;
        // Without the difference of nearly equal numbers.
        const double q = -0.5 * (b + std::copysign(std::sqrt(inside), b));
        const double one = q / a, other = q != 0.0 ? c / q : 0.0;
        add(std::min(one, other));
        add(std::max(one, other));
        return out;
    }
    const Moments turns = roots(static_cast<Order>(static_cast<int>(order) + 1));
    double low = 0.0, atLow = value(order, 0.0);
    const auto span = [&](double high) {
        const double atHigh = value(order, high);
        if (atLow != 0.0 && atHigh != 0.0 && (atLow < 0.0) != (atHigh < 0.0))
            add(rootIn(*this, order, low, high, atLow));
        else if (atHigh == 0.0 && high < duration_)
            add(high);
        low = high;
        atLow = atHigh;
    };
    for (const double t : turns) span(t);
    span(duration_);
    return out;
}

Extremes Quintic::extremes(Order order) const {
    Extremes out;
    out.least = out.greatest = value(order, 0.0);
    const auto look = [&](double t) {
        const double v = value(order, t);
        if (v < out.least) {
            out.least = v;
            out.leastAt = t;
        }
        if (v > out.greatest) {
            out.greatest = v;
            out.greatestAt = t;
        }
    };
    look(duration_);
    if (order == Order::Jerk) { // turns where the next derivative, which is straight, is nothing
        if (c_[5] != 0.0)
            if (const double t = -c_[4] / (5.0 * c_[5]); t > 0.0 && t < duration_) look(t);
        return out;
    }
    for (const double t : roots(static_cast<Order>(static_cast<int>(order) + 1))) look(t);
    return out;
}

Quintic Quintic::slower(double by) const {
    std::array<double, 6> c = c_;
    double power = 1.0;
    for (double& each : c) {
        each /= power;
        power *= by;
    }
    return Quintic(c, duration_ * by);
}

Quintic Quintic::mapped(double by, double from) const {
    std::array<double, 6> c = c_;
    for (double& each : c) each *= by;
    c[0] += from;
    return Quintic(c, duration_);
}

} // namespace gantry::trajectory
