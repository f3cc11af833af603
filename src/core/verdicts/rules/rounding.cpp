// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Rounding repeats alike in every pass; it is measured against the repeat limit because moves planned
/// elsewhere and passes with other settings are off by it.
Finding rounding(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(view.shot(s).limits.repeat, s.roundingPixels.value());
    };
    if (!view.evaluation.model.pulses) return std::nullopt;
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), e->roundingPixels.reason(), M::RoundingText,
                 {{{Kind::Ratio, view.evaluation.steps.stepsPerUnitKept.value()},
                   {view.travelKind(), view.evaluation.steps.roundingOverTravel.value()},
                   {Kind::Pixels, e->roundingPixels.value()},
                   {Kind::Pixels, view.shot(*e).limits.repeat}}});
}

} // namespace gantry::rules
