// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>
#include <cmath>

namespace gantry::rules {

constexpr Message noiseCoarseText{
    "Shot “{shot}”: coarse steps hammer at {0}, rank {1} of 4 where Brief allows {2}."};
constexpr Message noiseBrushText{
    "Shot “{shot}”: brushes commutate at {0}, rank {1} of 4 where Brief allows {2}."};
constexpr Message noiseGearText{
    "Shot “{shot}”: gear teeth whine at {0}, rank {1} of 4 where Brief allows {2}."};
constexpr Message noiseSwitchingText{
    "Shot “{shot}”: drive and rotor hum, rank {1} of 4 where Brief allows {2}."};
constexpr Message noiseStepText{
    "Shot “{shot}”: full steps sound at {0}, rank {1} of 4 where Brief allows {2}."};

/// Only where sound is recorded: the rank that Brief allows over the rank of the loudest shot.
static Finding judgeNoise(const AxisView& view) {
    if (view.project.conditions.silence == Silence::Any) return std::nullopt;
    // Ranks hold for a microphone a metre away. Sound falls by 10 dB, taken as one rank, over 3.2 times the
    // distance.
    const double near = view.project.conditions.microphoneDistance;
    const double base = view.project.conditions.silence == Silence::Silent ? 1.0 : 2.0;
    const double allowed =
        near > 0.0 ? std::clamp(std::floor(base + 2.0 * std::log10(near) + 1e-9), 1.0, 4.0) : base;
    const auto ratio = [&](const ShotEvaluation& s) { return allowed / static_cast<double>(s.noise.rank); };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    const auto text = [&] {
        switch (e->noise.reason) {
        case motor::NoiseReason::CoarseSteps:
            return noiseCoarseText;
        case motor::NoiseReason::Commutation:
            return noiseBrushText;
        case motor::NoiseReason::GearWhine:
            return noiseGearText;
        case motor::NoiseReason::Switching:
            return noiseSwitchingText;
        default:
            return noiseStepText;
        }
    };
    return found(e, ratio(*e), text(),
                 {{{Kind::Frequency, e->noise.frequency},
                   {Kind::Count, static_cast<double>(e->noise.rank)},
                   {Kind::Count, allowed}}});
}

constinit const Rule noise = advising(
    {"It needs distance, damping under the motor, or less speed and current."},
    judging(criteria::noise, {"Noise"}, judgeNoise,
            words::listOf<noiseCoarseText, noiseBrushText, noiseGearText, noiseSwitchingText, noiseStepText>,
            tries<&fixes::finerMicrosteps, &fixes::lowerRunCurrent, &fixes::slowerShot, &fixes::reduction>));

} // namespace gantry::rules
