// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {
namespace {

constexpr Message moneyText{"Drives, sections and discs cost {0}; Brief allows {1}."};

Finding judge(const RigView& view) {
    return withinBudget(view.project.conditions.moneyBudget, view.evaluation.rig.price, Kind::Money,
                        moneyText);
}

} // namespace

constinit const Rule money = judging(criteria::money, {"Money"}, judge, words::listOf<moneyText>);

} // namespace gantry::rules
