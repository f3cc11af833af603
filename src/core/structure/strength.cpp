// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structure/strength.h"

#include <cmath>
#include <numbers>

namespace gantry::structure {

double bendingStress(double moment, double edge, double inertia) {
    return moment * edge / inertia;
}

double pinStress(const Pin& pin, double force) {
    const double d = pin.diameter, pi = std::numbers::pi;
    const double bending = 32.0 * (force * pin.cheekGap / 4.0) / (pi * d * d * d);
    const double shear = 0.5 * force / (pi * d * d / 4.0);
    return std::sqrt(bending * bending + 3.0 * shear * shear);
}

double boltForce(int count, double radius, double moment) {
    return count >= 3 ? 2.0 * moment / (count * radius) : 0.5 * moment / radius;
}

} // namespace gantry::structure
