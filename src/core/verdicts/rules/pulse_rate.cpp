// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding pulseRate(const AxisView& view) {
    if (!view.evaluation.model.pulses) return std::nullopt;
    const double ceiling = view.evaluation.model.pulseCeiling;
    const auto ratio = [&](const ShotEvaluation& s) { return allowedOver(ceiling, s.pulseRate.value()); };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), e->pulseRate.reason(), M::PulseText,
                 {{{Kind::Frequency, e->pulseRate.value()}, {Kind::Frequency, ceiling}}});
}

} // namespace gantry::rules
