// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message panBarText{
    "The bar turns the camera by {0} over the travel; its arm is {1} times what it must reach."};

/// The arm of a pan bar must reach the bar over the whole travel, and not stand square to it.
static Finding judgePanBar(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.checks.panBarReach.reason() == Reason::NotApplicable) return std::nullopt;
    return found(nullptr, e.checks.panBarReach, panBarText,
                 {{{Kind::Angle, e.checks.panBarTurn}, {Kind::Ratio, e.checks.panBarReach}}});
}

constinit const Rule panBar =
    advising({"The arm of the pan bar must be longer, or the bar stand at less of an angle."},
             judging(criteria::panBar, {"Pan bar"}, judgePanBar, words::listOf<panBarText>));

} // namespace gantry::rules
