// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Jitter limit over what still rocks when a shot stops. Judged by a measured frequency only: phases of an
/// estimated one mean nothing.
Finding vibration(const AxisView& view) {
    if (!view.evaluation.model.mode || view.axis.vibration.frequency.value <= 0.0) return std::nullopt;
    const auto ratio = [&](const ShotEvaluation& s) {
        return std::min(allowedOver(view.shot(s).limits.jitter, s.rocking.pixels.value()), 1e6);
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr || e->rocking.pixels.reason() == Reason::NotApplicable) return std::nullopt;
    return found(e, e->rocking.pixels ? ratio(*e) : e->rocking.pixels.value(), e->rocking.pixels.reason(),
                 e->rocking.settling ? M::VibrationText : M::VibrationLongText,
                 {{{Kind::Pixels, e->rocking.pixels.value()},
                   {Kind::Frequency, view.evaluation.model.mode->frequency},
                   {Kind::Pixels, view.shot(*e).limits.jitter},
                   {Kind::Time, e->rocking.settling ? e->rocking.settling.value() : 0.0}}});
}

} // namespace gantry::rules
