// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/rig/rig_sweep.h"
#include "core/results/move_results.h"

#include <memory>
#include <vector>

namespace gantry {

/// All that a search depends on, as numbers to be compared.
std::vector<double> poseInputs(const RigSetup& rig);

/// A search that was made, what it went by, and what it says of the rig. It takes up to some tens of
/// milliseconds.
struct PoseSearch {
    std::vector<double> inputs;
    Clearance clearance;
    ClearanceResults found;
    std::vector<MoveSearchResults> moves; ///< one for each move of the project
};
std::shared_ptr<const PoseSearch> searchPoses(const RigSetup& rig);

/// The same if few looks tell it and nothing moves in a move; else null. Takes less than a tenth of a
/// millisecond.
std::shared_ptr<const PoseSearch> searchPosesAtOnce(const RigSetup& rig);

} // namespace gantry
