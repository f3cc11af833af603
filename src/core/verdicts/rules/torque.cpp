// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Pull-out torque over needed torque, at the ramp's end or at break-away, whichever is tighter.
Finding torque(const AxisView& view) {
    const ShotEvaluation* e = worstShot(view, [](const ShotEvaluation& s) { return s.torqueMargin.value(); });
    if (e == nullptr) return std::nullopt;
    const double atRest = view.evaluation.model.available(0.0);
    const bool breakaway =
        e->breakawayTorque.value() * e->torqueAvailable.value() > e->torqueNeeded.value() * atRest;
    if (breakaway)
        return found(e, e->torqueMargin.value(), e->torqueMargin.reason(), M::TorqueBreakawayText,
                     {{{Kind::Torque, e->breakawayTorque.value()}, {Kind::Torque, atRest}}});
    return found(e, e->torqueMargin.value(), e->torqueMargin.reason(), M::TorqueText,
                 {{{Kind::Torque, e->torqueNeeded.value()},
                   {Kind::Torque, e->torqueAvailable.value()},
                   {Kind::RotationRate, e->motorSpeed.value()}}});
}

} // namespace gantry::rules
