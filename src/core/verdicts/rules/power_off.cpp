// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// What holds an axis that gravity pulls when power goes. Friction and detent never make it fine.
Finding powerOff(const AxisView& view) {
    const PowerOff& off = view.evaluation.powerOff;
    if (!off.loaded) return std::nullopt;
    Verdict v;
    if (off.brakeRatio) {
        v = found(nullptr, off.brakeRatio.value(), Reason::None, M::PowerOffBrakeText,
                  {{{Kind::Torque, view.evaluation.holdNeeded.value()},
                    {Kind::Torque, view.axis.brake.holdingTorque.value}}});
    } else if (view.evaluation.checks.locks) {
        v = found(nullptr, std::max(1.0, off.friction.value() / off.gravity.value()), Reason::None,
                  M::PowerOffLocksText, {{{view.forceKind(), off.gravity.value()}}});
        v.ceiling = State::Tight;
    } else {
        v = found(nullptr, off.friction.value() / off.gravity.value(), Reason::None,
                  off.falls ? M::PowerOffFallsText : M::PowerOffFrictionText,
                  {{{view.forceKind(), off.gravity.value()},
                    {view.forceKind(), off.friction.value()},
                    {Kind::Energy, off.energy.value()},
                    {view.speedKind(), off.speed.value()}}});
        v.ceiling = State::Tight;
    }
    v.hazard = true;
    return v;
}

} // namespace gantry::rules
