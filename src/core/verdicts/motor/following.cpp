// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/overload.h"
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message followingText{"Shot “{shot}” lags {0}; the drive reports a fault at {1}."};
constexpr Message followingCorrectsText{
    "The rotor lags {0} in shot “{shot}”; the encoder reports lost steps at {1} and makes them up once the "
    "load allows, late in the picture."};
constexpr Message followingStopsText{
    "The rotor lags {0} in shot “{shot}”; at {1} the encoder stops the axis. It adds no torque."};

/// Lag behind the command against the limit at which a drive with an encoder reports a fault.
static Finding judgeFollowing(const AxisView& view) {
    struct Watch {
        double limit = 0.0; ///< [rad]; 0: nobody watches
        Message text = followingText;
    };
    const Watch watch = std::visit(
        overload{[](const Stepper& s) {
                     return Watch{s.encoder.fitted ? s.encoder.followingLimit : 0.0,
                                  s.encoder.corrects ? followingCorrectsText : followingStopsText};
                 },
                 [](const ServoMotor& s) { return Watch{s.loop.followingLimit}; },
                 [](const DcServo& s) { return Watch{s.loop.followingLimit}; },
                 [](const GearedDc&) { return Watch{}; }, [](const HobbyServo&) { return Watch{}; }},
        view.axis.motor);
    const double limit = watch.limit;
    if (!(limit > 0.0)) return std::nullopt;
    const auto ratio = [&](const ShotEvaluation& s) { return allowedOver(limit, s.lag.angle); };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), watch.text, {{{Kind::Angle, e->lag.angle}, {Kind::Angle, limit}}});
}

constinit const Rule following =
    advising({"The loop falls behind: gentler ramps, a stiffer loop or a larger motor is needed."},
             judging(criteria::following, {"Following error"}, judgeFollowing,
                     words::listOf<followingText, followingCorrectsText, followingStopsText>,
                     tries<&fixes::slowerShot, &fixes::shotAcceleration, &fixes::largerMotor>));

} // namespace gantry::rules
