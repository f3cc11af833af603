// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message bucklingText{"The screw is pushed with {0} and buckles at {1}."};

static Finding judgeBuckling(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.checks.bucklingLoad.reason() == Reason::NotApplicable) return std::nullopt;
    const Figure& force = e.checks.parts.back().load;
    return found(nullptr, allowedOver(e.checks.bucklingLoad, force), bucklingText,
                 {{{Kind::Force, force}, {Kind::Force, e.checks.bucklingLoad}}});
}

constinit const Rule buckling =
    advising({"The screw must be thicker, shorter, or be pulled in place of pushed."},
             judging(criteria::buckling, {"Buckling of the screw"}, judgeBuckling,
                     words::listOf<bucklingText>, tries<&fixes::shotAcceleration, &fixes::screwExchange>));

} // namespace gantry::rules
