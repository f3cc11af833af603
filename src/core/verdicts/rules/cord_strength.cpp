// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding cordStrength(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.cordRatio.reason() == Reason::NotApplicable) return std::nullopt;
    const PartCheck& cord = e.parts.back();
    Verdict v = found(nullptr, e.cordRatio.value() / 5.0, e.cordRatio.reason(), M::CordStrengthText,
                      {{{Kind::Force, cord.load.value()},
                        {Kind::Force, cord.allowed.value()},
                        {Kind::Ratio, e.cordRatio.value()}}});
    v.hazard = e.powerOff.loaded;
    return v;
}

} // namespace gantry::rules
