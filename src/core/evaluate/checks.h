// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

namespace gantry {

/// Fills what the parts of an axis stand: teeth, belts, shafts, screws, cords, guides, heat, and what a stop
/// does. After the shots, since the worst of them sets the loads. Without a shot the controller's top
/// settings do.
void fillChecks(AxisEvaluation& evaluation, const Project& project, const Axis& axis);

/// Noise of a drive at a motor speed [rad/s].
motor::Noise noiseOf(const Axis& axis, const DriveModel& model, double motorSpeed);

/// Highest case temperature [°C] that a mount stands for hours: bearing grease and touch for metal, softening
/// for prints.
double caseLimit(MountMaterial mount);

/// Bending stress [Pa] that a tooth of this material stands for long.
double allowedToothStress(GearMaterial material);

} // namespace gantry
