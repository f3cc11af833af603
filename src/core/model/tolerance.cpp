// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/tolerance.h"

#include <algorithm>
#include <cmath>

namespace gantry {

double usualTolerance(const FieldInfo& info, Source source, double value) {
    constexpr double ruleLines = 0.5e-3, ruleLength = 1e-3; // [m] read, [1] of its length
    if (info.certainty == Certainty::SteelRule && source == Source::Measured && value != 0.0)
        return ruleLines / std::abs(value) + ruleLength;
    return defaultTolerance(source);
}

Estimate estimateFor(const FieldInfo& info, Source source, double value) {
    return {value, source, usualTolerance(info, source, value)};
}

Ends endsOf(const FieldInfo& info, const Estimate& input) {
    const double v = input.value;
    if (info.certainty == Certainty::Rating || input.tolerance <= 0.0 || v == 0.0) return {v, v};
    constexpr double least = 0.1; // of what is entered: 0 often means that nothing is given
    const double a = v * std::max(least, 1.0 - input.tolerance), b = v * (1.0 + input.tolerance);
    return {std::clamp(std::min(a, b), std::min(info.min, v), v),
            std::clamp(std::max(a, b), v, std::max(info.max, v))};
}

} // namespace gantry
