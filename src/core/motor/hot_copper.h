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

/// Resistance [1] of copper at a temperature [°C] over that at 20 °C.
double copperResistance(double temperature);

} // namespace gantry::motor
