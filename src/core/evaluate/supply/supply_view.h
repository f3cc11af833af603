// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

namespace gantry {

/// Power [W] that an axis takes from the supply in one shot at its worst: shaft power at top speed and full
/// ramp torque, and the heat of its windings and bridges. Servo drives are taken to pass on 75 % of what they
/// take (an assumption, ±15 %).
Figure electricalPower(const Supply& supply, const Axis& axis, const DriveModel& model,
                       const ShotEvaluation& shot);

/// What the supply has to give with every axis at its worst at once, and how long a battery lasts so.
SupplyEvaluation evaluateSupply(const Supply& supply, const std::vector<AxisEvaluation>& axes);

} // namespace gantry
