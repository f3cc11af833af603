// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

namespace gantry::power {

/// Resistance [ohm] of a copper pair at 20 °C, both ways: `length` [m] one way, `section` [m²] of one
/// conductor. Zero without a length. Warm copper has 0.4 % more for each kelvin.
double copperPair(double length, double section);

/// What arrives at the far end of a cable.
struct Delivered {
    double voltage = 0.0; ///< [V] at the load
    double current = 0.0; ///< [A]
    double drop = 0.0;    ///< [V]
    double loss = 0.0;    ///< [W] in the cable
};

/// A load that takes `power` [W] ≥ 0 whatever the voltage, as chopping drivers do, behind `resistance` [ohm]
/// from `voltage` [V]: the upper root of V² − V₀V + RP = 0. Nothing where the voltage collapses, V₀² < 4RP.
std::optional<Delivered> deliver(double voltage, double resistance, double power);

} // namespace gantry::power
