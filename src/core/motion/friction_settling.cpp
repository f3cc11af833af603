// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/friction_settling.h"

#include "core/solve/root.h"

#include <cmath>
#include <limits>
#include <numbers>

namespace gantry::motion {
namespace {

using std::numbers::pi;

struct Shape {
    explicit Shape(const DyingSwing& s)
        : amplitude(s.amplitude), band(s.band), rate(2.0 * pi * s.mode.frequency),
          damped(rate * std::sqrt(1.0 - s.mode.damping * s.mode.damping)), decay(s.mode.damping * rate),
          kept(std::exp(-decay * pi / damped)) {}
    double amplitude, band, rate, damped, decay;
    double kept; ///< of the distance from the middle, in half a swing
    double halfTime() const { return pi / damped; }
    /// Share of the distance from the middle, `time` after a turn.
    double after(double time) const {
        return std::exp(-decay * time) * (std::cos(damped * time) + decay / damped * std::sin(damped * time));
    }
    /// Turning point n, without its sign: each is (x − c) e − c after the one before. Below 0 it has stopped
    /// short of the middle.
    double turn(double n) const {
        if (kept == 1.0) return amplitude - 2.0 * band * n;
        const double b = band * (1.0 + kept) / (1.0 - kept);
        return (amplitude + b) * std::pow(kept, n) - b;
    }
    /// The same with the sign of its side.
    double place(double n) const { return std::fmod(n, 2.0) == 0.0 ? turn(n) : -turn(n); }
    /// The first turning point that is no farther than `x`; infinite if none is.
    double firstWithin(double x) const {
        if (amplitude <= x) return 0.0;
        double n = 0.0;
        if (kept == 1.0) {
            n = (amplitude - x) / (2.0 * band);
        } else {
            const double b = band * (1.0 + kept) / (1.0 - kept);
            n = std::log((amplitude + b) / (x + b)) / -std::log(kept);
        }
        if (!std::isfinite(n)) return std::numeric_limits<double>::infinity();
        n = std::ceil(n - 1e-9);
        return turn(n) > x * (1.0 + 1e-9) ? n + 1.0 : n;
    }
};

} // namespace

double DyingSwing::halfSwings() const {
    if (!(band > 0.0)) return amplitude > 0.0 ? std::numeric_limits<double>::infinity() : 0.0;
    return Shape(*this).firstWithin(band);
}

double DyingSwing::rest() const {
    const double n = halfSwings();
    return band > 0.0 && std::isfinite(n) ? Shape(*this).place(n) : 0.0;
}

double DyingSwing::stopTime() const {
    return halfSwings() * Shape(*this).halfTime();
}

std::optional<double> DyingSwing::timeWithin(double centre, double tolerance) const {
    const Shape shape(*this);
    if (!(band > 0.0)) {
        // About the middle, by the falling envelope.
        if (amplitude + std::abs(centre) <= tolerance) return 0.0;
        return settlingTime(amplitude, tolerance - std::abs(centre), mode);
    }
    const double swings = halfSwings();
    if (!std::isfinite(swings) || std::abs(shape.place(swings) - centre) > tolerance) return std::nullopt;
    // Only the last turning points can be out: those farther than the tolerance are, from there it is few.
    double since = 0.0, n = std::max(0.0, shape.firstWithin(tolerance + std::abs(centre)) - 2.0);
    constexpr double beyondCounting = 1e9; // friction so small that single swings do not matter
    if (n > beyondCounting) return n * shape.halfTime();
    for (; n < swings; ++n) {
        const double x = shape.place(n), middle = std::copysign(band, x), half = shape.halfTime();
        const auto beyond = [&](double time) {
            return std::abs(middle + (x - middle) * shape.after(time) - centre) - tolerance;
        };
        // Out at its end: until later. Else from where it comes in for the last time.
        if (beyond(half) > 0.0)
            since = (n + 1.0) * half;
        else if (beyond(0.0) > 0.0)
            since = n * half + solve::rootBetween(beyond, 0.0, half).value_or(half);
        if (std::abs(x) + std::abs(centre) <= tolerance) break;
    }
    return since;
}

} // namespace gantry::motion
