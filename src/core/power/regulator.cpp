// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/power/regulator.h"

namespace gantry::power {

double regulatorHeat(double input, double output, double load, double quiescent) {
    return (input - output) * load + input * quiescent;
}

} // namespace gantry::power
