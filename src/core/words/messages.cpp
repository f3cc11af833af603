// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/words/messages.h"

#include "core/units/text.h"

namespace gantry::words {
namespace {

struct Message {
    MessageId id;
    std::string_view text;
};

using M = MessageId;
constexpr std::array table{
    Message{M::TorqueTitle, "Torque over the ramp"},
    Message{M::TorqueText, "Shot “{shot}” needs {0} at the end of the ramp; {1} is available at {2}."},
    Message{M::TorqueBreakawayText, "Breaking away from rest needs {0}; {1} is available."},
    Message{M::PulseTitle, "Pulse rate"},
    Message{M::PulseText, "Shot “{shot}” asks for {0}; the controller gives {1}."},
    Message{M::PowerOffTitle, "Power-off holding"},
    Message{M::PowerOffFallsText,
            "Falls when power goes: gravity {0}, friction about {1}. After the full travel it carries {2} at "
            "{3}. Friction and detent do not count as a brake; secure the camera and keep hands clear."},
    Message{M::PowerOffFrictionText,
            "Only friction of about {1} keeps it from running away under {0} of gravity. Friction and detent "
            "do not count as a brake; secure the camera before leaving it."},
    Message{M::PowerOffBrakeText, "The brake holds {1} at the motor; gravity asks {0}."},
    Message{M::StandstillTitle, "Holding at standstill"},
    Message{M::StandstillText, "Gravity asks {0} at the motor; the hold current gives {1}."},
    Message{M::ResonanceTitle, "Distance from resonance"},
    Message{M::ResonanceInsideText,
            "Shot “{shot}” cruises at {0}, inside the rotor's resonance from {1} to {2} ({3})."},
    Message{M::ResonanceText,
            "Shot “{shot}” cruises at {0}; the rotor's resonance lies from {1} to {2} ({3})."},
    Message{M::SteppingTitle, "Visible stepping"},
    Message{M::SteppingText, "Shot “{shot}” shows {0} of stepping where {1} is allowed; one microstep is "
                             "{2}, {3} come in a second."},
    Message{M::DriftTitle, "Slow drift"},
    Message{M::DriftText,
            "Shot “{shot}”: stretch of {2} between speeding up and braking drifts {0} where {1} is allowed."},
    Message{M::JitterTitle, "Jitter"},
    Message{M::JitterText, "Shot “{shot}”: {0} peak to peak where {1} is allowed, all of it stepping."},
    Message{M::JitterBacklashText,
            "Shot “{shot}”: {0} peak to peak where {1} is allowed; {2} is backlash let go."},
    Message{M::RepeatTitle, "Repeat error"},
    Message{M::RepeatText, "Shot “{shot}”: {0} between passes where {1} is allowed; {2} is the rotor's "
                           "friction band, {3} the fall to hold current."},
    Message{M::FramingTitle, "Framing error"},
    Message{M::FramingText,
            "Shot “{shot}”: {0} off the target where {1} is allowed; {2} is rotor lag, {3} rounding."},
    Message{M::BacklashTitle, "Backlash let go"},
    Message{M::BacklashText,
            "The load reverses in shot “{shot}” and lets go {0}, seen as {1}; {2} is allowed."},
    Message{M::JudderTitle, "Judder"},
    Message{M::JudderText, "In shot “{shot}” detail crosses the picture in {0}; {1} or more looks smooth."},
    Message{M::RoundingTitle, "Rounding of steps per unit"},
    Message{M::RoundingText, "The controller keeps {0} steps per unit: {1} off over the travel, {2} in shot "
                             "“{shot}” where {3} is allowed."},
    Message{M::CurrentTitle, "Current against rating"},
    Message{M::CurrentText, "Set to {0} rms; the motor is rated {1} rms. Drivers and motors run hot: let "
                            "them cool before touching."},
    Message{M::RatingTitle, "Driver ratings"},
    Message{M::RatingCurrentText, "Set to {0} rms; the driver is rated {1} rms."},
    Message{M::RatingVoltageText, "The supply gives {0}; the driver is rated {1}."},
    Message{M::StoppingTitle, "Stopping distance"},
    Message{M::StoppingText, "Stopping from {0} takes {1}; shot “{shot}” leaves {2} of travel."},
    Message{M::TravelTitle, "Room on the axis"},
    Message{M::TravelText, "Shot “{shot}” covers {0}; {1} can be used between the soft limits."},
    Message{M::SettingsTitle, "Settings against shots"},
    Message{M::SettingsSpeedText, "Shot “{shot}” runs at {0}; the controller is set to {1} at most."},
    Message{M::SettingsAccelerationText,
            "Shot “{shot}” speeds up at {0}; the controller is set to {1} at most."},
    Message{M::EaseTitle, "Ease against jerk"},
    Message{M::EaseText, "The ease of shot “{shot}” needs a jerk of {0}; the setting allows {1}."},
    Message{M::OversizeTitle, "Motor size"},
    Message{M::OversizeText,
            "{0} is available where {1} is needed: a motor a third the size would do, lighter and cooler."},
    Message{M::UnknownText, "Not known yet: {reason}."},
    Message{M::FixTeeth, "pulley with {0} teeth"},
    Message{M::FixMicrosteps, "1/{0} microsteps"},
    Message{M::FixShotAcceleration, "“{shot}” at {0}"},
    Message{M::FixShotSpeed, "“{shot}” at {0}"},
    Message{M::FixShotTime, "“{shot}” in {0}"},
    Message{M::FixSupplyVoltage, "supply of {0}"},
    Message{M::FixRunCurrent, "run current {0} rms"},
    Message{M::FixHoldCurrent, "hold current {0} rms"},
    Message{M::FixReduction, "belt reduction {0}:{1} teeth"},
    Message{M::FixBrake, "power-off brake of {0}"},
    Message{M::FixDistance, "subject at {0}"},
    Message{M::FixController, "controller with {0} of pulses"},
    Message{M::FixDecimals, "controller that keeps {0} decimals"},
    Message{M::FixMaxSpeed, "top speed setting {0}"},
    Message{M::FixMaxAcceleration, "top acceleration setting {0}"},
};
static_assert(table.size() == static_cast<std::size_t>(M::messageCount_), "every message has one text");

constexpr bool inOrder() {
    for (std::size_t i = 0; i < table.size(); ++i)
        if (table[i].id != static_cast<M>(i)) return false;
    return true;
}
static_assert(inOrder(), "the table stands in the order of MessageId");

} // namespace

std::string_view textOf(MessageId id) {
    return table[static_cast<std::size_t>(id)].text;
}

std::string render(MessageId id, const Arguments& arguments, const Names& names, units::System system) {
    std::string_view rest = textOf(id);
    std::string out;
    while (!rest.empty()) {
        const auto open = rest.find('{');
        out += rest.substr(0, open);
        if (open == std::string_view::npos) break;
        const auto close = rest.find('}', open);
        const std::string_view name = rest.substr(open + 1, close - open - 1);
        rest.remove_prefix(close + 1);
        if (name == "axis")
            out += names.axis;
        else if (name == "shot")
            out += names.shot;
        else if (name == "reason")
            out += reasonText(static_cast<Reason>(static_cast<int>(arguments[0].value)));
        else {
            const Argument& a = arguments[static_cast<std::size_t>(name.front() - '0')];
            out += units::format(a.value, a.kind, system);
        }
    }
    return out;
}

std::string_view reasonText(Reason reason) {
    switch (reason) {
    case Reason::None:
        return "known";
    case Reason::NeedsHoldingTorque:
        return "needs the motor's holding torque";
    case Reason::NeedsRatedCurrent:
        return "needs the motor's rated current";
    case Reason::NeedsResistance:
        return "needs the motor's phase resistance";
    case Reason::NeedsInductance:
        return "needs the motor's inductance";
    case Reason::NoShot:
        return "no shot moves this axis";
    case Reason::TimeTooShort:
        return "the shot's time is too short for its distance; give it more time or less ease";
    case Reason::NoRamp:
        return "the controller starts without a ramp, which no motor follows at speed; choose one that ramps";
    case Reason::NoDistance:
        return "the shot's distance is zero; give it a distance";
    case Reason::Unbounded:
        return "nothing limits it";
    case Reason::NotApplicable:
        return "has no meaning here";
    case Reason::OutOfRange:
        return "the inputs give a number too large or too small to mean anything";
    }
    return "";
}

} // namespace gantry::words
