// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message supplyLastingText{
    "With all drives at their hardest the supply gives {0}; it is rated {1}."};
constexpr Message supplyStartText{
    "While a motor without a ramp starts, stops or stalls, the supply gives {0}; "
    "it is rated {1}, and may shut down."};

/// Speaks where the rated current of the supply is entered.
static Finding judgeSupply(const RigView& view) {
    const double rated = view.project.supply.ratedCurrent;
    if (rated <= 0.0) return std::nullopt;
    const SupplyEvaluation& s = view.evaluation.supply;
    const bool starting = s.startCurrent && less(s.current, s.startCurrent.value());
    const Figure& drawn = starting ? s.startCurrent : s.current;
    return found(nullptr, allowedOver(rated, drawn), starting ? supplyStartText : supplyLastingText,
                 {{{Kind::Current, drawn}, {Kind::Current, rated}}});
}

constinit const Rule supply =
    advising({"The supply needs a higher rating, or fewer axes may move at once."},
             judging(criteria::supply, {"Supply current"}, judgeSupply,
                     words::listOf<supplyLastingText, supplyStartText>, tries<&fixes::supplyCurrent>));

} // namespace gantry::rules
