// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Undercut teeth and meshes that lose contact run rough.
Finding gearForm(const AxisView& view) {
    const PartCheck* worst = nullptr;
    double least = 0.0;
    const auto ratio = [](const PartCheck& p) {
        const double contact = p.contactRatio ? p.contactRatio.value() / criteria::contactRatio : 1e6;
        return std::min(p.undercut.value(), contact);
    };
    for (const PartCheck& p : view.evaluation.checks.parts)
        if (p.undercut && (worst == nullptr || ratio(p) < least)) {
            worst = &p;
            least = ratio(p);
        }
    if (worst == nullptr) return std::nullopt;
    const bool contact =
        worst->contactRatio && worst->contactRatio.value() / criteria::contactRatio < worst->undercut.value();
    if (least >= 1.0)
        return found(nullptr, least, Reason::None, M::GearFormText,
                     {{{Kind::Ratio, least}, {Kind::Count, view.partNumber(*worst)}}});
    return found(nullptr, least, Reason::None, contact ? M::ContactText : M::UndercutText,
                 {{{Kind::Ratio, contact ? worst->contactRatio.value() : 1.0 / worst->undercut.value()},
                   {Kind::Count, view.partNumber(*worst)},
                   {Kind::Ratio, criteria::contactRatio}}});
}

} // namespace gantry::rules
