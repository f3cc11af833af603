// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message settingsSpeedText{"Shot “{shot}” runs at {0}; the controller is set to {1} at most."};
constexpr Message settingsAccelerationText{
    "Shot “{shot}” speeds up at {0}; the controller is set to {1} at most."};

constexpr Message settingsPulsesText{
    "The controller may be told {0}; the pulses end at {1}. Jog, homing and return would fall behind."};
constexpr Message settingsMotorText{
    "The controller may be told {0}; the motor ends at {1}. Jog, homing and return would lose steps."};
constexpr Message settingsTorqueText{
    "The controller may ramp at {0}; at {2} this axis has torque for {1} at most. "
    "Jog, homing and return would lose steps."};

/// A setting against what the axis can do [1], and what it says.
struct Reach {
    Figure ratio;
    Message text;
    words::Arguments arguments{};
};

/// Whatever is told by hand runs at the settings, so the axis has to follow them: the top speed by pulses and
/// motor, the acceleration by torque at the fastest that the shots run, without margin. Where no torque is
/// left for any, no setting helps, and the rule about torque says so.
static Reach reachOf(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    const motion::Limits& set = e.model.settings;
    Reach out{Figure::none(Reason::NotApplicable), settingsPulsesText};
    if (!e.model.pulses || e.model.missing != Reason::None) return out;
    const auto speed = [&](const Figure& most, Message text) {
        if (!most || (out.ratio && !less(most / set.speed, out.ratio))) return;
        out = {most / set.speed, text, {{{view.speedKind(), set.speed}, {view.speedKind(), most}}}};
    };
    speed(e.pulseLimitSpeed, settingsPulsesText);
    speed(e.checks.motorTopSpeed, settingsMotorText);
    double fastest = 0.0;
    for (const ShotEvaluation& s : e.shots) fastest = std::max(fastest, s.motion.topSpeed.valueOr(0.0));
    if (fastest <= 0.0) fastest = set.speed;
    fastest = std::min(fastest, set.speed);
    const bool enough =
        e.model.available(fastest / e.model.outputPerRad) >= e.model.rampTorque(fastest, set.acceleration);
    if (e.model.atOnce || enough) return out;
    DriveModel bare = e.model;
    bare.wantedMargin = 1.0;
    const double most = bare.largestAcceleration(fastest);
    if (const Figure ratio = Figure::of(most / set.acceleration, Reason::Unbounded);
        ratio && most > 0.0 && (!out.ratio || less(ratio, out.ratio)))
        out = {ratio,
               settingsTorqueText,
               {{{view.accelerationKind(), set.acceleration},
                 {view.accelerationKind(), most},
                 {view.speedKind(), fastest}}}};
    return out;
}

/// A controller set lower than a shot needs would stretch the shot without a word; one set higher than the
/// axis can follow loses steps in every move that is no shot.
static Finding judgeSettings(const AxisView& view) {
    const DriveModel& m = view.evaluation.model;
    const motion::Limits& set = m.settings;
    if (m.atOnce && !m.pulses) return std::nullopt; // a switch keeps no settings
    // A profile planned from the settings themselves may exceed them by a rounding of the last digit.
    constexpr double slack = 1.0 + 1e-9, most = 100.0;
    const auto bySpeed = [&](const ShotEvaluation& s) {
        return lesser(allowedOver(set.speed * slack, s.motion.topSpeed), most);
    };
    const auto byAcceleration = [&](const ShotEvaluation& s) {
        return m.atOnce ? Figure(most)
                        : lesser(allowedOver(set.acceleration * slack, s.motion.acceleration), most);
    };
    const auto ratio = [&](const ShotEvaluation& s) { return lesser(bySpeed(s), byAcceleration(s)); };
    const ShotEvaluation* e = bindingShot(view, ratio);
    const Reach reach = reachOf(view);
    if (less(reach.ratio, 1.0) && (e == nullptr || !ratio(*e) || less(reach.ratio, ratio(*e))))
        return found(nullptr, reach.ratio, reach.text, reach.arguments);
    if (e == nullptr) return std::nullopt;
    const Figure speed = bySpeed(*e), acceleration = byAcceleration(*e);
    if (!speed || (acceleration && speed.value() <= acceleration.value()))
        return found(e, ratio(*e), settingsSpeedText,
                     {{{view.speedKind(), e->motion.topSpeed}, {view.speedKind(), set.speed}}});
    return found(
        e, ratio(*e), settingsAccelerationText,
        {{{view.accelerationKind(), e->motion.acceleration}, {view.accelerationKind(), set.acceleration}}});
}

constinit const Rule settings =
    advising({"Lower the settings to what the drive can follow, or raise them to what the shots need."},
             judging(criteria::settings, {"Controller settings"}, judgeSettings,
                     words::listOf<settingsSpeedText, settingsAccelerationText, settingsPulsesText,
                                   settingsMotorText, settingsTorqueText>,
                     tries<&fixes::settingsUpToShot, &fixes::settingsToLimits, &fixes::slowerShot>));

} // namespace gantry::rules
