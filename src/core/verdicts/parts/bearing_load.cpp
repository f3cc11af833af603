// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message bearingText{"The most loaded bearing carries {0}; it is rated {1}."};

static Finding judgeBearingLoad(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.checks.bearingLoad.reason() == Reason::NotApplicable) return std::nullopt;
    const double rating = std::get<LinearMechanism>(view.axis.mechanism).guide.bearingRating.value;
    return found(nullptr, allowedOver(rating, e.checks.bearingLoad), bearingText,
                 {{{Kind::Force, e.checks.bearingLoad}, {Kind::Force, rating}}});
}

constinit const Rule bearingLoad =
    advising({"Bearings with a higher rating, or a longer wheelbase, are needed."},
             judging(criteria::bearingLoad, {"Load on the bearings"}, judgeBearingLoad,
                     words::listOf<bearingText>, tries<&fixes::guideBearings, &fixes::wheelbase>));

} // namespace gantry::rules
