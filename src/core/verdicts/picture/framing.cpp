// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/simulation_view.h"
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message framingText{
    "Shot “{shot}”: {0} off the target where {1} is allowed; {2} is rotor lag, {4} wind-up of the drive, {3} "
    "rounding."};

static Finding judgeFraming(const AxisView& view) {
    const auto allowed = [&](const ShotEvaluation& s) {
        return framingAllowed(view.project.camera, view.shot(s));
    };
    const auto ratio = [&](const ShotEvaluation& s) { return allowedOver(allowed(s), s.errors.framing); };
    if (!(view.evaluation.model.commandAngle > 0.0)) return std::nullopt; // a knob has no place to return to
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), framingText,
                 {{{Kind::Pixels, e->errors.framing},
                   {Kind::Pixels, allowed(*e)},
                   {Kind::Pixels, e->place.lag},
                   {Kind::Pixels, e->roundingPixels},
                   {Kind::Pixels, seen(e->windUp.travel, *e)}}});
}

constinit const Rule framing = advising(
    {"The drive gives way too much: a stiffer one, gentler ramps or a closed loop is needed."},
    judging(criteria::framing, {"Framing error"}, judgeFraming, words::listOf<framingText>,
            tries<&fixes::controllerDecimals, &fixes::counterweight, &fixes::balanceHead,
                  &fixes::shotAcceleration, &fixes::slowerShot, &fixes::stifferDrive, &fixes::cordStiffness,
                  &fixes::balanceWeight, &fixes::reduction, &fixes::noPlay, &fixes::largerMotor>));

} // namespace gantry::rules
