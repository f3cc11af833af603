// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message speedSpanText{"The fastest shot runs {0} times as fast as the slowest; on its knob this "
                                "motor runs steadily over {1} to 1. "
                                "No ratio serves both: give the drive two, or take a stepper."};

/// What a motor on a knob spans between its slowest steady and its top speed, over what its shots ask.
static Finding judge(const AxisView& view) {
    const AxisChecks& c = view.evaluation.checks;
    if (!c.speedsAsked || c.speedsAsked.value() <= 1.001) return std::nullopt;
    const Figure ratio = c.speedSpan / c.speedsAsked;
    return found(nullptr, ratio, speedSpanText, {{{Kind::Ratio, c.speedsAsked}, {Kind::Ratio, c.speedSpan}}});
}

constinit const Rule speedSpan =
    judging(criteria::speedSpan, {"Speeds for one ratio"}, judge, words::listOf<speedSpanText>);

} // namespace gantry::rules
