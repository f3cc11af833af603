// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/interval/interval_frames.h"

#include "core/evaluate/interval/evaluate_interval.h"
#include "core/intervals/whole_steps.h"
#include "core/intervals/wholes.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

intervals::MissedRule ruleOf(IfMissed rule) {
    switch (rule) {
    case IfMissed::Waits:
        return intervals::MissedRule::Waits;
    case IfMissed::Skips:
        return intervals::MissedRule::Skips;
    case IfMissed::Stops:
        return intervals::MissedRule::Stops;
    case IfMissed::Repeats:
        break;
    }
    return intervals::MissedRule::Repeats;
}

/// Pauses in order, those that touch joined; of a run that sensors keep going they are no stops of its own.
std::vector<intervals::Stand> pausesOf(const IntervalPlan& plan) {
    std::vector<intervals::Stand> out;
    if (!plan.sensors.empty()) return out;
    for (const PlanPause& p : plan.pauses) out.push_back({p.start, p.start + p.length});
    std::sort(out.begin(), out.end(),
              [](const intervals::Stand& a, const intervals::Stand& b) { return a.from < b.from; });
    std::vector<intervals::Stand> joined;
    for (const intervals::Stand& s : out)
        if (!joined.empty() && s.from <= joined.back().to)
            joined.back().to = std::max(joined.back().to, s.to);
        else
            joined.push_back(s);
    return joined;
}

std::vector<intervals::Missed> missedOf(const IntervalPlan& plan) {
    std::vector<intervals::Missed> out;
    for (const PlanFault& f : plan.faults) out.push_back({f.picture - 1, f.tries, f.waited});
    std::stable_sort(out.begin(), out.end(), [](const intervals::Missed& a, const intervals::Missed& b) {
        return a.picture < b.picture;
    });
    out.erase(std::unique(out.begin(), out.end(),
                          [](const auto& a, const auto& b) { return a.picture == b.picture; }),
              out.end());
    return out;
}

intervals::RunTimes timesOf(const IntervalCourse& c) {
    double again = 0.0;
    for (const intervals::CameraTimes& camera : c.cameraTimesAt(0)) again = std::max(again, camera.toReady());
    const double need = c.budgetAt(0).least - c.plan().spare;
    const std::vector<intervals::Stand> pauses = pausesOf(c.plan());
    const std::vector<intervals::Missed> missed = missedOf(c.plan());
    return {c.gaps(), need, again, pauses, missed, ruleOf(c.plan().ifMissed)};
}

} // namespace

IntervalRun::IntervalRun(const IntervalCourse& course, const std::vector<AxisEvaluation>& axes)
    : course_(course), byPresence_(!course.plan().sensors.empty()), times_(timesOf(course)),
      first_(course.placesAt(0)), evenest_(axes.size()) {
    const IntervalPlan& plan = course.plan();
    for (std::size_t a = 0; a < axes.size(); ++a) {
        const DriveModel& m = axes[a].model;
        const bool whole = plan.wholeSteps && m.fullStepAngle > 0.0;
        steps_.push_back(m.commandAngle > 0.0 ? (whole ? m.fullStep() : m.microstep()) : 0.0);
        // Steps that are seen come as evenly as they can; smaller ones are rounded.
        constexpr double seenFrom = 0.2; // [px]
        constexpr std::int64_t most = 20'000;
        const std::int64_t moves = course.wayMoves();
        if (!course.moves(a) || !whole || steps_[a] * course.pixelsPerUnit(a) <= seenFrom || moves < 2 ||
            moves > most || !plan.move.empty())
            continue;
        const double way = course.placesAt(moves)[a] - course.placesAt(0)[a];
        evenest_[a] =
            intervals::evenestPositions(std::llround(way / steps_[a]), moves, course.shape(), plan.ramp, 1.0);
    }
    frames_ = times_.pictures();
    if (byPresence_) followPresence();
}

void IntervalRun::followPresence() {
    const intervals::PresenceLog log = presenceLog(course_);
    const double interval = course_.gaps().first, end = presenceEnd(course_);
    std::vector<intervals::Stand> runs;
    double from = log.begins;
    for (const auto& [stops, goesOn] : log.pauses) {
        if (stops > from) runs.push_back({from, stops});
        from = goesOn;
    }
    if (from < end) runs.push_back({from, end});
    std::size_t kept = 0;
    std::int64_t number = 0;
    for (const intervals::Stand& run : runs)
        for (std::int64_t k = 0; number < log.pictures; ++k, ++number) {
            const double at = run.from + static_cast<double>(k) * interval;
            if (!(at < run.to)) break;
            while (kept < log.kept.size() && log.kept[kept].picture < number) ++kept;
            const bool is = kept < log.kept.size() && log.kept[kept].picture == number;
            const std::int64_t before = seen_.empty() ? -1 : seen_.back().position;
            seen_.push_back({is ? log.kept[kept].position : before + 1, at, is});
        }
    frames_ = static_cast<std::int64_t>(seen_.size());
}

IntervalFrame IntervalRun::at(std::int64_t frame) const {
    IntervalFrame out;
    at(frame, out);
    return out;
}

void IntervalRun::at(std::int64_t frame, IntervalFrame& out) const {
    out.number = frame + 1;
    std::int64_t position = frame;
    if (!byPresence_) {
        // As late as its pauses and misses have made it.
        out.opens = course_.clockAt(frame) + times_.lateAt(frame);
        const std::vector<std::int64_t>& lost = times_.lost();
        out.deleted = std::binary_search(lost.begin(), lost.end(), frame);
    } else {
        const Seen& seen = seen_[static_cast<std::size_t>(frame)];
        position = std::min(seen.position, course_.pictures() - 1);
        out.opens = course_.clockAt(0) + seen.time;
        out.deleted = !seen.kept;
    }
    out.exposure = course_.exposureOf(position);
    out.places.resize(steps_.size());
    out.steps.resize(steps_.size());
    course_.placesAt(position, out.places);
    for (std::size_t a = 0; a < out.places.size(); ++a) {
        std::int64_t steps = 0;
        if (steps_[a] > 0.0 && course_.moves(a)) {
            steps = evenest_[a].empty() ? intervals::nearestWhole((out.places[a] - first_[a]) / steps_[a])
                                        : evenest_[a][static_cast<std::size_t>(course_.alongWay(position))];
            out.places[a] = first_[a] + static_cast<double>(steps) * steps_[a];
        }
        out.steps[a] = steps;
    }
}

std::int64_t IntervalRun::deleted() const {
    if (!byPresence_) return static_cast<std::int64_t>(times_.lost().size());
    return std::count_if(seen_.begin(), seen_.end(), [](const Seen& s) { return !s.kept; });
}

} // namespace gantry
