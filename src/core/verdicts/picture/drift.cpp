// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message driftText{
    "Shot “{shot}”: stretch of {2} between speeding up and braking drifts {0} where {1} is allowed."};

static Finding judgeDrift(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(view.shot(s).limits.drift, s.errors.drift);
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), driftText,
                 {{{Kind::PixelsPerFrame, e->errors.drift},
                   {Kind::PixelsPerFrame, view.shot(*e).limits.drift},
                   {Kind::Pixels, e->errors.stretch}}});
}

constinit const Rule drift =
    advising({"Drift comes from what changes along the travel: longer ramps, a straighter or stiffer rail, "
              "steadier heat."},
             judging(criteria::drift, {"Slow drift"}, judgeDrift, words::listOf<driftText>,
                     tries<&fixes::shotAcceleration, &fixes::counterweight, &fixes::balanceHead,
                           &fixes::slowerShot, &fixes::stifferDrive, &fixes::cordStiffness,
                           &fixes::balanceWeight, &fixes::stockSection, &fixes::bestStandPlaces>));

} // namespace gantry::rules
