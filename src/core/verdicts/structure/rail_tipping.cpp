// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message railTippingText{
    "With the carriage at {0} the rail has {1} times what keeps it from tipping over its stand. Secure both "
    "stands before anything runs to the ends."};

static Finding judgeRailTipping(const AxisView& view) {
    const AxisStructure& s = view.evaluation.structure;
    if (!s.tippingRatio) return std::nullopt;
    Verdict v = found(nullptr, s.tippingRatio, railTippingText,
                      {{{Kind::Length, s.tippingAt}, {Kind::Ratio, s.tippingRatio}}});
    v.hazard = true;
    return v;
}

constinit const Rule railTipping =
    advising({"Spread the stands until the carriage stays between them."},
             judging(criteria::railTipping, {"Rail over its stands"}, judgeRailTipping,
                     words::listOf<railTippingText>, tries<&fixes::standsOutwards, &fixes::twoStands>));

} // namespace gantry::rules
