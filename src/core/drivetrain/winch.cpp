// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/winch.h"

#include "core/units/constants.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry::drivetrain {
namespace {
constexpr int mostLayers = 100000; // beyond any drum; keeps absurd inputs from running for ever

double turnLength(const Drum& d, double radius) {
    const double round = 2.0 * std::numbers::pi * radius;
    return std::sqrt(round * round + d.cordDiameter * d.cordDiameter);
}
} // namespace

Winding windingOf(const Drum& d, double length) {
    Winding w;
    w.turnsPerLayer = static_cast<int>(std::clamp(std::floor(d.width / d.cordDiameter + 1e-9), 1.0, 1e6));
    w.firstRadius = (d.diameter + d.cordDiameter) / 2.0;
    double left = length, radius = w.firstRadius;
    for (;;) {
        const double layer = w.turnsPerLayer * turnLength(d, radius);
        if (left <= layer || w.layers >= mostLayers) break;
        left -= layer;
        w.turns += w.turnsPerLayer;
        ++w.layers;
        radius += d.cordDiameter * d.nesting;
    }
    w.turns += left / turnLength(d, radius);
    w.lastRadius = radius;
    w.lastOverFirst = turnLength(d, radius) / turnLength(d, w.firstRadius);
    return w;
}

double slackDeceleration(double slope, double friction, double mass) {
    return units::standardGravity * std::sin(slope) + friction / mass;
}

} // namespace gantry::drivetrain
