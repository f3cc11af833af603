// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// A screw's whirling speed, with what is kept clear of it.
Finding whirl(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.checks.whirlSpeed.reason() == Reason::NotApplicable) return std::nullopt;
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(criteria::whirlShare * e.checks.whirlSpeed.value(), s.motion.topSpeed.value());
    };
    const ShotEvaluation* s = bindingShot(view, ratio);
    if (s == nullptr) return std::nullopt;
    return found(s, ratio(*s), e.checks.whirlSpeed.reason(), M::WhirlText,
                 {{{view.speedKind(), s->motion.topSpeed.value()},
                   {view.speedKind(), criteria::whirlShare * e.checks.whirlSpeed.value()}}});
}

} // namespace gantry::rules
