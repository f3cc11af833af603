// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Pull-out torque over needed torque, at the ramp's end or at break-away, whichever is tighter.
Finding torque(const AxisView& view) {
    const ShotEvaluation* e =
        bindingShot(view, [](const ShotEvaluation& s) { return s.torque.margin.value(); });
    if (e == nullptr) return std::nullopt;
    // Where break-away decides, several shots have the same ratio; the axis' worst shot is one of them.
    if (e->torque.margin && e->problem == Reason::None) e = view.evaluation.worst();
    const double atRest = view.evaluation.model.available(0.0);
    const bool breakaway =
        e->torque.breakaway.value() * e->torque.available.value() > e->torque.needed.value() * atRest;
    if (breakaway)
        return found(e, e->torque.margin.value(), e->torque.margin.reason(), M::TorqueBreakawayText,
                     {{{Kind::Torque, e->torque.breakaway.value()}, {Kind::Torque, atRest}}});
    return found(e, e->torque.margin.value(), e->torque.margin.reason(), M::TorqueText,
                 {{{Kind::Torque, e->torque.needed.value()},
                   {Kind::Torque, e->torque.available.value()},
                   {Kind::RotationRate, e->motion.motorSpeed.value()}}});
}

} // namespace gantry::rules
