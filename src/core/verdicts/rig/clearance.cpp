// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message fingersText{"Over all ranges {part} comes within {0} of {room}, {axis} at {2}; {1} keeps "
                              "fingers and lenses out of trouble."};
constexpr Message ownText{
    "Over all ranges {part} comes within {0} of {room}, {axis} at {2}; {1} leaves room for a cable."};
constexpr Message touchesText{"Over all ranges {part} runs into {room}, {axis} at {2}; with all else where "
                              "it is then, {axis} has {1} of room from {3} to {4}."};
constexpr Message blockedText{
    "Over all ranges {part} runs into {room}, {axis} at {2}, and {axis} alone cannot give it {1} of room."};

/// Least distance over all ranges beside what is wanted there.
static Finding judgeClearance(const RigView& view) {
    const RigStructure& rig = view.evaluation.rig;
    if (rig.clearance.distance.reason() == Reason::NotApplicable) return std::nullopt;
    if (!rig.clearance.distance) return found(nullptr, rig.clearance.distance, fingersText, {});
    const double distance = std::max(0.0, rig.clearance.distance.value()),
                 wanted = rig.clearance.wanted.value();
    const auto& axis = view.project.axes[static_cast<std::size_t>(std::max(0, rig.clearance.axis))];
    const Kind kind = kindOf(axis) == AxisKind::Linear ? Kind::Length : Kind::Angle;
    const auto [from, to] = rig.clearance.clearRange.value_or(std::pair{0.0, 0.0});
    Verdict v = found(nullptr, distance / wanted,
                      distance > 0.0 ? wanted < criteria::clearanceDistance ? ownText : fingersText
                      : rig.clearance.clearRange.has_value() ? touchesText
                                                             : blockedText,
                      {{{Kind::Length, distance},
                        {Kind::Length, wanted},
                        {kind, rig.clearance.place},
                        {kind, from},
                        {kind, to}}});
    v.axis = std::max(0, rig.clearance.axis);
    v.part = rig.clearance.body;
    v.with = rig.clearance.with;
    return v;
}

constinit const Rule clearance =
    advising({"Move one of the two, or limit the range where they meet."},
             namingAxis(judging(
                 criteria::clearance, {"Clearance"}, judgeClearance,
                 words::listOf<fingersText, ownText, touchesText, blockedText>,
                 tries<&fixes::shorterRange, &fixes::spacer, &fixes::cameraBack, &fixes::higherColumn>)));

} // namespace gantry::rules
