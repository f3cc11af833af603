// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Bolts that hold a rail down, as far as they are entered.
Finding railClamps(const AxisView& view) {
    const Figure& ratio = view.evaluation.structure.clampRatio;
    if (!ratio) return std::nullopt;
    Verdict v =
        found(nullptr, ratio.value(), Reason::None, M::RailClampText, {{{Kind::Ratio, ratio.value()}}});
    v.hazard = true;
    return v;
}

} // namespace gantry::rules
