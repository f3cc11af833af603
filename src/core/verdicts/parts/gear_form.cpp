// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message gearFormText{"The {part}: no undercut, and {0} times the contact that runs smoothly."};
constexpr Message contactText{"The {part}: {0} pairs of teeth in contact; {1} or more run smoothly."};
constexpr Message undercutText{"The {part}: the small gear needs {0} times its teeth to escape undercut, "
                               "which makes it weak and rough."};

/// Undercut teeth and meshes that lose contact run rough.
static Finding judgeGearForm(const AxisView& view) {
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
        return view.naming(found(nullptr, least, gearFormText, {{{Kind::Ratio, least}}}), *worst);
    return view.naming(found(nullptr, least, contact ? contactText : undercutText,
                             {{{Kind::Ratio, contact ? worst->contactRatio : 1.0 / worst->undercut},
                               {Kind::Ratio, criteria::contactRatio}}}),
                       *worst);
}

constinit const Rule gearForm =
    advising({"These wheels run rough: more teeth or a profile shift is needed."},
             judging(criteria::gearForm, {"Tooth form"}, judgeGearForm,
                     words::listOf<gearFormText, contactText, undercutText>, tries<&fixes::largerWheels>));

} // namespace gantry::rules
