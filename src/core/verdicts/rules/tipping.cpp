// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding tipping(const RigView& view) {
    const RigStructure& rig = view.evaluation.rig;
    if (rig.tipping.reason() == Reason::NoSuchLeg) {
        Verdict unknown = found(nullptr, rig.tipping.value(), rig.tipping.reason(), M::TippingText, {});
        unknown.hazard = true;
        return unknown;
    }
    if (!rig.tipping) return std::nullopt;
    const bool planned = rig.tipping.value() <= rig.tippingEmergency.value();
    const double ratio = std::min(rig.tipping.value(), rig.tippingEmergency.value());
    Verdict v = found(nullptr, ratio, Reason::None, planned ? M::TippingText : M::TippingEmergencyText,
                      {{{Kind::Angle, rig.tippingDirection.value()},
                        {Kind::Ratio, ratio},
                        {Kind::Ratio, criteria::tipping}}});
    v.hazard = true;
    return v;
}

} // namespace gantry::rules
