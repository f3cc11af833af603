// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message whirlText{"Shot “{shot}” runs at {0}; above {1} the screw whips."};

/// A screw's whirling speed, with what is kept clear of it.
static Finding judgeWhirl(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.checks.whirlSpeed.reason() == Reason::NotApplicable) return std::nullopt;
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(criteria::whirlShare * e.checks.whirlSpeed, s.motion.topSpeed);
    };
    const ShotEvaluation* s = bindingShot(view, ratio);
    if (s == nullptr) return std::nullopt;
    return found(s, ratio(*s), whirlText,
                 {{{view.speedKind(), s->motion.topSpeed},
                   {view.speedKind(), criteria::whirlShare * e.checks.whirlSpeed}}});
}

constinit const Rule whirl =
    advising({"The screw must turn more slowly, be thicker, or be held at both ends."},
             judging(criteria::whirl, {"Whirling of the screw"}, judgeWhirl, words::listOf<whirlText>,
                     tries<&fixes::slowerShot, &fixes::screwExchange>));

} // namespace gantry::rules
