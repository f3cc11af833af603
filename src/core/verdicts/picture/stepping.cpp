// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message steppingText{
    "Shot “{shot}” shows {0} of stepping where {1} is allowed; one microstep is {2}, {3} come in a second."};

static Finding judgeStepping(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(view.shot(s).limits.jitter, s.place.stepping);
    };
    if (!(view.evaluation.model.commandAngle > 0.0)) return std::nullopt;
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), steppingText,
                 {{{Kind::Pixels, e->place.stepping},
                   {Kind::Pixels, view.shot(*e).limits.jitter},
                   {Kind::Pixels, e->place.step},
                   {Kind::Count, e->pulseRate}}});
}

constinit const Rule stepping = advising(
    {"Steps show less with more ratio, finer microsteps, a wider lens or more distance."},
    judging(criteria::stepping, {"Visible stepping"}, judgeStepping, words::listOf<steppingText>,
            tries<&fixes::finerMicrosteps, &fixes::outputTeeth, &fixes::reduction, &fixes::reducerInFront,
                  &fixes::fasterShot, &fixes::subjectDistance, &fixes::stepperInstead>));

} // namespace gantry::rules
