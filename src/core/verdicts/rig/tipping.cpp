// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message tippingText{
    "Pointing to {0}, with pushes and the planned stop, the base holds {1} times; {2} is the usual floor. A "
    "tipping rig hurts people: weigh it down, and keep clear."};
constexpr Message tippingEmergencyText{
    "Pointing to {0}, tipping takes {1} times the energy that the hardest stop of drives and brakes leaves; "
    "{2} is "
    "the usual floor. A tipping rig hurts people: weigh it down, and keep clear."};
constexpr Message tippingOverText{
    "Pointing to {0}, the hardest stop that drives and brakes can make from full speed tips the rig over. A "
    "tipping rig hurts people: run it slower or weigh it down, and keep clear."};
constexpr Message standsText{
    "With pushes and the planned stop the base holds {1} times; {2} is the usual floor. A "
    "tipping rig hurts people: weigh it down, and keep clear."};
constexpr Message standsEmergencyText{"Tipping takes {1} times the energy that the hardest stop of drives "
                                      "and brakes leaves; {2} is the usual floor. "
                                      "A tipping rig hurts people: weigh it down, and keep clear."};
constexpr Message standsOverText{
    "The hardest stop that drives and brakes can make from full speed tips the rig over. A tipping rig hurts "
    "people: run it slower or weigh it down, and keep clear."};

static Finding judgeTipping(const RigView& view) {
    const RigStructure& rig = view.evaluation.rig;
    if (rig.tipping.reason() == Reason::NoSuchLeg) {
        Verdict unknown = found(nullptr, rig.tipping, tippingText, {});
        unknown.hazard = true;
        return unknown;
    }
    if (!rig.tipping) return std::nullopt;
    const bool planned = !less(rig.tippingEmergency, rig.tipping);
    const Figure ratio = lesser(rig.tipping, rig.tippingEmergency);
    const bool over = !planned && less(ratio, 1.0);
    const bool turns = std::any_of(view.project.axes.begin(), view.project.axes.end(),
                                   [](const Axis& a) { return a.role == Role::Swing; });
    const Message plan = turns ? tippingText : standsText, goes = turns ? tippingOverText : standsOverText,
                  stop = turns ? tippingEmergencyText : standsEmergencyText;
    Verdict v = found(
        nullptr, ratio,
        planned ? plan
        : over  ? goes
                : stop,
        {{{Kind::Angle, rig.tippingDirection}, {Kind::Ratio, ratio}, {Kind::Ratio, criteria::tipping}}});
    v.hazard = true;
    return v;
}

constinit const Rule tipping = advising(
    {"Widen or weigh down the base, lower what it carries, or stop more gently. Keep clear until then."},
    judging(criteria::tipping, {"Tipping"}, judgeTipping,
            words::listOf<tippingText, tippingEmergencyText, tippingOverText, standsText, standsEmergencyText,
                          standsOverText>,
            tries<&fixes::gentleStop, &fixes::counterweightHeight, &fixes::shotAcceleration,
                  &fixes::slowerShot, &fixes::ballast, &fixes::ballastOnLeg, &fixes::widerFeet,
                  &fixes::lowerColumn, &fixes::twoStands>));

} // namespace gantry::rules
