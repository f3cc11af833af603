// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motor/stepper_motion.h"

#include <algorithm>
#include <cmath>

namespace gantry::motor {
double fieldStiffness(int rotorTeeth, double torqueAmplitude, double load) {
    const double part = std::min(1.0, std::abs(load) / torqueAmplitude);
    return rotorTeeth * torqueAmplitude * std::sqrt(1.0 - part * part); // cos(asin x)
}

double rotorLag(int rotorTeeth, double torqueAmplitude, double load) {
    return std::asin(std::min(1.0, std::abs(load) / torqueAmplitude)) / rotorTeeth;
}

} // namespace gantry::motor
