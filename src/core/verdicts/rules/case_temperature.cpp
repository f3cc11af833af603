// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Rise that the mount stands over the rise that hours at this current bring.
Finding caseTemperature(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.checks.caseTemperature.reason() == Reason::NotApplicable) return std::nullopt;
    const double air = view.project.conditions.ambient;
    return found(
        nullptr, allowedOver(e.checks.caseLimit.value() - air, e.checks.caseTemperature.value() - air),
        e.checks.caseTemperature.reason(), M::CaseText,
        {{{Kind::Celsius, e.checks.caseTemperature.value()}, {Kind::Celsius, e.checks.caseLimit.value()}}});
}

} // namespace gantry::rules
