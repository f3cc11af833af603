// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/intervals/plan_view.h"

namespace gantry::rules {

constexpr Message roundedText{
    "In “{part}” pictures are up to half a step of {axis}, {0}, off their place; {1} is allowed."};
constexpr Message jumpText{
    "When the current of {axis} is cut between pictures of “{part}”, its rotor jumps by up to {0}; {1} is "
    "allowed."};

static Finding judgePlanSteps(const RigView& view) {
    const auto allowed = [&](std::size_t plan) { return view.evaluation.plans[plan].sharp.allowed; };
    PlanAxisView worst;
    Figure least;
    for (std::size_t i = 0; i < view.evaluation.plans.size(); ++i)
        for (std::size_t a = 0; a < view.evaluation.plans[i].axes.size(); ++a) {
            const PlanAxisResults& r = view.evaluation.plans[i].axes[a];
            const Figure off = r.rotorJump ? greater(r.roundingPixels, r.rotorJump) : r.roundingPixels;
            const Figure ratio = allowedOver(allowed(i), off);
            if (!ratio || (worst && !less(ratio, least))) continue;
            worst = {i, a, &r};
            least = ratio;
        }
    if (!worst) return std::nullopt;
    const PlanAxisResults& r = *worst.results;
    const bool jumps = r.rotorJump && less(r.roundingPixels, r.rotorJump);
    Verdict v = found(
        nullptr, least, jumps ? jumpText : roundedText,
        {{{Kind::Pixels, jumps ? r.rotorJump : r.roundingPixels}, {Kind::Pixels, allowed(worst.plan)}}});
    namePlan(v, view.project, worst.plan);
    v.axis = static_cast<int>(worst.axis);
    return v;
}

constinit const Rule planSteps = advising(
    {"It needs more gear ratio, finer microsteps, or current that holds between pictures."},
    ofAllAxes(namingAxis(judging(
        criteria::planSteps, {"Steps of a picture"}, judgePlanSteps, words::listOf<roundedText, jumpText>,
        tries<&fixes::currentHolds, &fixes::finerMicrosteps, &fixes::reduction, &fixes::reducerInFront>))));

} // namespace gantry::rules
