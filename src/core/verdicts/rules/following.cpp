// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Lag behind the command against the limit at which a drive with an encoder reports a fault.
Finding following(const AxisView& view) {
    double limit = 0.0;
    if (const auto* servo = std::get_if<ServoMotor>(&view.axis.motor)) limit = servo->loop.followingLimit;
    if (const auto* servo = std::get_if<DcServo>(&view.axis.motor)) limit = servo->loop.followingLimit;
    const auto* stepper = std::get_if<Stepper>(&view.axis.motor);
    if (stepper != nullptr && stepper->encoder.fitted) limit = stepper->encoder.followingLimit;
    if (!(limit > 0.0)) return std::nullopt;
    const auto ratio = [&](const ShotEvaluation& s) { return allowedOver(limit, s.lag.angle.value()); };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    const auto text = stepper == nullptr          ? M::FollowingText
                      : stepper->encoder.corrects ? M::FollowingCorrectsText
                                                  : M::FollowingStopsText;
    return found(e, ratio(*e), e->lag.angle.reason(), text,
                 {{{Kind::Angle, e->lag.angle.value()}, {Kind::Angle, limit}}});
}

} // namespace gantry::rules
