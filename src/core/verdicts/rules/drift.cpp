// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding drift(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(view.shot(s).limits.drift, s.errors.drift.value());
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), e->errors.drift.reason(), M::DriftText,
                 {{{Kind::PixelsPerFrame, e->errors.drift.value()},
                   {Kind::PixelsPerFrame, view.shot(*e).limits.drift},
                   {Kind::Pixels, e->errors.stretch.value()}}});
}

} // namespace gantry::rules
