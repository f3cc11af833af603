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

/// Outlines of the rig's own parts in the picture with the axes at places [U], but for the camera and its
/// lens, and the share [0, 1] of the picture that they cover.
struct OwnParts {
    double share = 0.0;
    int most = -1; ///< index of the body that covers most; −1: nothing is in the picture
};
OwnParts ownPartsInView(const MoveScene& scene, std::span<const double> places, double halfWidth,
                        double halfHeight);

} // namespace gantry
