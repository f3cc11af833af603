// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structure/balance.h"

#include "core/units/constants.h"

#include <cmath>

namespace gantry::structure {
namespace {
double height(const ArmMass& m) {
    return m.levelled ? 0.0 : m.above;
}
} // namespace

Moments moments(std::span<const ArmMass> masses) {
    Moments out;
    for (const ArmMass& m : masses) {
        out.along += m.mass * m.along;
        out.above += m.mass * height(m);
    }
    return out;
}

double gravityTorque(std::span<const ArmMass> masses, double elevation) {
    const Moments sum = moments(masses);
    return units::standardGravity * (sum.along * std::cos(elevation) - sum.above * std::sin(elevation));
}

double inertiaAboutPivot(std::span<const ArmMass> masses) {
    double out = 0.0;
    for (const ArmMass& m : masses) out += m.mass * (m.along * m.along + height(m) * height(m)) + m.own;
    return out;
}

double inertiaAboutUpright(std::span<const ArmMass> masses) {
    double out = 0.0;
    for (const ArmMass& m : masses) out += m.mass * m.along * m.along + m.own;
    return out;
}

double balancingMass(std::span<const ArmMass> others, double along) {
    return -moments(others).along / along;
}

double balancingPlace(std::span<const ArmMass> others, double mass) {
    return -moments(others).along / mass;
}

} // namespace gantry::structure
