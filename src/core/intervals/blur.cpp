// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intervals/blur.h"

#include "core/solve/root.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace gantry::intervals {
namespace {

using std::numbers::pi;

/// [rad/s]
double rateOf(const Rocking& r) {
    return 2.0 * pi * r.frequency * std::sqrt(std::max(0.0, 1.0 - r.damping * r.damping));
}

} // namespace

double Rocking::left() const {
    return amplitude * std::exp(-damping * 2.0 * pi * frequency * settle);
}

double blurRunning(double speed, double exposure) {
    return std::abs(speed) * exposure;
}

double blurStopped(const Rocking& r, double exposure) {
    return 2.0 * r.left() * std::sin(std::min(0.5 * rateOf(r) * exposure, 0.5 * pi));
}

std::optional<double> alikeExposure(const Rocking& r, double speed) {
    const double v = std::abs(speed), a = r.left(), w = rateOf(r);
    if (!(v > 0.0) || a * w <= v) return std::nullopt;
    // Beyond half a swing it is all there is to see of the rocking.
    if (2.0 * a / v >= pi / w) return 2.0 * a / v;
    // Near 0 running is sharper, at half a swing stopping.
    const auto sharper = [&](double exposure) { return blurStopped(r, exposure) - blurRunning(v, exposure); };
    return solve::rootBetween(sharper, 1e-9 * pi / w, pi / w);
}

double longestRunning(double speed, double limit) {
    return speed != 0.0 ? limit / std::abs(speed) : std::numeric_limits<double>::infinity();
}

std::optional<double> settleFor(const Rocking& r, double exposure, double limit) {
    Rocking at = r;
    at.settle = 0.0;
    const double now = blurStopped(at, exposure);
    if (now <= limit) return 0.0;
    if (!(r.damping > 0.0) || !(limit > 0.0)) return std::nullopt;
    return std::log(now / limit) / (r.damping * 2.0 * pi * r.frequency);
}

double pathOf(const Passer& p, double exposure) {
    return p.speed * exposure;
}
double coverOf(const Passer& p, double exposure) {
    const double path = pathOf(p, exposure);
    return path > p.width ? p.width / path : 1.0;
}
double exposureToVanish(const Passer& p, double share) {
    return p.width / (share * p.speed);
}

double filterStops(double metered, double wanted) {
    return std::log2(wanted / metered);
}

} // namespace gantry::intervals
