// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Speaks only where every shot leaves that many times the wanted margin.
Finding oversize(const AxisView& view) {
    const ShotEvaluation* e =
        bindingShot(view, [](const ShotEvaluation& s) { return s.torque.margin.value(); });
    if (e == nullptr || !e->torque.margin) return std::nullopt;
    const double ratio = e->torque.margin.value() / view.evaluation.model.wantedMargin;
    if (ratio < criteria::motorSize.oversizedFrom) return std::nullopt;
    return found(e, ratio, Reason::None, M::OversizeText,
                 {{{Kind::Torque, e->torque.available.value()}, {Kind::Torque, e->torque.needed.value()}}});
}

} // namespace gantry::rules
