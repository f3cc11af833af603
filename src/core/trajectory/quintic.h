// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>
#include <cstddef>

namespace gantry::trajectory {

/// Place [U], speed [U/s], acceleration [U/s²] and jerk [U/s³] of one axis at one moment.
struct State {
    double place = 0.0, speed = 0.0, acceleration = 0.0, jerk = 0.0;
};

/// What is bounded, by how often the place is differentiated.
enum class Order { Place, Speed, Acceleration, Jerk };

/// Least and greatest value, and when [s].
struct Extremes {
    double least = 0.0, leastAt = 0.0, greatest = 0.0, greatestAt = 0.0;

    double largest() const { return greatest > -least ? greatest : -least; }
    double largestAt() const { return greatest > -least ? greatestAt : leastAt; }
};

/// Moments [s] in order, five at most.
struct Moments {
    std::size_t count = 0;
    std::array<double, 5> at{};

    const double* begin() const { return at.data(); }
    const double* end() const { return at.data() + count; }
};

/// A polynomial of the fifth degree in the time since its start [s]: place = Σ c[i] tⁱ.
class Quintic {
public:
    Quintic() = default;
    explicit Quintic(const std::array<double, 6>& coefficients, double duration)
        : c_(coefficients), duration_(duration) {}

    /// The one that begins and ends with these places, speeds and accelerations. @param duration [s] > 0
    static Quintic between(const State& from, const State& to, double duration);

    double duration() const { return duration_; }
    const std::array<double, 6>& coefficients() const { return c_; }
    /// At a time since its start, which may lie outside.
    State at(double t) const;
    /// Value of one derivative.
    double value(Order order, double t) const;

    /// Where a derivative is nothing strictly inside, found from the roots of the next one down from the
    /// jerk, so that none is missed; to 1e-14 of the duration. What is nothing throughout has no roots.
    Moments roots(Order order) const;
    /// Exact: at the ends and at the roots of the next derivative.
    Extremes extremes(Order order) const;

    /// The same path in `by` times the time. @param by > 0
    Quintic slower(double by) const;
    /// Place · by + from.
    Quintic mapped(double by, double from) const;

    bool operator==(const Quintic&) const = default;

private:
    std::array<double, 6> c_{};
    double duration_ = 0.0;
};

} // namespace gantry::trajectory
