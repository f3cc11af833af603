// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/intervals/plan_view.h"

namespace gantry::rules {

constexpr Message leftText{"When the shutter opens in “{part}”, the picture still vibrates by {0}, peak to "
                           "peak; {1} is allowed. After "
                           "{2} no more is left."};
constexpr Message neverText{
    "When the shutter opens in “{part}”, the picture still vibrates by {0}, peak to peak; {1} is allowed. It "
    "never comes to rest."};

static Finding judgePlanStill(const RigView& view) {
    const auto ratio = [](const IntervalResults& r) { return allowedOver(r.sharp.allowed, r.sharp.left); };
    const auto worst = worstPlan(view, ratio);
    if (!worst) return std::nullopt;
    const IntervalResults& r = view.evaluation.plans[*worst];
    Verdict v = found(
        nullptr, ratio(r), r.sharp.needed ? leftText : neverText,
        {{{Kind::Pixels, r.sharp.left}, {Kind::Pixels, r.sharp.allowed}, {Kind::Time, r.sharp.needed}}});
    namePlan(v, view.project, *worst);
    return v;
}

constinit const Rule planStill = advising(
    {"It needs more time to settle, smaller steps, gentler ramps or a stiffer rig."},
    ofAllAxes(judging(
        criteria::planStill, {"Still before the shutter"}, judgePlanStill, words::listOf<leftText, neverText>,
        tries<&fixes::settleLonger, &fixes::pictureFirst, &fixes::evenSteps, &fixes::morePictures>)));

} // namespace gantry::rules
