// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding cordStrength(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.checks.cordRatio.reason() == Reason::NotApplicable) return std::nullopt;
    const PartCheck& cord = e.checks.parts.back();
    Verdict v = found(nullptr, e.checks.cordRatio.value() / criteria::cordFactor, e.checks.cordRatio.reason(),
                      M::CordStrengthText,
                      {{{Kind::Force, cord.load.value()},
                        {Kind::Force, cord.allowed.value()},
                        {Kind::Ratio, e.checks.cordRatio.value()},
                        {Kind::Ratio, criteria::cordFactor}}});
    v.hazard = e.powerOff.loaded;
    return v;
}

} // namespace gantry::rules
