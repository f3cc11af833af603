// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/trajectory/through_keys.h"
#include "support/dice.h"

#include <nlohmann/json.hpp>

/// Paths of several axes through keys, for tests: from worked cases, and drawn.
namespace paths {

using namespace gantry::trajectory;
using gantry::motion::Limits;

inline std::vector<Limits> limitsOf(const nlohmann::json& j) {
    std::vector<Limits> out;
    for (const nlohmann::json& l : j) out.push_back({l[0], l[1], l[2]});
    return out;
}

inline std::vector<double> timesFrom(const std::vector<double>& segments) {
    std::vector<double> out{0.0};
    for (const double s : segments) out.push_back(out.back() + s);
    return out;
}

/// Through keys without stopping, at times [s] of the whole.
inline Trajectory smooth(const std::vector<Key>& keys, const std::vector<double>& times,
                         Through how = Through::Smooth) {
    return throughKeys(keys, times, std::vector<bool>(keys.size(), false),
                       std::vector<Through>(keys.front().size(), how));
}

/// What each segment takes from rest to rest.
inline std::vector<double> restTimes(const std::vector<Key>& keys, const std::vector<Limits>& limits) {
    std::vector<double> out;
    for (std::size_t i = 0; i + 1 < keys.size(); ++i)
        out.push_back(straight(keys[i], keys[i + 1], limits).duration());
    return out;
}

class PathDice : protected Dice {
protected:
    using Dice::Dice;
    std::vector<Key> drawnKeys(std::size_t count, std::size_t axes, double holds = 0.2) {
        std::vector<Key> out(count, Key(axes));
        for (std::size_t i = 0; i < count; ++i)
            for (std::size_t a = 0; a < axes; ++a)
                out[i][a] = i > 0 && within(0, 1) < holds ? out[i - 1][a] : within(-1.5, 1.5);
        for (std::size_t i = 1; i < count; ++i) // something moves always
            if (out[i] == out[i - 1]) out[i].front() += within(0.2, 0.8);
        return out;
    }
    std::vector<Limits> drawnLimits(std::size_t axes) {
        std::vector<Limits> out;
        for (std::size_t a = 0; a < axes; ++a) {
            const double v = within(0.1, 1.0), acc = v * within(0.8, 3.0);
            out.push_back({v, acc, acc * within(2.0, 8.0)});
        }
        return out;
    }
};

} // namespace paths
