// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/power/battery.h"

#include <cmath>

namespace gantry::power {

double runTime(const BatteryParams& b, double current) {
    return b.usable * b.ratedTime * std::pow(b.capacity / (current * b.ratedTime), b.peukert);
}

} // namespace gantry::power
