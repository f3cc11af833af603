// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/crosscheck/crosscheck.h"

#include "core/crosscheck/suspects.h"
#include "core/solve/root.h"
#include "core/units/text.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace gantry::crosscheck {
namespace {

using units::Kind;
using words::Message;

// What people round, one way or the other.
constexpr double rounding = 0.02, holdingRounding = 0.05, labelRounding = 0.06, stepsRounding = 1e-4;

constexpr Message currentText{"Told {0}; the motor is rated {1} rms, {2} peak."};
constexpr Message currentPeakText{
    "Told {0}; the motor is rated {1} rms. {2} is its peak: a driver that is set "
    "in rms to that makes twice the heat."};
constexpr Message currentHotText{"Told {0}; the motor is rated {1} rms and would run too hot."};
constexpr Message speedText{"Told {0}; the shots need {1}, and the drive ends at {2}."};
constexpr Message speedHighText{"Told {0}; the drive ends at {2}."};
constexpr Message speedLowText{"Told {0} is too slow: the shots need {1}."};
constexpr Message accelerationText{
    "Told {0}; the shots need {1}, and the motor gives {2} at the target margin."};
constexpr Message accelerationHighText{"Told {0}; the motor gives {2} at the target margin."};
constexpr Message accelerationLowText{"Told {0} is too little: the shots need {1}."};
constexpr Message torqueText{"Told {0}; motor torque times ratio is {1}, and {2} of it reach the output."};
constexpr Message torqueLossText{
    "Told {0}; motor torque times ratio is {1}, but only {2} reach the output: what "
    "was told takes the drive for {3} efficient, and it is {4}."};
constexpr Message torqueFreeText{
    "Told {0}; motor torque times ratio is {1}, and {2} reach the output. No gear "
    "gives more than torque times ratio."};
constexpr Message forceText{"Told {0}; the drive pulls {1} at most without losses, {2} with them."};
constexpr Message motorTorqueText{"Told {0} of the motor; at rest and as it is set it gives {1}."};
constexpr Message torqueAtSpeedText{"Told {0} at {1}; at that speed this motor gives {2} on its supply."};
constexpr Message torqueHoldingText{
    "Told {0} at {1}; at that speed this motor gives {2} on its supply. {0} is "
    "what it holds at rest."};
constexpr Message outputAtSpeedText{
    "Told {0} at {1}; at that speed this axis gives {2} on its supply, and {3} at "
    "rest."};
constexpr Message massText{
    "Told {0} at {1}: that takes {2} at the motor even at constant speed, and there it "
    "gives {3}."};
constexpr Message massAtRestText{
    "Told {0}: to hold it moving takes {2} at the motor, and it gives {3} at most."};
constexpr Message supplyPowerText{"Told {0}; the supply gives {1} at most."};
constexpr Message torqueSpeedPowerText{
    "Told {0} at {1}: together that is {2}, and the supply gives {3} at most. "
    "The two do not go together."};
constexpr Message massPowerText{"Told {0} at {1}: lifting it takes {2}, and the supply gives {3} at most."};
constexpr Message powerText{"Told {0}; torque times speed of this motor reaches {1} at best, on its supply."};
constexpr Message ratioText{"Told {0}:1; the parts give {1}:1."};
constexpr Message ratioLabelText{
    "Told {0}:1, as labels round it; the parts give {1}:1, and steps per unit go by "
    "that."};
constexpr Message stepsLinearText{"Told {0} steps per mm; the parts give {1}. A commanded {2} goes {3}."};
constexpr Message stepsRotaryText{"Told {0} steps per °; the parts give {1}. A commanded {2} goes {3}."};
constexpr Message stepsAgreeText{"Told {0} steps per mm or °; the parts give {1}. They agree."};
constexpr Message fitsText{"It would fit {part}."};

constexpr std::array speedMixUps{
    std::pair<double, std::string_view>{60.0, "a speed per minute where one per second is meant"},
    std::pair<double, std::string_view>{1.0 / 60.0, "a speed per second where one per minute is meant"}};

std::string mixUpOf(double told, double expected) {
    for (const auto& [factor, what] : speedMixUps)
        if (std::abs(told / expected / factor - 1.0) < 0.1) return std::string(what);
    return {};
}

/// Finds what there is to say about one claim.
class Judge {
public:
    Judge(const Project& project, const Axis& axis, const AxisEvaluation& evaluation, const Claim& claim)
        : project_(project), axis_(axis), e_(evaluation), c_(claim) {}

