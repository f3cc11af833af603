// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/intervals/plan_view.h"

namespace gantry::rules {

constexpr Message earlyText{
    "Somebody is there for {0} in “{part}”, but its way is laid out for {1}: only {2} "
    "of it is shown."};
constexpr Message staysText{"Somebody is there for {0} in “{part}”, but its way ends after {1}: from picture "
                            "{3} on nothing moves."};
constexpr Message backText{"Somebody is there for {0} in “{part}”; its way of {1} is covered back and "
                           "forth until then."};
constexpr Message suitsText{"Somebody is there for {0} in “{part}”, and its way is laid out for {1}."};

/// Way shown over way planned where presence ends early; pictures that move over all where it lasts longer.
static Figure paceOf(const IntervalPlan& plan, const IntervalResults& r) {
    return r.others.wayShown.map([&](double shown) {
        const bool moves = shown <= 1.0 || plan.atEnd == AtWayEnd::TurnsBack;
        return (moves ? std::min(shown, 1.0) : 1.0 / shown) / criteria::paceShare.value;
    });
}

static Finding judgePlanPace(const RigView& view) {
    std::optional<std::size_t> worst;
    const std::vector<IntervalResults>& plans = view.evaluation.plans;
    const auto ratio = [&](std::size_t i) { return paceOf(view.project.plans[i], plans[i]); };
    for (std::size_t i = 0; i < plans.size(); ++i)
        if (ratio(i) && (!worst || less(ratio(i), ratio(*worst)))) worst = i;
    if (!worst) return std::nullopt;
    const PlanOthers& o = plans[*worst].others;
    const double shown = o.wayShown.value();
    const bool turns = view.project.plans[*worst].atEnd == AtWayEnd::TurnsBack;
    const bool stays = !turns && shown > 1.0 && !less(criteria::planPace.value, ratio(*worst));
    const Message& text = less(ratio(*worst), criteria::planPace.value) && shown < 1.0 ? earlyText
                          : stays                                                      ? staysText
                          : turns && shown > 1.0                                       ? backText
                                                                                       : suitsText;
    Verdict v = found(nullptr, ratio(*worst), text,
                      {{{Kind::Time, o.active},
                        {Kind::Time, o.wayTime},
                        {Kind::Percentage, o.wayShown},
                        {Kind::Count, o.wayPictures, 7}}});
    namePlan(v, view.project, *worst);
    return v;
}

constinit const Rule planPace =
    advising({"Lay the way out for the time that somebody is there, or let it turn back at its end."},
             ofAllAxes(judging(criteria::planPace, {"Pace by presence"}, judgePlanPace,
                               words::listOf<earlyText, staysText, backText, suitsText>,
                               tries<&fixes::paceByPresence, &fixes::turnsBack>)));

} // namespace gantry::rules
