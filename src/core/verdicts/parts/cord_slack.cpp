// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message cordSlackText{
    "Shot “{shot}” slows at {0}; beyond {1} the cord goes slack and snatches. Keep clear of a loaded cord."};

/// A cord pulls only: deceleration uphill, or acceleration downhill, beyond what gravity and friction give
/// leaves it slack.
static Finding judgeCordSlack(const AxisView& view) {
    const auto ratio = [](const ShotEvaluation& s) {
        return s.slackDeceleration.reason() == Reason::NotApplicable
                   ? Figure(plenty)
                   : allowedOver(s.slackDeceleration, s.motion.acceleration);
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr || e->slackDeceleration.reason() == Reason::NotApplicable) return std::nullopt;
    Verdict v = found(e, ratio(*e), cordSlackText,
                      {{{view.accelerationKind(), e->motion.acceleration},
                        {view.accelerationKind(), e->slackDeceleration}}});
    v.hazard = view.evaluation.powerOff.loaded;
    return v;
}

constinit const Rule cordSlack =
    advising({"A cord only pulls: brake more gently, or lead it back so that it pulls both ways."},
             judging(criteria::cordSlack, {"Cord stays taut"}, judgeCordSlack, words::listOf<cordSlackText>,
                     tries<&fixes::shotAcceleration, &fixes::slowerShot, &fixes::closedCord>));

} // namespace gantry::rules
