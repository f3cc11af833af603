// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message beamStrengthText{
    "The material withstands {0} times the bending stress for long; near people {1} is the least."};

static Finding judgeBeamStrength(const AxisView& view) {
    const AxisStructure& s = view.evaluation.structure;
    if (!s.stressRatio) return std::nullopt;
    Verdict v = found(nullptr, s.stressRatio, beamStrengthText,
                      {{{Kind::Ratio, s.stressRatio}, {Kind::Ratio, criteria::beamStrength}}});
    // Plastic creeps under a lasting load.
    if (s.printed) v.ceiling = State::Tight;
    v.hazard = true;
    return v;
}

constinit const Rule beamStrength =
    advising({"The section must be stronger before anything hangs on it."},
             judging(criteria::beamStrength, {"Rail or arm strength"}, judgeBeamStrength,
                     words::listOf<beamStrengthText>, tries<&fixes::stockSection, &fixes::rib>));

} // namespace gantry::rules
