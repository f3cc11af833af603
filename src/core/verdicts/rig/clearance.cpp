// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message clearanceRoomText{
    "Over all ranges the {part} comes within {0} of “{room}”; {1} keeps fingers and lenses out of trouble."};
constexpr Message clearanceText{"Over all ranges the {part} comes within {0} of the {room}; {1} keeps "
                                "fingers and lenses out of trouble."};

/// Least distance over all ranges over that in which a finger is caught.
static Finding judge(const RigView& view) {
    const double wanted = criteria::clearanceDistance;
    const RigStructure& rig = view.evaluation.rig;
    if (!rig.clearance || rig.clearance.value() > 1e5) return std::nullopt;
    const double distance = std::max(0.0, rig.clearance.value());
    Verdict v = found(nullptr, distance / wanted, rig.keepOut >= 0 ? clearanceRoomText : clearanceText,
                      {{{Kind::Length, distance}, {Kind::Length, wanted}}});
    v.part = rig.clearanceBody;
    v.with = rig.clearanceWith;
    v.room = rig.keepOut;
    return v;
}

constinit const Rule clearance =
    judging(criteria::clearance, {"Clearance"}, judge, words::listOf<clearanceRoomText, clearanceText>);

} // namespace gantry::rules
