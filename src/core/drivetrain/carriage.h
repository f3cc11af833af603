// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

namespace gantry::drivetrain {

/// Rotation [rad] of a carriage whose bearings have play [m] over a wheelbase [m].
double playRotation(double play, double wheelbase);

/// How far plain bearings of a wheelbase b [m] are from binding when pushed at an offset y [m]: (b/y)/(2 μ).
/// At or below 1 they bind, whatever the force. Infinite without offset or friction.
double bindingRatio(double wheelbase, double pushOffset, double friction);

/// Load [N] on the most loaded of four bearings: weight share plus what the overturning moments along and
/// across add.
/// @param normalForce [N] square to the rail; @param momentAlong, momentAcross [N·m]
double bearingLoad(double normalForce, double momentAlong, double momentAcross, double wheelbase,
                   double track);

/// Force [N] that driven wheels can push before they slip.
double tractionLimit(double friction, double drivenShare, double normalForce);

/// Radius [m] of the path from wheelbase [m] and steering angle [rad]; infinite when straight.
double turningRadius(double wheelbase, double steeringAngle);

/// Bar along a rail that turns the camera through an arm sliding on it. Lengths [m], angles [rad].
struct PanBarGeometry {
    double armLength = 0.0;
    double offset = 0.0; ///< of the bar from the pivot's path at position 0
    double angle = 0.0;  ///< of the bar against the rail
};

/// Angle [rad] of the arm against the rail at carriage position x [m] from the middle: the arm's end lies on
/// the bar, r sin(θ − α) = (h + x tan α) cos α. nullopt where the arm does not reach.
std::optional<double> panBarAngle(const PanBarGeometry& g, double position);

/// How fast it turns there, dθ/dx = sin α / (r cos(θ − α)) [rad/m]; nothing where the arm does not reach or
/// is stretched out along its last bit, where it turns without end.
std::optional<double> panBarRate(const PanBarGeometry& g, double position);

/// Bar angle [rad] that turns the camera by `pan` between positions `from` and `to` [m], by bisection;
/// nullopt if no bar within ±80° does.
std::optional<double> barAngleForPan(PanBarGeometry g, double from, double to, double pan);

} // namespace gantry::drivetrain
