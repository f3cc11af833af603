// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Rise that the mount stands over the rise that hours at this current bring.
Finding caseTemperature(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.caseTemperature.reason() == Reason::NotApplicable) return std::nullopt;
    const double air = view.project.conditions.ambient;
    return found(nullptr, allowedOver(e.caseLimit.value() - air, e.caseTemperature.value() - air),
                 e.caseTemperature.reason(), M::CaseText,
                 {{{Kind::Celsius, e.caseTemperature.value()}, {Kind::Celsius, e.caseLimit.value()}}});
}

} // namespace gantry::rules
