// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding repeatError(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(view.shot(s).limits.repeat, s.errors.repeat.value());
    };
    if (!(view.evaluation.model.commandAngle > 0.0)) return std::nullopt; // a knob has no place to return to
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), e->errors.repeat.reason(), M::RepeatText,
                 {{{Kind::Pixels, e->errors.repeat.value()},
                   {Kind::Pixels, view.shot(*e).limits.repeat},
                   {Kind::Pixels, e->place.frictionBand.value()},
                   {Kind::Pixels, e->place.idleShift.value()}}});
}

} // namespace gantry::rules
