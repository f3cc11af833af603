// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"
#include "core/model/retired_ids.h"
#include "core/model/size_limits.h"

#include <cstddef>
#include <string>
#include <string_view>
#include <vector>

/// Edits of interval plans. What does not exist is left alone.
namespace gantry {

/// A new plan behind the others: along the first move where there is one, with a camera and a controller that
/// draw on the pack. Its index; −1 where no more are possible.
int addPlan(Project& project);
int copyPlan(Project& project, int plan); ///< index of the copy
void removePlan(Project& project, int plan);

/// One more of a list of a plan, as what it is made from says; its index, −1 where no more are possible.
/// @param key of the list in the file @param wish for its id
template <class T>
int addPart(Project& project, int plan, std::vector<T> IntervalPlan::*list, std::string_view key,
            std::string_view wish, T part = {}) {
    if (plan < 0 || plan >= static_cast<int>(project.plans.size())) return -1;
    std::vector<T>& all = project.plans[static_cast<std::size_t>(plan)].*list;
    if (all.size() >= mostOf(key)) return -1;
    part.id = freeIdIn(project, all, std::string(wish));
    all.push_back(std::move(part));
    return static_cast<int>(all.size()) - 1;
}
template <class T>
void removePart(Project& project, int plan, std::vector<T> IntervalPlan::*list, int index) {
    if (plan < 0 || plan >= static_cast<int>(project.plans.size())) return;
    std::vector<T>& all = project.plans[static_cast<std::size_t>(plan)].*list;
    if (index >= 0 && index < static_cast<int>(all.size())) all.erase(all.begin() + index);
}

} // namespace gantry
