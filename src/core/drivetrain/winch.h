// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

namespace gantry::drivetrain {

/// Cord wound in layers on a drum. Lengths [m].
struct Drum {
    double diameter = 0.0; ///< bare
    double cordDiameter = 0.0;
    double width = 0.0;   ///< between the cheeks
    double nesting = 1.0; ///< [1] of a cord diameter that a layer adds to the radius
};

/// The part of a travel that one layer winds.
struct CordLayer {
    double radius = 0.0; ///< [m] to the cord's middle
    double turns = 0.0;  ///< from the beginning of the travel to the end of this layer
    double place = 0.0;  ///< [m] the travel wound then

    friend bool operator==(const CordLayer&, const CordLayer&) = default;
};

/// Layers of a travel, from the beginning on; the last ends with it. The helix within a layer is left out,
/// 2e-4 of the length on a thin drum.
/// @param startTurns on the drum where the travel begins; @param travel [m] > 0
std::vector<CordLayer> layersOf(const Drum& drum, double startTurns, double travel);

/// One number of travel a turn for a drum that takes more a turn with every layer.
struct WinchScale {
    double perTurn = 0.0; ///< [m] that errs least
    double error = 0.0; ///< [m] ±, of the place that is reached from the one meant, both from the beginning

    friend bool operator==(const WinchScale&, const WinchScale&) = default;
};

/// The real place bends up from layer to layer against the turns, so a number that errs least falls behind in
/// the middle of the travel by as much as it runs ahead at its end.
WinchScale winchScale(const Drum& drum, double startTurns, double travel);

/// Length [m] of cord that a drum takes below its cheeks.
/// @param flange [m] diameter of the cheeks; @param freeboard [1] cord diameters that stay clear below it
double drumCapacity(const Drum& drum, double flange, double freeboard);

/// Largest deceleration [m/s²] of a cart pulled uphill before its cord goes slack: g sin β + friction / mass.
double slackDeceleration(double slope, double friction, double mass);

} // namespace gantry::drivetrain
