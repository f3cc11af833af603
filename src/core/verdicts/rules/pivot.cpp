// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// The weakest of what holds an arm, as far as it is entered.
Finding pivot(const AxisView& view) {
    const AxisStructure& s = view.evaluation.structure;
    std::optional<Verdict> worst;
    const auto take = [&](const Figure& ratio, M sentence) {
        if (!ratio || (worst && ratio.value() >= worst->ratio.value())) return;
        worst = found(nullptr, ratio.value(), Reason::None, sentence, {{{Kind::Ratio, ratio.value()}}});
    };
    take(s.pinRatio, M::PinText);
    take(s.bearingRatio, M::PivotBearingText);
    take(s.momentRatio, M::TurningBearingText);
    take(s.boltRatio, M::PivotBoltText);
    if (worst) worst->hazard = true;
    return worst;
}

} // namespace gantry::rules
