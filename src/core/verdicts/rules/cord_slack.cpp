// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// A cord pulls only: deceleration uphill, or acceleration downhill, beyond what gravity and friction give
/// leaves it slack.
Finding cordSlack(const AxisView& view) {
    const auto ratio = [](const ShotEvaluation& s) {
        return s.slackDeceleration.reason() == Reason::NotApplicable
                   ? 1e6
                   : allowedOver(s.slackDeceleration.value(), s.motion.acceleration.value());
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr || e->slackDeceleration.reason() == Reason::NotApplicable) return std::nullopt;
    Verdict v = found(e, ratio(*e), e->slackDeceleration.reason(), M::CordSlackText,
                      {{{view.accelerationKind(), e->motion.acceleration.value()},
                        {view.accelerationKind(), e->slackDeceleration.value()}}});
    v.hazard = view.evaluation.powerOff.loaded;
    return v;
}

} // namespace gantry::rules
