// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/intervals/plan_view.h"

namespace gantry::rules {

void namePlan(Verdict& verdict, const Project& project, std::size_t plan) {
    verdict.part = project.plans[plan].name;
    verdict.plan = static_cast<int>(plan);
}

Figure shareOfRun(const Figure& picture, const IntervalResults& plan) {
    // What fails at the very first picture is there for none.
    return (picture - 1.0) / plan.pictures;
}

} // namespace gantry::rules
