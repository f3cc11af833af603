// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message tippingText{
    "Pointing to {0}, with pushes and the planned stop, the base holds {1} times; {2} is the usual floor. A "
    "tipping rig hurts people: weigh it down, and keep clear."};
constexpr Message tippingEmergencyText{
    "Pointing to {0}, with the hardest stop the drives can make, the base holds {1} times; {2} is the usual "
    "floor. A tipping rig hurts people: weigh it down, and keep clear."};

static Finding judge(const RigView& view) {
    const RigStructure& rig = view.evaluation.rig;
    if (rig.tipping.reason() == Reason::NoSuchLeg) {
        Verdict unknown = found(nullptr, rig.tipping, tippingText, {});
        unknown.hazard = true;
        return unknown;
    }
    if (!rig.tipping) return std::nullopt;
    const bool planned = !less(rig.tippingEmergency, rig.tipping);
    const Figure ratio = lesser(rig.tipping, rig.tippingEmergency);
    Verdict v = found(
        nullptr, ratio, planned ? tippingText : tippingEmergencyText,
        {{{Kind::Angle, rig.tippingDirection}, {Kind::Ratio, ratio}, {Kind::Ratio, criteria::tipping}}});
    v.hazard = true;
    return v;
}

constinit const Rule tipping =
    judging(criteria::tipping, {"Tipping"}, judge, words::listOf<tippingText, tippingEmergencyText>,
            tries<&fixes::shotAcceleration, &fixes::ballast, &fixes::ballastOnLeg, &fixes::widerFeet,
                  &fixes::lowerColumn>);

} // namespace gantry::rules
