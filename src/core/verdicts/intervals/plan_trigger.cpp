// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/intervals/plan_view.h"

namespace gantry::rules {

constexpr Message shortText{"The trigger of {room} cannot expose for less than {1}; “{part}” needs {0}. A "
                            "shorter press goes unnoticed."};
constexpr Message longText{
    "The trigger of {room} has to be let go between pictures, so “{part}” can expose for {1} "
    "at most; it needs {0}."};

static Finding judgePlanTrigger(const RigView& view) {
    Figure least = Figure::none(Reason::NotApplicable);
    std::size_t plan = 0, camera = 0;
    bool tooShort = false;
    double asked = 0.0;
    for (std::size_t i = 0; i < view.evaluation.plans.size(); ++i) {
        const IntervalPlan& p = view.project.plans[i];
        double shortest = p.exposure, longest = p.exposure;
        for (const ExposureMark& m : p.exposures) {
            shortest = std::min(shortest, m.exposure);
            longest = std::max(longest, m.exposure);
        }
        const IntervalResults& r = view.evaluation.plans[i];
        for (std::size_t c = 0; c < r.cameras.size(); ++c) {
            const auto take = [&](const Figure& ratio, bool isShort, double exposure) {
                if (!ratio || (least && !less(ratio, least))) return;
                least = ratio;
                plan = i;
                camera = c;
                tooShort = isShort;
                asked = exposure;
            };
            take(allowedOver(shortest, r.cameras[c].shortest), true, shortest);
            take(r.cameras[c].longest / longest, false, longest);
        }
    }
    if (!least) return std::nullopt;
    const PlanCameraResults& of = view.evaluation.plans[plan].cameras[camera];
    Verdict v = found(nullptr, least, tooShort ? shortText : longText,
                      {{{Kind::Time, asked}, {Kind::Time, tooShort ? of.shortest : of.longest}}});
    namePlan(v, view.project, plan);
    v.with = view.project.plans[plan].cameras[camera].name;
    return v;
}

constinit const Rule planTrigger =
    advising({"It needs an exposure that the trigger can make, or one that the camera times itself."},
             ofAllAxes(judging(criteria::planTrigger, {"Trigger and exposure"}, judgePlanTrigger,
                               words::listOf<shortText, longText>,
                               tries<&fixes::cameraTimes, &fixes::longerInterval>)));

} // namespace gantry::rules
