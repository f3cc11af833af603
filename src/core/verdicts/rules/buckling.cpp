// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding buckling(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.bucklingLoad.reason() == Reason::NotApplicable) return std::nullopt;
    const double force = e.parts.back().load.value();
    return found(nullptr, allowedOver(e.bucklingLoad.value(), force), e.bucklingLoad.reason(),
                 M::BucklingText, {{{Kind::Force, force}, {Kind::Force, e.bucklingLoad.value()}}});
}

} // namespace gantry::rules
