// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

namespace gantry::drivetrain {

/// Closed toothed belt over two pulleys, by exact wrap angles (ISO 5296 gives the pitches). Lengths [m].
struct ClosedBelt {
    double length = 0.0;           ///< [m] at the pitch line
    double teeth = 0.0;            ///< length over pitch, not rounded
    double teethInMeshSmall = 0.0; ///< on the smaller pulley, not floored
};

/// Belt for a centre distance; nullopt if the pulleys overlap (centre not more than the difference of radii).
std::optional<ClosedBelt> beltForCentre(int teethA, int teethB, double pitch, double centre);

/// Centre distance [m] at which a belt of so many teeth is taut, by root finding on the exact length (the
/// usual quadratic is up to 0.16 % off). nullopt if the belt is too short.
std::optional<double> centreForBelt(int teethA, int teethB, double pitch, int beltTeeth);

/// Tension [N] of a span that sounds at `frequency` [Hz] when plucked: 4 μ L² f². `massPerMetre` [kg/m].
double spanTension(double massPerMetre, double span, double frequency);

/// The same at mid travel, where it is least: 4 EA / L.
double leastOpenBeltStiffness(double tensileStiffness, double freeLength);

/// Largest working pull [N] that a belt of this pitch [m] and width [m] with at least six teeth in mesh takes
/// for long; fewer teeth share it in proportion. Series ratings of common makers lie 20 % about it: 7 kN/m of
/// width for 2 mm pitch, 14 for 3 mm, 27 for 5 mm, growing with the pitch.
double allowedBeltPull(double pitch, double width, double teethInMesh);

} // namespace gantry::drivetrain
