// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding beamStrength(const AxisView& view) {
    const AxisStructure& s = view.evaluation.structure;
    if (!s.stressRatio) return std::nullopt;
    Verdict v = found(nullptr, s.stressRatio.value(), Reason::None, M::BeamStrengthText,
                      {{{Kind::Ratio, s.stressRatio.value()}, {Kind::Ratio, criteria::beamStrength}}});
    // Plastic creeps under a lasting load.
    if (s.printed) v.ceiling = State::Tight;
    v.hazard = true;
    return v;
}

} // namespace gantry::rules
