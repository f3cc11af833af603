// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/evaluate/move/planned_move.h"

namespace gantry {

/// What of the picture is found anew: all of it, or what hangs on what rocks on the axis alone.
enum class PictureOf { All, Rocking };

/// What steps, friction, play and springs of an axis do to the picture at every moment of a move that a film
/// runs through: the errors of a shot (docs/models/picture.md) at the speed, load and distance of that moment
/// in place of the worst of each.
/// @param e of the axis, complete but for its moves @param move of the project, that was planned
/// @param what if not All, `out` holds what was found of a drive that differs in what rocks alone
void fillAxisPicture(AxisMoveResults& out, const RigSetup& rig, const RigMove& move,
                     const PlannedMove& planned, std::size_t axis, const AxisEvaluation& e,
                     PictureOf what = PictureOf::All);

} // namespace gantry
