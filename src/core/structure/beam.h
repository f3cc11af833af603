// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>

namespace gantry::structure {

/// A load on a beam: downwards, [N] at a place [m] along it.
struct PointLoad {
    double at = 0.0;
    double force = 0.0;
};

/// What a beam rests on. Places in [m] from its low end.
struct TwoSupports {
    double first = 0.0;
    double second = 1.0; ///< > first
};
/// Clamped in one place to a head that itself turns.
struct CentralSupport {
    double at = 0.5;
    double turning = 0.0; ///< [N·m/rad]; 0: stiff
};

struct Bend {
    double sag = 0.0;   ///< [m] downwards
    double slope = 0.0; ///< [rad] dsag/dx
};

/// Straight elastic beam of one section with its own weight, ends overhanging as far as they like.
struct Beam {
    double length = 1.0;           ///< [m] > 0
    double bendingStiffness = 1.0; ///< [N·m²] EI > 0
    double weight = 0.0;           ///< [N/m] of its own
};

/// Deflection at a place under point loads and own weight, small angles, no shear. Exact for the model: the
/// bending moment is integrated twice with singularity functions and the supports fix the two constants
/// (Shigley, Mechanical Engineering Design, ch. 4). Loads outside [0, length] are taken at its ends.
Bend bendAt(const Beam& beam, const TwoSupports& supports, std::span<const PointLoad> loads, double x);

/// The same on one central support: two cantilevers, and the head turns by the difference of their moments.
Bend bendAt(const Beam& beam, const CentralSupport& support, std::span<const PointLoad> loads, double x);

/// Largest bending moment [N·m] without sign, looked for at loads, supports and between them.
double largestMoment(const Beam& beam, const TwoSupports& supports, std::span<const PointLoad> loads);
double largestMoment(const Beam& beam, const CentralSupport& support, std::span<const PointLoad> loads);

/// Upward forces [N] of the two supports; negative where the beam lifts off.
struct Reactions {
    double first = 0.0, second = 0.0;
};
Reactions reactions(const Beam& beam, const TwoSupports& supports, std::span<const PointLoad> loads);

/// Cantilever with a mass at its end.
struct Cantilever {
    double length = 1.0;           ///< [m] > 0
    double bendingStiffness = 1.0; ///< [N·m²] > 0
    double mass = 0.0;             ///< [kg] of its own, spread evenly
    double tipMass = 0.0;          ///< [kg]
    double tipOffset = 0.0;        ///< [m] its centre of gravity beyond the end, along the beam
};

/// Static deflection of the end [m] and its slope [rad] under a share of standard gravity: P L³/3EI with the
/// moment of the offset and the own weight.
Bend cantileverTip(const Cantilever& c, double gravity);

/// First natural frequency [Hz], 1/2π / √((L³/3 + L²d + Ld²) M/EI + 0.24 m L³/3EI): within 0.1 % for a
/// tip mass above a third of the beam's own, 0.6 % high without one (physics of Roark's Formulas, ch. 16).
double cantileverFrequency(const Cantilever& c);

/// The same with the clamp turning on a spring [N·m/rad] (0: stiff), the two flexibilities added (Dunkerley):
/// a lower bound, within 1 % for a heavy tip.
double cantileverFrequency(const Cantilever& c, double clampStiffness);

} // namespace gantry::structure
