// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message speedSpanText{
    "The fastest shot is {0} times as fast as the slowest, but this motor runs steadily over a range of only "
    "{1} to 1. No single ratio serves both: fit two ratios, or use a stepper."};
constexpr Message speedsWithinText{"The fastest shot is {0} times as fast as the slowest; this motor runs "
                                   "steadily over a range of {1} to 1."};

/// What a motor on a knob spans between its slowest steady and its top speed, over what its shots ask.
static Finding judgeSpeedSpan(const AxisView& view) {
    const AxisChecks& c = view.evaluation.checks;
    if (!c.speedsAsked || c.speedsAsked.value() <= 1.001) return std::nullopt;
    const Figure ratio = c.speedSpan / c.speedsAsked;
    return found(nullptr, ratio, less(ratio, 1.0) ? speedSpanText : speedsWithinText,
                 {{{Kind::Ratio, c.speedsAsked}, {Kind::Ratio, c.speedSpan}}});
}

constinit const Rule speedSpan =
    advising({"One ratio cannot serve all shots: change wheels between them, or fit a motor that runs "
              "steadily at every speed."},
             judging(criteria::speedSpan, {"Speeds for one ratio"}, judgeSpeedSpan,
                     words::listOf<speedSpanText, speedsWithinText>, tries<&fixes::stepperInstead>));

} // namespace gantry::rules
