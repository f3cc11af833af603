// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/ratiofinder/finder.h"

namespace gantry::ratiofinder {

/// The arrangement of a set of wheels (which driver with which driven, in which order) that has the least
/// inertia at the motor, and on equal inertia the least size. Tries all of the at most 576. `drivers` and
/// `driven` are wheel indices of equal number; only wheels of one family are paired. Fills everything of the
/// Train but ratio, error and gearSets.
Train arranged(std::span<const Wheel> wheels, std::span<const Family> families, std::span<const int> drivers,
               std::span<const int> driven);

/// Inertia [kg·m²] of a wheel as a full disc of plastic or aluminium (2000 kg/m³, between the two).
double wheelInertia(const Wheel& wheel, const Family& family);

} // namespace gantry::ratiofinder
