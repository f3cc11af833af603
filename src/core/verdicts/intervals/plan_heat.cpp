// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/intervals/plan_view.h"

namespace gantry::rules {

constexpr Message heatText{
    "After hours of “{part}” the motor of {axis} reaches about {0}; its mount withstands {1}. "
    "Let hot motors and drivers cool before touching."};

static Finding judgePlanHeat(const RigView& view) {
    const double air = view.project.conditions.ambient;
    const auto ratio = [&](const PlanAxisResults& r) {
        return allowedOver(r.temperatureLimit - air, r.temperature - air);
    };
    const PlanAxisView worst = worstPlanAxis(view, ratio);
    if (!worst) return std::nullopt;
    Verdict v = found(
        nullptr, ratio(*worst.results), heatText,
        {{{Kind::Celsius, worst.results->temperature}, {Kind::Celsius, worst.results->temperatureLimit}}});
    namePlan(v, view.project, worst.plan);
    v.axis = static_cast<int>(worst.axis);
    return v;
}

constinit const Rule planHeat = advising(
    {"It needs less hold current, a metal mount, moving air or a larger motor."},
    ofAllAxes(namingAxis(judging(
        criteria::planHeat, {"Heat over the run"}, judgePlanHeat, words::listOf<heatText>,
        tries<&fixes::lessHoldCurrent, &fixes::cutCurrent, &fixes::mountMaterial, &fixes::largerMotor>))));

} // namespace gantry::rules
