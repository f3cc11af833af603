// SPDX-License-Identifier: GPL-3.0-or-later
// How fast one stepper axis is simulated (bars on one core: 40 times real time at 2.5 µs, 80 times at 5 µs),
// and how much faster than the same equations with the same sampled chopper and pulses in an adaptive
// fifth-order solver at rtol 1e-6 (bar: 8 times, positions within a tenth of a microstep). --once fails on
// the ratio and the positions.
#include "core/simulation/axis_simulation.h"
#include "core/simulation/pulse_train.h"
#include "machine.h"

#include <array>
#include <boost/numeric/odeint.hpp>
#include <chrono>
#include <cmath>
#include <iostream>
#include <numbers>

namespace {

using namespace gantry;
using namespace gantry::simulation;

/// The worked belt slider with viscous in place of dry friction, which an adaptive solver would stumble over.
AxisSimulation slider() {
    AxisSimulation s;
    s.mechanism.motorInertia = 5.7e-6;
    s.mechanism.outputPerRad = 0.04 / (2 * std::numbers::pi);
    s.mechanism.stiffness = 4e4;
    s.mechanism.damping = 8.0;
    s.mechanism.efficiency = 0.95;
    s.mechanism.backEfficiency = 2.0 - 1.0 / 0.95;
    s.mechanism.loadInertia = 4.1;
    s.mechanism.steady = 8.36;
    s.mechanism.viscous = 12.0;
    s.mechanism.motorDamping = 0.01;
    s.mechanism.modeFrequency = 6.0;
    StepperDriveParams d;
    d.torqueConstant = 0.183;
    d.resistance = 1.5;
    d.inductance = 2.8e-3;
    d.supplyVoltage = 24;
    d.peakCurrent = 1.697;
    s.drive = d;
    s.profile = motion::plan(0.2, {0.25, 0.8, 4.0});
    s.commandStep = 0.04 / 3200;
    s.tail = 0.1;
    return s;
}

double seconds(std::chrono::steady_clock::time_point since) {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - since).count();
}

constexpr double preRoll = 0.15; ///< [s] before the move, in which the rotor comes to rest under the load

/// ia, ib, angle, speed, position, velocity, deflection, deflecting
using State = std::array<double, 8>;

struct Adaptive {
    AxisSimulation in = slider();
    StepperDriveParams d = std::get<StepperDriveParams>(in.drive);
    double ua = 0, ub = 0, field = 0;

    void operator()(const State& s, State& out, double) const {
        const MechanismParams& m = in.mechanism;
        const double e = d.rotorTeeth * s[2], sine = std::sin(e), cosine = std::cos(e);
        const double ka = -d.torqueConstant * sine, kb = d.torqueConstant * cosine;
        out[0] = (ua - d.resistance * s[0] - ka * s[3]) / d.inductance;
        out[1] = (ub - d.resistance * s[1] - kb * s[3]) / d.inductance;
        const double wound = s[2] * m.outputPerRad - s[4], closing = s[3] * m.outputPerRad - s[5];
        double force = m.stiffness * wound;
        force = force > 0 ? std::max(0.0, force + m.damping * closing)
                          : std::min(0.0, force + m.damping * closing);
        const bool forward = force * (s[5] != 0.0 ? s[5] : s[3]) >= 0.0;
        const double onLoad = forward ? force * m.efficiency : force,
                     onMotor = forward ? force : force * m.backEfficiency;
        out[2] = s[3];
        out[3] = (ka * s[0] + kb * s[1] - onMotor * m.outputPerRad - m.motorDamping * (s[3] - field)) /
                 m.motorInertia;
        out[4] = s[5];
        out[5] = (onLoad - m.steady - m.viscous * s[5]) / m.loadInertia;
        const double w = 2 * std::numbers::pi * m.modeFrequency;
        out[6] = s[7];
        out[7] = -out[5] - w * w * s[6] - 2 * m.modeDamping * w * s[7];
    }
};

