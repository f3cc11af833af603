// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Teeth (Lewis), belts and gearheads: what each stands over what the worst shot asks of it.
Finding toothStrength(const AxisView& view) {
    const PartCheck* worst = nullptr;
    for (const PartCheck& p : view.evaluation.checks.parts)
        if (p.strength.reason() != Reason::NotApplicable &&
            (worst == nullptr || p.strength.value() < worst->strength.value()))
            worst = &p;
    if (worst == nullptr) return std::nullopt;
    const bool force = view.partKind(*worst) == Kind::Force;
    Verdict v = found(nullptr, worst->strength.value(), worst->strength.reason(), M::StrengthText,
                      {{{force ? Kind::Force : Kind::Torque, worst->load.value()},
                        {force ? Kind::Force : Kind::Torque, worst->allowed.value()},
                        {Kind::Count, view.partNumber(*worst)}}});
    if (view.printed(*worst)) v.ceiling = State::Tight; // printed parts in a load path are tight at best
    return v;
}

} // namespace gantry::rules
