// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/wind_up.h"

#include <cmath>
#include <limits>
#include <numbers>

namespace gantry::drivetrain {

double lagForward(const Sprung& s) {
    return (s.friction + s.gravity) / s.stiffness;
}

double reversalLost(const Sprung& s) {
    return 2.0 * s.friction / s.stiffness;
}

double breakawayJump(const Sprung& s) {
    return 2.0 * (s.breakaway - s.friction) / s.stiffness;
}

double smoothFrom(const Sprung& s, double inertia, double damping) {
    const double drop = s.breakaway - s.friction;
    if (!(drop > 0.0)) return 0.0;
    if (!(damping > 0.0)) return std::numeric_limits<double>::infinity();
    // With u = drop / (v √(k m)) the load's speed swings as 1 − e^(−ζτ) (cos − (u − ζ)/w sin) of v, since the
    // damper has pulled with 2ζ of it before; its first trough is at rest where √(1 − ζ²) R(u) e^(−ζ τ(u))
    // = 1. Its logarithm, by Newton from the small-damping answer u² = 4πζ (1 + 3ζ)².
    const double w = std::sqrt(1.0 - damping * damping), turned = std::atan(damping / w);
    const auto logTrough = [&](double u) {
        const double b = (u - damping) / w, phase = std::atan(b);
        return std::log(w) + 0.5 * std::log1p(b * b) -
               damping * (2.0 * std::numbers::pi - turned - phase) / w;
    };
    double u = (1.0 + 3.0 * damping) * std::sqrt(4.0 * std::numbers::pi * damping);
    for (int i = 0; i < 4; ++i) {
        const double b = (u - damping) / w;
        const double slope = (b + damping / w) / (w * (1.0 + b * b));
        const double step = logTrough(u) / slope;
        u -= step;
        if (std::abs(step) < 1e-7 * u) break;
    }
    return drop / (u * std::sqrt(s.stiffness * inertia));
}

} // namespace gantry::drivetrain
