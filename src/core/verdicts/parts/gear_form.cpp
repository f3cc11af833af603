// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message gearFormText{
    "Part {1}: no undercut, and {0} times the contact that runs smoothly or the teeth that escape undercut."};
constexpr Message contactText{"Part {1}: {0} pairs of teeth in contact; {2} or more run smoothly."};
constexpr Message undercutText{
    "Part {1}: its small gear wants {0} times the teeth it has, or it is undercut: weak, rough, uneven."};

/// Undercut teeth and meshes that lose contact run rough.
static Finding judge(const AxisView& view) {
    const PartCheck* worst = nullptr;
    double least = 0.0;
    const auto ratio = [](const PartCheck& p) {
        const Figure contact = p.contactRatio ? p.contactRatio / criteria::contactRatio : plenty;
        return lesser(p.undercut, contact).value();
    };
    for (const PartCheck& p : view.evaluation.checks.parts)
        if (p.undercut && (worst == nullptr || ratio(p) < least)) {
            worst = &p;
            least = ratio(p);
        }
    if (worst == nullptr) return std::nullopt;
    const bool contact =
        worst->contactRatio && less(worst->contactRatio / criteria::contactRatio, worst->undercut);
    if (least >= 1.0)
        return found(nullptr, least, gearFormText,
                     {{{Kind::Ratio, least}, {Kind::Count, view.partNumber(*worst)}}});
    return found(nullptr, least, contact ? contactText : undercutText,
                 {{{Kind::Ratio, contact ? worst->contactRatio : 1.0 / worst->undercut},
                   {Kind::Count, view.partNumber(*worst)},
                   {Kind::Ratio, criteria::contactRatio}}});
}

constinit const Rule gearForm =
    advising({"These wheels run rough: more teeth or a profile shift is needed."},
             judging(criteria::gearForm, {"Tooth form"}, judge,
                     words::listOf<gearFormText, contactText, undercutText>, tries<&fixes::largerWheels>));

} // namespace gantry::rules
