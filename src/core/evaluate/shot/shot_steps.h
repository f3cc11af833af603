// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

namespace gantry {

/// Whether the rig stands still while each picture is taken.
bool stepwise(const Shot& shot);

/// Pictures of a shot [1]: entered for intervals, clip times frame rate for stop motion, the movement's own
/// time for the others. At least 2.
int picturesOf(const Shot& shot);

/// Of the time of a step, each of its two ramps [1].
inline constexpr double rampShareOfStep = 0.3;

/// What one movement of a shot asks of its drive: the movement itself, or one step of it. n pictures have n −
/// 1 steps between them; a step is made within `stepTime`, 30 % of it ramp at each end.
Movement demandedMovement(const Shot& shot, const Movement& movement);

/// Whole time [s] of a stepwise shot: pictures by interval; for stop motion the time of the clip as it is
/// shown.
double shownTime(const Shot& shot);
double shootingTime(const Shot& shot);

} // namespace gantry
