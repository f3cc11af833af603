// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding standstill(const AxisView& view) {
    if (!view.evaluation.powerOff.loaded) return std::nullopt;
    const AxisEvaluation& e = view.evaluation;
    Verdict v = found(nullptr, e.holdAvailable.value() / e.holdNeeded.value(), e.holdAvailable.reason(),
                      M::StandstillText,
                      {{{Kind::Torque, e.holdNeeded.value()}, {Kind::Torque, e.holdAvailable.value()}}});
    v.hazard = true;
    return v;
}

} // namespace gantry::rules
