// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message weightText{"The rig weighs {0} as far as it is entered; Brief allows {1}."};

static Finding judgeWeight(const RigView& view) {
    return withinBudget(view.project.conditions.weightBudget, view.evaluation.rig.mass, Kind::Mass,
                        weightText);
}

constinit const Rule weight =
    advising({"Something must weigh less: counterweight, base and motors are the heaviest."},
             judging(criteria::weight, {"Weight"}, judgeWeight, words::listOf<weightText>));

} // namespace gantry::rules
