// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message regulatorText{"In “{shot}” the linear regulator turns {0} W into heat and reaches about "
                                "{1}; its chip withstands {2}. It burns skin long before."};

/// Rise that the regulator's chip stands over the rise that the motor's worst current brings.
static Finding judgeRegulatorHeat(const AxisView& view) {
    const ShotEvaluation* s =
        bindingShot(view, [](const ShotEvaluation& e) { return 0.0 - e.regulator.temperature; });
    if (s == nullptr || s->regulator.temperature.reason() == Reason::NotApplicable) return std::nullopt;
    const double air = view.project.conditions.ambient;
    return found(s, allowedOver(criteria::regulatorChip - air, s->regulator.temperature - air), regulatorText,
                 {{{Kind::Ratio, s->regulator.heat},
                   {Kind::Celsius, s->regulator.temperature},
                   {Kind::Celsius, criteria::regulatorChip}}});
}

constinit const Rule regulatorHeat =
    advising({"A switching converter does not turn the difference into heat."},
             judging(criteria::regulatorHeat, {"Regulator heat"}, judgeRegulatorHeat,
                     words::listOf<regulatorText>, tries<&fixes::converterInstead>));

} // namespace gantry::rules
