// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/fixes/candidates.h"

#include "core/model/fields.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>

namespace gantry::fixes {
namespace {

using M = words::MessageId;
using units::Kind;

constexpr std::array stockTeeth{12, 14, 15, 16, 18, 20, 22, 24, 28, 30, 32, 36, 40, 48, 60};

double speedUnit(const Problem& p) {
    return p.evaluation().model.kind == AxisKind::Linear ? 1e-3 : 0.017453292519943295;
}

Kind speedKind(const Problem& p) {
    return p.evaluation().model.kind == AxisKind::Linear ? Kind::Speed : Kind::AngularSpeed;
}
Kind accelerationKind(const Problem& p) {
    return p.evaluation().model.kind == AxisKind::Linear ? Kind::Acceleration : Kind::AngularAcceleration;
}
std::string_view suffix(const Problem& p) {
    return p.evaluation().model.kind == AxisKind::Linear ? "_m" : "_rad";
}

std::string movementPath(const Problem& p, const ShotEvaluation& e, std::string_view key) {
    return "shots/" + p.project.shots[static_cast<std::size_t>(e.shot)].id + "/moves/" + p.axis().id +
           "/movement/" + std::string(key);
}

bool givenBySpeed(const Problem& p, const ShotEvaluation& e) {
    const Movement* m = findMovement(p.project.shots[static_cast<std::size_t>(e.shot)], p.axis().id);
    return m != nullptr && m->index() % 2 == 0;
}

/// The verdict's shot at another top speed: the speed itself, or all times of a timed movement in proportion.
void addSpeed(Family& family, const Problem& p, const ShotEvaluation& e, double speed) {
    if (!(speed > 0.0) || !e.motion.topSpeed) return;
    if (givenBySpeed(p, e)) {
        addSetting(family, p, FixCost::SettingOnly, M::FixShotSpeed, {speedKind(p), speed}, e.shot,
                   {{movementPath(p, e, "speed" + std::string(suffix(p)) + "_s"), speed}});
        return;
    }
    const double longer = e.motion.topSpeed.value() / speed;
    std::vector<std::pair<std::string, double>> fields;
    double time = 0.0;
    for (const std::string_view key : {"time_s", "ease_in_s", "ease_out_s"}) {
        const std::string path = movementPath(p, e, key);
        const double value = numberAt(p.project, path).value_or(0.0) * longer;
        if (key == "time_s") time = value;
        fields.emplace_back(path, value);
    }
    addSetting(family, p, FixCost::SettingOnly, M::FixShotTime, {Kind::Time, time}, e.shot, fields);
}

} // namespace

void addSetting(Family& family, const Problem& p, FixCost cost, M label, words::Argument shown, int shot,
                const std::vector<std::pair<std::string, double>>& fields) {
    Candidate c{cost, label, {shown}, shot, {}, p.project};
    for (const auto& [path, value] : fields) {
        if (!setNumberAt(c.result, path, value)) return;
        c.touched.push_back(path);
    }
    family.push_back(std::move(c));
}

double rounded(double value, double unit, bool up) {
    if (!(value > 0.0) || !std::isfinite(value)) return value;
    const double x = value / unit;
    const double grid = std::pow(10.0, std::floor(std::log10(x)) - 1.0);
    return (up ? std::ceil(x / grid - 1e-9) : std::floor(x / grid + 1e-9)) * grid * unit;
}

const ShotEvaluation* Problem::shot() const {
    const auto& shots = evaluation().shots;
    // What a part stands is judged by all shots together, and most by the one that pulls hardest.
    const ShotEvaluation* hardest = nullptr;
    for (const ShotEvaluation& s : shots) {
        if (s.shot == verdict.shot) return &s;
        if (verdict.shot < 0 && s.torque.force &&
            (hardest == nullptr || s.torque.force.value() > hardest->torque.force.value()))
            hardest = &s;
    }
    return hardest;
}

Family outputTeeth(const Problem& p) {
    Family family;
    const std::string path = p.evaluation().model.kind == AxisKind::Linear
                                 ? p.axisPath("mechanism/output/teeth")
                                 : p.axisPath("mechanism/output/pinion_teeth");
    const std::optional<double> now = numberAt(p.project, path);
    if (!now) return family;
    std::vector<int> teeth(stockTeeth.begin(), stockTeeth.end());
    const auto* linear = std::get_if<LinearMechanism>(&p.axis().mechanism);
    const auto* belt = linear != nullptr ? std::get_if<BeltOutput>(&linear->output) : nullptr;
    const auto owned = [&](int t) {
        return belt != nullptr && parts::onHand(p.shelf, "pulley", t, "pitch_m", belt->pitch.value);
    };
    for (const parts::Part& part : p.shelf)
        if (const int t = static_cast<int>(parts::numberOf(part, "teeth").value_or(0.0)); t > 0 && owned(t))
            teeth.push_back(t);
    std::sort(teeth.begin(), teeth.end(),
              [&](int a, int b) { return std::abs(a - *now) < std::abs(b - *now); });
    teeth.erase(std::unique(teeth.begin(), teeth.end()), teeth.end());
    for (const int t : teeth)
        if (t != static_cast<int>(*now))
            addSetting(family, p, owned(t) ? FixCost::PartOnHand : FixCost::ToBuy, M::FixTeeth,
                       {Kind::Count, static_cast<double>(t)}, -1, {{path, t}});
    return family;
}

Family reduction(const Problem& p) {
    Family family;
    constexpr std::array<std::array<int, 2>, 5> stock{{{20, 30}, {20, 40}, {16, 48}, {20, 80}, {16, 80}}};
    for (const auto& [motorTeeth, loadTeeth] : stock) {
        BeltStage stage;
        stage.id = freeId(p.project, p.axis().id + "-reduction");
        stage.motorTeeth = motorTeeth;
        stage.loadTeeth = loadTeeth;
        Candidate c{FixCost::ToBuy, M::FixReduction, {}, -1, {p.axisPath("links")}, p.project};
        c.arguments = {
            {{Kind::Count, static_cast<double>(motorTeeth)}, {Kind::Count, static_cast<double>(loadTeeth)}}};
        auto& links = c.result.axes[static_cast<std::size_t>(p.verdict.axis)].links;
        links.insert(links.begin(), stage);
        family.push_back(std::move(c));
    }
    return family;
}

Family microsteps(const Problem& p) {
    Family family;
    const auto* stepper = std::get_if<Stepper>(&p.axis().motor);
    if (stepper == nullptr || stepper->winding == Winding::Unipolar) return family;
    const int now = p.axis().driver.microsteps;
    const bool finer = ruleKey(p.verdict) != "pulse_rate";
    for (int m = finer ? now * 2 : now / 2; m >= 1 && m <= 256; m = finer ? m * 2 : m / 2)
        addSetting(family, p, FixCost::SettingOnly, M::FixMicrosteps, {Kind::Count, static_cast<double>(m)},
                   -1, {{p.axisPath("driver/microsteps"), m}});
    return family;
}

Family shotAcceleration(const Problem& p) {
    Family family;
    const ShotEvaluation* e = p.shot();
    if (e == nullptr || !e->motion.acceleration || !givenBySpeed(p, *e)) return family;
    const std::string path = movementPath(p, *e, "acceleration" + std::string(suffix(p)) + "_s2");
    std::vector<double> wishes;
    if (e->torque.maxAcceleration) wishes.push_back(e->torque.maxAcceleration.value());
    for (const double share : {0.8, 0.6, 0.45, 0.3, 0.2, 0.1})
        wishes.push_back(e->motion.acceleration.value() * share);
    for (const double wish : wishes) {
        const double a = rounded(wish, speedUnit(p), false);
        if (a > 0.0 && a < e->motion.acceleration.value())
            addSetting(family, p, FixCost::SettingOnly, M::FixShotAcceleration, {accelerationKind(p), a},
                       e->shot, {{path, a}});
    }
    return family;
}

/// Ramps that last whole periods of what rocks, the shortest first; with a jerk limit also jerk phases of one
/// period.
Family tunedRamps(const Problem& p) {
    Family family;
    const ShotEvaluation* e = p.shot();
    const auto& mode = p.evaluation().model.mode;
    if (e == nullptr || !e->motion.acceleration || !mode) return family;
    const double period = 1.0 / mode->frequency, speed = e->motion.topSpeed.value();
    const bool linear = p.evaluation().model.kind == AxisKind::Linear;
    if (p.project.controller.ramps == RampKind::SCurve) {
        const double jerk = e->motion.acceleration.value() / period;
        addSetting(family, p, FixCost::SettingOnly, M::FixJerk,
                   {linear ? Kind::Jerk : Kind::AngularJerk, jerk}, -1,
                   {{p.axisPath("mechanism/motion/jerk" + std::string(suffix(p)) + "_s3"), jerk}});
    }
    for (int n = 1; n <= 12; ++n) {
        const double ramp = n * period;
        if (givenBySpeed(p, *e)) {
            const double a = speed / ramp;
            if (a < e->motion.acceleration.value() * 1.2)
                addSetting(family, p, FixCost::SettingOnly, M::FixShotAcceleration, {accelerationKind(p), a},
                           e->shot,
                           {{movementPath(p, *e, "acceleration" + std::string(suffix(p)) + "_s2"), a}});
            continue;
        }
        addSetting(family, p, FixCost::SettingOnly, M::FixShotEase, {Kind::Time, ramp}, e->shot,
                   {{movementPath(p, *e, "ease_in_s"), ramp}, {movementPath(p, *e, "ease_out_s"), ramp}});
    }
    return family;
}

Family slowerShot(const Problem& p) {
    Family family;
    const ShotEvaluation* e = p.shot();
    if (e == nullptr || !e->motion.topSpeed) return family;
    const double now = e->motion.topSpeed.value();
    std::vector<double> wishes;
    // A ratio that goes with the inverse of speed says at once how slow would be fine, and how slow would do.
    const double ratio = p.verdict.ratio.value();
    for (const double goal : {p.verdict.bounds.wanted, 1.0})
        if (ratio < goal) wishes.push_back(now * ratio / goal);
    for (const double share : {0.9, 0.8, 0.7, 0.55, 0.4, 0.25, 0.15}) wishes.push_back(now * share);
    for (const double wish : wishes) addSpeed(family, p, *e, rounded(wish, speedUnit(p), false));
    return family;
}

Family fasterShot(const Problem& p) {
    Family family;
    const ShotEvaluation* e = p.shot();
    if (e == nullptr || !e->motion.topSpeed) return family;
    for (const double share : {1.15, 1.3, 1.5, 1.75, 2.0})
        addSpeed(family, p, *e, rounded(e->motion.topSpeed.value() * share, speedUnit(p), true));
    return family;
}

Family supplyVoltage(const Problem& p) {
    Family family;
    const double now = p.project.supply.voltage.value;
    for (const double volts : {12.0, 24.0, 28.0, 36.0, 48.0}) {
        if (volts <= now) continue;
        const bool withinRatings = std::all_of(p.project.axes.begin(), p.project.axes.end(),
                                               [&](const Axis& a) { return volts <= a.driver.maxVoltage; });
        if (!withinRatings) continue;
        const double low = p.project.supply.lowVoltage.value * volts / now;
        addSetting(family, p, FixCost::ToBuy, M::FixSupplyVoltage, {Kind::Voltage, volts}, -1,
                   {{"supply/voltage_V", volts}, {"supply/low_voltage_V", low}});
    }
    return family;
}

Family runCurrent(const Problem& p) {
    Family family;
    const ShotEvaluation* e = p.shot();
    if (p.evaluation().model.stepper() == nullptr) return family;
    const double ceiling =
        std::min(p.axis().driver.maxCurrent, p.evaluation().model.stepper()->ratedCurrentRms);
    const double now = p.axis().driver.runCurrent;
    std::vector<double> wishes;
    if (e != nullptr && e->torque.leastCurrent)
        wishes.push_back(rounded(e->torque.leastCurrent.value(), 1.0, true));
    wishes.push_back(ceiling);
    for (const double amps : wishes)
        if (amps > now && amps <= ceiling * (1.0 + 1e-9))
            addSetting(family, p, FixCost::SettingOnly, M::FixRunCurrent, {Kind::Current, amps}, -1,
                       {{p.axisPath("driver/run_current_rms_A"), amps}});
    return family;
}

Family holdCurrent(const Problem& p) {
    Family family;
    if (p.evaluation().model.stepper() == nullptr) return family;
    const double ceiling =
        std::min(p.axis().driver.maxCurrent, p.evaluation().model.stepper()->ratedCurrentRms);
    const double now = p.axis().driver.holdCurrent;
    const double needed =
        p.verdict.ratio.value() > 0.0 ? now * p.verdict.bounds.wanted / p.verdict.ratio.value() : ceiling;
    for (const double amps : {rounded(needed, 1.0, true), p.axis().driver.runCurrent, ceiling})
        if (amps > now && amps <= ceiling)
            addSetting(family, p, FixCost::SettingOnly, M::FixHoldCurrent, {Kind::Current, amps}, -1,
                       {{p.axisPath("driver/hold_current_rms_A"), amps}});
    return family;
}

Family brake(const Problem& p) {
    Family family;
    if (p.axis().brake.fitted) return family;
    // A brake is held from the data sheet's static torque; stock sizes.
    const auto owned = [&](double torque) {
        return std::any_of(p.shelf.begin(), p.shelf.end(), [&](const parts::Part& part) {
            return part.family == "brake" && part.count > 0 &&
                   std::abs(parts::numberOf(part, "holding_torque_Nm").value_or(0.0) - torque) < 1e-6;
        });
    };
    for (const double torque : {0.2, 0.4, 1.0, 2.0, 4.0, 8.0})
        addSetting(family, p, owned(torque) ? FixCost::PartOnHand : FixCost::ToBuy, M::FixBrake,
                   {Kind::Torque, torque}, -1,
                   {{p.axisPath("brake/fitted"), 1.0}, {p.axisPath("brake/holding_torque_Nm"), torque}});
    // Bought with a data sheet, so its tolerance is a data sheet's.
    for (Candidate& c : family) {
        Estimate& held = c.result.axes[static_cast<std::size_t>(p.verdict.axis)].brake.holdingTorque;
        held = estimate(held.value, Source::DataSheet);
    }
    return family;
}

Family subjectDistance(const Problem& p) {
    Family family;
    const ShotEvaluation* e = p.shot();
    if (e == nullptr || p.evaluation().model.kind != AxisKind::Linear) return family;
    const Shot& shot = p.project.shots[static_cast<std::size_t>(e->shot)];
    for (const double goal : {p.verdict.bounds.wanted, 1.0}) {
        const double distance = rounded(shot.subjectDistance * goal / p.verdict.ratio.value(), 1.0, true);
        if (distance > shot.subjectDistance)
            addSetting(family, p, FixCost::SettingOnly, M::FixDistance, {Kind::Length, distance}, e->shot,
                       {{"shots/" + shot.id + "/subject_distance_m", distance}});
    }
    return family;
}

Family controllerPulses(const Problem& p) {
    Family family;
    for (const double ceiling : {40e3, 100e3, 200e3, 500e3})
        if (ceiling > p.project.controller.pulseCeiling)
            addSetting(family, p, FixCost::ToBuy, M::FixController, {Kind::Frequency, ceiling}, -1,
                       {{"controller/pulse_ceiling_hz", ceiling}});
    return family;
}

Family controllerDecimals(const Problem& p) {
    Family family;
    for (int decimals = p.project.controller.decimalsKept + 1; decimals <= 6; ++decimals)
        addSetting(family, p, FixCost::ToBuy, M::FixDecimals, {Kind::Count, static_cast<double>(decimals)},
                   -1, {{"controller/decimals_kept", decimals}});
    return family;
}

Family settingsUpToShot(const Problem& p) {
    Family family;
    const ShotEvaluation* e = p.shot();
    if (e == nullptr || !e->motion.topSpeed) return family;
    const motion::Limits& set = p.evaluation().model.settings;
    const double speed = std::max(set.speed, rounded(e->motion.topSpeed.value(), speedUnit(p), true));
    const double acceleration =
        std::max(set.acceleration, rounded(e->motion.acceleration.value(), speedUnit(p), true));
    const bool bySpeed = speed > set.speed;
    addSetting(
        family, p, FixCost::SettingOnly, bySpeed ? M::FixMaxSpeed : M::FixMaxAcceleration,
        bySpeed ? words::Argument{speedKind(p), speed} : words::Argument{accelerationKind(p), acceleration},
        -1,
        {{p.axisPath("mechanism/motion/max_speed" + std::string(suffix(p)) + "_s"), speed},
         {p.axisPath("mechanism/motion/max_acceleration" + std::string(suffix(p)) + "_s2"), acceleration}});
    return family;
}

Family stopBehaviour(const Problem& p) {
    Family family;
    if (p.axis().onStop == OnStop::KeepsHolding) return family;
    Candidate c{FixCost::SettingOnly, M::FixStopKeepsHolding, {}, -1, {p.axisPath("on_stop")}, p.project};
    c.result.axes[static_cast<std::size_t>(p.verdict.axis)].onStop = OnStop::KeepsHolding;
    family.push_back(std::move(c));
    return family;
}

Family mountMaterial(const Problem& p) {
    Family family;
    Candidate c{FixCost::ToBuy, M::FixMetalMount, {}, -1, {p.axisPath("motor/mount")}, p.project};
    std::visit([](auto& m) { m.body.mount = MountMaterial::Metal; },
               c.result.axes[static_cast<std::size_t>(p.verdict.axis)].motor);
    family.push_back(std::move(c));
    return family;
}

Family lowerRunCurrent(const Problem& p) {
    Family family;
    for (const double share : {0.9, 0.8, 0.7, 0.6, 0.5}) {
        const double amps = rounded(p.axis().driver.runCurrent * share, 1.0, false);
        addSetting(family, p, FixCost::SettingOnly, M::FixRunCurrent, {Kind::Current, amps}, -1,
                   {{p.axisPath("driver/run_current_rms_A"), amps}});
    }
    return family;
}

Family faceWidth(const Problem& p) {
    Family family;
    for (const Link& link : p.axis().links)
        if (const auto* gear = std::get_if<GearStage>(&link))
            for (const double factor : {1.5, 2.0, 3.0}) {
                const double width = rounded(gear->faceWidth * factor, 1e-3, true);
                addSetting(family, p, FixCost::ToBuy, M::FixFaceWidth, {Kind::PartLength, width}, -1,
                           {{p.axisPath("links/" + gear->id + "/face_width_m"), width}});
            }
    return family;
}

Family closedCord(const Problem& p) {
    Family family;
    addSetting(family, p, FixCost::ToBuy, M::FixClosedCord, {}, -1,
               {{p.axisPath("mechanism/output/closed_loop"), 1.0}});
    return family;
}

Family knobUp(const Problem& p) {
    Family family;
    addSetting(family, p, FixCost::SettingOnly, M::FixKnob, {Kind::Percentage, 1.0}, -1,
               {{p.axisPath("motor/knob"), 1.0}});
    return family;
}

std::vector<Family (*)(const Problem&)> familiesFor(std::string_view rule) {
    if (rule == "torque")
        return {runCurrent, knobUp, shotAcceleration, slowerShot, outputTeeth, reduction, supplyVoltage};
    if (rule == "power_off") return {brake};
    if (rule == "emergency_stop") return {stopBehaviour, brake};
    if (rule == "case_temperature") return {lowerRunCurrent, mountMaterial};
    if (rule == "tooth_strength") return {faceWidth, shotAcceleration};
    if (rule == "cord_slack") return {shotAcceleration, slowerShot, closedCord};
    if (rule == "grip") return {shotAcceleration, slowerShot};
    if (rule == "duty") return {shotAcceleration, slowerShot, reduction};
    if (rule == "motor_speed") return {slowerShot, knobUp, supplyVoltage};
    if (rule == "whirl") return {slowerShot};
    if (rule == "noise") return {microsteps, slowerShot};
    if (rule == "following") return {slowerShot};
    if (rule == "standstill") return {holdCurrent, outputTeeth, reduction};
    if (rule == "pulse_rate") return {microsteps, slowerShot, outputTeeth, controllerPulses};
    if (rule == "resonance") return {fasterShot, slowerShot, outputTeeth, reduction};
    if (rule == "stepping" || rule == "jitter") return {microsteps, outputTeeth, reduction, fasterShot};
    if (rule == "vibration") return {tunedRamps, shotAcceleration, slowerShot};
    if (rule == "drift") return {shotAcceleration, slowerShot};
    if (rule == "judder") return {slowerShot, subjectDistance};
    if (rule == "rounding") return {controllerDecimals, outputTeeth, microsteps};
    if (rule == "stopping") return {slowerShot};
    if (rule == "settings") return {settingsUpToShot, slowerShot};
    if (rule == "ease") return {slowerShot};
    if (rule == "repeat") return {holdCurrent};
    if (rule == "sag") return {bestStandPlaces, stockSection, slowerShot};
    if (rule == "settling")
        return {slowerSteps,  tunedRamps,  shotAcceleration, longerSettle,
                stockSection, stifferPads, slowerShot};
    if (rule == "rail_tipping") return {standsOutwards};
    if (rule == "rail_clamps") return {clampBolts, standsOutwards};
    if (rule == "beam_strength") return {stockSection};
    if (rule == "pivot") return {thickerPin};
    if (rule == "balance") return {counterweight};
    if (rule == "tipping") return {shotAcceleration, ballast, ballastOnLeg, widerFeet, lowerColumn};
    if (rule == "tether") return {secondTether};
    return {};
}

} // namespace gantry::fixes
