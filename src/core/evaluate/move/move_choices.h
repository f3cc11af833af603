// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/move/planned_move.h"

namespace gantry {

/// What a rig with a few fixed speeds or times makes of a move: the choice that is nearest to what each
/// segment needs, by ratio, and what is missed by it. At another speed a segment runs in the same shape, so
/// its time goes with one over the speed. Fills `segments` and `axes` of the results, which have one for each
/// segment of the plan and each axis of the rig. An axis that runs by blocks has a time of its own, and is
/// left out.
void fillChoices(MoveResults& out, const RigSetup& rig, const RigMove& move, const MovePlan& plan);

} // namespace gantry
