// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <vector>

namespace gantry::structure {

/// A length of an arm that keeps its section.
struct ArmSection {
    double length = 1.0;           ///< [m] > 0
    double bendingStiffness = 1.0; ///< [N·m²] EI > 0
    double massPerMetre = 0.0;     ///< [kg/m]
    double modulus = 0.0;          ///< [m³] of the section, for its stress; 0: not asked
};

/// A body on an arm. Beyond the end it sits on a stiff continuation of it.
struct ArmBody {
    double mass = 0.0; ///< [kg]
    double at = 0.0;   ///< [m] from the pivot, ≥ 0
    double own = 0.0;  ///< [kg·m²] about its own centre
};

/// What reaches out from a pivot to one side: sections from the pivot outwards, and what sits on them.
struct ArmSide {
    std::vector<ArmSection> sections;
    std::vector<ArmBody> bodies;

    double length() const;
};

/// First natural frequency [Hz] of an arm on a pivot that stays in place, in the plane in which it turns: a
/// stiff turn on the pivot's spring, and per side two bending shapes (a force and a couple at the end, each
/// integrated twice over the sections), by Ritz's method (Meirovitch, Fundamentals of Vibrations, ch. 9).
/// Within 0.5 % of finite elements, from above. 0 where nothing turns or bends, or nothing has mass.
/// @param spring [N·m/rad] of the pivot; 0: clamped, each side by itself
double firstFrequency(const ArmSide& front, const ArmSide& back, double spring);

/// Greatest bending stress [Pa] at the inner end of a section, of a level arm under its own weight and what
/// it carries; 0 where no section has a modulus.
/// @param gravity [m/s²] with what shakes it; > 0
double largestStress(const ArmSide& side, double gravity);

} // namespace gantry::structure
