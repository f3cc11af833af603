// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {
namespace {

constexpr Message title{"Weight"};
constexpr Message weightText{"The rig weighs {0} as far as it is entered; Brief allows {1}."};
constexpr std::array sentences{weightText};

Finding judge(const RigView& view) {
    const double budget = view.project.conditions.weightBudget;
    const Figure& mass = view.evaluation.rig.mass;
    if (budget <= 0.0 || !mass) return std::nullopt;
    return found(nullptr, allowedOver(budget, mass), weightText,
                 {{{Kind::Mass, mass}, {Kind::Mass, budget}}});
}

} // namespace

constinit const Rule weight{
    .wants = criteria::weight, .title = title, .sentences = sentences, .judgeRig = judge};

} // namespace gantry::rules
