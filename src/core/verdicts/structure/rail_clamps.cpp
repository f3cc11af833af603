// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {
namespace {

constexpr Message title{"Strength of the rail's clamps"};
constexpr Message railClampText{
    "A bolt of the rail's clamps stands {0} times its worst pull while the carriage goes from end to end."};
constexpr std::array sentences{railClampText};
constexpr std::array tries{&fixes::clampBolts, &fixes::standsOutwards};

/// Bolts that hold a rail down, as far as they are entered.
Finding judge(const AxisView& view) {
    const Figure& ratio = view.evaluation.structure.clampRatio;
    if (!ratio) return std::nullopt;
    Verdict v = found(nullptr, ratio, railClampText, {{{Kind::Ratio, ratio}}});
    v.hazard = true;
    return v;
}

} // namespace

constinit const Rule railClamps{
    .wants = criteria::railClamps, .title = title, .sentences = sentences, .judge = judge, .fixes = tries};

} // namespace gantry::rules
