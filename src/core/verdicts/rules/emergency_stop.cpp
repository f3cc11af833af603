// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// What an emergency stop or a reset does to an axis that gravity pulls.
Finding emergencyStop(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (!e.powerOff.loaded) return std::nullopt;
    // Friction and threads that lock are no brake, however far they outweigh gravity.
    const bool held =
        e.powerOff.brakeRatio || (view.axis.onStop == OnStop::KeepsHolding && e.model.holdAmplitude > 0.0);
    const auto text = [&] {
        switch (e.stop.outcome) {
        case StopOutcome::Falls:
            return M::StopFallsText;
        case StopOutcome::Creeps:
            return M::StopCreepsText;
        case StopOutcome::Stays:
        case StopOutcome::Unknown:
            break;
        }
        return held ? M::StopStaysText : M::StopCreepsText;
    };
    Verdict v = found(nullptr, e.stop.ratio.value(), e.stop.ratio.reason(), text(),
                      {{{view.forceKind(), e.powerOff.gravity.value()},
                        {Kind::Energy, e.powerOff.energy.value()},
                        {view.speedKind(), e.powerOff.speed.value()}}});
    if (!held) v.ceiling = State::Tight;
    v.hazard = true;
    return v;
}

} // namespace gantry::rules
