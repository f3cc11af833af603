// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <algorithm>

namespace gantry {

/// Ids are given once. What was removed leaves its id behind as retired, of each family ("slide", "slide-2",
/// …) the one with the highest number, so that nothing new is taken for it: by tests, locks, notes, or keys
/// of the file that this version does not understand.

/// Whether a path is a place or lies within it: "axes/slide/motor" within "axes/slide", "axes/slide-2" not.
bool isWithin(std::string_view path, std::string_view place);

/// Notes that an id is not to be given again.
void retireId(Project& project, std::string_view id);

/// Whether an id was given before and its part is gone.
bool isRetired(const Project& project, std::string_view id);

/// After an edit: retires what `before` had retired, and the ids that it had and `next` has not, and removes
/// what referred to the removed parts: locks, verdicts set aside, keys not understood.
void settleRemoved(const Project& before, Project& next);

/// Gives copies of the keys not understood at and below one place to another: "axes/slide" to "axes/slide-2".
void copyKept(Project& project, std::string_view from, std::string_view to);

/// An id that no part of a list has or had: the wish, or the wish and a number from 2 on.
template <class Part>
std::string freeIdIn(const Project& project, const std::vector<Part>& list, const std::string& wish) {
    std::string id = wish;
    for (int n = 2; isRetired(project, id) ||
                    std::any_of(list.begin(), list.end(), [&](const Part& p) { return p.id == id; });
         ++n)
        id = wish + "-" + std::to_string(n);
    return id;
}

} // namespace gantry
