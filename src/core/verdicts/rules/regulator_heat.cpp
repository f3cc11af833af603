// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Rise that the regulator's chip stands over the rise that the motor's worst current brings.
Finding regulatorHeat(const AxisView& view) {
    const ShotEvaluation* s =
        bindingShot(view, [](const ShotEvaluation& e) { return -e.regulator.temperature.value(); });
    if (s == nullptr || s->regulator.temperature.reason() == Reason::NotApplicable) return std::nullopt;
    const double air = view.project.conditions.ambient;
    return found(s, allowedOver(criteria::regulatorChip - air, s->regulator.temperature.value() - air),
                 s->regulator.temperature.reason(), M::RegulatorText,
                 {{{Kind::Ratio, s->regulator.heat.value()},
                   {Kind::Celsius, s->regulator.temperature.value()},
                   {Kind::Celsius, criteria::regulatorChip}}});
}

} // namespace gantry::rules
