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
        return std::min(allowedOver(view.shot(s).limits.jitter, s.rockingPixels.value()), 1e6);
    };
    const ShotEvaluation* e = worstShot(view, ratio);
    if (e == nullptr || e->rockingPixels.reason() == Reason::NotApplicable) return std::nullopt;
    return found(e, e->rockingPixels ? ratio(*e) : e->rockingPixels.value(), e->rockingPixels.reason(),
                 e->rockingTime ? M::VibrationText : M::VibrationLongText,
                 {{{Kind::Pixels, e->rockingPixels.value()},
                   {Kind::Frequency, view.evaluation.model.mode->frequency},
                   {Kind::Pixels, view.shot(*e).limits.jitter},
                   {Kind::Time, e->rockingTime ? e->rockingTime.value() : 0.0}}});
}

} // namespace gantry::rules
