// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/move/plan_move.h"

#include <vector>

namespace gantry {

/// The rig at one moment of a move.
struct MoveFrame {
    double time = 0.0;                   ///< [s] from the moment the first pose is left; below 0 before
    std::vector<trajectory::State> axes; ///< one for each axis of the rig [U]
    kinematics::Moving camera;           ///< at the lens' pupil
    double focalLength = 0.0;            ///< [m] of the lens
};

/// The rig at a moment [s]; it stands before the move and after it.
MoveFrame frameAt(const MoveScene& scene, const trajectory::Trajectory& t, double time);

/// Every so often from the start of what is recorded to its end. @param rate [1/s] > 0; at most `mostFrames`,
/// farther apart if there would be more
std::vector<MoveFrame> framesOf(const RigMove& move, const MoveScene& scene, const MovePlan& plan,
                                double rate);
inline constexpr double mostFrames = 1e6;

} // namespace gantry
