// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/least_move_time.h"

#include "core/trajectory/least_time.h"
#include "core/trajectory/through_keys.h"

#include <algorithm>

namespace gantry {
namespace {

using trajectory::Quintic;
using trajectory::Trajectory;

/// Some pieces of a trajectory, [first, last), from time 0 on.
Trajectory partOf(const Trajectory& t, std::size_t first, std::size_t last) {
    std::vector<double> times;
    for (std::size_t i = first; i <= last; ++i) times.push_back(t.times()[i] - t.times()[first]);
    std::vector<std::vector<Quintic>> axes;
    for (std::size_t a = 0; a < t.axisCount(); ++a) {
        const auto pieces = t.pieces(a).subspan(first, last - first);
        axes.emplace_back(pieces.begin(), pieces.end());
    }
    return Trajectory(std::move(times), std::move(axes));
}

int mostBinding(const trajectory::Fastest& fast, std::size_t axes) {
    std::vector<double> time(axes, 0.0);
    const auto times = fast.trajectory.times();
    for (std::size_t i = 0; i < fast.binds.size(); ++i)
        if (fast.binds[i].axis >= 0)
            time[static_cast<std::size_t>(fast.binds[i].axis)] += times[i + 1] - times[i];
    const auto most = std::max_element(time.begin(), time.end());
    return most != time.end() && *most > 0.0 ? static_cast<int>(most - time.begin()) : -1;
}

} // namespace

std::optional<LeastMoveTime> leastMoveTime(const RigMove& move, const MoveScene& scene, const MovePlan& plan,
                                           const std::stop_token& stop) {
    if (plan.trajectory.empty() || plan.segments.empty()) return std::nullopt;
    LeastMoveTime out;
    out.time = plan.trajectory.duration();
    for (std::size_t i = 0; i < plan.segments.size();) {
        if (stop.stop_requested()) return std::nullopt;
        std::size_t last = i;
        while (goesThrough(move, plan.segments[last].pose)) ++last;
        const SegmentPlan &from = plan.segments[i], &to = plan.segments[last];
        LeastRun run{from.pose - 1, to.pose, to.to - from.from, to.to - from.from, -1};
        const Trajectory path = partOf(plan.trajectory, from.firstPiece, to.lastPiece);
        if (i == last && from.quickest > 0.0 && move.blocks.empty()) {
            // Straight from stop to stop: what the closed form says is the least, and no search beats it.
            run.least = from.quickest;
            run.binds = static_cast<int>(
                trajectory::binding(
                    trajectory::straight(plan.poses[from.pose - 1], plan.poses[from.pose], scene.limits),
                    scene.limits)
                    .axis);
            out.time += run.least - run.planned;
        } else if (const auto fast = trajectory::fastest(path, scene.limits, stop, last - i + 1)) {
            run.least = fast->trajectory.duration();
            run.binds = mostBinding(*fast, scene.limits.size());
            out.time += run.least - run.planned;
        }
        out.runs.push_back(run);
        i = last + 1;
    }
    return out;
}

} // namespace gantry
