// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/capability.h"
#include "core/solve/root.h"
#include "core/units/names.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

/// What a search over one quantity found. Where the margin is not there even at nothing, it fails unloaded.
/// @param bindsAt what gives out a little beyond a value
template <class Binds>
CapabilityFigure figure(std::optional<double> value, double ceiling, Binds bindsAt) {
    if (!value) return {Figure::none(Reason::FailsUnloaded), bindsAt(0.0)};
    if (*value >= ceiling) return {Figure::none(Reason::Unbounded), Binding::Nothing};
    return {*value, bindsAt(*value)};
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

    const auto moves = [&](const DriveModel& m) { return m.margin(speed, acceleration) >= wanted; };
    // Gravity has to be held at standstill with the same margin, by the hold current, without friction's
    // help.
    const bool holds = evaluation.holdAvailable && !evaluation.checks.locks;
    const double held = evaluation.holdAvailable.valueOr(0.0);
    const auto stands = [&](const DriveModel& m) { return !holds || held >= wanted * m.gravityAtMotor(); };
    /// The model with a quantity of its load set to x.
    const auto search = [&](double most, auto with) {
        const auto found = solve::largestWhere(
            [&](double x) {
                const DriveModel m = with(x);
                return moves(m) && stands(m);
            },
            0.0, most);
        return figure(found, most, [&](double x) {
            const DriveModel beyond = with(std::min(most, x * (1.0 + 1e-6) + 1e-12));
            return moves(beyond) && !stands(beyond) ? Binding::Standing : Binding::Torque;
        });
    };

    // More mass needs more of everything that hangs on it; friction is held.
    constexpr double heaviest = 1e5;
    out.load = search(heaviest, [&](double x) {
        DriveModel m = model;
        m.chain.load.inertia = x;
        if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism))
            m.chain.load.steady = x * standardGravity * std::sin(linear->slope.value);
        return m;
    });

    if (model.kind == AxisKind::Linear) {
        out.slope = search(std::numbers::pi / 2.0, [&](double x) {
            DriveModel m = model;
            m.chain.load.steady = model.chain.load.inertia * standardGravity * std::sin(x);
            return m;
        });
    } else {
        out.slope.value = Figure::none(Reason::NotApplicable);
    }

    const double a = model.largestAcceleration(speed);
    out.acceleration = {a > 0.0 ? Figure::of(a, Reason::Unbounded) : Figure::none(Reason::FailsUnloaded),
                        std::isfinite(a) ? Binding::Torque : Binding::Nothing};

    // 1e5 rad/s is beyond any motor; a drive without pulses is bound by its torque before that.
    const double byPulses = model.pulses ? model.pulseCeiling * model.microstep() : 1e5 * model.outputPerRad;
    const auto v =
        solve::largestWhere([&](double x) { return model.margin(x, acceleration) >= wanted; }, 0.0, byPulses);
    out.speed = {v ? Figure(*v) : Figure::none(Reason::FailsUnloaded),
                 v && *v >= byPulses ? Binding::PulseRate : Binding::Torque};
    return out;
}

std::string_view bindingName(Binding binding) {
    return units::nameOf<Binding::Nothing>(binding, "torque", "holding at standstill", "pulses", "nothing");
}

} // namespace gantry
