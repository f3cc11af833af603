// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;

/// Speaks only where an ease is too short for the jerk setting.
Finding ease(const AxisView& view) {
    const double jerk = view.evaluation.model.settings.jerk;
    const auto ratio = [&](const ShotEvaluation& s) {
        return s.jerkExceeded ? jerk / s.motion.jerk.value() : 1e7;
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr || !e->jerkExceeded) return std::nullopt;
    return found(e, ratio(*e), e->motion.jerk.reason(), M::EaseText,
                 {{{view.jerkKind(), e->motion.jerk.value()}, {view.jerkKind(), jerk}}});
}

} // namespace gantry::rules
