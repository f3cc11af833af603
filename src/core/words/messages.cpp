// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/words/messages.h"

#include "core/units/names.h"
#include "core/units/spelled_time.h"
#include "core/units/text.h"

namespace gantry::words {
namespace {

std::string shown(const Argument& a, units::System system) {
    if (!a.value) return "–";
    // Nobody counts hours in seconds.
    constexpr double long_ = 120.0;
    if (a.kind == units::Kind::Time && a.value.value() >= long_) return units::spelledTime(a.value.value());
    return units::format(a.value.value(), a.kind, system, a.significant);
}

} // namespace

std::string render(Message message, const Arguments& arguments, const Names& names, units::System system) {
    std::string_view rest = message.text;
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
        else if (name == "part")
            out += names.part;
        else if (name == "room")
            out += names.room;
        else if (name == "reason")
            out += reasonText(names.reason);
        else {
            out += shown(arguments[static_cast<std::size_t>(name.front() - '0')], system);
        }
    }
    return out;
}

std::string_view reasonText(Reason reason) {
    return units::nameOf<Reason::OutOfRange>(
        reason, "known", "needs the motor's holding torque", "needs the motor's rated current",
        "needs the motor's phase resistance", "needs the motor's inductance",
        "say what an emergency stop or a reset of the controller does to the holding current; try it "
        "with the "
        "load secured",
        "say what the rail or arm is made of: its section and material", "say what the rig stands on",
        "enter what the anchors withstand, from a qualified person or a pull test; it is never presumed",
        "the stands or the head are not on the rail, or both on one spot; move them",
        "the base has no leg of that number for its ballast; choose one that it has, or 0 for the "
        "middle",
        "needs a lens ring as output to know what the picture makes of it",
        "a line of what was told has a number, and it is not clear what it is of; write a name or a unit "
        "with "
        "it, such as “steps/mm = 80”",
        "the ring has no stops, or its reading depends on how fast it is turned: no mark comes back",
        "its poses are not all looked through yet", "no shot moves this axis",
        "the shot's time is too short for its distance; give it more time or less ease",
        "its ramps alone take longer than the minute that is simulated, or more pulses than fit in it",
        "the controller starts without a ramp, which no motor follows at speed; choose one that ramps",
        "the shot's distance is zero; give it a distance", "nothing limits it",
        "the margin is not there even at nothing of it",
        "the supply's voltage collapses under this load; take a thicker or shorter cable or a higher "
        "voltage",
        "has no meaning here", "the inputs give a number too large or too small to mean anything");
}

} // namespace gantry::words