/// Position [U] of the load after `time` of the move, by the adaptive solver between chopper looks and
/// pulses.
double adaptivePosition(double time) {
    namespace ode = boost::numeric::odeint;
    Adaptive f;
    const auto pulses = pulseTrain(f.in.profile, f.in.commandStep, f.in.pulseCeiling);
    auto stepper = ode::make_controlled<ode::runge_kutta_dopri5<State>>(1e-9, 1e-6);
    const MechanismParams& m = f.in.mechanism;
    const double windUp = m.steady / m.efficiency / m.stiffness, calmed = 2e-3;
    const auto looks = static_cast<long>(std::llround((time + preRoll) / f.d.chopperPeriod));
    State s{f.d.peakCurrent, 0, 0, 0, 0, 0, 0, 0};
    std::size_t next = 0;
    double phase = 0, zero = 0, guess = 1e-6;
    for (long n = 0; n < looks; ++n) {
        double now = static_cast<double>(n) * f.d.chopperPeriod - preRoll;
        const double end = now + f.d.chopperPeriod;
        // Until the move begins, the load rests on its spring and the swing of the rotor dies down.
        if (n <= std::llround(preRoll / f.d.chopperPeriod)) {
            s[3] *=
                n == std::llround(preRoll / f.d.chopperPeriod) ? 1.0 : std::exp(-f.d.chopperPeriod / calmed);
            zero = s[4] = s[2] * m.outputPerRad - windUp;
            s[5] = s[6] = s[7] = 0;
        }
        if (now >= 0) f.field = f.in.profile.at(now).speed / f.in.mechanism.outputPerRad;
        while (next < pulses.size() && pulses[next] <= now) {
            ++next;
            phase =
                static_cast<double>(next) * f.in.commandStep / f.in.mechanism.outputPerRad * f.d.rotorTeeth;
        }
        f.ua = f.d.peakCurrent * std::cos(phase) > s[0] ? f.d.supplyVoltage : -f.d.supplyVoltage;
        f.ub = f.d.peakCurrent * std::sin(phase) > s[1] ? f.d.supplyVoltage : -f.d.supplyVoltage;
        ode::integrate_adaptive(stepper, std::ref(f), s, now, end, std::min(guess, f.d.chopperPeriod));
    }
    return s[4] - zero;
}

} // namespace

int main(int, char**) {
    std::cout << processorName() << '\n';
    AxisSimulation s = slider();
    const double length = s.profile.time() + s.tail + preRoll;
    double best[2] = {0, 0};
    for (int k = 0; k < 2; ++k) {
        s.step = k == 0 ? 2.5e-6 : 5e-6;
        double least = 1e9;
        for (int i = 0; i < 5; ++i) {
            const auto start = std::chrono::steady_clock::now();
            if (!simulate(s).finished) return 1;
            least = std::min(least, seconds(start));
        }
        best[k] = least;
        std::cout << "one stepper axis at " << s.step * 1e6 << " µs: " << length / least
                  << " times real time, " << least / (length / s.step) * 1e9 << " ns a step\n";
    }
    // A shorter stretch of the same move for the slow one.
    AxisSimulation part = slider();
    part.tail = 0.0;
    part.step = 5e-6;
    const double until = 0.3;
    const auto start = std::chrono::steady_clock::now();
    const double slow = adaptivePosition(until);
    const double slowTime = seconds(start);
    const auto result = simulate(part);
    double fast = 0;
    for (std::size_t i = 1; i < result.trace.size(); ++i)
        if (result.trace[i].time >= until) {
            const Sample &a = result.trace[i - 1], &b = result.trace[i];
            fast = a.position + (b.position - a.position) * (until - a.time) / (b.time - a.time);
            break;
        }
    const double off = std::abs(fast - slow) / part.commandStep;
    const double ratio = slowTime / (until + preRoll) / (best[1] / length);
    std::cout << "adaptive fifth order at rtol 1e-6: " << (until + preRoll) / slowTime
              << " times real time; position " << slow * 1e3 << " mm against " << fast * 1e3 << " mm, " << off
              << " microsteps apart\n"
              << "ratio at 5 µs: " << ratio << " times faster\n";
    if (ratio < 8.0 || off > 0.1) {
        std::cout << "The simulation must be at least 8 times faster and within 0.1 microstep.\n";
        return 1;
    }
}
