// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message pinText{"The pivot pin withstands {0} times its load."};
constexpr Message pivotBearingText{"The pivot bearings are rated for {0} times the weight on them."};
constexpr Message turningBearingText{
    "The turning bearing under the arm is rated for {0} times the moment on it."};
constexpr Message pivotBoltText{"The bolts under the turning bearing withstand {0} times their worst pull."};

/// The weakest of what holds an arm, as far as it is entered.
static Finding judgePivot(const AxisView& view) {
    const AxisStructure& s = view.evaluation.structure;
    std::optional<Verdict> worst;
    const auto take = [&](const Figure& ratio, Message sentence) {
        if (!ratio || (worst && !less(ratio, worst->ratio))) return;
        worst = found(nullptr, ratio, sentence, {{{Kind::Ratio, ratio}}});
    };
    take(s.pinRatio, pinText);
    take(s.bearingRatio, pivotBearingText);
    take(s.momentRatio, turningBearingText);
    take(s.boltRatio, pivotBoltText);
    if (worst) worst->hazard = true;
    return worst;
}

constinit const Rule pivot =
    advising({"The pivot must be stronger before anything hangs on it."},
             judging(criteria::pivot, {"Strength of the pivot"}, judgePivot,
                     words::listOf<pinText, pivotBearingText, turningBearingText, pivotBoltText>,
                     tries<&fixes::thickerPin, &fixes::pivotParts>));

} // namespace gantry::rules
