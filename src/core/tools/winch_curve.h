// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

#include <vector>

namespace gantry {

/// What a winch does where so much cord is on its drum.
struct WinchPoint {
    double wound = 0.0; ///< [m] of cord on the drum
    int layer = 1;
    double stepsPerUnit = 0.0; ///< [1/mm]; 0 for motors without steps
    double speed = 0.0;        ///< [m/s] of the cart at the given motor speed
};

/// Along the usable travel of a winched axis, two points at each change of layer, so that lines between the
/// points are true. Empty on other axes. `motorSpeed` [rad/s].
std::vector<WinchPoint> winchCurve(const Axis& axis, const AxisEvaluation& evaluation, double motorSpeed);

} // namespace gantry