    std::vector<Finding> all() {
        if (const auto steps = stepsSaid(e_, c_)) ofSteps(*steps);
        if (c_.current) ofCurrent(*c_.current);
        if (c_.ratio) ofRatio(*c_.ratio);
        if (c_.acceleration) ofAcceleration(*c_.acceleration);
        if (e_.model.missing != Reason::None) return std::move(out_); // nothing is known of its torque
        if (c_.power) ofPower(*c_.power);
        if (c_.torque) ofTorque(*c_.torque);
        if (c_.force) ofForce(*c_.force);
        if (c_.mass) ofMass(*c_.mass);
        const bool alone = !c_.torque && !c_.force && !c_.mass;
        if (c_.speed && alone) ofSpeed(*c_.speed);
        if (c_.motorSpeed && alone) ofSpeed(*c_.motorSpeed * e_.model.outputPerRad);
        return std::move(out_);
    }

private:
    bool linear() const { return e_.model.kind == AxisKind::Linear; }
    Kind travel() const { return linear() ? Kind::Length : Kind::Angle; }
    Kind speed() const { return linear() ? Kind::Speed : Kind::AngularSpeed; }
    Kind acceleration() const { return linear() ? Kind::Acceleration : Kind::AngularAcceleration; }

    Finding& add(Against against, double there, double told, double slack, Message sentence,
                 words::Arguments arguments) {
        const double ratio = told > 0.0 ? there / told : 1.0;
        return out_.emplace_back(Finding{against, ratio, ratio >= 1.0 - slack, sentence, arguments, {}});
    }

    /// Motor torque times the ratio of all stages but the last `left`, with and without their losses.
    std::pair<double, double> throughStages(std::size_t left) const {
        double free = e_.model.available(0.0), lossy = free;
        const auto& stages = e_.model.chain.stages;
        for (std::size_t i = 0; i + left < stages.size(); ++i) {
            free *= stages[i].ratio;
            lossy *= stages[i].ratio * stages[i].efficiency;
        }
        return {free, lossy};
    }

    /// Fastest speed [U/s] at which the motor still moves its load, without any margin.
    double endSpeed() const {
        double high = 2000.0 * e_.model.outputPerRad; // [rad/s] of a motor, more than any here
        if (e_.pulseLimitSpeed) high = std::min(high, e_.pulseLimitSpeed.value());
        if (e_.checks.motorTopSpeed) high = std::min(high, e_.checks.motorTopSpeed.value());
        const auto moves = [&](double v) {
            return e_.model.available(v / e_.model.outputPerRad) >= e_.model.rampTorque(v, 0.0);
        };
        return solve::largestWhere(moves, 0.0, high).value_or(0.0);
    }

    /// [W] that the supply is rated for; nothing where its current is not said.
    std::optional<double> supplyPower() const {
        const Supply& s = project_.supply;
        return s.ratedCurrent > 0.0 ? std::optional(s.voltage.value * s.ratedCurrent) : std::nullopt;
    }

    /// What is said of several things together, as power, against the supply.
    void together(Message sentence, const words::Argument& first, const words::Argument& second,
                  double power) {
        if (const auto most = supplyPower(); most && *most < power)
            add(Against::Supply, *most, power, 0.0, sentence,
                {{first, second, {Kind::Power, power}, {Kind::Power, *most}}});
    }

    void ofSteps(double told) {
        if (!e_.steps.stepsPerUnit) return;
        const double there = e_.steps.stepsPerUnit.value(), moves = told / there;
        const bool agree = std::abs(moves - 1.0) < stepsRounding;
        const double shown = linear() ? 0.1 : 2.0 * std::numbers::pi;
        Finding& f = out_.emplace_back();
        f.against = Against::Steps;
        f.ratio = std::min(moves, 1.0 / moves);
        f.plausible = agree;
        f.sentence = agree ? stepsAgreeText : linear() ? stepsLinearText : stepsRotaryText;
        f.arguments = {{{Kind::Ratio, told, 7},
                        {Kind::Ratio, there, 7},
                        {travel(), shown, 5},
                        {travel(), shown * moves, 5}}};
        if (!agree) f.fits = bestSuspect(axis_, e_, told);
    }

    void ofCurrent(double told) {
        const motor::StepperParams* stepper = e_.model.stepper();
        if (stepper == nullptr) return; // no setting in rms to compare with
        const double rated = stepper->ratedCurrentRms, peak = rated * std::numbers::sqrt2;
        const bool isPeak = std::abs(told / peak - 1.0)<0.04, hot = told> rated * (1.0 + rounding);
        add(Against::Drive, rated, told, rounding,
            isPeak ? currentPeakText
            : hot  ? currentHotText
                   : currentText,
            {{{Kind::Current, told}, {Kind::Current, rated}, {Kind::Current, peak}}});
    }

