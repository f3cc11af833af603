// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message caseText{"After hours the motor case reaches about {0}; its mount withstands {1}. Let hot "
                           "motors and drivers cool before touching."};

/// Rise that the mount stands over the rise that hours at this current bring.
static Finding judgeCaseTemperature(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.checks.caseTemperature.reason() == Reason::NotApplicable) return std::nullopt;
    const double air = view.project.conditions.ambient;
    return found(nullptr, allowedOver(e.checks.caseLimit - air, e.checks.caseTemperature - air), caseText,
                 {{{Kind::Celsius, e.checks.caseTemperature}, {Kind::Celsius, e.checks.caseLimit}}});
}

constinit const Rule caseTemperature = advising(
    {"It needs less current, a metal mount, moving air or a larger motor."},
    judging(criteria::caseTemperature, {"Case temperature"}, judgeCaseTemperature, words::listOf<caseText>,
            tries<&fixes::lowerRunCurrent, &fixes::mountMaterial, &fixes::largerMotor>));

} // namespace gantry::rules
