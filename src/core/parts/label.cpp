// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/parts/label.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry::parts {

Stepper stepperFromLabel(const StepperLabel& label) {
    const double volume = label.frame * label.frame * label.length;
    Stepper s;
    s.name = "From its label";
    s.rotorTeeth =
        std::clamp(static_cast<int>(std::lround(std::numbers::pi / 2.0 / label.stepAngle)), 1, 1000);
    const double active =
        std::max(0.3 * label.length, label.length - 0.28 * label.frame); // the rest is end bells
    s.holdingTorque = {11000.0 * (1.0 - std::exp(-std::pow(label.frame / 0.039, 2.6))) * label.frame *
                           label.frame * active,
                       Source::Guess, 0.4};
    const double radius = 0.27 * label.frame;
    s.rotorInertia = {0.5 * std::numbers::pi * 7500.0 * std::pow(radius, 4) * label.length * 2.0 / 3.0,
                      Source::Guess, 0.35};
    s.body.mass = {3900.0 * volume, Source::Guess, 0.15};
    s.body.length = label.length;
    s.body.thermalResistance = {6.0 * std::pow(0.275 / s.body.mass.value, 0.6), Source::Guess, 0.4};
    s.body.radialRating = {28.0 * std::pow(s.body.mass.value / 0.275, 0.6), Source::Guess, 0.4};
    s.body.axialRating = {10.0 * std::pow(s.body.mass.value / 0.275, 0.6), Source::Guess, 0.4};
    s.detentTorque = {0.04 * s.holdingTorque.value, Source::Guess, 0.5};
    s.ratedCurrent =
        label.current > 0.0 ? estimate(label.current, Source::Label) : Estimate{0.0, Source::Guess, 0.5};
    s.resistance = label.current > 0.0 && label.voltage > 0.0
                       ? estimate(label.voltage / label.current, Source::Label)
                       : Estimate{0.0, Source::Guess, 0.5};
    s.inductance = {s.resistance.value * 0.0019 * label.frame / 0.042, Source::Guess, 0.45};
    return s;
}

} // namespace gantry::parts