    void ofSpeed(double told) {
        double asked = 0.0;
        for (const ShotEvaluation& s : e_.shots) asked = std::max(asked, s.motion.topSpeed.valueOr(0.0));
        const double end = endSpeed();
        const words::Arguments said{{{speed(), told}, {speed(), asked}, {speed(), end}}};
        const bool high = told > end * 1.001, low = told < asked * 0.999;
        Finding& f = add(Against::Drive,
                         high  ? end
                         : low ? told
                               : end,
                         high  ? told
                         : low ? asked
                               : told,
                         0.001,
                         high  ? speedHighText
                         : low ? speedLowText
                               : speedText,
                         said);
        if ((high || low) && asked > 0.0) f.fits = mixUpOf(told, asked);
    }

    void ofAcceleration(double told) {
        double asked = 0.0, most = std::numeric_limits<double>::infinity();
        for (const ShotEvaluation& s : e_.shots) {
            asked = std::max(asked, s.motion.acceleration.valueOr(0.0));
            if (s.torque.maxAcceleration) most = std::min(most, s.torque.maxAcceleration.value());
        }
        if (!std::isfinite(most)) return;
        const bool high = told > most, low = told < asked * 0.999;
        add(Against::Drive,
            high  ? most
            : low ? told
                  : most,
            high  ? told
            : low ? asked
                  : told,
            0.001,
            high  ? accelerationHighText
            : low ? accelerationLowText
                  : accelerationText,
            {{{acceleration(), told}, {acceleration(), asked}, {acceleration(), most}}});
    }

    void ofTorque(double told) {
        // Of a turning axis, more than its motor ever gives is said of its output, and so is the speed.
        const bool ofOutput = !linear() && !c_.atMotor && told > 1.2 * e_.model.available(0.0);
        if (c_.motorSpeed && ofOutput) {
            const auto [free, lossy] = throughStages(0);
            const double share = lossy / e_.model.available(0.0),
                         there = share * e_.model.available(*c_.motorSpeed / e_.model.outputPerRad);
            const words::Argument torque{Kind::Torque, told}, turns{Kind::RotationRate, *c_.motorSpeed};
            together(torqueSpeedPowerText, torque, turns, told * *c_.motorSpeed);
            add(Against::Drive, there, told, holdingRounding, outputAtSpeedText,
                {{torque, turns, {Kind::Torque, there}, {Kind::Torque, lossy}}});
            return;
        }
        if (c_.motorSpeed) {
            const double there = e_.model.available(*c_.motorSpeed), rest = e_.model.available(0.0);
            const words::Argument torque{Kind::Torque, told}, turns{Kind::RotationRate, *c_.motorSpeed};
            together(torqueSpeedPowerText, torque, turns, told * *c_.motorSpeed);
            const bool holding =
                std::abs(told / rest - 1.0) < holdingRounding && there < rest * (1.0 - 2.0 * holdingRounding);
            add(Against::Drive, there, told, holdingRounding, holding ? torqueHoldingText : torqueAtSpeedText,
                {{torque, turns, {Kind::Torque, there}}});
            return;
        }
        if (c_.atMotor) {
            const double there = e_.model.available(0.0);
            add(Against::Drive, there, told, holdingRounding, motorTorqueText,
                {{{Kind::Torque, told}, {Kind::Torque, there}}});
            return;
        }
        // On a line it is the last shaft that has a torque.
        const auto [free, lossy] = throughStages(linear() ? 1 : 0);
        add(Against::Drive, lossy, told, rounding,
            told > free * 1.01              ? torqueFreeText
            : told > lossy * (1 + rounding) ? torqueLossText
                                            : torqueText,
            {{{Kind::Torque, told},
              {Kind::Torque, free},
              {Kind::Torque, lossy},
              {Kind::Percentage, told / free},
              {Kind::Percentage, lossy / free}}});
        if (!linear() && c_.speed) // of the axis itself
            together(torqueSpeedPowerText, {Kind::Torque, told}, {speed(), *c_.speed}, told * *c_.speed);
    }

    void ofForce(double told) {
        if (!linear()) return; // a force without its arm
        const auto [free, lossy] = throughStages(0);
        add(Against::Drive, lossy, told, rounding, forceText,
            {{{Kind::Force, told}, {Kind::Force, free}, {Kind::Force, lossy}}});
        if (c_.speed)
            together(torqueSpeedPowerText, {Kind::Force, told}, {speed(), *c_.speed}, told * *c_.speed);
    }

