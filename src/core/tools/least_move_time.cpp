// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/least_move_time.h"

#include "core/trajectory/least_time.h"
#include "core/trajectory/through_keys.h"

#include <algorithm>
#include <atomic>
#include <utility>
#include <vector>

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

/// From one stop to the next, [first, last] of the segments.
LeastRun leastRun(const RigMove& move, const MoveScene& scene, const MovePlan& plan, std::size_t first,
                  std::size_t last, const std::stop_token& stop) {
    const SegmentPlan &from = plan.segments[first], &to = plan.segments[last];
    LeastRun run{from.pose - 1, to.pose, to.to - from.from, to.to - from.from, -1};
    if (first == last && from.quickest > 0.0 && move.blocks.empty()) {
        // Straight from stop to stop: what the closed form says is the least, and no search beats it.
        run.least = from.quickest;
        run.binds =
            static_cast<int>(trajectory::binding(trajectory::straight(plan.poses[from.pose - 1],
                                                                      plan.poses[from.pose], scene.limits),
                                                 scene.limits)
                                 .axis);
        return run;
    }
    const Trajectory path = partOf(plan.trajectory, from.firstPiece, to.lastPiece);
    if (const auto fast = trajectory::fastest(path, scene.limits, stop, last - first + 1)) {
        run.least = fast->trajectory.duration();
        run.binds = mostBinding(*fast, scene.limits.size());
    }
    return run;
}

} // namespace

std::optional<LeastMoveTime> leastMoveTime(const RigMove& move, const MoveScene& scene, const MovePlan& plan,
                                           const std::stop_token& stop, const Crew& crew) {
    if (plan.trajectory.empty() || plan.segments.empty()) return std::nullopt;
    std::vector<std::pair<std::size_t, std::size_t>> spans; // first and last segment from stop to stop
    for (std::size_t i = 0; i < plan.segments.size(); i = spans.back().second + 1) {
        std::size_t last = i;
        while (goesThrough(move, plan.segments[last].pose)) ++last;
        spans.emplace_back(i, last);
    }
    LeastMoveTime out;
    out.runs.resize(spans.size());
    // None depends on another, so every thread takes the next that is left.
    std::atomic<std::size_t> next{0};
    doneBy(crew, [&] {
        for (std::size_t i = next++; i < spans.size() && !stop.stop_requested(); i = next++)
            out.runs[i] = leastRun(move, scene, plan, spans[i].first, spans[i].second, stop);
    });
    if (stop.stop_requested()) return std::nullopt;
    out.time = plan.trajectory.duration();
    for (const LeastRun& run : out.runs) out.time += run.least - run.planned;
    return out;
}

} // namespace gantry
