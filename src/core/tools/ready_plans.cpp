// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/ready_plans.h"

#include "core/model/edit_plans.h"

#include <array>

namespace gantry {
namespace {

constexpr double hour = 3600.0;

constexpr std::array table{
    ReadyPlanInfo{ReadyPlan::Plain, "Plain plan", "300 pictures every six seconds, a stop for each."},
    ReadyPlanInfo{ReadyPlan::BenchDay, "A bench over a day",
                  "Builders at work: every thirty seconds from eight to five, on working days."},
    ReadyPlanInfo{ReadyPlan::PlantWeeks, "A plant over weeks",
                  "Growth under a lamp: every twenty minutes, day and night, for three weeks."},
    ReadyPlanInfo{ReadyPlan::NightSky, "Night sky",
                  "Dusk to stars: the exposure goes from two to twenty seconds, and back at dawn."},
    ReadyPlanInfo{ReadyPlan::StopMotionScene, "Stop-motion scene",
                  "Animated by hand on twos, eight seconds of film."},
    ReadyPlanInfo{ReadyPlan::Crowd, "Crowd with long exposures",
                  "Two seconds behind a dark filter, so that whoever walks leaves only a trace."},
};

ExposureMark exposureFrom(const char* id, int picture, double exposure) {
    return {id, picture, exposure};
}

void shape(IntervalPlan& p, ReadyPlan kind) {
    switch (kind) {
    case ReadyPlan::Plain:
        return;
    case ReadyPlan::BenchDay:
        p.pictures = 1080;
        p.interval = 30.0;
        p.exposure = 1.0 / 60.0;
        p.startClock = 8.0 * hour;
        p.hours.kept = true;
        p.hours.open = 8.0 * hour;
        p.hours.close = 17.0 * hour;
        p.hours.days[5] = p.hours.days[6] = false;
        return;
    case ReadyPlan::PlantWeeks:
        p.pictures = 21 * 72;
        p.interval = 1200.0;
        p.exposure = 0.25;
        p.startClock = 9.0 * hour;
        p.steps = StepsGo::Even;
        return;
    case ReadyPlan::NightSky:
        p.pictures = 900;
        p.interval = 30.0;
        p.exposure = 2.0;
        p.exposures = {exposureFrom("dark", 150, 20.0), exposureFrom("dawn", 750, 20.0),
                       exposureFrom("day", 900, 2.0)};
        p.startClock = 21.0 * hour;
        return;
    case ReadyPlan::StopMotionScene:
        p.mode = IntervalMode::StopMotion;
        p.pictures = 96;
        p.interval = 60.0;
        p.clipRate = 24.0;
        p.heldFor = 2;
        p.exposure = 0.25;
        p.startClock = 9.0 * hour;
        p.steps = StepsGo::Smooth;
        return;
    case ReadyPlan::Crowd:
        p.pictures = 450;
        p.interval = 5.0;
        p.exposure = 2.0;
        p.metered = 1.0 / 60.0;
        p.startClock = 17.0 * hour;
        return;
    }
}

} // namespace

std::span<const ReadyPlanInfo> readyPlans() {
    return table;
}

int addReadyPlan(Project& project, ReadyPlan kind) {
    const int at = addPlan(project);
    if (at < 0) return at;
    IntervalPlan& plan = project.plans[static_cast<std::size_t>(at)];
    shape(plan, kind);
    for (const ReadyPlanInfo& info : table)
        if (info.kind == kind && kind != ReadyPlan::Plain) plan.name = info.name;
    return at;
}

} // namespace gantry
