// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/shot/shot_steps.h"
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message vibrationText{
    "“{shot}” stops with {0} of vibration at {1}; {2} is allowed. It settles in {3}."};
constexpr Message vibrationLongText{
    "“{shot}” stops with {0} of vibration at {1}; {2} is allowed. Without damping it does not settle."};

/// Jitter limit over what still rocks when a shot stops. Judged by a measured frequency only: phases of an
/// estimated one mean nothing. A shot of single pictures waits until it has settled, which has a rule of its
/// own.
static Finding judgeVibration(const AxisView& view) {
    if (!view.evaluation.model.mode || view.axis.vibration.frequency.value <= 0.0) return std::nullopt;
    const auto ratio = [&](const ShotEvaluation& s) {
        if (stepwise(view.shot(s))) return Figure(plenty);
        return allowedOver(view.shot(s).limits.jitter, s.rocking.pixels);
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr || e->rocking.pixels.reason() == Reason::NotApplicable) return std::nullopt;
    return found(e, ratio(*e), e->rocking.settling ? vibrationText : vibrationLongText,
                 {{{Kind::Pixels, e->rocking.pixels},
                   {Kind::Frequency, view.evaluation.model.mode->frequency},
                   {Kind::Pixels, view.shot(*e).limits.jitter},
                   {Kind::Time, e->rocking.settling}}});
}

constinit const Rule vibration =
    advising({"It vibrates less with longer ramps or a stiffer, lighter structure."},
             judging(criteria::vibration, {"Vibration after the stop"}, judgeVibration,
                     words::listOf<vibrationText, vibrationLongText>,
                     tries<&fixes::tunedRamps, &fixes::shotAcceleration, &fixes::slowerShot,
                           &fixes::stockSection, &fixes::rib>));

} // namespace gantry::rules
