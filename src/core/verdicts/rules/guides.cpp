// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Play of the guides lets the carriage turn, and the picture with it, whenever the push changes side.
Finding guides(const AxisView& view) {
    if (!view.linear()) return std::nullopt;
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(view.shot(s).limits.repeat, s.guidePixels.value());
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr || e->problem != Reason::None) return std::nullopt;
    return found(e, ratio(*e), e->guidePixels.reason(), M::GuideText,
                 {{{Kind::Angle, view.evaluation.checks.guideRotation.value()},
                   {Kind::Pixels, e->guidePixels.value()},
                   {Kind::Pixels, view.shot(*e).limits.repeat}}});
}

} // namespace gantry::rules
