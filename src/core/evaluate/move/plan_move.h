// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/move/move_scene.h"
#include "core/results/move_results.h"

#include <optional>
#include <vector>

namespace gantry {

/// How one segment is timed; the one that comes to a pose.
struct SegmentPlan {
    std::size_t pose = 0;                      ///< index of the pose that it comes to
    double from = 0.0, to = 0.0;               ///< [s] of the move, without waiting
    std::size_t firstPiece = 0, lastPiece = 0; ///< [first, last) of the trajectory
    double least = 0.0;                        ///< [s] under the limits that are set, in this form
    double quickest = 0.0;     ///< [s] … in any, where a closed form says it; 0: it does not
    trajectory::Binding binds; ///< what decides that
    bool aimed = false;
    double drift = 0.0;      ///< [px] by which the target leaves its way in the picture
    double driftAt = 0.0;    ///< [s]
    bool targetSeen = false; ///< whether it is before the camera all the way, or there is none: then no drift
};

/// A move as all axes run it. Times in [s] from the moment the first pose is left.
struct MovePlan {
    std::vector<std::vector<double>> poses; ///< places [U] of all axes of the rig, from their low ends
    std::vector<double> poseTimes;          ///< [s] at which each is reached
    trajectory::Trajectory trajectory;      ///< of all axes of the rig, as far as it could be planned
    std::vector<SegmentPlan> segments;
    std::vector<MoveTrouble> troubles;
};

/// The whole move. Pure and quick; never searches for a least time. Whatever is wrong is among its troubles,
/// and the rest is planned as far as it goes.
MovePlan planMove(const RigMove& move, const MoveScene& scene);

/// How far an axis goes past both poses of a segment, and when.
struct PastPoses {
    double by = 0.0; ///< [U]; 0: it stays between them
    double at = 0.0; ///< [s] of the trajectory
};
/// @param poses places of all axes in all poses; @param pose that the segment comes to, of which the
/// trajectory has the pieces [firstPiece, lastPiece)
PastPoses pastPoses(const trajectory::Trajectory& t, std::span<const std::vector<double>> poses,
                    std::size_t axis, std::size_t pose, std::size_t firstPiece, std::size_t lastPiece);

/// The axis whose top speed times a segment: the one it names, or where it names none the first of the rig
/// that moves in it. −1 if that does not move.
int leadingAxis(const MoveScene& scene, const MovePlan& plan, std::size_t pose, const MoveSegment& segment);

/// The straight way in the picture between where the ends of a segment show a target.
struct PictureWay {
    kinematics::PicturePlace from, to; ///< [px]

    /// How far [px] off it a place is; along it the picture may run as it likes.
    double off(double u, double v) const;
};
/// Nothing where one of the ends has the target behind the camera.
std::optional<PictureWay> wayInPicture(const MoveScene& scene, const MovePlan& plan,
                                       const SegmentPlan& segment, const AimTarget& target);

} // namespace gantry
