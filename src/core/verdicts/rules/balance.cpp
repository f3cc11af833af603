// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

static_assert(criteria::balanceShare.value == 0.1, "the sentences say a tenth");

/// The share of what hangs in front of the pivot that may be left over what is left of it at the worst angle.
/// Only for arms that have a counterweight: one that is overpowered on purpose is judged by its motor.
Finding balance(const AxisView& view) {
    const AxisStructure& s = view.evaluation.structure;
    if (!s.frontMoment || !s.gravityWorst) return std::nullopt;
    const double allowed = criteria::balanceShare * s.frontMoment.value(), left = s.gravityWorst.value();
    const double ratio = allowedOver(allowed, left);
    // When no mass behind mends it, the height is to blame.
    const bool height = s.unbalanceable.value() > 0.5 * left;
    return found(nullptr, ratio, Reason::OutOfRange, height ? M::BalanceHeightText : M::BalanceText,
                 {{{Kind::Torque, left},
                   {Kind::Angle, s.gravityWorstAt.value()},
                   {Kind::Torque, allowed},
                   height ? words::Argument{Kind::Length, std::abs(s.offLine.value())}
                          : words::Argument{Kind::Mass, s.balancingMass.value()}}});
}

} // namespace gantry::rules
