// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motor/two_mass.h"

#include <cmath>
#include <numbers>

namespace gantry::motor {
namespace {

RotorMode modeAt(const TwoMass& m, double squared) {
    RotorMode out;
    const double rate = std::sqrt(squared);
    out.frequency = rate / (2.0 * std::numbers::pi);
    out.loadOverRotor = m.drive / (m.drive - m.load * squared);
    const double r = out.loadOverRotor;
    out.damping = (m.rotorDamper + m.driveDamper * (1.0 - r) * (1.0 - r) + m.loadDamper * r * r) /
                  (2.0 * rate * (m.rotor + m.load * r * r));
    return out;
}

} // namespace

RotorModes modesOf(const TwoMass& m) {
    if (!std::isfinite(m.drive) || !(m.load > 0.0)) {
        const double inertia = m.rotor + m.load, rate = std::sqrt(m.field / inertia);
        return {
            {rate / (2.0 * std::numbers::pi), (m.rotorDamper + m.loadDamper) / (2.0 * rate * inertia), 1.0},
            std::nullopt};
    }
    // J₁J₂ω⁴ − (J₁k + J₂(k_m + k))ω² + k_m k = 0; the smaller root from the larger, by their product.
    const double a = m.rotor * m.load, b = m.rotor * m.drive + m.load * (m.field + m.drive),
                 c = m.field * m.drive;
    const double sum = b + std::sqrt(std::max(0.0, b * b - 4.0 * a * c));
    return {modeAt(m, 2.0 * c / sum), modeAt(m, sum / (2.0 * a))};
}

std::optional<GainBand> gainBand(double damping) {
    const double b = 2.0 - 4.0 * damping * damping, inside = b * b - 3.0;
    if (!(inside > 0.0) || !(b > 0.0)) return std::nullopt;
    return GainBand{std::sqrt(0.5 * (b - std::sqrt(inside))), std::sqrt(0.5 * (b + std::sqrt(inside)))};
}

double shakesPerTurn(Shake shake, int rotorTeeth, int microsteps) {
    switch (shake) {
    case Shake::Offset:
        return rotorTeeth;
    case Shake::UnequalPhases:
        return 2.0 * rotorTeeth;
    case Shake::FullStep:
        return 4.0 * rotorTeeth;
    case Shake::Microstep:
        return 4.0 * rotorTeeth * microsteps;
    }
    return 0.0;
}

} // namespace gantry::motor
