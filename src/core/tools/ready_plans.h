// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <span>
#include <string_view>

namespace gantry {

/// Interval plans to start from, with figures that such work usually has. All of it is changed at will.
enum class ReadyPlan { Plain, BenchDay, PlantWeeks, NightSky, StopMotionScene, Crowd };

struct ReadyPlanInfo {
    ReadyPlan kind = ReadyPlan::Plain;
    std::string_view name;
    std::string_view what; ///< a sentence
};
std::span<const ReadyPlanInfo> readyPlans();

/// One more plan of a kind behind the others; its index, −1 where no more are possible.
int addReadyPlan(Project& project, ReadyPlan kind);

} // namespace gantry
