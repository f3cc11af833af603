// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <span>
#include <string>

/// Edits of the moves of a project. What does not exist is left as it is; indices count from 0.
namespace gantry {

/// A new move without poses, named after how many there are; its index.
int addMove(Project& project);
/// A copy behind it; its index, −1 if there is no such move.
int copyMove(Project& project, int move);
void removeMove(Project& project, int move);

/// A pose with places of all axes that carry or point the camera, from their low ends, behind pose `after`
/// (−1: before all). The segment to it is like the one to `after`. Returns its index, −1 where nothing was
/// stored.
int storePose(Project& project, int move, int after, std::span<const double> places);
/// The places of a pose anew; its segments stay.
void restorePose(Project& project, int move, int pose, std::span<const double> places);
void removePose(Project& project, int move, int pose);
/// Changes places with the pose `step` behind it; returns where it is then.
int movePose(Project& project, int move, int pose, int step);

/// The poses in the opposite order, each segment with the pose at its other end: the same way back. Blocks
/// run back as well. @param duration [s] of the move, from whose end they are counted then
void reverseMove(Project& project, int move, double duration = 0.0);
/// Every place counted from the other end of its travel, of the axes named: what went to the left goes to the
/// right. @param axis index, −1: all
void mirrorMove(Project& project, int move, int axis = -1);
/// All times of segments and waits by a factor > 0.
void retimeMove(Project& project, int move, double factor);

/// A target at a place; its index, −1 if there is no such move.
int addTarget(Project& project, int move, double x, double y, double z);
/// Lets a target ride on the turntable with that id, which turns about where the target stands until its
/// middle is entered; or stand still again where it rides on it.
void rideOn(Project& project, int move, int target, const std::string& turntable);
void removeTarget(Project& project, int move, int target);

/// A block of one axis that starts at a moment [s], as long as there is room for up to `end` [s], four
/// seconds at most. Its index, −1 if there is no such move or axis, or no room.
int addBlock(Project& project, int move, int axis, double start, double end);
void removeBlock(Project& project, int move, int block);

/// A place of an axis in a pose, made where the pose says nothing of it. Null if there is no such pose or
/// axis.
PosePlace* placeIn(Project& project, int move, int pose, int axis);

} // namespace gantry
