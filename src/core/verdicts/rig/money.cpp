// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message moneyText{"Drives, sections and discs cost {0}; Brief allows {1}."};

static Finding judgeMoney(const RigView& view) {
    return withinBudget(view.project.conditions.moneyBudget, view.evaluation.rig.price, Kind::Money,
                        moneyText);
}

constinit const Rule money =
    advising({"Something must cost less: compare the drive candidates of each axis."},
             judging(criteria::money, {"Money"}, judgeMoney, words::listOf<moneyText>));

} // namespace gantry::rules
