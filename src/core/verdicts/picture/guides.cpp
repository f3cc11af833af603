// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message guideText{
    "Play lets the carriage turn by {0}, {1} in the picture of shot “{shot}”; {2} is allowed."};

/// Play of the guides lets the carriage turn, and the picture with it, whenever the push changes side.
static Finding judgeGuides(const AxisView& view) {
    if (!view.linear()) return std::nullopt;
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(view.shot(s).limits.repeat, s.guidePixels);
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr || e->problem != Reason::None) return std::nullopt;
    return found(e, ratio(*e), guideText,
                 {{{Kind::Angle, view.evaluation.checks.guideRotation},
                   {Kind::Pixels, e->guidePixels},
                   {Kind::Pixels, view.shot(*e).limits.repeat}}});
}

constinit const Rule guides =
    advising({"Guides with less play, or bearings farther apart along the rail, are needed."},
             judging(criteria::guides, {"Play of the guides"}, judgeGuides, words::listOf<guideText>,
                     tries<&fixes::guidePlay, &fixes::wheelbase>));

} // namespace gantry::rules
