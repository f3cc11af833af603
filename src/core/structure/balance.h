// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>

namespace gantry::structure {

/// A mass on an arm, from its pivot: along the arm and square above it. A levelled one is carried by parallel
/// links at a place along the arm, and turns with nothing: wherever it sits beyond that place, level or
/// above, it rises and falls as the place does (virtual work), so only the place counts about the pivot.
struct ArmMass {
    double mass = 0.0;  ///< [kg]
    double along = 0.0; ///< [m]
    double above = 0.0; ///< [m]
    bool levelled = false;
    double own = 0.0;    ///< [kg·m²] about its own centre, square to the arm: m L²/12 of an even arm
    double beyond = 0.0; ///< [m] of a levelled one: level, from where the links carry it
};

/// Gravity torque [N·m] at an elevation [rad] above level; positive pulls the positive end down:
/// g Σ m (x cos φ − h sin φ), levelled masses with h = 0 (statics).
double gravityTorque(std::span<const ArmMass> masses, double elevation);

/// Σ m x [kg·m] and Σ m h [kg·m]; balanced at all angles only where both vanish.
struct Moments {
    double along = 0.0, above = 0.0;
};
Moments moments(std::span<const ArmMass> masses);

/// Moment of inertia [kg·m²] about the level pivot, Σ m (x² + h²) and what each body has of its own. A
/// levelled mass keeps its own height h while the arm turns, so only its x counts about the pivot.
double inertiaAboutPivot(std::span<const ArmMass> masses);

/// The same about an upright axis, to which a height is no distance.
double inertiaAboutUpright(std::span<const ArmMass> masses);

/// Mass [kg] at a place `along` (negative: behind the pivot) that balances the level arm; negative when it
/// would have to lift. `along` ≠ 0.
double balancingMass(std::span<const ArmMass> others, double along);

/// Place [m] along the arm at which `mass` > 0 balances the level arm.
double balancingPlace(std::span<const ArmMass> others, double mass);

} // namespace gantry::structure
