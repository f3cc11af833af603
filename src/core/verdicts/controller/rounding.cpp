// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message roundingText{"The controller keeps {0} steps per unit: {1} off over the travel, {2} in "
                               "shot “{shot}” where {3} is allowed."};

/// Rounding repeats alike in every pass; it is measured against the repeat limit because moves planned
/// elsewhere and passes with other settings are off by it.
static Finding judgeRounding(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(view.shot(s).limits.repeat, s.roundingPixels);
    };
    if (!view.evaluation.model.pulses) return std::nullopt;
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), roundingText,
                 {{{Kind::Ratio, view.evaluation.steps.stepsPerUnitKept},
                   {view.travelKind(), view.evaluation.steps.roundingOverTravel},
                   {Kind::Pixels, e->roundingPixels},
                   {Kind::Pixels, view.shot(*e).limits.repeat}}});
}

constinit const Rule rounding =
    advising({"The controller must keep more decimals, or the drive needs steps per unit that are rounder."},
             judging(criteria::rounding, {"Steps rounding"}, judgeRounding, words::listOf<roundingText>,
                     tries<&fixes::controllerDecimals, &fixes::outputTeeth, &fixes::finerMicrosteps>));

} // namespace gantry::rules
