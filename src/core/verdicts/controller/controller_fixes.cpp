// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/criteria/criteria.h"
#include "core/tools/limits.h"
#include "core/verdicts/fixes/family.h"

#include <algorithm>

namespace gantry::fixes {
namespace {

constexpr Message microsteps{"1/{0} microsteps"};
constexpr Message pulses{"controller with {0} of pulses"};
constexpr Message decimals{"controller that keeps {0} or more decimals"};
constexpr Message ramps{"controller that ramps up and down"};
constexpr Message topSpeed{"top speed setting {0}"};
constexpr Message topAcceleration{"top acceleration setting {0}"};
constexpr Message bothSettings{"settings {0} and {1} at most"};

constexpr int finestMicrosteps = 256, mostDecimals = 6;

void addMicrosteps(Candidates& out, const Problem& p, int m) {
    add(out, p, FixCost::SettingOnly, microsteps, {{{Kind::Count, static_cast<double>(m)}}},
        [&](Axis& a) { a.driver.microsteps = m; });
}

/// Whether the driver divides the motor's steps.
bool divides(const Problem& p) {
    const auto* stepper = std::get_if<Stepper>(&p.axis().motor);
    return stepper != nullptr && stepper->winding != Winding::Unipolar;
}

Candidates finer(const Problem& p) {
    Candidates out;
    if (divides(p))
        for (int m = p.axis().driver.microsteps * 2; m <= finestMicrosteps; m *= 2) addMicrosteps(out, p, m);
    return out;
}

Candidates coarser(const Problem& p) {
    Candidates out;
    if (divides(p))
        for (int m = p.axis().driver.microsteps / 2; m >= 1; m /= 2) addMicrosteps(out, p, m);
    return out;
}

Candidates quickerController(const Problem& p) {
    Candidates out;
    for (const double ceiling : {40e3, 100e3, 200e3, 500e3})
        if (ceiling > p.project.controller.pulseCeiling)
            add(out, p, FixCost::ToBuy, pulses, {{{Kind::Frequency, ceiling}}},
                [&](Project& q) { q.controller.pulseCeiling = ceiling; });
    return out;
}

Candidates moreDecimals(const Problem& p) {
    Candidates out;
    for (int kept = p.project.controller.decimalsKept + 1; kept <= mostDecimals; ++kept)
        add(out, p, FixCost::ToBuy, decimals, {{{Kind::Count, static_cast<double>(kept)}}},
            [&](Project& q) { q.controller.decimalsKept = kept; });
    return out;
}

Candidates withRamps(const Problem& p) {
    Candidates out;
    if (p.evaluation().model.atOnce && !p.evaluation().model.oneSpeed)
        add(out, p, FixCost::ToBuy, ramps, {}, [](Project& q) { q.controller.ramps = RampKind::Trapezoid; });
    return out;
}

/// Sets what the controller may be told at most.
void set(Axis& a, double speed, double acceleration) {
    std::visit(
        [&](auto& mechanism) {
            mechanism.motion.maxSpeed = speed;
            mechanism.motion.maxAcceleration = acceleration;
        },
        a.mechanism);
}

Candidates raisedSettings(const Problem& p) {
    Candidates out;
    const ShotEvaluation* e = p.shot();
    if (e == nullptr || !e->motion.topSpeed || !e->motion.acceleration) return out;
    const motion::Limits& now = p.evaluation().model.settings;
    const double speed = std::max(now.speed, rounded(e->motion.topSpeed.value(), p.setIn(), true));
    const double acceleration =
        std::max(now.acceleration, rounded(e->motion.acceleration.value(), p.setIn(), true));
    const bool bySpeed = speed > now.speed;
    const words::Argument shown =
        bySpeed ? words::Argument{p.speedKind(), speed} : words::Argument{p.accelerationKind(), acceleration};
    add(out, p, FixCost::SettingOnly, bySpeed ? topSpeed : topAcceleration, {{shown}},
        [&](Axis& a) { set(a, speed, acceleration); });
    return out;
}

/// Down to what is recommended: room above every shot, within what the axis can follow.
Candidates loweredSettings(const Problem& p) {
    Candidates out;
    const AxisLimits limits = axisLimits(p.project, p.axis(), p.evaluation());
    const motion::Limits& now = p.evaluation().model.settings;
    const double speed = std::min(now.speed, rounded(limits.recommended.speed, p.setIn(), false)),
                 acceleration =
                     std::min(now.acceleration, rounded(limits.recommended.acceleration, p.setIn(), false));
    const auto offer = [&](double v, double a) {
        if (v > 0.0 && a > 0.0 && (v != now.speed || a != now.acceleration))
            add(out, p, FixCost::SettingOnly, bothSettings, {{{p.speedKind(), v}, {p.accelerationKind(), a}}},
                [&](Axis& axis) { set(axis, v, a); });
    };
    if (limits.problem == Reason::None) {
        offer(speed, now.acceleration);
        offer(now.speed, acceleration);
        offer(speed, acceleration);
    }
    // Where nothing can be recommended with the margin that is wanted: what the shots need.
    double fastest = 0.0, steepest = 0.0;
    for (const ShotEvaluation& e : p.evaluation().shots) {
        fastest = std::max(fastest, e.motion.topSpeed.valueOr(0.0));
        steepest = std::max(steepest, e.motion.acceleration.valueOr(0.0));
    }
    for (const double room : {criteria::shotRoom.value, 1.0})
        offer(std::min(now.speed, rounded(room * fastest, p.setIn(), true)),
              std::min(now.acceleration, rounded(room * steepest, p.setIn(), true)));
    return out;
}

} // namespace

constinit const Family finerMicrosteps{"finer_microsteps", words::listOf<microsteps>, finer};
constinit const Family coarserMicrosteps{"coarser_microsteps", words::listOf<microsteps>, coarser};
constinit const Family controllerPulses{"controller_pulses", words::listOf<pulses>, quickerController};
constinit const Family controllerDecimals{"controller_decimals", words::listOf<decimals>, moreDecimals};
constinit const Family controllerRamps{"controller_ramps", words::listOf<ramps>, withRamps};
constinit const Family settingsUpToShot{"settings_up_to_shot", words::listOf<topSpeed, topAcceleration>,
                                        raisedSettings};
constinit const Family settingsToLimits{"settings_to_limits", words::listOf<bothSettings>, loweredSettings};

} // namespace gantry::fixes
