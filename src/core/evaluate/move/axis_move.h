// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/drive/drive_model.h"
#include "core/evaluate/move/planned_move.h"
#include "core/results/axis_results.h"
#include "core/results/move_results.h"

namespace gantry {

/// Whether an axis rests at a moment of a move: speeds of a head that is aimed are solved for, and at rest
/// are nothing only nearly. @param topSpeed [U/s] of the move
bool stands(const AxisMoment& moment, double topSpeed);

/// Torque [N·m] that a drive must give at a moment of a move: that of its figures in Drives, with the weight
/// of the place where it is and what other axes bring, in place of the worst of each.
double torqueAt(const DriveModel& drive, const AxisMoment& moment);

/// What one axis has to give in one move. @param move index of the move
AxisMoveResults evaluateAxisMove(const DriveModel& drive, const RotorResonance& resonance,
                                 const PlannedMove& planned, std::size_t axis, std::size_t move);

/// What holds an axis that only stands in a move, against its weight and what the other axes push at it.
/// Nothing for a drive that holds nothing by current: what becomes of that is judged at rest.
AxisMoveResults evaluateHeld(const DriveModel& drive, const PlannedMove& planned, std::size_t axis,
                             std::size_t move);

} // namespace gantry
