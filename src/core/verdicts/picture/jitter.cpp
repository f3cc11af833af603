// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message jitterBacklashText{
    "Shot “{shot}”: {0} peak to peak where {1} is allowed; {2} is backlash let go."};
constexpr Message jitterText{"Shot “{shot}”: {0} peak to peak where {1} is allowed, all of it stepping."};

static Finding judge(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(view.shot(s).limits.jitter, s.errors.jitter);
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), e->loadReverses ? jitterBacklashText : jitterText,
                 {{{Kind::Pixels, e->errors.jitter},
                   {Kind::Pixels, view.shot(*e).limits.jitter},
                   {Kind::Pixels, e->errors.backlash}}});
}

constinit const Rule jitter =
    judging(criteria::jitter, {"Jitter"}, judge, words::listOf<jitterBacklashText, jitterText>,
            tries<&fixes::finerMicrosteps, &fixes::outputTeeth, &fixes::reduction, &fixes::fasterShot>);

} // namespace gantry::rules
