// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message resonanceInsideText{
    "Shot “{shot}” cruises at {0}, inside the rotor's resonance from {1} to {2} ({3})."};
constexpr Message resonanceText{
    "Shot “{shot}” cruises at {0}; the rotor's resonance lies from {1} to {2} ({3})."};

/// Cruise speed against the band where full steps meet the rotor's natural frequency. Ramps cross it quickly.
static Finding judge(const AxisView& view) {
    if (!view.evaluation.model.stepper()) return std::nullopt;
    const Figure &low = view.evaluation.resonance.low, &high = view.evaluation.resonance.high;
    const auto ratio = [&](const ShotEvaluation& s) {
        const Figure& speed = s.motion.topSpeed;
        return lesser(greater(speed / high, low / speed), plenty);
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), less(ratio(*e), 1.0) ? resonanceInsideText : resonanceText,
                 {{{view.speedKind(), e->motion.topSpeed},
                   {view.speedKind(), low},
                   {view.speedKind(), high},
                   {Kind::Frequency, view.evaluation.resonance.frequency}}});
}

constinit const Rule resonance = leastInside(
    judging(criteria::resonance, {"Distance from resonance"}, judge,
            words::listOf<resonanceInsideText, resonanceText>,
            tries<&fixes::fasterShot, &fixes::slowerShot, &fixes::outputTeeth, &fixes::reduction>));

} // namespace gantry::rules
