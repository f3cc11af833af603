// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Cruise speed against the band where full steps meet the rotor's natural frequency. Ramps cross it quickly.
Finding resonance(const AxisView& view) {
    if (!view.evaluation.model.stepper()) return std::nullopt;
    const double low = view.evaluation.resonance.low.value(), high = view.evaluation.resonance.high.value();
    const auto ratio = [&](const ShotEvaluation& s) {
        const double v = s.motion.topSpeed.value();
        return std::min(std::max(v / high, low / v), 1e6);
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), view.evaluation.resonance.speed.reason(),
                 ratio(*e) < 1.0 ? M::ResonanceInsideText : M::ResonanceText,
                 {{{view.speedKind(), e->motion.topSpeed.value()},
                   {view.speedKind(), low},
                   {view.speedKind(), high},
                   {Kind::Frequency, view.evaluation.resonance.frequency.value()}}});
}

} // namespace gantry::rules
