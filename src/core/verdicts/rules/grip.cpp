// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Friction wheels and rollers: grip over pull.
Finding grip(const AxisView& view) {
    const PartCheck* worst = nullptr;
    for (const PartCheck& p : view.evaluation.checks.parts)
        if (p.slip.reason() != Reason::NotApplicable &&
            (worst == nullptr || p.slip.value() < worst->slip.value()))
            worst = &p;
    if (worst == nullptr) return std::nullopt;
    const bool force = view.partKind(*worst) == Kind::Force;
    return found(nullptr, worst->slip.value(), worst->slip.reason(), M::GripText,
                 {{{force ? Kind::Force : Kind::Torque, worst->load.value()},
                   {force ? Kind::Force : Kind::Torque, worst->allowed.value()}}});
}

} // namespace gantry::rules
