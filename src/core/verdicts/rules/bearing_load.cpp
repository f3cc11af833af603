// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding bearingLoad(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.checks.bearingLoad.reason() == Reason::NotApplicable) return std::nullopt;
    const double rating = std::get<LinearMechanism>(view.axis.mechanism).guide.bearingRating.value;
    return found(nullptr, allowedOver(rating, e.checks.bearingLoad.value()), e.checks.bearingLoad.reason(),
                 M::BearingText, {{{Kind::Force, e.checks.bearingLoad.value()}, {Kind::Force, rating}}});
}

} // namespace gantry::rules
