// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/solve/monotone_cubic.h"

#include "core/solve/root.h"

#include <algorithm>
#include <cmath>

namespace gantry::solve {
namespace {

bool sameSense(double a, double b) {
    return (a > 0.0 && b > 0.0) || (a < 0.0 && b < 0.0);
}

/// Slope at an end from its interval and the next one.
double endSlope(double h, double next, double chord, double nextChord) {
    const double slope = ((2.0 * h + next) * chord - h * nextChord) / (h + next);
    if (!sameSense(slope, chord)) return 0.0;
    return !sameSense(chord, nextChord) && std::abs(slope) > 3.0 * std::abs(chord) ? 3.0 * chord : slope;
}

} // namespace

MonotoneCubic::MonotoneCubic(std::vector<double> x, std::vector<double> y)
    : x_(std::move(x)), y_(std::move(y)), slopes_(x_.size(), 0.0) {
    const std::size_t n = x_.size();
    std::vector<double> h(n - 1), chord(n - 1);
    for (std::size_t i = 0; i + 1 < n; ++i) {
        h[i] = x_[i + 1] - x_[i];
        chord[i] = (y_[i + 1] - y_[i]) / h[i];
    }
    if (n == 2) {
        slopes_.assign(2, chord[0]);
        return;
    }
    for (std::size_t i = 1; i + 1 < n; ++i) {
        if (!sameSense(chord[i - 1], chord[i])) continue;
        const double before = 2.0 * h[i] + h[i - 1], after = h[i] + 2.0 * h[i - 1];
        slopes_[i] = (before + after) / (before / chord[i - 1] + after / chord[i]);
    }
    slopes_.front() = endSlope(h[0], h[1], chord[0], chord[1]);
    slopes_.back() = endSlope(h[n - 2], h[n - 3], chord[n - 2], chord[n - 3]);
}

std::size_t MonotoneCubic::pieceAt(double x) const {
    const auto above = std::upper_bound(x_.begin() + 1, x_.end() - 1, x);
    return static_cast<std::size_t>(above - x_.begin()) - 1;
}

double MonotoneCubic::at(double x) const {
    if (x <= x_.front()) return y_.front() + slopes_.front() * (x - x_.front());
    if (x >= x_.back()) return y_.back() + slopes_.back() * (x - x_.back());
    const std::size_t i = pieceAt(x);
    const double h = x_[i + 1] - x_[i], t = (x - x_[i]) / h, s = 1.0 - t;
    return y_[i] * s * s * (1.0 + 2.0 * t) + y_[i + 1] * t * t * (3.0 - 2.0 * t) +
           h * t * s * (slopes_[i] * s - slopes_[i + 1] * t);
}

double MonotoneCubic::slopeAt(double x) const {
    if (x <= x_.front()) return slopes_.front();
    if (x >= x_.back()) return slopes_.back();
    const std::size_t i = pieceAt(x);
    const double h = x_[i + 1] - x_[i], t = (x - x_[i]) / h, rise = (y_[i + 1] - y_[i]) / h;
    return 6.0 * t * (1.0 - t) * rise + slopes_[i] * (1.0 - t) * (1.0 - 3.0 * t) +
           slopes_[i + 1] * t * (3.0 * t - 2.0);
}

double MonotoneCubic::curvatureAt(double x) const {
    if (x < x_.front() || x > x_.back()) return 0.0;
    const std::size_t i = pieceAt(x);
    const double h = x_[i + 1] - x_[i], t = (x - x_[i]) / h, rise = (y_[i + 1] - y_[i]) / h;
    return (6.0 * (1.0 - 2.0 * t) * rise + slopes_[i] * (6.0 * t - 4.0) + slopes_[i + 1] * (6.0 * t - 2.0)) /
           h;
}

double MonotoneCubic::inverse(double y) const {
    const bool rises = y_.back() > y_.front();
    const auto beyond = [&](double end, double value, double slope) {
        return slope != 0.0 ? end + (y - value) / slope : end;
    };
    if (rises ? y <= y_.front() : y >= y_.front()) return beyond(x_.front(), y_.front(), slopes_.front());
    if (rises ? y >= y_.back() : y <= y_.back()) return beyond(x_.back(), y_.back(), slopes_.back());
    std::size_t i = 0;
    while (i + 2 < y_.size() && (rises ? y > y_[i + 1] : y < y_[i + 1])) ++i;
    return rootBetween([&](double x) { return at(x) - y; }, x_[i], x_[i + 1]).value_or(x_[i]);
}

} // namespace gantry::solve
