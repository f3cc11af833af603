// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/overload.h"
#include "core/verdicts/rules.h"

#include <cmath>

namespace gantry::rules {

constexpr Message motorSlowText{
    "Shot “{shot}” runs at {0}; below {1} this motor stutters. A drive geared {2} "
    "times slower runs it steadily with a fifth to spare."};
constexpr Message motorNearSlowText{"Shot “{shot}” runs at {0}; below {1} this motor stutters."};
constexpr Message motorSettingText{"Shot “{shot}” runs at {0}, {2} of full setting; at the highest setting "
                                   "in use the drive runs free at {1}."};
constexpr Message motorSpeedText{"Shot “{shot}” runs at {0}; the motor has no torque left beyond {1}."};

constexpr Message motorOwnText{
    "Shot “{shot}” is to run at {0}; nothing sets this motor's speed, and under its "
    "load it runs at {1}."};

/// The speed that a shot asks for, where it could be set.
static double asked(const AxisView& view, const ShotEvaluation& s) {
    const Movement* m = findMovement(view.shot(s), view.axis.id);
    if (m == nullptr) return 0.0;
    return std::visit(overload{[](const auto& byTime) { return std::abs(byTime.distance) / byTime.time; },
                               [](const BySpeed<AxisKind::Linear>& bySpeed) { return bySpeed.speed; },
                               [](const BySpeed<AxisKind::Rotary>& bySpeed) { return bySpeed.speed; }},
                      *m);
}

static Finding judgeOwnSpeed(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return s.motion.topSpeed.map([&](double own) {
            const double off = std::abs(own / asked(view, s) - 1.0);
            return off > 0.0 ? std::min(plenty, criteria::ownSpeed / off) : plenty;
        });
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr || e->problem != Reason::None) return std::nullopt;
    return found(e, ratio(*e), motorOwnText,
                 {{{view.speedKind(), asked(view, *e)}, {view.speedKind(), e->motion.topSpeed}}});
}

/// A motor with a top speed of its own against the fastest shot, or its lowest steady speed against the
/// slowest.
static Finding judgeMotorSpeed(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    if (e.checks.motorTopSpeed.reason() == Reason::NotApplicable) return std::nullopt;
    if (e.model.oneSpeed) return judgeOwnSpeed(view);
    const auto fast = [&](const ShotEvaluation& s) {
        return allowedOver(e.checks.motorTopSpeed, s.motion.topSpeed);
    };
    const auto slow = [&](const ShotEvaluation& s) {
        return s.knob.slowest ? allowedOver(1.0, s.knob.slowest) : plenty;
    };
    const ShotEvaluation* fastest = bindingShot(view, fast);
    const ShotEvaluation* slowest = bindingShot(view, slow);
    if (fastest == nullptr || slowest == nullptr) return std::nullopt;
    const Figure least = slow(*slowest), most = fast(*fastest);
    if (least && most && least.value() < most.value())
        return found(slowest, least, e.checks.ratioFactor ? motorSlowText : motorNearSlowText,
                     {{{view.speedKind(), slowest->motion.topSpeed},
                       {view.speedKind(), e.model.lowestSpeed * e.model.outputPerRad},
                       {Kind::Ratio, e.checks.ratioFactor}}});
    return found(fastest, most, fastest->knob.setting ? motorSettingText : motorSpeedText,
                 {{{view.speedKind(), fastest->motion.topSpeed},
                   {view.speedKind(), e.checks.motorTopSpeed},
                   {Kind::Percentage, fastest->knob.setting}}});
}

constinit const Rule motorSpeed = advising(
    {"The motor needs another gear or supply to run at this speed."},
    judging(criteria::motorSpeed, {"Motor speed"}, judgeMotorSpeed,
            words::listOf<motorSlowText, motorNearSlowText, motorSettingText, motorSpeedText, motorOwnText>,
            tries<&fixes::slowerShot, &fixes::fasterShot, &fixes::knobUp, &fixes::reduction,
                  &fixes::reducerInFront, &fixes::outputTeeth, &fixes::supplyVoltage, &fixes::otherGearmotor,
                  &fixes::stepperInstead, &fixes::largerMotor>));

} // namespace gantry::rules
