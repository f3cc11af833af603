// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <optional>

namespace gantry {

/// Gives a move a whole time [s]: what its waits and its way back leave is spread over its segments by what
/// each needs at least under the limits that are set, so that none is nearer to them than another. Segments
/// run in times then, whatever said how they ran.
/// @return nothing if it was done; else the least whole time that would do, and the project is as it was. 0:
/// nothing of the move can be timed
std::optional<double> fitToTime(Project& project, int move, double whole);

/// Gives every segment of a move that stops at both its ends, and every run through poses in step, the least
/// time that the limits allow in the form that it has. @return false where nothing can be timed
bool runInLeastTime(Project& project, int move);

} // namespace gantry
