// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/interval/interval_course.h"
#include "core/verdicts/intervals/plan_view.h"

namespace gantry::rules {

constexpr Message headText{
    "The independent head of “{part}” turns for {0}, up to picture {1} of {2}. At the end "
    "it is {3} off the subject; {4} is allowed."};

static Finding judgePlanHead(const RigView& view) {
    const auto allowed = [&](std::size_t i) {
        const Shot* shot = shotOf(view.project.shots, view.project.moves, view.project.plans[i]);
        return shot != nullptr ? Figure(shot->limits.framing * view.project.camera.deliveredWidth)
                               : Figure::none(Reason::NoShot);
    };
    const std::vector<IntervalResults>& plans = view.evaluation.plans;
    std::optional<std::size_t> worst;
    const auto ratio = [&](std::size_t i) {
        return allowedOver(allowed(i), greater(plans[i].others.headErrorEnd, plans[i].others.headErrorStop));
    };
    for (std::size_t i = 0; i < plans.size(); ++i)
        if (ratio(i) && (!worst || less(ratio(i), ratio(*worst)))) worst = i;
    if (!worst) return std::nullopt;
    const IntervalResults& r = plans[*worst];
    Verdict v = found(nullptr, ratio(*worst), headText,
                      {{{Kind::Time, r.others.headTime},
                        {Kind::Count, r.others.headStopsAt, 7},
                        {Kind::Count, r.pictures, 7},
                        {Kind::Pixels, r.others.headErrorEnd},
                        {Kind::Pixels, allowed(*worst)}}});
    namePlan(v, view.project, *worst);
    return v;
}

constinit const Rule planHead =
    advising({"It needs a head that turns for longer, or a run that is over sooner."},
             ofAllAxes(judging(criteria::planHead, {"Head by itself"}, judgePlanHead, words::listOf<headText>,
                               tries<&fixes::runWithinHead, &fixes::headTurn>)));

} // namespace gantry::rules
