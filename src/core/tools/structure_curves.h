// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

#include <vector>

namespace gantry {

/// How a rail gives way with the carriage at one place, and what the worst shot's lens makes of it.
struct SagPoint {
    double at = 0.0;     ///< [m] along the rail
    double sag = 0.0;    ///< [m]
    double slope = 0.0;  ///< [rad]
    double twist = 0.0;  ///< [rad]
    double pixels = 0.0; ///< [px] by which the picture is shifted against its place at the first point
};

/// Along the whole travel of a linear axis, evenly spaced; empty where its rail is not given. Pixels are 0
/// without a shot.
std::vector<SagPoint> sagCurve(const Project& project, const Axis& axis, const ShotEvaluation* shot,
                               int points = 60);

/// Gravity torque about the pivot at one elevation.
struct BalancePoint {
    double elevation = 0.0; ///< [rad] above level
    double torque = 0.0;    ///< [N·m] pulling the camera's end down
};

/// Over the range of a turning axis; empty where nothing hangs on it.
std::vector<BalancePoint> balanceCurve(const Project& project, const Axis& axis, int points = 60);

/// How long [s] one part alone would swing after a shot until only `limit` [px] is left; no number without
/// damping.
Figure settlesAlone(const ShotEvaluation& shot, const structure::SoftPart& part, double limit);

/// Torque [N·m] at the axis that its motor holds at its hold current, losses left out; nothing where the
/// motor's data are missing.
Figure heldTorque(const AxisEvaluation& evaluation);

} // namespace gantry
