// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::drivetrain {

/// Power screw (Shigley, Mechanical Engineering Design, chapter 8). Lengths [m], angles [rad].
struct Screw {
    double pitchDiameter = 0.0;
    double lead = 0.0;
    double friction = 0.0;  ///< [1]
    double halfAngle = 0.0; ///< of the thread, in the axial section
};

/// tan λ and tan of the friction angle, with the thread's angle in the normal section.
double leadAngle(const Screw& s);
double frictionAngle(const Screw& s);

/// tan λ / tan(λ + φ); 0 where it jams.
double efficiency(const Screw& s);
/// tan(λ − φ) / tan λ; zero or less: self-locking at rest.
double backEfficiency(const Screw& s);

enum class Ends { FixedFree, SimpleSimple, FixedSimple, FixedFixed };

/// Whirling speed [rad/s] of a round shaft, without safety factor (0.8 is usual): (k/L)² √(E I / ρ A). Steel
/// unless given.
double whirlingSpeed(double rootDiameter, double length, Ends ends, double modulus = 210e9,
                     double density = 7850.0);

/// Euler load [N] at which it buckles, without safety factor.
double bucklingLoad(double rootDiameter, double length, Ends ends, double modulus = 210e9);

/// Inertia [kg·m²] of a round bar about its own axis.
double barInertia(double diameter, double length, double density = 7850.0);

} // namespace gantry::drivetrain
