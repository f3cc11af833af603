// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/intervals/plan_view.h"

namespace gantry::rules {

constexpr Message batteryText{"“{part}” takes {0}, of which motors take {1}; the battery gives {2}."};
constexpr Message readText{
    "The battery reads lower than was computed. By its readings “{part}” takes {0}; it gives {2}."};
constexpr Message readFlatText{
    "The battery reads lower than was computed. By its readings it is flat at picture {3} of “{part}”: "
    "it gives {2}, and {0} are needed."};
constexpr Message flatText{"The battery is flat at picture {3} of “{part}”: it gives {2}, and {0} are "
                           "needed, of which motors take {1}."};

static Finding battery(const RigView& view) {
    const auto worst = worstPlan(view, [](const IntervalResults& r) { return r.energy.room; });
    if (!worst) return std::nullopt;
    const PlanEnergy& e = view.evaluation.plans[*worst].energy;
    const double volts = view.project.supply.voltage.value; // as its label counts
    const Figure goes = e.there / e.room; // all that is taken, by the readings where they say more
    const bool read = less(e.needed * 1.01, goes);
    const Message& text = read ? (e.flatAt ? readFlatText : readText) : e.flatAt ? flatText : batteryText;
    Verdict v = found(nullptr, e.room, text,
                      {{{Kind::Charge, goes / volts},
                        {Kind::Percentage, e.motors},
                        {Kind::Charge, e.there / volts},
                        {Kind::Count, e.flatAt, 7}}});
    namePlan(v, view.project, *worst);
    return v;
}

constinit const Rule planBattery =
    advising({"It needs a larger battery, a spare one, or less that draws on it."},
             ofAllAxes(judging(criteria::planBattery, {"Battery for the run"}, battery,
                               words::listOf<batteryText, readText, readFlatText, flatText>,
                               tries<&fixes::lessHoldCurrent, &fixes::cutCurrent, &fixes::largerBattery>)));

constexpr Message fallsText{
    "The battery is flat at picture {0} of “{part}”, and {axis} then runs down or falls. Fit a brake, secure "
    "the camera, and change the battery in time."};
constexpr Message soonText{"Only current holds {axis} in “{part}”, and the battery just lasts for it. Fit a "
                           "brake, secure the camera, and "
                           "change the battery in time."};

constexpr Message cutText{"“{part}” cuts the current between pictures, and {axis} then runs down or falls. "
                          "Let its current hold, fit a "
                          "brake, and secure the camera."};

/// An axis that only current holds, in a plan that cuts it.
static Finding cutFalls(const RigView& view) {
    for (std::size_t i = 0; i < view.evaluation.plans.size(); ++i) {
        if (!view.project.plans[i].wholeSteps) continue;
        const std::vector<PlanAxisResults>& axes = view.evaluation.plans[i].axes;
        for (std::size_t a = 0; a < axes.size(); ++a) {
            if (!axes[a].falls) continue;
            Verdict v = found(nullptr, Figure(0.0), cutText, {});
            namePlan(v, view.project, i);
            v.axis = static_cast<int>(a);
            v.hazard = true;
            return v;
        }
    }
    return std::nullopt;
}

/// An axis that only current holds, in a run on a battery that may not last; where it does, what holds
/// without power is said elsewhere.
static Finding falls(const RigView& view) {
    if (Finding cut = cutFalls(view)) return cut;
    const auto worst = worstPlan(view, [](const IntervalResults& r) { return r.energy.room; });
    if (!worst || !less(view.evaluation.plans[*worst].energy.room, criteria::planFalls.value))
        return std::nullopt;
    const IntervalResults& plan = view.evaluation.plans[*worst];
    for (std::size_t a = 0; a < plan.axes.size(); ++a) {
        if (!plan.axes[a].falls) continue;
        const PlanEnergy& e = plan.energy;
        Verdict v = found(nullptr, e.room, e.flatAt ? fallsText : soonText, {{{Kind::Count, e.flatAt, 7}}});
        namePlan(v, view.project, *worst);
        v.axis = static_cast<int>(a);
        v.hazard = true;
        v.ceiling = State::Tight; // friction and current are no brake
        return v;
    }
    return std::nullopt;
}

constinit const Rule planFalls =
    advising({"It needs a brake that holds without power, or a drive that cannot be driven back."},
             ofAllAxes(namingAxis(judging(
                 criteria::planFalls, {"Falls when flat"}, falls, words::listOf<fallsText, soonText, cutText>,
                 tries<&fixes::currentHolds, &fixes::brake, &fixes::locking, &fixes::largerBattery>))));

} // namespace gantry::rules
