// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message jitterBacklashText{
    "Shot “{shot}”: {0} peak to peak where {1} is allowed; {2} is backlash let go."};
constexpr Message jitterStickText{
    "Shot “{shot}”: {0} peak to peak where {1} is allowed; {2} is the load sticking "
    "and slipping, {5} stepping: slower than {3} it moves by jumps of {4}."};
constexpr Message jitterText{"Shot “{shot}”: {0} peak to peak where {1} is allowed, all of it stepping."};

static Finding judgeJitter(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(view.shot(s).limits.jitter, s.errors.jitter);
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    if (const Figure& slip = e->windUp.jumpPixels; slip && less(e->errors.jitter * 0.1, slip))
        return found(e, ratio(*e), jitterStickText,
                     {{{Kind::Pixels, e->errors.jitter},
                       {Kind::Pixels, view.shot(*e).limits.jitter},
                       {Kind::Pixels, slip},
                       {view.speedKind(), e->windUp.smoothFrom},
                       {view.travelKind(), e->windUp.jump},
                       {Kind::Pixels, e->place.stepping}}});
    return found(e, ratio(*e), e->loadReverses ? jitterBacklashText : jitterText,
                 {{{Kind::Pixels, e->errors.jitter},
                   {Kind::Pixels, view.shot(*e).limits.jitter},
                   {Kind::Pixels, e->errors.backlash}}});
}

constinit const Rule jitter =
    advising({"Less friction that sticks, a stiffer drive or more ratio is needed."},
             judging(criteria::jitter, {"Jitter"}, judgeJitter,
                     words::listOf<jitterBacklashText, jitterStickText, jitterText>,
                     tries<&fixes::balanceHead, &fixes::hungLower, &fixes::oneWay, &fixes::finerMicrosteps,
                           &fixes::shotAcceleration, &fixes::outputTeeth, &fixes::reduction,
                           &fixes::reducerInFront, &fixes::ballWheels, &fixes::stifferDrive,
                           &fixes::cordStiffness, &fixes::closedCord, &fixes::preloadSpring, &fixes::noPlay,
                           &fixes::fasterShot, &fixes::subjectDistance, &fixes::stepperInstead>));

} // namespace gantry::rules
