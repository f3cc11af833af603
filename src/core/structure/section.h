// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::structure {

/// Cross section of a beam, all about its centroid. "Upright" bending is that under vertical loads.
struct SectionFigures {
    double area = 0.0;         ///< [m²]
    double upright = 0.0;      ///< [m⁴] second moment of area against vertical loads
    double sideways = 0.0;     ///< [m⁴] against sideways loads
    double torsion = 0.0;      ///< [m⁴] Saint-Venant constant J: twist is T L / (G J)
    double uprightEdge = 0.0;  ///< [m] outermost fibre from the neutral axis, upright
    double sidewaysEdge = 0.0; ///< [m] the same, sideways
    double centroid = 0.0;     ///< [m] above the lower edge
};

/// Solid rectangle. Torsion ab³(1/3 − 0.21 b/a (1 − b⁴/12a⁴)) for a ≥ b, within 0.5 % (Roark's Formulas,
/// ch. 10).
SectionFigures solidRectangle(double width, double height);

/// Rectangle with an even wall; a wall of half the smaller side or more makes it solid. Torsion of the closed
/// thin tube, 4A²t/s with the areas enclosed by the middle of the wall (Bredt).
SectionFigures hollowRectangle(double width, double height, double wall);

/// Round tube; a wall of the radius or more makes it a bar. Exact.
SectionFigures roundTube(double diameter, double wall);

/// Two round rods side by side, joined only by what runs on them and by their ends: each bends for itself. On
/// edge, one above the other, the rods are no stiffer for it. Twist of the pair is resisted by the bending of
/// the rods, which the length decides, so only their own torsion is counted: a lower bound.
SectionFigures rodPair(double diameter, double spacing);

/// T with the flange on top; outer width and height, one thickness for each. Torsion Σ b t³/3.
SectionFigures tee(double webThickness, double webHeight, double flangeWidth, double flangeThickness);

/// Slotted aluminium profile by its outer size, with typical shares of the solid rectangle: 40 % of the area,
/// 45 % of the bending and 12 % of the torsion. Light and heavy kinds of one size lie 25 % either side; the
/// maker's figure, or a sag test, is better. docs/models/beams.md.
SectionFigures slottedProfile(double width, double height);

/// The same section laid on its other side.
SectionFigures turned(const SectionFigures& section);

} // namespace gantry::structure
