// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/intervals/plan_view.h"

namespace gantry::rules {

constexpr Message collideText{
    "The rig of “{part}” moves while the shutter is open, first at picture {0}; {1} of the "
    "pictures are spoiled. Its clock falls behind by {2} a day."};
constexpr Message apartText{
    "The clocks of “{part}” keep apart for all {0} pictures; that of the rig falls behind by {2} a day."};

static Finding judgePlanTimers(const RigView& view) {
    const auto ratio = [](const IntervalResults& r) {
        return r.others.spoiledShare && !r.others.firstSpoiled ? Figure(1.0)
                                                               : shareOfRun(r.others.firstSpoiled, r);
    };
    const auto worst = worstPlan(view, ratio);
    if (!worst) return std::nullopt;
    const IntervalResults& r = view.evaluation.plans[*worst];
    const bool hit = static_cast<bool>(r.others.firstSpoiled);
    Verdict v = found(nullptr, ratio(r), hit ? collideText : apartText,
                      {{{Kind::Count, hit ? r.others.firstSpoiled : r.pictures, 7},
                        {Kind::Percentage, r.others.spoiledShare},
                        {Kind::Time, r.others.driftPerDay.map([](double d) { return std::abs(d); })}}});
    namePlan(v, view.project, *worst);
    return v;
}

constinit const Rule planTimers =
    advising({"Two clocks always drift; let one trigger the other."},
             ofAllAxes(judging(criteria::planTimers, {"Clocks that collide"}, judgePlanTimers,
                               words::listOf<collideText, apartText>, tries<&fixes::oneTrigger>)));

} // namespace gantry::rules
