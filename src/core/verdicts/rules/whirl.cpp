// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// 0.8 of the whirling speed is the usual ceiling of a screw.
Finding whirl(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.whirlSpeed.reason() == Reason::NotApplicable) return std::nullopt;
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(0.8 * e.whirlSpeed.value(), s.topSpeed.value());
    };
    const ShotEvaluation* s = worstShot(view, ratio);
    if (s == nullptr) return std::nullopt;
    return found(s, ratio(*s), e.whirlSpeed.reason(), M::WhirlText,
                 {{{view.speedKind(), s->topSpeed.value()}, {view.speedKind(), 0.8 * e.whirlSpeed.value()}}});
}

} // namespace gantry::rules
