// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {
namespace {

constexpr Message title{"Following error"};
constexpr Message followingText{"Shot “{shot}” lags {0}; the drive reports a fault at {1}."};
constexpr Message followingCorrectsText{
    "The rotor lags {0} in shot “{shot}”; the encoder reports lost steps at {1} and makes them up once the "
    "load allows, late in the picture."};
constexpr Message followingStopsText{
    "The rotor lags {0} in shot “{shot}”; at {1} the encoder stops the axis. It adds no torque."};
constexpr std::array sentences{followingText, followingCorrectsText, followingStopsText};
constexpr std::array tries{&fixes::slowerShot};

/// Lag behind the command against the limit at which a drive with an encoder reports a fault.
Finding judge(const AxisView& view) {
    double limit = 0.0;
    if (const auto* servo = std::get_if<ServoMotor>(&view.axis.motor)) limit = servo->loop.followingLimit;
    if (const auto* servo = std::get_if<DcServo>(&view.axis.motor)) limit = servo->loop.followingLimit;
    const auto* stepper = std::get_if<Stepper>(&view.axis.motor);
    if (stepper != nullptr && stepper->encoder.fitted) limit = stepper->encoder.followingLimit;
    if (!(limit > 0.0)) return std::nullopt;
    const auto ratio = [&](const ShotEvaluation& s) { return allowedOver(limit, s.lag.angle.value()); };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    const auto text = stepper == nullptr          ? followingText
                      : stepper->encoder.corrects ? followingCorrectsText
                                                  : followingStopsText;
    return found(e, ratio(*e), e->lag.angle.reason(), text,
                 {{{Kind::Angle, e->lag.angle.value()}, {Kind::Angle, limit}}});
}

} // namespace

constinit const Rule following{
    .wants = criteria::following, .title = title, .sentences = sentences, .judge = judge, .fixes = tries};

} // namespace gantry::rules
