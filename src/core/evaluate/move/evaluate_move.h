// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/evaluate/move/planned_move.h"

namespace gantry {

/// What a move asks of the rig, from its plan: exact bounds of the trajectory; of what the picture and the
/// base meet, the worst of the moments at which the axes are looked at. What takes a search is left out.
/// @param axes for the wind on them
MoveResults evaluateMove(const RigSetup& rig, const RigMove& move, const PlannedMove& planned,
                         const std::vector<AxisEvaluation>& axes);

/// The same tipping ratio again at one moment [s], of a rig whose masses were moved a little.
Figure tippingAgain(const RigSetup& rig, const PlannedMove& planned, double at,
                    const std::vector<AxisEvaluation>& axes);

} // namespace gantry
