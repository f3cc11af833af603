// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structure/tipping.h"

#include "core/units/constants.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace gantry::structure {
namespace {

constexpr double harmless = 1e6; // ratio where nothing overturns

double cross(Plan o, Plan a, Plan b) {
    return (a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x);
}

/// Distance [m] of a point inside the edge from → to of an anticlockwise polygon; negative outside.
double inside(Plan from, Plan to, Plan p) {
    return cross(from, to, p) / std::hypot(to.x - from.x, to.y - from.y);
}

struct Sums {
    double stabilising = 0.0, overturning = 0.0;
};

Sums about(const Footprint& f, Plan from, Plan to, std::span<const Weight> weights,
           std::span<const Push> pushes) {
    Sums out;
    const double length = std::hypot(to.x - from.x, to.y - from.y);
    // Outward normal of an anticlockwise polygon.
    const double nx = (to.y - from.y) / length, ny = -(to.x - from.x) / length;
    const double outward = std::max(0.0, nx * std::cos(f.downhill) + ny * std::sin(f.downhill));
    const double square = std::cos(f.slope), along = std::sin(f.slope) * outward;
    for (const Weight& w : weights) {
        const double distance = inside(from, to, w.at), force = w.mass * units::standardGravity;
        (distance >= 0.0 ? out.stabilising : out.overturning) += force * square * std::abs(distance);
        out.overturning += force * along * std::max(0.0, w.height);
    }
    for (const Push& p : pushes) out.overturning += std::abs(p.force) * std::max(0.0, p.height);
    return out;
}

} // namespace

std::vector<Plan> hullOf(std::vector<Plan> points) {
    std::sort(points.begin(), points.end(),
              [](Plan a, Plan b) { return a.x < b.x || (a.x == b.x && a.y < b.y); });
    std::vector<Plan> hull;
    for (int pass = 0; pass < 2; ++pass) {
        const std::size_t start = hull.size();
        for (const Plan& p : points) {
            while (hull.size() >= start + 2 && cross(hull[hull.size() - 2], hull.back(), p) <= 1e-15)
                hull.pop_back();
            hull.push_back(p);
        }
        if (!hull.empty()) hull.pop_back();
        std::reverse(points.begin(), points.end());
    }
    return hull;
}

std::vector<Plan> feetOnCircle(int feet, double radius, double firstAngle) {
    std::vector<Plan> out;
    for (int i = 0; i < feet; ++i) {
        const double angle = firstAngle + 2.0 * std::numbers::pi * i / feet;
        out.push_back({radius * std::cos(angle), radius * std::sin(angle)});
    }
    return out;
}

std::optional<Tipping> tipping(const Footprint& footprint, std::span<const Weight> weights,
                               std::span<const Push> pushes) {
    const std::vector<Plan> hull = hullOf(footprint.feet);
    if (hull.size() < 3 || weights.empty()) return std::nullopt;
    std::optional<Tipping> worst;
    for (std::size_t i = 0; i < hull.size(); ++i) {
        const Plan from = hull[i], to = hull[(i + 1) % hull.size()];
        const Sums sums = about(footprint, from, to, weights, pushes);
        const double ratio =
            sums.overturning > 0.0 ? std::min(sums.stabilising / sums.overturning, harmless) : harmless;
        if (!std::isfinite(ratio)) return std::nullopt;
        if (!worst || ratio < worst->ratio)
            worst = Tipping{ratio, from, to, sums.stabilising, sums.overturning};
    }
    return worst;
}

double tippingRatio(std::span<const Plan> feet, double weight, double moment, double direction) {
    const std::vector<Plan> hull = hullOf({feet.begin(), feet.end()});
    double least = harmless;
    for (std::size_t i = 0; i < hull.size(); ++i) {
        const Plan from = hull[i], to = hull[(i + 1) % hull.size()];
        const double length = std::hypot(to.x - from.x, to.y - from.y);
        const double towards =
            ((to.y - from.y) * std::cos(direction) - (to.x - from.x) * std::sin(direction)) / length;
        if (towards <= 1e-12 || moment <= 0.0) continue;
        least = std::min(least, weight * inside(from, to, {}) / (moment * towards));
    }
    return least;
}

std::optional<double> ballastNeeded(const Footprint& footprint, std::span<const Weight> weights,
                                    std::span<const Push> pushes, double wanted, Plan at) {
    const std::vector<Plan> hull = hullOf(footprint.feet);
    if (hull.size() < 3) return std::nullopt;
    double most = 0.0;
    for (std::size_t i = 0; i < hull.size(); ++i) {
        const Plan from = hull[i], to = hull[(i + 1) % hull.size()];
        const Sums sums = about(footprint, from, to, weights, pushes);
        const double missing = wanted * sums.overturning - sums.stabilising;
        const double arm = inside(from, to, at) * std::cos(footprint.slope);
        if (missing <= 0.0) continue;
        if (arm <= 0.0) return std::nullopt;
        most = std::max(most, missing / (units::standardGravity * arm));
    }
    return most;
}

} // namespace gantry::structure
