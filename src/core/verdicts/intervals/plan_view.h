// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/rules.h"

#include <optional>

namespace gantry::rules {

/// Place of the plan in which a ratio, a Figure, is least; nothing where none has one that means anything.
template <class F>
std::optional<std::size_t> worstPlan(const RigView& view, F ratioOf) {
    std::optional<std::size_t> worst;
    const std::vector<IntervalResults>& plans = view.evaluation.plans;
    for (std::size_t i = 0; i < plans.size(); ++i) {
        const Figure ratio = ratioOf(plans[i]);
        if (ratio && (!worst || less(ratio, ratioOf(plans[*worst])))) worst = i;
    }
    return worst;
}

/// One axis in one plan.
struct PlanAxisView {
    std::size_t plan = 0, axis = 0; ///< indices in Project::plans and Project::axes
    const PlanAxisResults* results = nullptr;
    explicit operator bool() const { return results != nullptr; }
};
/// Over all plans and axes the one of which a ratio, a Figure, is least; nothing where none has one.
template <class F>
PlanAxisView worstPlanAxis(const RigView& view, F ratioOf) {
    PlanAxisView out;
    for (std::size_t i = 0; i < view.evaluation.plans.size(); ++i) {
        const std::vector<PlanAxisResults>& axes = view.evaluation.plans[i].axes;
        for (std::size_t a = 0; a < axes.size(); ++a)
            if (const Figure ratio = ratioOf(axes[a]); ratio && (!out || less(ratio, ratioOf(*out.results))))
                out = {i, a, &axes[a]};
    }
    return out;
}

/// A verdict that is about a plan.
void namePlan(Verdict& verdict, const Project& project, std::size_t plan);

/// What is wrong with a plan, in words.
words::Message planTroubleMessage(PlanTrouble trouble);

/// A picture of a run, as people count it, and when it is taken.
Figure shareOfRun(const Figure& picture, const IntervalResults& plan);

} // namespace gantry::rules
