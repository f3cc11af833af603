// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::structure {

/// Bending stress [Pa] of a moment [N·m], outermost fibre [m] and second moment of area [m⁴]: M c / I.
double bendingStress(double moment, double edge, double inertia);

/// A pin through two cheeks with a lug between them.
struct Pin {
    double diameter = 0.01; ///< [m] > 0
    double cheekGap = 0.04; ///< [m] between the middles of the cheeks
};

/// Largest stress [Pa] by the shear-energy rule of a load [N] shared by both cheeks: bending F g / 4 as a
/// beam on two ends, and the shear of two sections, √(σ² + 3τ²) (Shigley, ch. 5).
double pinStress(const Pin& pin, double force);

/// Force [N] on the worst of `count` bolts evenly on a circle of `radius` [m] that hold a moment in the plane
/// square to them: 4 M / (n D) for three or more (Shigley, ch. 8); with two, M / D in their own direction.
double boltForce(int count, double radius, double moment);

} // namespace gantry::structure
