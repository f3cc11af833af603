// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {
namespace {

constexpr Message title{"Weight"};
constexpr Message weightText{"The rig weighs {0} as far as it is entered; Brief allows {1}."};
constexpr std::array sentences{weightText};

Finding judge(const RigView& view) {
    return withinBudget(view.project.conditions.weightBudget, view.evaluation.rig.mass, Kind::Mass,
                        weightText);
}

} // namespace

constinit const Rule weight{
    .wants = criteria::weight, .title = title, .sentences = sentences, .judgeRig = judge};

} // namespace gantry::rules
