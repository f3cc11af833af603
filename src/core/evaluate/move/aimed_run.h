// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/move/segment_aims.h"

#include <optional>
#include <span>
#include <vector>

namespace gantry {

/// Why a segment could not be aimed all the way.
struct AimFailure {
    kinematics::NoAim no = kinematics::NoAim::None;
    std::size_t pose = 0; ///< index of the pose that the segment comes to
};

/// A run from one stop to the next with the head, and the focus where it is pulled, led so that aimed
/// segments hold their targets.
struct AimedRun {
    trajectory::Trajectory run;
    std::vector<AimFailure> failures; ///< one a segment at most; what could not be aimed stays as it was
};

/// @param poses places [U] of all axes in all poses of the move
/// @param first, last poses at which the run begins and ends
/// @param times [s] at which each pose from `first` to `last` is reached, from 0 on
/// @param run of all axes through those, not aimed
AimedRun aimedRun(const MoveScene& scene, const SegmentAims& aims, std::span<const std::vector<double>> poses,
                  std::size_t first, std::size_t last, std::span<const double> times,
                  const trajectory::Trajectory& run);

} // namespace gantry
