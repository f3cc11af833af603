// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motor/stepper_motion.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry::motor {
namespace {
constexpr double pi = std::numbers::pi;
}

double naturalFrequency(int rotorTeeth, double torqueAmplitude, double load, double inertia) {
    const double part = std::min(1.0, std::abs(load) / torqueAmplitude);
    const double restoring = torqueAmplitude * std::sqrt(1.0 - part * part); // cos(asin x)
    return std::sqrt(rotorTeeth * restoring / inertia) / (2.0 * pi);
}

double rotorLag(int rotorTeeth, double torqueAmplitude, double load) {
    return std::asin(std::min(1.0, std::abs(load) / torqueAmplitude)) / rotorTeeth;
}

} // namespace gantry::motor
