// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/fit_move.h"

#include "core/evaluate/move/plan_move.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

/// The move with each segment in a time of its own [s], one for each pose but the first.
void setTimes(RigMove& move, std::span<const double> times) {
    for (std::size_t i = 1; i < move.poses.size(); ++i) {
        move.poses[i].arrive.pace = SegmentPace::Time;
        move.poses[i].arrive.time = times[i];
    }
}

/// Blocks go with the time of the whole: what begins half way does so still.
void stretchBlocks(RigMove& move, double factor) {
    for (AxisBlock& block : move.blocks) {
        block.start *= factor;
        block.length *= factor;
    }
}

/// What each segment needs at least as the move is planned now; by pose.
struct Needs {
    std::vector<double> least;
    double sum = 0.0;     ///< [s]
    double whole = 0.0;   ///< [s] of the move
    double rest = 0.0;    ///< [s] of the move that is no segment: its waits, and its way back
    double stretch = 0.0; ///< the largest share of a limit that is used, as a factor of time
};

/// Nothing where a segment has no time that means anything: it waits, or the plan has troubles.
std::optional<Needs> needsOf(const RigSetup& rig, const RigMove& move) {
    const MovePlan plan = planMove(move, sceneOf(rig, move));
    if (plan.segments.empty() || plan.segments.size() + 1 != move.poses.size()) return std::nullopt;
    Needs out;
    out.least.assign(move.poses.size(), 0.0);
    out.rest = out.whole = plan.trajectory.duration();
    for (const SegmentPlan& s : plan.segments) {
        if (!(s.least > 0.0)) return std::nullopt;
        out.least[s.pose] = s.least;
        out.sum += s.least;
        out.rest -= s.to - s.from;
        out.stretch = std::max(out.stretch, s.binds.stretch);
    }
    return out;
}

constexpr int rounds = 12; // segments of a run through poses lean on each other's times
constexpr double exact = 1e-6;

/// Times by need that make up a sum [s], and the stretch that they leave.
std::optional<Needs> spread(const RigSetup& rig, RigMove& move, double sum) {
    std::optional<Needs> needs = needsOf(rig, move);
    for (int i = 0; needs && i < rounds; ++i) {
        for (double& t : needs->least) t *= sum / needs->sum;
        setTimes(move, needs->least);
        needs = needsOf(rig, move);
    }
    return needs;
}

} // namespace

std::optional<double> fitToTime(Project& project, int move, double whole) {
    if (move < 0 || static_cast<std::size_t>(move) >= project.moves.size()) return 0.0;
    const RigSetup rig = setupOf(project, Courses::No);
    RigMove tried = project.moves[static_cast<std::size_t>(move)];
    const auto first = needsOf(rig, tried);
    if (!first) return 0.0;
    const double sum = std::max(whole - first->rest, 1e-3);
    stretchBlocks(tried, whole / first->whole);
    const auto needs = spread(rig, tried, sum);
    if (!needs) return 0.0;
    if (whole <= first->rest || needs->stretch > 1.0 + exact) return first->rest + sum * needs->stretch;
    project.moves[static_cast<std::size_t>(move)] = std::move(tried);
    return std::nullopt;
}

bool runInLeastTime(Project& project, int move) {
    if (move < 0 || static_cast<std::size_t>(move) >= project.moves.size()) return false;
    RigMove tried = project.moves[static_cast<std::size_t>(move)];
    const RigSetup rig = setupOf(project, Courses::No);
    const auto first = needsOf(rig, tried);
    if (!first) return false;
    const auto needs = spread(rig, tried, first->sum);
    if (!needs) return false;
    // In step, so that what the spread has evened out stays even; a share of a frame above the least.
    std::vector<double> times(tried.poses.size(), 0.0);
    for (std::size_t i = 1; i < times.size(); ++i)
        times[i] = tried.poses[i].arrive.time * needs->stretch * (1.0 + exact);
    setTimes(tried, times);
    // Blocks that are quicker now than their axes may be slow all of it down.
    double whole = first->whole;
    for (int i = 0; i < rounds; ++i) {
        const auto now = needsOf(rig, tried);
        if (!now) return false;
        stretchBlocks(tried, now->whole / whole);
        whole = now->whole;
        const auto with = needsOf(rig, tried);
        if (!with || with->stretch <= 1.0 + 2.0 * exact) break;
        for (double& t : times) t *= with->stretch;
        setTimes(tried, times);
    }
    project.moves[static_cast<std::size_t>(move)] = std::move(tried);
    return true;
}

} // namespace gantry