    void ofMass(double told) {
        const auto* mechanism = std::get_if<LinearMechanism>(&axis_.mechanism);
        if (mechanism == nullptr) return; // a mass without its distance from the axis
        const double v = c_.speed ? *c_.speed : c_.motorSpeed ? *c_.motorSpeed * e_.model.outputPerRad : 0.0;
        drivetrain::Chain chain = e_.model.chain;
        chain.load.steady = told * units::standardGravity * std::sin(mechanism->slope.value);
        const double motorSpeed = v / e_.model.outputPerRad,
                     needed = drivetrain::worstTorque(chain, motorSpeed, 0.0),
                     there = e_.model.available(motorSpeed);
        if (!(needed > 0.0)) return;
        if (v > 0.0 && chain.load.steady > 0.0)
            together(massPowerText, {Kind::Mass, told}, {speed(), v}, chain.load.steady * v);
        add(Against::Drive, there, needed, 0.0, v > 0.0 ? massText : massAtRestText,
            {{{Kind::Mass, told}, {speed(), v}, {Kind::Torque, needed}, {Kind::Torque, there}}});
    }

    void ofPower(double told) {
        if (const auto most = supplyPower(); most && *most < told)
            add(Against::Supply, *most, told, 0.0, supplyPowerText,
                {{{Kind::Power, told}, {Kind::Power, *most}}});
        double most = 0.0;
        for (int i = 1; i <= 400; ++i) {
            const double w = 2.5 * i;
            most = std::max(most, w * e_.model.available(w));
        }
        add(Against::Drive, most, told, holdingRounding, powerText,
            {{{Kind::Power, told}, {Kind::Power, most}}});
    }

    void ofRatio(double told) {
        if (!e_.totalRatio) return;
        const double there = e_.totalRatio.value(), off = std::abs(there / told - 1.0);
        Finding& f = out_.emplace_back();
        f.ratio = std::min(there / told, told / there);
        f.plausible = off < labelRounding;
        f.sentence = off > stepsRounding && f.plausible ? ratioLabelText : ratioText;
        f.arguments = {{{Kind::Ratio, told, 5}, {Kind::Ratio, there, 6}}};
    }

    const Project& project_;
    const Axis& axis_;
    const AxisEvaluation& e_;
    const Claim& c_;
    std::vector<Finding> out_;
};

} // namespace

std::optional<double> stepsSaid(const AxisEvaluation& e, const Claim& c) {
    const double unit = e.model.kind == AxisKind::Linear ? 1e-3 : units::degree;
    if (c.stepsPerUnit) return *c.stepsPerUnit * unit;
    if (!c.stepsPerTurn || !e.travelPerMotorRev || !(e.travelPerMotorRev.value() > 0.0)) return std::nullopt;
    // "3200 steps a turn" is said of a motor as well as of a table: of that which it comes nearer to.
    const double ofMotor = *c.stepsPerTurn / (e.travelPerMotorRev.value() / unit),
                 ofAxis = *c.stepsPerTurn / (2.0 * std::numbers::pi / unit);
    if (c.atMotor || e.model.kind == AxisKind::Linear || !e.steps.stepsPerUnit) return ofMotor;
    const auto miss = [&](double told) { return std::abs(std::log(told / e.steps.stepsPerUnit.value())); };
    return miss(ofMotor) < miss(ofAxis) ? ofMotor : ofAxis;
}

std::vector<Finding> judge(const Project& project, const Axis& axis, const AxisEvaluation& e,
                           const Claim& claim) {
    return Judge(project, axis, e, claim).all();
}

std::string sentenceOf(const Finding& f, units::System system) {
    words::Names names{};
    names.part = f.fits;
    std::string out = words::render(f.sentence, f.arguments, names, system);
    if (!f.fits.empty()) out += ' ' + words::render(fitsText, {}, names, system);
    return out;
}

constinit const std::array<words::Message, 29> findingTexts{
    currentText,         outputAtSpeedText, currentPeakText,
    currentHotText,      speedText,         speedHighText,
    speedLowText,        accelerationText,  accelerationHighText,
    accelerationLowText, torqueText,        torqueLossText,
    torqueFreeText,      forceText,         motorTorqueText,
    torqueAtSpeedText,   torqueHoldingText, massText,
    massAtRestText,      supplyPowerText,   torqueSpeedPowerText,
    massPowerText,       powerText,         ratioText,
    ratioLabelText,      stepsLinearText,   stepsRotaryText,
    stepsAgreeText,      fitsText};

std::string uselessFineness(const AxisEvaluation& e) {
    if (!e.step || e.model.backlash <= 0.0) return {};
    const double shares = e.model.backlash / e.step.value();
    if (shares < 10.0) return {};
    return "One step at the output is " + units::plainNumber(shares, 0) +
           " times finer than the backlash; a finer ratio or microstep buys nothing there.";
}

} // namespace gantry::crosscheck
