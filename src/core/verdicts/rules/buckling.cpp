// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding buckling(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.checks.bucklingLoad.reason() == Reason::NotApplicable) return std::nullopt;
    const double force = e.checks.parts.back().load.value();
    return found(nullptr, allowedOver(e.checks.bucklingLoad.value(), force), e.checks.bucklingLoad.reason(),
                 M::BucklingText, {{{Kind::Force, force}, {Kind::Force, e.checks.bucklingLoad.value()}}});
}

} // namespace gantry::rules
