// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message easeText{"The ease of shot “{shot}” needs a jerk of {0}; the setting allows {1}."};

/// Speaks only where an ease is too short for the jerk setting.
static Finding judgeEase(const AxisView& view) {
    const double jerk = view.evaluation.model.settings.jerk;
    const auto ratio = [&](const ShotEvaluation& s) {
        return s.jerkExceeded ? jerk / s.motion.jerk : plenty;
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr || !e->jerkExceeded) return std::nullopt;
    return found(e, ratio(*e), easeText, {{{view.jerkKind(), e->motion.jerk}, {view.jerkKind(), jerk}}});
}

constinit const Rule ease =
    advising({"The ease is shorter than the jerk limit allows: take longer ramps or raise the jerk."},
             judging(criteria::ease, {"Ease against jerk"}, judgeEase, words::listOf<easeText>,
                     tries<&fixes::shotAcceleration>));

} // namespace gantry::rules
