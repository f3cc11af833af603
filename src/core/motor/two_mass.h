// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

/// A rotor in its field, a drive with a spring, and what it moves: two masses on two springs, all brought to
/// the motor's shaft. Derivation: docs/models/two-masses.md (Inman, Engineering Vibration, chapter 4;
/// Acarnley, Stepping Motors, chapter 4).
namespace gantry::motor {

struct TwoMass {
    double rotor = 0.0;       ///< [kg·m²] > 0
    double load = 0.0;        ///< [kg·m²] ≥ 0
    double field = 0.0;       ///< [N·m/rad] N √(T_a² − T²)
    double drive = 0.0;       ///< [N·m/rad]; infinite: one rigid body
    double rotorDamper = 0.0; ///< [N·m·s/rad] of the rotor against the field …
    double driveDamper = 0.0; ///< … in the drive …
    double loadDamper = 0.0;  ///< … and of the load
};

struct RotorMode {
    double frequency = 0.0;     ///< [Hz] undamped
    double damping = 0.0;       ///< [1] of critical, by projection: right for light damping
    double loadOverRotor = 1.0; ///< [1] swing of the load over that of the rotor
};

struct RotorModes {
    RotorMode low;
    std::optional<RotorMode> high; ///< none where the drive is rigid or there is no load
};

/// Both modes; keeps its digits where they lie far apart.
RotorModes modesOf(const TwoMass& masses);

/// Rates, as shares of a mode's frequency, between which it answers more than twice as strongly as at rest:
/// r² = (b ± √(b² − 3))/2 with b = 2 − 4ζ². None where ζ is above 0.26.
struct GainBand {
    double low = 0.0, high = 0.0;
};
std::optional<GainBand> gainBand(double damping);

/// How often in a turn of the rotor a stepper shakes it: once or twice a period of the current for an offset
/// and for unequal phases, four times for full steps and detent, with every microstep.
enum class Shake { Offset, UnequalPhases, FullStep, Microstep };
/// @param microsteps in a full step
double shakesPerTurn(Shake shake, int rotorTeeth, int microsteps);

} // namespace gantry::motor
