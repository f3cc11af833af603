// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/move/move_choices.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

/// Of some values above nothing the one whose ratio to what is wanted is nearest to 1.
double nearest(std::span<const double> values, double wanted) {
    return *std::min_element(values.begin(), values.end(), [&](double a, double b) {
        return std::abs(std::log(a / wanted)) < std::abs(std::log(b / wanted));
    });
}

/// By times that the controller offers for a run from stop to stop; its segments share in it.
void fillTimes(MoveResults& out, const RigMove& move, const MovePlan& plan, std::span<const double> times) {
    for (std::size_t i = 0; i < plan.segments.size();) {
        std::size_t last = i;
        while (goesThrough(move, plan.segments[last].pose)) ++last;
        const double whole = plan.segments[last].to - plan.segments[i].from;
        const double by = nearest(times, whole) / whole;
        for (; i <= last; ++i) {
            const double time = plan.segments[i].to - plan.segments[i].from;
            out.segments[i].choice = Figure::of(by * time);
            out.segments[i].choiceLate = Figure::of((by - 1.0) * time);
        }
    }
}

/// By the speeds of one axis, in the segment that they miss by most.
void fillSpeeds(MoveAxisResults& out, const MovePlan& plan, std::size_t axis,
                std::span<const double> speeds) {
    double most = -1.0;
    for (const SegmentPlan& s : plan.segments) {
        const double wanted =
            plan.trajectory.extremes(axis, trajectory::Order::Speed, s.firstPiece, s.lastPiece).largest();
        const double way = std::abs(plan.poses[s.pose][axis] - plan.poses[s.pose - 1][axis]);
        if (!(wanted > 0.0) || !(way > 0.0)) continue;
        const double speed = nearest(speeds, wanted), by = wanted / speed, time = s.to - s.from;
        if (std::abs(by - 1.0) <= most) continue;
        most = std::abs(by - 1.0);
        out.choicePose = s.pose;
        out.choiceWanted = Figure::of(wanted);
        out.choiceSpeed = Figure::of(speed);
        out.choiceTime = Figure::of(by * time);
        out.choiceLate = Figure::of((by - 1.0) * time);
        out.choiceShort = Figure::of((1.0 - 1.0 / by) * way);
    }
}

} // namespace

void fillChoices(MoveResults& out, const RigSetup& rig, const RigMove& move, const MovePlan& plan) {
    for (MoveSegmentResults& s : out.segments) s.choice = s.choiceLate = Figure::none(Reason::NotApplicable);
    for (MoveAxisResults& a : out.axes)
        a.choiceWanted = a.choiceSpeed = a.choiceTime = a.choiceLate = a.choiceShort =
            Figure::none(Reason::NotApplicable);
    std::vector<double> times;
    for (const FixedTime& t : rig.controller.times) times.push_back(t.time);
    if (!times.empty()) fillTimes(out, move, plan, times);
    for (std::size_t a = 0; a < out.axes.size(); ++a)
        if (const std::vector<double> speeds = fixedSpeeds(rig.axes[a]);
            !speeds.empty() && !hasBlock(move, rig.axes[a]))
            fillSpeeds(out.axes[a], plan, a, speeds);
}

} // namespace gantry
