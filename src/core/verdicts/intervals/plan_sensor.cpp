// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/intervals/plan_view.h"

#include <cmath>

namespace gantry::rules {

constexpr Message ownText{"The sensor of “{part}” sees the rig move: after everybody has left, about "
                          "{0} more pictures are taken; {1} do no harm."};
constexpr Message endlessText{
    "The sensor of “{part}” sees every move of the rig within its hold, so the run never stops by itself."};

static Finding judgePlanSensor(const RigView& view) {
    std::optional<std::size_t> worst;
    Figure least;
    for (std::size_t i = 0; i < view.evaluation.plans.size(); ++i) {
        const Figure& own = view.evaluation.plans[i].others.ownPictures;
        const Figure ratio =
            own.reason() == Reason::Unbounded ? Figure(0.0) : allowedOver(criteria::ownPictures.value, own);
        if (!ratio || (worst && !less(ratio, least))) continue;
        worst = i;
        least = ratio;
    }
    if (!worst) return std::nullopt;
    const Figure& own = view.evaluation.plans[*worst].others.ownPictures;
    Verdict v = found(nullptr, least, own ? ownText : endlessText,
                      {{{Kind::Count, own.map([](double pictures) { return std::round(pictures); }), 7},
                        {Kind::Count, criteria::ownPictures.value}}});
    namePlan(v, view.project, *worst);
    return v;
}

constinit const Rule planSensor =
    advising({"The sensor must not see the rig: turn it away, or do not listen to it while it moves."},
             ofAllAxes(judging(criteria::planSensor, {"Sensor sees the rig"}, judgePlanSensor,
                               words::listOf<ownText, endlessText>, tries<&fixes::sensorDeaf>)));

} // namespace gantry::rules
