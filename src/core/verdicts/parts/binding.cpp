// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message bindingText{
    "The drive pulls {0} off centre; plain bearings bind from {1} on, however strong the motor."};

/// Plain bearings bind when pushed too far off centre, however strong the motor.
static Finding judgeBinding(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (!e.checks.bindingRatio) return std::nullopt;
    const Guide& guide = std::get<LinearMechanism>(view.axis.mechanism).guide;
    return found(nullptr, e.checks.bindingRatio, bindingText,
                 {{{Kind::Length, std::abs(guide.pushOffset)},
                   {Kind::Length, guide.wheelbase / (2.0 * guide.friction.value)}}});
}

constinit const Rule binding =
    advising({"Pull nearer to the middle of the guides, or set the bearings farther apart."},
             judging(criteria::binding, {"Binding of the guides"}, judgeBinding, words::listOf<bindingText>,
                     tries<&fixes::centredPull, &fixes::wheelbase>));

} // namespace gantry::rules
