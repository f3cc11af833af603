// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/move/plan_move.h"
#include "core/solve/crew.h"

#include <vector>

namespace gantry {

/// One axis at one moment of a move, with what its drive meets there beside its own inertia.
struct AxisMoment {
    double time = 0.0;         ///< [s]
    double place = 0.0;        ///< [U] from its low end
    double speed = 0.0;        ///< [U/s]
    double acceleration = 0.0; ///< [U/s²]
    double carried = 0.0; ///< [N] or [N·m] that the movement of other axes asks of it, positive as gravity
                          ///< that resists
    double leans = 0.0;   ///< [rad] by which what carries it looks up
    double shift = 0.0;   ///< [px/U] by which it moves the picture; 0: the lens does not stand on it
};

/// A move as it was planned, and what its axes meet on the way.
struct PlannedMove {
    RigMove move;
    MoveScene scene;
    MovePlan plan;
    std::vector<double> topSpeeds;              ///< [U/s] of each axis of the rig; empty where nothing moves
    std::vector<std::vector<AxisMoment>> axes;  ///< for each axis of the rig that moves in it, in time
    std::vector<std::vector<AxisMoment>> still; ///< … and for each that stands while others push at it

    bool moves(std::size_t axis) const { return axis < axes.size() && !axes[axis].empty(); }
    bool isPushed(std::size_t axis) const { return axis < still.size() && !still[axis].empty(); }
};

/// The moves of a rig: all of them, or those alone that realise a shot, the others empty. What axes meet
/// comes from the masses that each of them lists, the same that its own figures go by, moved by Newton and
/// Euler: ramps of a carriage under an arm, the pull outwards of a swing, the counter-torque of a pan.
///
/// @param known an earlier planning, of which what is still planned alike is taken over; may be empty
std::vector<PlannedMove> planMoves(const RigSetup& rig, bool all, std::span<const PlannedMove> known = {},
                                   const Crew& crew = {});
PlannedMove plannedMove(const RigSetup& rig, const RigMove& move, const PlannedMove* known = nullptr,
                        const Crew& crew = {});

} // namespace gantry
