// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ratiofinder/arrange.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <map>
#include <numbers>

namespace gantry::ratiofinder {

double wheelInertia(const Wheel& wheel, const Family& family) {
    constexpr double density = 2000.0;
    const double radius = wheel.teeth * family.module / 2.0;
    return 0.5 * std::numbers::pi * density * wheel.width * std::pow(radius, 4);
}

Train arranged(std::span<const Wheel> wheels, std::span<const Family> families, std::span<const int> drivers,
               std::span<const int> driven) {
    const std::size_t n = drivers.size();
    const auto wheel = [&](int i) -> const Wheel& { return wheels[static_cast<std::size_t>(i)]; };
    const auto familyOf = [&](int i) -> const Family& {
        return families[static_cast<std::size_t>(wheel(i).family)];
    };
    const auto diameter = [&](int i) { return wheel(i).teeth * familyOf(i).module; };
    std::array<double, 8> inertia{};
    for (std::size_t k = 0; k < n; ++k) {
        inertia[k] = wheelInertia(wheel(drivers[k]), familyOf(drivers[k]));
        inertia[4 + k] = wheelInertia(wheel(driven[k]), familyOf(driven[k]));
    }
    std::array<std::size_t, 4> d{0, 1, 2, 3}, best{}, bestG{};
    double bestInertia = std::numeric_limits<double>::infinity(), bestSize = bestInertia;
    // Every order of drivers along the train, and for each every order of driven wheels.
    do {
        std::array<std::size_t, 4> g{0, 1, 2, 3};
        do {
            double reduction = 1.0, sum = 0.0, size = 0.0;
            bool fits = true;
            for (std::size_t k = 0; k < n && fits; ++k) {
                const int a = drivers[d[k]], b = driven[g[k]];
                fits = wheel(a).family == wheel(b).family;
                sum += inertia[d[k]] / (reduction * reduction);
                reduction *= static_cast<double>(wheel(b).teeth) / wheel(a).teeth;
                sum += inertia[4 + g[k]] / (reduction * reduction);
                size += 0.5 * (diameter(a) + diameter(b));
            }
            if (!fits || sum > bestInertia * (1.0 + 1e-12)) continue;
            if (sum < bestInertia * (1.0 - 1e-12) || size < bestSize) {
                bestInertia = sum;
                bestSize = size;
                best = d;
                bestG = g;
            }
        } while (std::next_permutation(g.begin(), g.begin() + static_cast<std::ptrdiff_t>(n)));
    } while (std::next_permutation(d.begin(), d.begin() + static_cast<std::ptrdiff_t>(n)));

    Train t;
    t.inertia = bestInertia;
    t.size = bestSize;
    double behind = 1.0; // ratio of the stages behind
    std::map<int, int> used;
    for (std::size_t k = n; k-- > 0;) {
        const int a = drivers[best[k]], b = driven[bestG[k]];
        const Family& family = familyOf(a);
        t.stages.push_back({a, b});
        t.efficiency *= family.efficiency;
        t.backlash += family.backlash / behind;
        behind *= static_cast<double>(wheel(b).teeth) / wheel(a).teeth;
        if (family.gears) t.reverses = !t.reverses;
        ++used[a];
        ++used[b];
    }
    std::reverse(t.stages.begin(), t.stages.end());
    for (const auto& [index, number] : used) t.toBuy += std::max(0, number - wheel(index).onHand);
    return t;
}

} // namespace gantry::ratiofinder
