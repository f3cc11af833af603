// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// What is allowed of drift and of framing over what bending makes of the picture; the worse of the two.
Finding sag(const AxisView& view) {
    const AxisStructure& s = view.evaluation.structure;
    if (s.problem != Reason::None) {
        if (s.problem != Reason::SupportsOffRail) return std::nullopt;
        return found(nullptr, std::nan(""), s.problem, M::SagText, {});
    }
    const auto ratio = [&](const ShotEvaluation& e) {
        const ErrorLimits& limits = view.shot(e).limits;
        const double framing = limits.framing * view.project.camera.deliveredWidth;
        return std::min(allowedOver(framing, e.sag.pixels.value()),
                        allowedOver(limits.drift, e.sag.drift.value()));
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr || (e->problem == Reason::None && !e->sag.pixels)) return std::nullopt;
    const ErrorLimits& limits = view.shot(*e).limits;
    return found(e, ratio(*e), Reason::OutOfRange, M::SagText,
                 {{{Kind::Pixels, e->sag.pixels.value()},
                   {Kind::Pixels, limits.framing * view.project.camera.deliveredWidth},
                   {Kind::PixelsPerFrame, e->sag.drift.value()},
                   {Kind::PixelsPerFrame, limits.drift}}});
}

} // namespace gantry::rules
