// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding weight(const RigView& view) {
    const double budget = view.project.conditions.weightBudget;
    const Figure& mass = view.evaluation.rig.mass;
    if (budget <= 0.0 || !mass) return std::nullopt;
    return found(nullptr, allowedOver(budget, mass.value()), Reason::None, M::WeightText,
                 {{{Kind::Mass, mass.value()}, {Kind::Mass, budget}}});
}

Finding money(const RigView& view) {
    const double budget = view.project.conditions.moneyBudget;
    const Figure& price = view.evaluation.rig.price;
    if (budget <= 0.0 || !price) return std::nullopt;
    return found(nullptr, allowedOver(budget, price.value()), Reason::None, M::MoneyText,
                 {{{Kind::Money, price.value()}, {Kind::Money, budget}}});
}

} // namespace gantry::rules
