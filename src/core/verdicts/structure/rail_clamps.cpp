// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message railClampText{
    "The clamp bolts of the rail withstand {0} times their worst pull, with the carriage anywhere on it."};

/// Bolts that hold a rail down, as far as they are entered.
static Finding judgeRailClamps(const AxisView& view) {
    const Figure& ratio = view.evaluation.structure.clampRatio;
    if (!ratio) return std::nullopt;
    Verdict v = found(nullptr, ratio, railClampText, {{{Kind::Ratio, ratio}}});
    v.hazard = true;
    return v;
}

constinit const Rule railClamps =
    advising({"More or stronger bolts, or stands farther out, are needed."},
             judging(criteria::railClamps, {"Rail clamp strength"}, judgeRailClamps,
                     words::listOf<railClampText>, tries<&fixes::clampBolts, &fixes::standsOutwards>));

} // namespace gantry::rules
