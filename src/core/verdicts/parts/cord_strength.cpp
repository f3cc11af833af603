// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message cordStrengthText{
    "The cord pulls {0} and breaks at {1}, factor {2}; at least {3} is usual, more near people."};

static Finding judgeCordStrength(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.checks.cordRatio.reason() == Reason::NotApplicable) return std::nullopt;
    const PartCheck& cord = e.checks.parts.back();
    Verdict v = found(nullptr, e.checks.cordRatio / criteria::cordFactor, cordStrengthText,
                      {{{Kind::Force, cord.load},
                        {Kind::Force, cord.allowed},
                        {Kind::Ratio, e.checks.cordRatio},
                        {Kind::Ratio, criteria::cordFactor}}});
    v.hazard = e.powerOff.loaded;
    return v;
}

constinit const Rule cordStrength =
    advising({"Take a stronger cord, and a second one where somebody stands below."},
             judging(criteria::cordStrength, {"Cord breaking load"}, judgeCordStrength,
                     words::listOf<cordStrengthText>, tries<&fixes::shotAcceleration, &fixes::cordLoad>));

} // namespace gantry::rules
