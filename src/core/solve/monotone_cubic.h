// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <vector>

namespace gantry::solve {

/// A curve through points that nowhere runs back: cubics with slopes by Fritsch and Butland (1984), the
/// weighted harmonic mean of the slopes on both sides, and at the ends by three points, cut to what stays
/// monotone. Continuous with its slope; its second derivative, which Boost's does not give, jumps at the
/// points. Straight beyond the ends.
class MonotoneCubic {
public:
    /// @param x rising strictly, two points or more @param y rising or falling strictly for inverse()
    MonotoneCubic(std::vector<double> x, std::vector<double> y);

    double at(double x) const;
    double slopeAt(double x) const;
    double curvatureAt(double x) const;
    /// Where it has a value, to 1e-12 of the interval.
    double inverse(double y) const;

    double first() const { return x_.front(); }
    double last() const { return x_.back(); }

    friend bool operator==(const MonotoneCubic&, const MonotoneCubic&) = default;

private:
    std::size_t pieceAt(double x) const;

    std::vector<double> x_, y_, slopes_;
};

} // namespace gantry::solve
