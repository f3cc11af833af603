// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/crosscheck/crosscheck.h"

#include "core/units/text.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <numbers>

namespace gantry::crosscheck {
namespace {

using units::Kind;
constexpr double pi = std::numbers::pi;

std::string lower(std::string_view s) {
    std::string out(s);
    std::transform(out.begin(), out.end(), out.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return out;
}

bool has(const std::string& line, std::initializer_list<std::string_view> words) {
    return std::any_of(words.begin(), words.end(),
                       [&](std::string_view w) { return line.find(w) != std::string::npos; });
}

std::string shown(double value, int decimals = 4) {
    return units::plainNumber(value, decimals);
}

/// Known ways in which numbers get mixed up, as factors between what was typed and what is meant.
struct MixUp {
    double factor;
    std::string_view what;
};
constexpr std::array lengthMixUps{
    MixUp{25.4, "inches typed as millimetres"}, MixUp{1.0 / 25.4, "millimetres typed as inches"},
    MixUp{10.0, "centimetres and millimetres"}, MixUp{0.1, "centimetres and millimetres"}};
constexpr std::array speedMixUps{MixUp{60.0, "a speed per minute where one per second is meant"},
                                 MixUp{1.0 / 60.0, "a speed per second where one per minute is meant"}};
constexpr std::array angleMixUps{
    MixUp{180.0 / pi, "degrees typed as radians"}, MixUp{pi / 180.0, "radians typed as degrees"},
    MixUp{1.0 / 360.0, "turns typed as degrees"}, MixUp{360.0, "degrees typed as turns"}};

class SuspectList {
public:
    SuspectList(double computed, double entered, std::vector<Suspect>& out)
        : computed_(computed), entered_(entered), out_(out) {}
    /// `factor`: what the change does to the steps per unit.
    void add(std::string what, double factor) {
        const double steps = computed_ * factor, error = std::abs(entered_ / steps - 1.0);
        // Within half a per cent it explains the number; half of where it stands now at least.
        if (error < 0.005 && std::abs(factor - 1.0) > 1e-9)
            out_.push_back({std::move(what), steps, error, 100.0 * entered_ / steps});
    }

private:
    double computed_, entered_;
    std::vector<Suspect>& out_;
};

void suspectTeeth(SuspectList& list, const char* what, int teeth, bool raises) {
    for (int t = 8; t <= 120; ++t)
        list.add(std::string(what) + " with " + std::to_string(t) + " teeth instead of " +
                     std::to_string(teeth),
                 raises ? static_cast<double>(t) / teeth : static_cast<double>(teeth) / t);
}

/// Which figure of a part may be another one. A new kind of part does not compile before it says so too.
struct SuspectParts {
    SuspectList& list;
    const Axis& axis;

    void operator()(const Stepper& m) const {
        for (int steps = 1; steps <= 256; steps *= 2)
            list.add("1/" + std::to_string(steps) + " microsteps instead of 1/" +
                         std::to_string(axis.driver.microsteps),
                     static_cast<double>(steps) / axis.driver.microsteps);
        for (const int teeth : {25, 50, 100})
            list.add("a motor with " + shown(90.0 / teeth, 2) + "° a step instead of " +
                         shown(90.0 / m.rotorTeeth, 2) + "°",
                     static_cast<double>(teeth) / m.rotorTeeth);
    }
    void operator()(const ServoMotor&) const {}
    void operator()(const DcServo&) const {}
    void operator()(const GearedDc&) const {}
    void operator()(const HobbyServo&) const {}

    void operator()(const BeltOutput& belt) const {
        suspectTeeth(list, "a pulley", belt.teeth, false);
        for (const double pitch : {0.002, 0.002032, 0.0025, 0.003, 0.005, 0.00508})
            list.add("a belt pitch of " + shown(pitch * 1e3) + " mm instead of " +
                         shown(belt.pitch.value * 1e3) + " mm",
                     belt.pitch.value / pitch);
        list.add(belt.doubled ? "a belt that is not doubled" : "a belt that is doubled",
                 belt.doubled ? 0.5 : 2.0);
    }
    void operator()(const ScrewOutput& screw) const {
        for (const double lead : {0.001, 0.0015, 0.002, 0.003, 0.004, 0.005, 0.008, 0.010, 0.012, 0.016})
            list.add("a lead of " + shown(lead * 1e3) + " mm instead of " + shown(screw.lead.value * 1e3) +
                         " mm",
                     screw.lead.value / lead);
    }
    void operator()(const RackOutput& rack) const { suspectTeeth(list, "a pinion", rack.teeth, false); }
    void operator()(const WheelOutput&) const {}
    void operator()(const WinchOutput&) const {}
    void operator()(const DirectOutput&) const {}
    void operator()(const RingOutput& ring) const {
        suspectTeeth(list, "a pinion", ring.pinionTeeth, false);
        for (int t = 60; t <= 300; t += 2)
            list.add("a ring with " + std::to_string(t) + " teeth instead of " +
                         std::to_string(ring.ringTeeth),
                     static_cast<double>(t) / ring.ringTeeth);
    }
    void operator()(const LensRingOutput&) const {}

    void operator()(const BeltStage& belt) const {
        suspectTeeth(list, "a motor pulley", belt.motorTeeth, false);
        suspectTeeth(list, "a load pulley", belt.loadTeeth, true);
    }
    void operator()(const GearStage& gear) const {
        suspectTeeth(list, "a motor gear", gear.motorTeeth, false);
        suspectTeeth(list, "a load gear", gear.loadTeeth, true);
    }
    void operator()(const PlanetaryStage&) const {}
    void operator()(const StrainWaveStage&) const {}
    void operator()(const WormStage&) const {}
    void operator()(const ReducerStage&) const {}
    void operator()(const RollerStage&) const {}
    void operator()(const Coupling&) const {}
};

void suspectsOf(SuspectList& list, const Axis& axis) {
    const SuspectParts suspects{list, axis};
    std::visit(suspects, axis.motor);
    std::visit([&](const auto& mechanism) { std::visit(suspects, mechanism.output); }, axis.mechanism);
    for (const Link& link : axis.links) std::visit(suspects, link);
    for (const MixUp& m : kindOf(axis) == AxisKind::Linear ? std::span<const MixUp>(lengthMixUps)
                                                           : std::span<const MixUp>(angleMixUps))
        list.add(std::string(m.what), m.factor);
}

std::string factorSentence(double claimed, double expected, std::span<const MixUp> mixUps) {
    for (const MixUp& m : mixUps)
        if (std::abs(claimed / expected / m.factor - 1.0) < 0.1)
            return " It would fit " + std::string(m.what) + ".";
    return {};
}

} // namespace

std::vector<Claim> readClaims(std::string_view text, AxisKind kind) {
    std::vector<Claim> out;
    const bool linear = kind == AxisKind::Linear;
    while (!text.empty()) {
        const std::string_view line = text.substr(0, text.find('\n'));
        text.remove_prefix(std::min(text.size(), line.size() + 1));
        const auto digit = line.find_first_of("0123456789");
        if (digit == std::string_view::npos) continue;
        const std::string name = lower(line.substr(0, digit));
        std::string_view value =
            line.substr(digit > 0 && (line[digit - 1] == '.' || line[digit - 1] == '-') ? digit - 1 : digit);
        while (!value.empty() && std::string_view(" \t\r;,").find(value.back()) != std::string_view::npos)
            value.remove_suffix(1);
        Claim c;
        c.text = std::string(line);
        Kind unit = Kind::Ratio;
        double perShown = 1.0; // SI of what the claim counts in
        if (has(name, {"step", "pulses per", "pulse/"})) {
            c.subject = Subject::StepsPerUnit;
        } else if (has(name, {"current", "amp"})) {
            c.subject = Subject::Current;
            unit = Kind::Current;
        } else if (has(name, {"accel"})) {
            c.subject = Subject::Acceleration;
            unit = linear ? Kind::Acceleration : Kind::AngularAcceleration;
            perShown = linear ? 1e-3 : pi / 180.0;
        } else if (has(name, {"speed", "feed", "velocity", "rate"})) {
            c.subject = Subject::TopSpeed;
            unit = linear ? Kind::Speed : Kind::AngularSpeed;
            perShown = linear ? 1e-3 : pi / 180.0;
        } else if (has(name, {"torque"})) {
            c.subject = Subject::OutputTorque;
            unit = Kind::Torque;
        } else if (has(name, {"power", "watt"})) {
            c.subject = Subject::Power;
        }
        double number = 0.0;
        const auto [end, problem] = std::from_chars(value.data(), value.data() + value.size(), number);
        if (problem != std::errc()) continue;
        const bool bare = end == value.data() + value.size();
        if (!bare && unit != Kind::Ratio) {
            const units::ParseResult parsed = units::parse(value, unit, units::System::Metric);
            if (const auto* si = std::get_if<double>(&parsed)) number = *si / perShown;
        }
        c.value = number;
        out.push_back(std::move(c));
    }
    return out;
}

StepsFinding explainSteps(const Project& project, const Axis& axis, double entered) {
    StepsFinding out;
    const AxisEvaluation e = evaluateAxis(project, axis, Searches::No);
    out.computed = e.steps.stepsPerUnit;
    out.entered = entered;
    if (!e.steps.stepsPerUnit || !(entered > 0.0)) return out;
    out.movesForOne = entered / e.steps.stepsPerUnit.value();
    if (std::abs(out.movesForOne - 1.0) < 1e-6) return out;
    SuspectList list(e.steps.stepsPerUnit.value(), entered, out.suspects);
    suspectsOf(list, axis);
    std::stable_sort(out.suspects.begin(), out.suspects.end(),
                     [](const Suspect& a, const Suspect& b) { return a.error < b.error; });
    if (out.suspects.size() > 8) out.suspects.resize(8);
    return out;
}

Finding judge(const Project& project, const Axis& axis, const AxisEvaluation& e, const Claim& claim) {
    const bool linear = e.model.kind == AxisKind::Linear;
    const double unit = linear ? 1e-3 : pi / 180.0;
    const std::string per = linear ? "mm" : "°";
    switch (claim.subject) {
    case Subject::Current: {
        const motor::StepperParams* stepper = e.model.stepper();
        if (stepper == nullptr) return {true, "This motor has no rms current setting to compare with."};
        const double rated = stepper->ratedCurrentRms;
        std::string s = "Claimed " + shown(claim.value, 2) + " A; the motor is rated " + shown(rated, 2) +
                        " A rms, " + shown(rated * std::numbers::sqrt2, 2) + " A peak.";
        if (std::abs(claim.value / (rated * std::numbers::sqrt2) - 1.0) < 0.04)
            return {
                false,
                s + " That is the peak; a driver that is set in rms would overheat it by a factor of two."};
        return {claim.value <= rated * 1.02,
                s + (claim.value > rated * 1.02 ? " It would run too hot." : "")};
    }
    case Subject::TopSpeed: {
        double fastest = 0.0;
        for (const ShotEvaluation& s : e.shots)
            if (s.motion.topSpeed) fastest = std::max(fastest, s.motion.topSpeed.value());
        if (fastest <= 0.0) fastest = e.model.settings.speed;
        const double claimed = claim.value * unit;
        const Figure limit = e.checks.motorTopSpeed ? e.checks.motorTopSpeed : e.pulseLimitSpeed;
        std::string s = "Claimed " + shown(claim.value, 2) + " " + per + "/s; the shots need " +
                        shown(fastest / unit, 2) + " " + per + "/s";
        s += limit ? ", the drive ends at " + shown(limit.value() / unit, 1) + " " + per + "/s." : ".";
        const bool high = limit && claimed > limit.value() * 1.001, low = claimed < fastest * 0.999;
        const std::string mix = high || low ? factorSentence(claimed, fastest, speedMixUps) : std::string();
        return {!high && !low, s +
                                   (high  ? " It is more than the drive can do."
                                    : low ? " It is too slow for the shots."
                                          : "") +
                                   mix};
    }
    case Subject::Acceleration: {
        double needed = 0.0, most = std::numeric_limits<double>::infinity();
        for (const ShotEvaluation& s : e.shots) {
            if (s.motion.acceleration) needed = std::max(needed, s.motion.acceleration.value());
            if (s.torque.maxAcceleration) most = std::min(most, s.torque.maxAcceleration.value());
        }
        const double claimed = claim.value * unit;
        std::string s =
            "Claimed " + shown(claim.value, 1) + " " + per + "/s²; the shots need " + shown(needed / unit, 1);
        if (std::isfinite(most)) s += ", the motor gives " + shown(most / unit, 0) + " at the wanted margin";
        return {claimed <= most && claimed >= needed * 0.999, s + "."};
    }
    case Subject::OutputTorque: {
        const double motor = e.model.available(0.0);
        const double free = motor / e.model.outputPerRad;
        double lossy = motor;
        for (const drivetrain::Stage& s : e.model.chain.stages) lossy *= s.ratio * s.efficiency;
        std::string s = "Claimed " + shown(claim.value, 3) + "; motor torque times ratio is " +
                        shown(free, 3) + ", with the losses " + shown(lossy, 3) + (linear ? " N." : " N·m.");
        if (claim.value > free * 1.01) return {false, s + " No gear gives more than torque times ratio."};
        if (claim.value > lossy * 1.02) return {false, s + " The claim forgets the efficiency."};
        return {true, s};
    }
    case Subject::Power: {
        double most = 0.0;
        for (int i = 1; i <= 400; ++i) {
            const double w = 2.5 * i;
            most = std::max(most, w * e.model.available(w));
        }
        return {claim.value <= most * 1.05, "Claimed " + shown(claim.value, 1) +
                                                " W; torque times speed of this motor reaches " +
                                                shown(most, 1) + " W at best on this supply."};
    }
    case Subject::StepsPerUnit: {
        const StepsFinding f = explainSteps(project, axis, claim.value);
        if (!f.computed) return {true, "This drive takes no steps."};
        std::string s = "Entered " + shown(claim.value) + " steps/" + per + "; the parts give " +
                        shown(f.computed.value()) + ".";
        if (std::abs(f.movesForOne - 1.0) < 1e-4) return {true, s + " They agree."};
        s += " One " + per + " commanded would move " + shown(f.movesForOne) + " " + per + ".";
        return {false, f.suspects.empty() ? s + " No single part explains it."
                                          : s + " It would fit " + f.suspects.front().what + "."};
    }
    case Subject::Unknown:
        break;
    }
    return {true, "Not understood: say what the number is, such as “steps/mm”, “current”, “top speed”, "
                  "“acceleration”, “torque” or “power”."};
}

std::string uselessFineness(const AxisEvaluation& e) {
    if (!e.step || e.model.backlash <= 0.0) return {};
    const double shares = e.model.backlash / e.step.value();
    if (shares < 10.0) return {};
    return "One step at the output is " + shown(shares, 0) +
           " times finer than the backlash; a finer ratio or microstep buys nothing there.";
}

} // namespace gantry::crosscheck
