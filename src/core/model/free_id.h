// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <string>
#include <vector>

namespace gantry {

/// An id that no part of a list has yet: the wish, or the wish and a number from 2 on.
template <class Part>
std::string freeIdIn(const std::vector<Part>& list, const std::string& wish) {
    std::string id = wish;
    for (int n = 2; std::any_of(list.begin(), list.end(), [&](const Part& p) { return p.id == id; }); ++n)
        id = wish + "-" + std::to_string(n);
    return id;
}

} // namespace gantry
