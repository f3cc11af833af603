// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <cmath>
#include <cstdint>

namespace gantry::intervals {

/// How many wholes there are in a ratio; what rounding lacks of the next one counts as whole.
/// @param ratio [1] ≥ 0; of more than 1e15 (a card for more pictures than anybody takes) it is 1e15
inline std::int64_t wholes(double ratio) {
    constexpr double rounding = 1e-9;
    constexpr double most = 1e15;
    return static_cast<std::int64_t>(std::floor(std::min(most, ratio + rounding * std::max(1.0, ratio))));
}

/// The whole number next to a ratio, the farther one of two from 0; beyond ±1e15 that. Without a call, for it
/// is asked for every axis of every picture.
inline std::int64_t nearestWhole(double ratio) {
    constexpr double most = 1e15;
    return static_cast<std::int64_t>(std::min(std::max(ratio, -most), most) + (ratio < 0.0 ? -0.5 : 0.5));
}

} // namespace gantry::intervals
