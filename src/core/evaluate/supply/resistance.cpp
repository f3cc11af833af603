// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/supply/resistance.h"

#include "core/power/cable.h"

namespace gantry {

double supplyResistance(const Supply& supply) {
    return supply.sourceResistance.value + power::copperPair(supply.cableLength, supply.cableSection);
}

} // namespace gantry
