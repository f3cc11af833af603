// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/rig_setup.h"
#include "core/solve/crew.h"

namespace gantry {

/// A rig with its courses and all its moves planned, for what judges moves. setupOf() plans those alone that
/// say how a shot is taken, since courses need them; the others are there and empty.
RigSetup setupWithMoves(const Project& project);
RigSetup setupWithMoves(const Project&&) = delete; // would look into what is gone

/// The same, taking over from an earlier planning, which may be empty, the moves that are still planned
/// alike.
RigSetup setupPlannedAgain(const Project& project, std::span<const PlannedMove> known, const Crew& crew = {});
/// The same with the moves as they were planned of the same rig.
RigSetup setupWithMoves(const Project& project, std::shared_ptr<const std::vector<PlannedMove>> planned);

} // namespace gantry
