// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/ratiofinder/finder.h"

#include <set>

/// Plain recursion over unordered stages of ordered pairs, every wheel at most as often as it is there: the
/// slow way that the finder is held to. Calls `visit(drivers, driven)` (vectors of wheel indices) for every
/// train.
template <class Visit>
void plainSearch(const std::vector<gantry::ratiofinder::Wheel>& wheels, int stages, Visit visit,
                 std::size_t firstFrom = 0, std::size_t firstTo = static_cast<std::size_t>(-1)) {
    const std::size_t n = wheels.size();
    std::vector<int> left, drivers, driven;
    for (const auto& w : wheels) left.push_back(w.count);
    const auto recurse = [&](auto&& self, std::size_t from, std::size_t to, int more) -> void {
        if (more == 0) return visit(drivers, driven);
        for (std::size_t code = from; code < std::min(to, n * n); ++code) {
            const std::size_t a = code / n, b = code % n;
            if (wheels[a].family != wheels[b].family) continue;
            if (--left[a] >= 0) {
                if (--left[b] >= 0) {
                    drivers.push_back(static_cast<int>(a));
                    driven.push_back(static_cast<int>(b));
                    self(self, code, static_cast<std::size_t>(-1), more - 1);
                    drivers.pop_back();
                    driven.pop_back();
                }
                ++left[b];
            }
            ++left[a];
        }
    };
    recurse(recurse, firstFrom, firstTo, stages);
}
