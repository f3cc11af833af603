// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message repeatText{"Shot “{shot}”: {0} between passes where {1} is allowed; {2} is the rotor's "
                             "friction band, {4} springs of the drive, {3} the fall to hold current."};

static Finding judgeRepeatError(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(view.shot(s).limits.repeat, s.errors.repeat);
    };
    if (!(view.evaluation.model.commandAngle > 0.0)) return std::nullopt; // a knob has no place to return to
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), repeatText,
                 {{{Kind::Pixels, e->errors.repeat},
                   {Kind::Pixels, view.shot(*e).limits.repeat},
                   {Kind::Pixels, e->place.frictionBand},
                   {Kind::Pixels, e->place.idleShift},
                   {Kind::Pixels, seen(e->windUp.repeat, *e)}}});
}

constinit const Rule repeatError = advising(
    {"Repeatability needs less backlash, less friction or a stiffer drive than these offer."},
    judging(criteria::repeatError, {"Repeat error"}, judgeRepeatError, words::listOf<repeatText>,
            tries<&fixes::holdCurrent, &fixes::balanceHead, &fixes::hungLower, &fixes::oneWay,
                  &fixes::shotAcceleration, &fixes::ballWheels, &fixes::noPlay, &fixes::preloadSpring,
                  &fixes::stifferDrive, &fixes::cordStiffness, &fixes::outputTeeth, &fixes::reduction,
                  &fixes::subjectDistance, &fixes::largerMotor>));

} // namespace gantry::rules
