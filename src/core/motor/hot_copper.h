// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

namespace gantry::motor {

/// A winding that carries a constant current, and how its heat gets away.
struct WindingHeat {
    double coldLoss = 0.0;  ///< [W] of all phases together with the copper at 20 °C: n I² R₂₀
    double ironLoss = 0.0;  ///< [W] that enters at the case
    double ambient = 20.0;  ///< [°C]
    double toCase = 0.0;    ///< [K/W] winding to case
    double caseToAir = 0.0; ///< [K/W]
};
struct Warmth {
    double winding = 0.0, housing = 0.0; ///< [°C] after hours
    double loss = 0.0;                   ///< [W] of the hot copper
    double resistance = 1.0;             ///< [1] of that at 20 °C
};

/// Where a winding settles at constant current. Copper has 0.393 % more resistance for each kelvin (IEC
/// 60034-1), so its heat grows with its temperature; where it grows faster than it gets away there is no
/// such temperature, and nothing is returned. Derivation: docs/models/heat.md.
std::optional<Warmth> hotCopper(const WindingHeat& heat);

/// What a winding is driven by.
struct WindingDrive {
    double current = 0.0; ///< [A] peak of a phase that a chopper keeps; 0: the voltage alone decides
    double voltage = 0.0; ///< [V] across a phase and what is before it
    double before = 0.0;  ///< [ohm] of bridge, cable and source
};

/// Resistance [ohm] of a stepper's phase after hours, from that at 20 °C: of a phase with peak current I,
/// I² R of both together heat winding and case as one body with `toAir` [K/W]. No hotter than `limit` [°C],
/// beyond which its insulation fails before it is asked for torque. At constant voltage the root of one
/// increasing function, to 1e-12.
double hotResistance(double cold, const WindingDrive& drive, double ambient, double toAir, double limit);

/// Torque [1] that a motor may give all the time in air of another temperature [°C], over what it may at the
/// one that it is rated for: √((x − p)/(1 − p)) with x = (limit − air)/(limit − rated) and p the share of its
/// loss that is iron's, which torque does not change. At most 1: nobody promises more in the cold. 0 in air
/// that leaves no room at all.
double ratingInAir(double air, double ratedAir, double limit, double ironShare);

/// Resistance [1] of copper at a temperature [°C] over that at 20 °C.
double copperResistance(double temperature);

} // namespace gantry::motor
