// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message pulseText{"“{shot}” needs {0} of step pulses; the controller can send {1}."};

static Finding judgePulseRate(const AxisView& view) {
    if (!view.evaluation.model.pulses) return std::nullopt;
    const double ceiling = view.evaluation.model.pulseCeiling;
    const auto ratio = [&](const ShotEvaluation& s) { return allowedOver(ceiling, s.pulseRate); };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), pulseText, {{{Kind::Frequency, e->pulseRate}, {Kind::Frequency, ceiling}}});
}

constinit const Rule pulseRate = advising(
    {"Only a slower shot, coarser microsteps, less ratio or a faster controller lowers the pulse rate."},
    judging(
        criteria::pulseRate, {"Pulse rate"}, judgePulseRate, words::listOf<pulseText>,
        tries<&fixes::coarserMicrosteps, &fixes::slowerShot, &fixes::outputTeeth, &fixes::controllerPulses>));

} // namespace gantry::rules
