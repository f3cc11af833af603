// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message frictionSourcesText{
    "Entered is {0}; the guides alone cost about {1}. The entered value is used; measure it."};

/// The friction that was entered against what the guides alone must cost. The entered one is used.
static Finding judgeFrictionSources(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.checks.guideFriction.reason() == Reason::NotApplicable) return std::nullopt;
    const double entered = std::get<LinearMechanism>(view.axis.mechanism).runningFriction.value;
    const Figure ratio = allowedOver(entered, e.checks.guideFriction);
    if (!ratio || ratio.value() >= 1.0) return std::nullopt;
    // They disagree; neither is proven wrong, so this is never worse than tight.
    Verdict v = found(nullptr, 1.0, frictionSourcesText,
                      {{{Kind::Force, entered}, {Kind::Force, e.checks.guideFriction}}});
    v.ceiling = State::Tight;
    return v;
}

constinit const Rule frictionSources =
    advising({"Pull the carriage with a luggage scale and enter what it shows."},
             judging(criteria::frictionSources, {"Two friction sources"}, judgeFrictionSources,
                     words::listOf<frictionSourcesText>));

} // namespace gantry::rules
