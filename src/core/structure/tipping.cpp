// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structure/tipping.h"

#include "core/units/constants.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace gantry::structure {
namespace {

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

/// @param accelerations of the weights; empty: they stand or move evenly
Sums about(const Footprint& f, Plan from, Plan to, std::span<const Weight> weights,
           std::span<const InSpace> accelerations, std::span<const Push> pushes) {
    Sums out;
    double swung = 0.0; // [N·m] outwards by what holds the masses back
    const double length = std::hypot(to.x - from.x, to.y - from.y);
    // Outward normal of an anticlockwise polygon.
    const double nx = (to.y - from.y) / length, ny = -(to.x - from.x) / length;
    const double outward = std::max(0.0, nx * std::cos(f.downhill) + ny * std::sin(f.downhill));
    const double square = std::cos(f.slope), along = std::sin(f.slope) * outward;
    for (const Weight& w : weights) {
        const double distance = inside(from, to, w.at), force = w.mass * units::standardGravity;
        (distance >= 0.0 ? out.stabilising : out.overturning) += force * square * std::abs(distance);
        out.overturning += force * along * std::max(0.0, w.height);
        if (accelerations.empty()) continue;
        const InSpace& a = accelerations[static_cast<std::size_t>(&w - weights.data())];
        swung -= w.mass * ((a.x * nx + a.y * ny) * w.height + a.z * distance);
    }
    // Masses that hold each other back count together; what they do against tipping is not counted on.
    out.overturning += std::max(0.0, swung);
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
    return tippingMoving(footprint, weights, {}, pushes);
}

std::optional<Tipping> tippingMoving(const Footprint& footprint, std::span<const Weight> weights,
                                     std::span<const InSpace> accelerations, std::span<const Push> pushes) {
    const std::vector<Plan> hull = hullOf(footprint.feet);
    if (hull.size() < 3 || weights.empty()) return std::nullopt;
    std::optional<Tipping> worst;
    for (std::size_t i = 0; i < hull.size(); ++i) {
        const Plan from = hull[i], to = hull[(i + 1) % hull.size()];
        const Sums sums = about(footprint, from, to, weights, accelerations, pushes);
        const double ratio =
            sums.overturning > 0.0 ? std::min(sums.stabilising / sums.overturning, harmless) : harmless;
        if (!std::isfinite(ratio)) return std::nullopt;
        if (!worst || ratio < worst->ratio)
            worst = Tipping{ratio, from, to, sums.stabilising, sums.overturning};
    }
    return worst;
}

double stopRatio(const Rocking& r) {
    if (!(r.net > 0.0)) return 0.0;
    const double b = r.net / r.weight, stiffness = r.weight * r.height;
    const double barrier = r.weight * (b * b / (std::hypot(b, r.height) + r.height));
    double energy = 0.5 * r.momentum * r.momentum / r.inertia;
    if (r.time > 0.0) {
        const double moment = r.momentum / r.time;
        if (!(moment > r.net)) return harmless;
        const double rate = std::sqrt(stiffness / r.inertia), c = (moment - r.net) / stiffness;
        const double angle = c * (std::cosh(rate * r.time) - 1.0),
                     speed = c * rate * std::sinh(rate * r.time);
        // Past the point of balance it falls by itself.
        if (!(angle < std::atan2(b, r.height))) return 0.0;
        const double lifted = r.weight * (b * std::sin(angle) - r.height * (1.0 - std::cos(angle)));
        energy = 0.5 * r.inertia * speed * speed + lifted;
    }
    return energy > 0.0 ? std::min(barrier / energy, harmless) : harmless;
}

std::optional<double> stopRatio(const Footprint& f, std::span<const Weight> weights,
                                std::span<const Push> lasting, std::span<const Motion> motions) {
    const std::vector<Plan> hull = hullOf(f.feet);
    if (hull.size() < 3 || weights.empty()) return std::nullopt;
    double least = harmless;
    for (std::size_t i = 0; i < hull.size(); ++i) {
        const Plan from = hull[i], to = hull[(i + 1) % hull.size()];
        const double length = std::hypot(to.x - from.x, to.y - from.y), ex = (to.x - from.x) / length,
                     ey = (to.y - from.y) / length;
        const Sums sums = about(f, from, to, weights, {}, lasting);
        Rocking r;
        r.net = sums.stabilising - sums.overturning;
        double mass = 0.0, raised = 0.0;
        for (const Weight& w : weights) {
            const double distance = inside(from, to, w.at);
            mass += w.mass;
            raised += w.mass * std::max(0.0, w.height);
            r.inertia += w.mass * (distance * distance + w.height * w.height);
        }
        r.weight = mass * units::standardGravity * std::cos(f.slope);
        r.height = raised / mass;
        double moment = 0.0;
        for (const Motion& motion : motions) {
            double momentum = 0.0;
            for (std::size_t k = 0; k < weights.size() && k < motion.of.size(); ++k) {
                const Weight& w = weights[k];
                const Motion::Velocity& v = motion.of[k];
                const double x = w.at.x - from.x, y = w.at.y - from.y, z = w.height;
                momentum += w.mass * (ex * (y * v.z - z * v.y) + ey * (z * v.x - x * v.z));
            }
            r.momentum += std::abs(momentum);
            moment += motion.time > 0.0 ? std::abs(momentum) / motion.time
                      : momentum != 0.0 ? std::numeric_limits<double>::infinity()
                                        : 0.0;
        }
        r.time = r.momentum / moment; // of all together; nothing of a blow, for ever of what hardly brakes
        if (r.momentum > 0.0 || !(r.net > 0.0)) least = std::min(least, stopRatio(r));
    }
    return least;
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
        const Sums sums = about(footprint, from, to, weights, {}, pushes);
        const double missing = wanted * sums.overturning - sums.stabilising;
        const double arm = inside(from, to, at) * std::cos(footprint.slope);
        if (missing <= 0.0) continue;
        if (arm <= 0.0) return std::nullopt;
        most = std::max(most, missing / (units::standardGravity * arm));
    }
    return most;
}

} // namespace gantry::structure
