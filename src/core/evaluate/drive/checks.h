// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

namespace gantry {

/// The hardest thing asked of an axis: the largest of each over its shots, or the controller's settings where
/// no shot moves it. U is m or rad.
struct HardestDemand {
    double speed = 0.0, acceleration = 0.0; ///< [U/s], [U/s²]
    double carried = 0.0;                   ///< [N] or [N·m] from the axes below
    double torqueRms = 0.0;                 ///< [N·m]
};
HardestDemand hardestDemand(const AxisEvaluation& evaluation);

/// Force [N] or torque [N·m] at the mechanism that this asks: pulling against all at once, or breaking away.
double loadForce(const DriveModel& model, const HardestDemand& demand);

/// Fills what the parts of an axis stand: teeth, belts, shafts, screws, cords, guides, heat, and what a stop
/// does. After the shots, since the worst of them sets the loads. Without a shot the controller's top
/// settings do. `ambient`: [°C].
void fillChecks(AxisEvaluation& evaluation, const Axis& axis, double ambient);

/// Noise of a drive at a motor speed [rad/s].
motor::Noise noiseOf(const Axis& axis, const DriveModel& model, double motorSpeed);

/// Highest case temperature [°C] that a mount stands for hours: bearing grease and touch for metal, softening
/// for prints.
double caseLimit(MountMaterial mount);

/// Bending stress [Pa] that a tooth of this material stands for long.
double allowedToothStress(GearMaterial material);

} // namespace gantry
