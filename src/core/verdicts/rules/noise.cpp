// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Only where sound is recorded: the rank that Brief allows over the rank of the loudest shot.
Finding noise(const AxisView& view) {
    if (view.project.conditions.silence == Silence::Any) return std::nullopt;
    const double allowed = view.project.conditions.silence == Silence::Silent ? 1.0 : 2.0;
    const auto ratio = [&](const ShotEvaluation& s) { return allowed / static_cast<double>(s.noise.rank); };
    const ShotEvaluation* e = worstShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    const auto text = [&] {
        switch (e->noise.reason) {
        case motor::NoiseReason::CoarseSteps:
            return M::NoiseCoarseText;
        case motor::NoiseReason::Commutation:
            return M::NoiseBrushText;
        case motor::NoiseReason::GearWhine:
            return M::NoiseGearText;
        case motor::NoiseReason::Switching:
            return M::NoiseSwitchingText;
        default:
            return M::NoiseStepText;
        }
    };
    return found(e, ratio(*e), e->topSpeed.reason(), text(),
                 {{{Kind::Frequency, e->noise.frequency},
                   {Kind::Count, static_cast<double>(e->noise.rank)},
                   {Kind::Count, allowed}}});
}

} // namespace gantry::rules
