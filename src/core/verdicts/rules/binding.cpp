// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Plain bearings bind when pushed too far off centre, however strong the motor.
Finding binding(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (!e.checks.bindingRatio) return std::nullopt;
    const Guide& guide = std::get<LinearMechanism>(view.axis.mechanism).guide;
    return found(nullptr, e.checks.bindingRatio.value(), Reason::None, M::BindingText,
                 {{{Kind::Length, std::abs(guide.pushOffset)},
                   {Kind::Length, guide.wheelbase / (2.0 * guide.friction.value)}}});
}

} // namespace gantry::rules
