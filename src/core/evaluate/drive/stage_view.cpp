// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/drive/stage_view.h"

#include "core/criteria/criteria.h"

#include <cmath>
#include <numbers>

namespace gantry {
namespace {

using drivetrain::Ratio;

StageView withFigures(double ratio, std::optional<Ratio> exact, const StageFigures& f) {
    const double efficiency = f.efficiency.value;
    return {{ratio, efficiency, drivetrain::backEfficiencyOf(efficiency), f.inertia.value},
            exact,
            f.stiffness.value,
            f.backlash.value};
}

StageView withFigures(const std::optional<Ratio>& exact, const StageFigures& f) {
    return withFigures(exact ? exact->value() : 1.0, exact, f);
}

std::optional<Ratio> power(const std::optional<Ratio>& r, int n) {
    std::optional<Ratio> out = Ratio{};
    for (int i = 0; i < n && out; ++i) out = r ? out->times(*r) : std::nullopt;
    return out;
}

StageView viewOf(const Coupling& c) {
    return {{1.0, 1.0, 1.0, c.inertia.value}, Ratio{}, c.stiffness.value, 0.0};
}
StageView viewOf(const BeltStage& s) {
    return withFigures(Ratio::of(s.loadTeeth, s.motorTeeth), s.figures);
}
StageView viewOf(const GearStage& s) {
    StageView v = withFigures(Ratio::of(s.loadTeeth, s.motorTeeth), s.figures);
    if (s.split) v.backlash = 0.0;
    return v;
}
StageView viewOf(const PlanetaryStage& s) {
    // Ring held, sun in, carrier out: 1 + ring/sun for each stage.
    const auto exact = power(Ratio::of(s.sunTeeth + s.ringTeeth, s.sunTeeth), s.stages);
    return withFigures(std::pow(1.0 + static_cast<double>(s.ringTeeth) / s.sunTeeth, s.stages), exact,
                       s.figures);
}
StageView viewOf(const StrainWaveStage& s) {
    return withFigures(Ratio::of(s.flexTeeth, 2), s.figures);
}
StageView viewOf(const WormStage& s) {
    // The flanks press at 20° square to the thread (ISO 54 basic rack), which their friction feels.
    constexpr double pressureAngle = 20.0 / 180.0 * std::numbers::pi;
    const double lead = s.leadAngle.value;
    const auto angleOf = [&](double friction) { return std::atan(friction / std::cos(pressureAngle)); };
    const auto efficiencyAt = [&](double rub) {
        return lead + rub < 1.5 ? std::max(0.01, std::tan(lead) / std::tan(lead + rub)) : 0.01;
    };
    const double rub = angleOf(s.friction.value);
    // At rest the film between the flanks is gone; a friction below the running one would mean nothing.
    const double atRest =
        s.startFriction.value > 0.0 ? s.startFriction.value : criteria::startFriction * s.friction.value;
    return {{static_cast<double>(s.wheelTeeth) / s.starts, efficiencyAt(rub),
             std::tan(lead - rub) / std::tan(lead), s.inertia.value,
             efficiencyAt(angleOf(std::max(atRest, s.friction.value)))},
            Ratio::of(s.wheelTeeth, s.starts),
            s.stiffness.value,
            s.backlash.value};
}
StageView viewOf(const ReducerStage& s) {
    return withFigures(Ratio::of(s.numerator, s.denominator), s.figures);
}
StageView viewOf(const RollerStage& s) {
    return withFigures(s.wheelDiameter.value / s.rollerDiameter.value, std::nullopt, s.figures);
}

} // namespace

StageView stageView(const Link& link) {
    return std::visit([](const auto& l) { return viewOf(l); }, link);
}

double rollerGrip(const RollerStage& r) {
    return r.friction.value * r.pressure.value * r.wheelDiameter.value / 2.0;
}

} // namespace gantry
