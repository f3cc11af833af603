// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {
namespace {

constexpr Message title{"Money"};
constexpr Message moneyText{"Drives, sections and discs cost {0}; Brief allows {1}."};
constexpr std::array sentences{moneyText};

Finding judge(const RigView& view) {
    return withinBudget(view.project.conditions.moneyBudget, view.evaluation.rig.price, Kind::Money,
                        moneyText);
}

} // namespace

constinit const Rule money{
    .wants = criteria::money, .title = title, .sentences = sentences, .judgeRig = judge};

} // namespace gantry::rules
