// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/screw.h"

#include <array>
#include <cmath>
#include <limits>
#include <numbers>

namespace gantry::drivetrain {
namespace {
using std::numbers::pi;
// First roots of the beam's frequency equation, and Euler's end factors, in the order of Ends.
constexpr std::array whirlRoot{1.8751040687, 3.1415926536, 3.9266023120, 4.7300407449};
constexpr std::array bucklingFactor{0.25, 1.0, 2.0457, 4.0};
} // namespace

double leadAngle(const Screw& s) {
    return std::atan(s.lead / (pi * s.pitchDiameter));
}

double frictionAngle(const Screw& s) {
    const double normal = std::atan(std::tan(s.halfAngle) * std::cos(leadAngle(s)));
    return std::atan(s.friction / std::cos(normal));
}

double efficiency(const Screw& s) {
    const double lead = leadAngle(s), sum = lead + frictionAngle(s);
    return sum >= pi / 2.0 ? 0.0 : std::tan(lead) / std::tan(sum);
}

double backEfficiency(const Screw& s) {
    const double lead = leadAngle(s);
    return std::tan(lead - frictionAngle(s)) / std::tan(lead);
}

double whirlingSpeed(double rootDiameter, double length, Ends ends, double modulus, double density) {
    const double k = whirlRoot[static_cast<std::size_t>(ends)] / length;
    return k * k * std::sqrt(modulus / density) * rootDiameter / 4.0; // √(I/A) = d/4
}

double bucklingLoad(double rootDiameter, double length, Ends ends, double modulus) {
    const double inertia = pi * std::pow(rootDiameter, 4) / 64.0;
    return bucklingFactor[static_cast<std::size_t>(ends)] * pi * pi * modulus * inertia / (length * length);
}

double barInertia(double diameter, double length, double density) {
    return density * pi * std::pow(diameter, 4) * length / 32.0;
}

} // namespace gantry::drivetrain
