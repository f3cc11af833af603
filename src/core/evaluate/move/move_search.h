// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/move/planned_move.h"

namespace gantry {

/// Looks along the whole way of a move: what comes near to what, continuously in time, so that nothing thin
/// is missed between two moments; and frame by frame which of the rig's own parts are in the picture. Takes
/// some milliseconds.
MoveSearchResults searchMove(const RigSetup& rig, const RigMove& move, const PlannedMove& planned);

/// Results of a move that nobody has looked along yet.
MoveSearchResults notSearched();

} // namespace gantry
