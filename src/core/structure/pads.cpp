// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structure/pads.h"

#include "core/units/constants.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry::structure {
namespace {

double frequencyOf(double stiffness, double inertia) {
    return stiffness > 0.0 && inertia > 0.0 ? std::sqrt(stiffness / inertia) / (2.0 * std::numbers::pi) : 0.0;
}

double massOf(const PadsView& view) {
    double out = 0.0;
    for (const Weight& w : view.weights) out += w.mass;
    return out;
}

Plan middleOf(std::span<const Plan> feet) {
    Plan out;
    for (const Plan& f : feet) {
        out.x += f.x / static_cast<double>(feet.size());
        out.y += f.y / static_cast<double>(feet.size());
    }
    return out;
}

/// Σ r² [m²] of the feet about their middle, r measured in a direction; the least of all directions without.
double spreadOf(std::span<const Plan> feet, std::optional<double> direction) {
    const Plan middle = middleOf(feet);
    double xx = 0.0, yy = 0.0, xy = 0.0;
    for (const Plan& f : feet) {
        const double x = f.x - middle.x, y = f.y - middle.y;
        xx += x * x;
        yy += y * y;
        xy += x * y;
    }
    if (!direction) return 0.5 * (xx + yy) - std::hypot(0.5 * (xx - yy), xy);
    const double c = std::cos(*direction), s = std::sin(*direction);
    return xx * c * c + yy * s * s + 2.0 * xy * s * c;
}

} // namespace

double swayOnPads(const PadsView& view, std::optional<double> direction) {
    if (view.feet.empty()) return 0.0;
    double helps = 0.0, inertia = 0.0;
    for (const Weight& w : view.weights) {
        helps += units::standardGravity * w.mass * w.height;
        inertia += w.mass * w.height * w.height;
    }
    const double rocks = frequencyOf(view.stiffness * spreadOf(view.feet, direction) - helps, inertia);
    const double shears =
        frequencyOf(static_cast<double>(view.feet.size()) * padShear * view.stiffness, massOf(view));
    if (rocks == 0.0 || shears == 0.0) return 0.0;
    return 1.0 / std::hypot(1.0 / rocks, 1.0 / shears);
}

double bounceOnPads(const PadsView& view) {
    return frequencyOf(static_cast<double>(view.feet.size()) * view.stiffness, massOf(view));
}

double turnOnPads(const PadsView& view) {
    if (view.feet.empty()) return 0.0;
    const Plan middle = middleOf(view.feet);
    double inertia = 0.0;
    for (const Weight& w : view.weights)
        inertia += w.mass * (std::pow(w.at.x - middle.x, 2) + std::pow(w.at.y - middle.y, 2));
    const double spread = spreadOf(view.feet, 0.0) + spreadOf(view.feet, 0.5 * std::numbers::pi);
    return frequencyOf(padShear * view.stiffness * spread, inertia);
}

} // namespace gantry::structure
