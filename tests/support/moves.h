// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/move/planned_move.h"
#include "core/evaluate/setup_of.h"
#include "core/model/edit_axes.h"
#include "core/model/edit_moves.h"
#include "core/verdicts/ranges.h"
#include "core/verdicts/verdict.h"
#include "support/files.h"

#include <algorithm>
#include <optional>
#include <vector>

/// Rigs with one move, for tests.
namespace rigmoves {

using namespace gantry;

/// A rig with one move, empty, taken as its first shot.
inline Project rigWithMove(Project p) {
    p.controller.ramps = RampKind::SCurve;
    p.moves.clear();
    addMove(p);
    p.moves[0].shot = p.shots[0].id;
    return p;
}

/// A slide of 1 m usable with a pan on it, level, whose settings are whole numbers.
inline Project dolly() {
    Project p = demoProject();
    auto& slide = std::get<LinearMechanism>(p.axes[0].mechanism);
    slide.railLength = 1.0 + slide.carriageLength + 2.0 * slide.bumperLength;
    slide.slope = estimate(0.0, Source::Measured);
    slide.motion.softLimitMargin = 0.0;
    slide.motion.maxSpeed = 0.25;
    slide.motion.maxAcceleration = 0.5;
    slide.motion.jerk = 2.0;
    auto& pan = std::get<RotaryMechanism>(p.axes[1].mechanism);
    pan.motion.softLimitMargin = 0.0;
    pan.motion.maxSpeed = 1.0;
    pan.motion.maxAcceleration = 2.0;
    pan.motion.jerk = 8.0;
    return rigWithMove(std::move(p));
}

/// Stores a pose behind the others, come to in a time [s].
inline void pose(Project& p, const std::vector<double>& places, double time = 4.0) {
    const int last = static_cast<int>(p.moves[0].poses.size()) - 1;
    const int at = storePose(p, 0, last, places);
    p.moves[0].poses[static_cast<std::size_t>(at)].arrive.time = time;
}

/// All axes in the middle of their travel.
inline std::vector<double> half(const Project& p) {
    std::vector<double> out;
    for (const Axis& a : p.axes) out.push_back(0.5 * usableTravel(a));
    return out;
}

/// Index of the first axis with a role; the number of axes where there is none.
inline std::size_t axisOf(const Project& p, Role role) {
    for (std::size_t a = 0; a < p.axes.size(); ++a)
        if (p.axes[a].role == role) return a;
    return p.axes.size();
}

inline PlannedMove planOf(const Project& p) {
    return plannedMove(setupOf(p, Courses::No), p.moves[0]);
}

inline bool says(const MovePlan& plan, MoveTroubleKind kind) {
    return std::any_of(plan.troubles.begin(), plan.troubles.end(),
                       [&](const MoveTrouble& t) { return t.kind == kind; });
}

/// What a rule says, of one axis where that is given; nothing where it is silent.
inline std::optional<Verdict> verdictOf(const Assessment& now, std::string_view rule, int axis = -1) {
    for (const Verdict& v : now.verdicts)
        if (ruleKey(v) == rule && (axis < 0 || v.axis == axis)) return v;
    return std::nullopt;
}

} // namespace rigmoves
