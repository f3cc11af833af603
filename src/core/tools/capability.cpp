// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/capability.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

/// Largest x in [0, ceiling] for which `works`, which holds up to some x and not beyond. NaN if it fails at
/// 0.
template <class F>
double largest(F works, double ceiling) {
    if (!works(0.0)) return std::numeric_limits<double>::quiet_NaN();
    if (works(ceiling)) return ceiling;
    double low = 0.0, high = ceiling;
    for (int i = 0; i < 60 && high - low > 1e-10 * high; ++i) {
        const double middle = 0.5 * (low + high);
        (works(middle) ? low : high) = middle;
    }
    return low;
}

CapabilityFigure figure(double value, double ceiling) {
    if (value >= ceiling) return {Figure::none(Reason::Unbounded), Binding::Nothing};
    return {Figure::of(value, Reason::OutOfRange), Binding::Torque};
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
    const double load = largest(
        [&](double x) {
            DriveModel m = model;
            m.chain.load.inertia = x;
            if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism))
                m.chain.load.steady = x * standardGravity * std::sin(linear->slope.value);
            return m.margin(speed, acceleration) >= wanted;
        },
        heaviest);
    out.load = figure(load, heaviest);

    if (model.kind == AxisKind::Linear) {
        const double steepest = std::numbers::pi / 2.0;
        const double slope = largest(
            [&](double x) {
                DriveModel m = model;
                m.chain.load.steady = model.chain.load.inertia * standardGravity * std::sin(x);
                return m.margin(speed, acceleration) >= wanted;
            },
            steepest);
        out.slope = figure(slope, steepest);
    } else {
        out.slope.value = Figure::none(Reason::NotApplicable);
    }

    const double a = model.largestAcceleration(speed);
    out.acceleration = {a > 0.0 ? Figure::of(a, Reason::Unbounded) : Figure::none(Reason::OutOfRange),
                        std::isfinite(a) ? Binding::Torque : Binding::Nothing};

    // 1e5 rad/s is beyond any motor; a drive without pulses is bound by its torque before that.
    const double byPulses = model.pulses ? model.pulseCeiling * model.microstep() : 1e5 * model.outputPerRad;
    const double v = largest([&](double x) { return model.margin(x, acceleration) >= wanted; }, byPulses);
    out.speed = {Figure::of(v), v >= byPulses ? Binding::PulseRate : Binding::Torque};
    return out;
}

} // namespace gantry
