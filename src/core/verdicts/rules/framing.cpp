// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding framing(const AxisView& view) {
    const auto allowed = [&](const ShotEvaluation& s) {
        return view.shot(s).limits.framing * view.project.camera.deliveredWidth;
    };
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(allowed(s), s.errors.framing.value());
    };
    if (!(view.evaluation.model.commandAngle > 0.0)) return std::nullopt; // a knob has no place to return to
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), e->errors.framing.reason(), M::FramingText,
                 {{{Kind::Pixels, e->errors.framing.value()},
                   {Kind::Pixels, allowed(*e)},
                   {Kind::Pixels, e->place.lag.value()},
                   {Kind::Pixels, e->roundingPixels.value()}}});
}

} // namespace gantry::rules
