// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <cmath>
#include <cstdint>

namespace gantry::intervals {

/// How many wholes there are in a ratio; what rounding lacks of the next one counts as whole.
/// @param ratio [1] ≥ 0, up to 1e15
inline std::int64_t wholes(double ratio) {
    constexpr double rounding = 1e-9;
    return static_cast<std::int64_t>(std::floor(ratio + rounding * std::max(1.0, ratio)));
}

} // namespace gantry::intervals
