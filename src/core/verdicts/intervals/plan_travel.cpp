// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/intervals/plan_view.h"

namespace gantry::rules {

constexpr Message travelText{
    "In “{part}” {axis} goes from {0} to {1} and leaves its soft limits at picture {2}."};
constexpr Message withinText{"In “{part}” {axis} goes from {0} to {1} and stays within its soft limits."};
constexpr Message pulsesText{"Pulses of “{part}” move {axis} by {0} each, ±{1}. At worst {2} pictures surely "
                             "fit on its travel; {3} are "
                             "needed."};

static Finding judgePlanTravel(const RigView& view) {
    // Of timed pulses it is how many of them fit, whatever their scatter.
    const auto fit = [](const IntervalResults& r) { return r.others.pulsesFit / r.pictures; };
    const auto axis = worstPlanAxis(view, [](const PlanAxisResults& r) { return r.room; });
    const auto pulses = worstPlan(view, fit);
    if (pulses &&
        (!axis || axis.plan == *pulses || less(fit(view.evaluation.plans[*pulses]), axis.results->room))) {
        const IntervalResults& r = view.evaluation.plans[*pulses];
        Verdict v = found(nullptr, fit(r), pulsesText,
                          {{{Kind::Length, r.others.pulseWay},
                            {Kind::Length, r.others.pulseScatter},
                            {Kind::Count, r.others.pulsesFit, 7},
                            {Kind::Count, r.pictures, 7}}});
        namePlan(v, view.project, *pulses);
        for (std::size_t a = r.axes.size(); a-- > 0;)
            if (r.axes[a].moves && kindOf(view.project.axes[a]) == AxisKind::Linear)
                v.axis = static_cast<int>(a);
        return v;
    }
    if (!axis) return std::nullopt;
    const PlanAxisResults& r = *axis.results;
    const Kind kind = kindOf(view.project.axes[axis.axis]) == AxisKind::Linear ? Kind::Length : Kind::Angle;
    Verdict v = found(nullptr, r.room, r.outsideAt ? travelText : withinText,
                      {{{kind, r.from}, {kind, r.to}, {Kind::Count, r.outsideAt, 7}}});
    namePlan(v, view.project, axis.plan);
    v.axis = static_cast<int>(axis.axis);
    return v;
}

constinit const Rule planTravel =
    advising({"It needs more travel, a shorter way or shorter pulses."},
             ofAllAxes(namingAxis(judging(
                 criteria::planTravel, {"Travel of the run"}, judgePlanTravel,
                 words::listOf<travelText, withinText, pulsesText>,
                 tries<&fixes::shorterWay, &fixes::pulseInTime, &fixes::gearOfPulses, &fixes::railLength>))));

} // namespace gantry::rules
