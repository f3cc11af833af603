// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// The arm of a pan bar must reach the bar over the whole travel, and not stand square to it.
Finding panBar(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.checks.panBarReach.reason() == Reason::NotApplicable) return std::nullopt;
    return found(nullptr, e.checks.panBarReach.value(), e.checks.panBarReach.reason(), M::PanBarText,
                 {{{Kind::Angle, e.checks.panBarTurn.value()}, {Kind::Ratio, e.checks.panBarReach.value()}}});
}

} // namespace gantry::rules
