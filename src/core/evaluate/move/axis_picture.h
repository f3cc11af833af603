// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/evaluate/move/planned_move.h"
#include "core/evaluate/shot/picture_errors.h"

namespace gantry {

/// What of a drive shows in the picture of a move, but for what rocks on it.
struct SeenDrive {
    bool commanded = false; ///< by place; a knob is turned by speed
    Stepping stepping;
    drivetrain::LastingLoad lasting;
    double lowPlace = 0.0;                ///< [U] of the low end of the travel in the places of that load
    double friction = 0.0, inertia = 0.0; ///< [N], [kg] or [N·m], [kg·m²]
    double backlash = 0.0;                ///< [U]
    double stiffness = 0.0;               ///< [N/m] or [N·m/rad]; infinite if nothing is given
    double breakawayJump = 0.0;           ///< [U]
    double smoothFrom = 0.0;              ///< [U/s]

    friend bool operator==(const SeenDrive&, const SeenDrive&) = default;
};
SeenDrive seenOf(const AxisEvaluation& e);

/// What of the picture is found anew: all of it, or what hangs on what rocks on the axis alone.
enum class PictureOf { All, Rocking };

/// Puts what an axis does to the picture into other results of the same move.
void takePicture(AxisMoveResults& into, const AxisMoveResults& from);

/// What steps, friction, play and springs of an axis do to the picture at every moment of a move that a film
/// runs through: the errors of a shot (docs/models/picture.md) at the speed, load and distance of that moment
/// in place of the worst of each.
/// @param e of the axis, complete but for its moves @param move of the project, that was planned
/// @param what if not All, `out` holds what was found of a drive that differs in what rocks alone
void fillAxisPicture(AxisMoveResults& out, const RigSetup& rig, const RigMove& move,
                     const PlannedMove& planned, std::size_t axis, const AxisEvaluation& e,
                     PictureOf what = PictureOf::All);

} // namespace gantry
