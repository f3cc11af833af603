// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

#include <vector>

namespace gantry {

/// A point of a drive's torque plane.
struct TorquePoint {
    double speed = 0.0;  ///< [rad/s] of the motor, never negative
    double torque = 0.0; ///< [N·m] in the direction of motion; negative: the motor holds back
};

/// Torque against speed from rest to `topSpeed` [rad/s]. Empty if the motor's data is incomplete.
struct TorqueCurves {
    std::vector<TorquePoint> nominal;    ///< pull-out, the sizing curve
    std::vector<TorquePoint> continuous; ///< what it stands for hours; as the sizing curve on steppers
    std::vector<TorquePoint> lowVoltage; ///< the same at the lowest supply voltage
    std::vector<TorquePoint> atBest;     ///< saturated chopper, square wave
};
TorqueCurves torqueCurves(const DriveModel& model, double topSpeed, int points);

/// The path of a shot through the torque plane, as filmed (direction +1) or on the way back (−1).
std::vector<TorquePoint> shotPath(const DriveModel& model, const motion::Profile& profile, int direction,
                                  int points);

} // namespace gantry
