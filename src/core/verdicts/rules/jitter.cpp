// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding jitter(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(view.shot(s).limits.jitter, s.errors.jitter.value());
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), e->errors.jitter.reason(),
                 e->loadReverses ? M::JitterBacklashText : M::JitterText,
                 {{{Kind::Pixels, e->errors.jitter.value()},
                   {Kind::Pixels, view.shot(*e).limits.jitter},
                   {Kind::Pixels, e->errors.backlash.value()}}});
}

} // namespace gantry::rules
