// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/capability.h"
#include "core/solve/root.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

/// Where the margin is not there even at nothing, there is no figure.
CapabilityFigure figure(std::optional<double> value, double ceiling) {
    if (!value) return {Figure::none(Reason::OutOfRange), Binding::Torque};
    if (*value >= ceiling) return {Figure::none(Reason::Unbounded), Binding::Nothing};
    return {*value, Binding::Torque};
}

} // namespace

Capability capability(const Axis& axis, const AxisEvaluation& evaluation) {
    const DriveModel& model = evaluation.model;
    Capability out;
    out.margin = model.wantedMargin;
    double speed = model.settings.speed, acceleration = model.settings.acceleration;
    if (const ShotEvaluation* worst = evaluation.worst()) {
        const ShotEvaluation& shot = *worst;
        out.shot = shot.shot;
        if (shot.problem == Reason::None) {
            speed = shot.motion.topSpeed.valueOr(speed);
            acceleration = shot.motion.acceleration.valueOr(acceleration);
        }
    }
    if (model.missing != Reason::None) {
        for (CapabilityFigure* f : {&out.load, &out.slope, &out.acceleration, &out.speed})
            f->value = Figure::none(model.missing);
        return out;
    }
    const double wanted = model.wantedMargin;

    // More mass needs more of everything that hangs on it; friction is held.
    constexpr double heaviest = 1e5;
    const auto load = solve::largestWhere(
        [&](double x) {
            DriveModel m = model;
            m.chain.load.inertia = x;
            if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism))
                m.chain.load.steady = x * standardGravity * std::sin(linear->slope.value);
            return m.margin(speed, acceleration) >= wanted;
        },
        0.0, heaviest);
    out.load = figure(load, heaviest);

    if (model.kind == AxisKind::Linear) {
        const double steepest = std::numbers::pi / 2.0;
        const auto slope = solve::largestWhere(
            [&](double x) {
                DriveModel m = model;
                m.chain.load.steady = model.chain.load.inertia * standardGravity * std::sin(x);
                return m.margin(speed, acceleration) >= wanted;
            },
            0.0, steepest);
        out.slope = figure(slope, steepest);
    } else {
        out.slope.value = Figure::none(Reason::NotApplicable);
    }

    const double a = model.largestAcceleration(speed);
    out.acceleration = {a > 0.0 ? Figure::of(a, Reason::Unbounded) : Figure::none(Reason::OutOfRange),
                        std::isfinite(a) ? Binding::Torque : Binding::Nothing};

    // 1e5 rad/s is beyond any motor; a drive without pulses is bound by its torque before that.
    const double byPulses = model.pulses ? model.pulseCeiling * model.microstep() : 1e5 * model.outputPerRad;
    const auto v =
        solve::largestWhere([&](double x) { return model.margin(x, acceleration) >= wanted; }, 0.0, byPulses);
    out.speed = {v ? Figure(*v) : Figure::none(Reason::OutOfRange),
                 v && *v >= byPulses ? Binding::PulseRate : Binding::Torque};
    return out;
}

} // namespace gantry
