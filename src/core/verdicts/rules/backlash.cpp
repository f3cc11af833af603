// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Speaks only where the load reverses within a shot; gravity often keeps the play on one side.
Finding backlash(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return s.loadReverses ? allowedOver(view.shot(s).limits.jitter, s.errors.backlash.value()) : 1e7;
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr || !e->loadReverses) return std::nullopt;
    return found(e, ratio(*e), e->errors.backlash.reason(),
                 e->letsGoAt ? M::BacklashMomentText : M::BacklashText,
                 {{{view.travelKind(), view.evaluation.model.backlash},
                   {Kind::Pixels, e->errors.backlash.value()},
                   {Kind::Pixels, view.shot(*e).limits.jitter},
                   {Kind::Time, e->letsGoAt ? e->letsGoAt.value() : 0.0}}});
}

} // namespace gantry::rules
