// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding stepping(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(view.shot(s).limits.jitter, s.place.stepping.value());
    };
    if (!(view.evaluation.model.commandAngle > 0.0)) return std::nullopt;
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), e->place.stepping.reason(), M::SteppingText,
                 {{{Kind::Pixels, e->place.stepping.value()},
                   {Kind::Pixels, view.shot(*e).limits.jitter},
                   {Kind::Pixels, e->place.step.value()},
                   {Kind::Count, e->pulseRate.value()}}});
}

} // namespace gantry::rules
