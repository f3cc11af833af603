// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// 0.8 of the whirling speed is the usual ceiling of a screw.
Finding whirl(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.checks.whirlSpeed.reason() == Reason::NotApplicable) return std::nullopt;
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(0.8 * e.checks.whirlSpeed.value(), s.motion.topSpeed.value());
    };
    const ShotEvaluation* s = worstShot(view, ratio);
    if (s == nullptr) return std::nullopt;
    return found(s, ratio(*s), e.checks.whirlSpeed.reason(), M::WhirlText,
                 {{{view.speedKind(), s->motion.topSpeed.value()}, {view.speedKind(), 0.8 * e.checks.whirlSpeed.value()}}});
}

} // namespace gantry::rules
