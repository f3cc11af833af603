// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {
namespace {

constexpr Message title{"Money"};
constexpr Message moneyText{"Drives, sections and discs cost {0}; Brief allows {1}."};
constexpr std::array sentences{moneyText};

Finding judge(const RigView& view) {
    const double budget = view.project.conditions.moneyBudget;
    const Figure& price = view.evaluation.rig.price;
    if (budget <= 0.0 || !price) return std::nullopt;
    return found(nullptr, allowedOver(budget, price), moneyText,
                 {{{Kind::Money, price}, {Kind::Money, budget}}});
}

} // namespace

constinit const Rule money{
    .wants = criteria::money, .title = title, .sentences = sentences, .judgeRig = judge};

} // namespace gantry::rules
