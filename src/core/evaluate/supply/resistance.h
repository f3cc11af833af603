// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

namespace gantry {

/// Resistance [ohm] between the source and the drivers: its own and the cable's.
double supplyResistance(const Supply& supply);

} // namespace gantry
