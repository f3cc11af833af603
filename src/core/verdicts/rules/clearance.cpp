// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Least distance over all ranges over that in which a finger is caught.
Finding clearance(const RigView& view) {
    const double wanted = criteria::clearanceDistance;
    const RigStructure& rig = view.evaluation.rig;
    if (!rig.clearance || rig.clearance.value() > 1e5) return std::nullopt;
    const double distance = std::max(0.0, rig.clearance.value());
    Verdict v = found(nullptr, distance / wanted, Reason::None,
                      rig.keepOut >= 0 ? M::ClearanceRoomText : M::ClearanceText,
                      {{{Kind::Length, distance}, {Kind::Length, wanted}}});
    v.part = rig.clearanceBody;
    v.with = rig.clearanceWith;
    v.room = rig.keepOut;
    return v;
}

} // namespace gantry::rules
