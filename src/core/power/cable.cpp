// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/power/cable.h"

#include <cmath>

namespace gantry::power {

double copperPair(double length, double section) {
    constexpr double resistivity = 1.72e-8; // [ohm·m] annealed copper at 20 °C
    return length > 0.0 ? resistivity * 2.0 * length / section : 0.0;
}

std::optional<Delivered> deliver(double voltage, double resistance, double power) {
    const double under = voltage * voltage - 4.0 * resistance * power;
    if (!(under >= 0.0) || voltage <= 0.0) return std::nullopt;
    Delivered d;
    d.voltage = (voltage + std::sqrt(under)) / 2.0;
    d.current = power / d.voltage;
    d.drop = d.current * resistance;
    d.loss = d.drop * d.current;
    return d;
}

} // namespace gantry::power
