// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/intervals/plan_view.h"

namespace gantry::rules {

constexpr Message runsText{
    "“{part}” moves on while the shutter is open and smears the picture by {0}; {1} still "
    "looks sharp. Up to {2} of exposure it does."};
constexpr Message stopsText{
    "“{part}” stops for its pictures, and vibration smears them by {0}; {1} still looks "
    "sharp."};

static Finding judgePlanBlur(const RigView& view) {
    const double sharp = criteria::sharpness;
    const auto ratio = [&](const IntervalResults& r) { return allowedOver(sharp, r.sharp.smear); };
    const auto worst = worstPlan(view, ratio);
    if (!worst) return std::nullopt;
    const IntervalResults& r = view.evaluation.plans[*worst];
    const bool runs = view.project.plans[*worst].mode == IntervalMode::Runs;
    // What may smear is what looks sharp, not what may jitter.
    const Figure longest = runs ? r.sharp.longest / r.sharp.allowed * sharp : r.sharp.longest;
    Verdict v = found(nullptr, ratio(r), runs ? runsText : stopsText,
                      {{{Kind::Pixels, r.sharp.smear}, {Kind::Pixels, sharp}, {Kind::Time, longest}}});
    namePlan(v, view.project, *worst);
    return v;
}

constinit const Rule planBlur =
    advising({"Shorter exposures, slower moves or stops for each picture make it sharper."},
             ofAllAxes(judging(
                 criteria::planBlur, {"Sharp pictures"}, judgePlanBlur, words::listOf<runsText, stopsText>,
                 tries<&fixes::stopForPictures, &fixes::longerInterval, &fixes::settleLonger>)));

} // namespace gantry::rules
