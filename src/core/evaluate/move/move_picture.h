// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/move/planned_move.h"

#include <optional>

namespace gantry {

/// What the picture shows of the target at one moment of a move.
struct PictureMoment {
    kinematics::InPicture target;
    bool inFrame = false;   ///< it lies within the delivered picture
    double off = 0.0;       ///< [px] off the straight way between where the ends of the segment show it
    double focusedAt = 0.0; ///< [m] from the sensor mark; infinite beyond the scale
    double targetAt = 0.0;  ///< [m]
    std::optional<double> focusBlur; ///< [px]; nothing nearer than a lens can focus
};

/// The picture along a move: of the target that each segment is aimed at, or would be. A view: what it is
/// made of must live on.
class MovePicture {
public:
    MovePicture(const RigSetup& rig, const RigMove& move, const PlannedMove& planned);

    /// Nothing where there is no target, no shot, or the target is behind the camera.
    std::optional<PictureMoment> at(double time) const;

private:
    const Camera& camera_;
    const RigMove& move_;
    const MoveScene& scene_;
    const MovePlan& plan_;
    const Shot* shot_;
    std::vector<std::optional<PictureWay>> ways_; ///< of each segment
    double firstFocus_ = 0.0;                     ///< [m] where the lens stays without an axis on its ring
};

} // namespace gantry
