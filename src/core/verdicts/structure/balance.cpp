// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message balanceHeightText{
    "Up to {0} left at {1} that no mass behind removes, for the weight sits {3} off the arm line; a tenth of "
    "what hangs in front is {2}. Tie the arm before unloading."};
constexpr Message balanceText{
    "Up to {0} left at {1}; a tenth of what hangs in front is {2}. {3} in place of the weight there now "
    "would balance the level arm. Never take the camera off a balanced arm first."};

static_assert(criteria::balanceShare.value == 0.1, "the sentences say a tenth");

/// The share of what hangs in front of the pivot that may be left over what is left of it at the worst angle.
/// Only for arms that have a counterweight: one that is overpowered on purpose is judged by its motor.
static Finding judgeBalance(const AxisView& view) {
    const AxisStructure& s = view.evaluation.structure;
    if (!s.frontMoment || !s.gravityWorst) return std::nullopt;
    const Figure &left = s.gravityWorst, allowed = criteria::balanceShare * s.frontMoment;
    const Figure ratio = allowedOver(allowed, left);
    // When no mass behind mends it, the height is to blame.
    const bool height = less(0.5 * left, s.unbalanceable);
    return found(nullptr, ratio, height ? balanceHeightText : balanceText,
                 {{{Kind::Torque, left},
                   {Kind::Angle, s.gravityWorstAt},
                   {Kind::Torque, allowed},
                   height ? words::Argument{Kind::Length, s.offLine.map([](double x) { return std::abs(x); })}
                          : words::Argument{Kind::Mass, s.balancingMass}}});
}

constinit const Rule balance =
    advising({"Move the counterweight or change its mass; tie the arm down while weights change."},
             judging(criteria::balance, {"Balance over range"}, judgeBalance,
                     words::listOf<balanceHeightText, balanceText>,
                     tries<&fixes::counterweight, &fixes::counterweightHeight>));

} // namespace gantry::rules
