// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/intervals/plan_view.h"

namespace gantry::rules {

constexpr Message storageText{"The card of {room} takes {0} pictures; “{part}” takes {1}."};
constexpr Message fullText{
    "The card of {room} is full at picture {2} of “{part}”: it takes {0} pictures, and {1} are needed."};

static Finding judgePlanStorage(const RigView& view) {
    std::size_t plan = 0, camera = 0;
    Figure least = Figure::none(Reason::NotApplicable);
    for (std::size_t i = 0; i < view.evaluation.plans.size(); ++i) {
        const IntervalResults& r = view.evaluation.plans[i];
        for (std::size_t c = 0; c < r.cameras.size(); ++c) {
            const Figure ratio = r.cameras[c].perCard / r.pictures;
            if (!ratio || (least && !less(ratio, least))) continue;
            least = ratio;
            plan = i;
            camera = c;
        }
    }
    if (!least) return std::nullopt;
    const IntervalResults& r = view.evaluation.plans[plan];
    const PlanCameraResults& of = r.cameras[camera];
    Verdict v = found(
        nullptr, least, of.cardFullAt ? fullText : storageText,
        {{{Kind::Count, of.perCard, 7}, {Kind::Count, r.pictures, 7}, {Kind::Count, of.cardFullAt, 7}}});
    namePlan(v, view.project, plan);
    v.with = view.project.plans[plan].cameras[camera].name;
    return v;
}

constinit const Rule planStorage =
    advising({"It needs a larger card, smaller pictures or fewer of them."},
             ofAllAxes(judging(criteria::planStorage, {"Storage"}, judgePlanStorage,
                               words::listOf<storageText, fullText>, tries<&fixes::largerCard>)));

} // namespace gantry::rules
