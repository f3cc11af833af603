// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/move/plan_move.h"
#include "core/solve/crew.h"

#include <optional>
#include <stop_token>
#include <vector>

namespace gantry {

/// A stretch of a move from one stop to the next, and the least time that its path can be run in.
struct LeastRun {
    std::size_t fromPose = 0, toPose = 0; ///< indices
    double planned = 0.0;                 ///< [s]
    double least = 0.0;                   ///< [s]
    int binds = -1;                       ///< index of the axis that binds over most of it; −1: none
};

struct LeastMoveTime {
    double time = 0.0; ///< [s] of the whole move, its waits and its way back as planned
    std::vector<LeastRun> runs;
};

/// How fast a move could go at best over the path that is planned: aimed segments stay aimed, poses are
/// passed where they are. A search of some hundredths of a second a run; not part of evaluate. Nothing where
/// the move could not be planned or `stop` is requested.
std::optional<LeastMoveTime> leastMoveTime(const RigMove& move, const MoveScene& scene, const MovePlan& plan,
                                           const std::stop_token& stop = {}, const Crew& crew = {});

} // namespace gantry
