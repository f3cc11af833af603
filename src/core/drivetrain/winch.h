// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::drivetrain {

/// Cord wound in layers on a drum. Lengths [m].
struct Drum {
    double diameter = 0.0; ///< bare
    double cordDiameter = 0.0;
    double width = 0.0;   ///< between the cheeks
    double nesting = 1.0; ///< [1] of a cord diameter that a layer adds to the radius
};

struct Winding {
    int turnsPerLayer = 1;
    int layers = 1;             ///< begun, for the whole length
    double firstRadius = 0.0;   ///< to the cord's middle, first layer
    double lastRadius = 0.0;    ///< in the last layer begun
    double lastOverFirst = 1.0; ///< [1] cord a turn takes there over the first layer, the helix counted
    double turns = 0.0;         ///< for the whole length
};

/// Winds `length` [m] of cord on the drum; each turn takes √((2πr)² + cord²).
Winding windingOf(const Drum& drum, double length);

/// Largest deceleration [m/s²] of a cart pulled uphill before its cord goes slack: g sin β + friction / mass.
double slackDeceleration(double slope, double friction, double mass);

} // namespace gantry::drivetrain
