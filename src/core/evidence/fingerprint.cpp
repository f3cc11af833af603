// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/fingerprint.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <map>
#include <span>

namespace gantry::evidence {
namespace {

std::string number(double v) {
    std::array<char, 32> text{};
    const auto end = std::to_chars(text.data(), text.data() + text.size(), v, std::chars_format::general, 6);
    return {text.data(), end.ptr};
}

/// The axis that a path names; null if it names none.
const Axis* axisOf(const Project& project, std::string_view path) {
    constexpr std::string_view lead = "axes/";
    if (!path.starts_with(lead)) return nullptr;
    path.remove_prefix(lead.size());
    return findAxis(project, path.substr(0, path.find('/')));
}

bool aboutBase(std::string_view path) {
    return path.starts_with("base/");
}

/// Another profile is another rail or arm.
std::string sectionOf(const Section& s) {
    if (s.shape == SectionShape::NotGiven) return {};
    return "," + number(static_cast<double>(s.shape)) + "," + number(static_cast<double>(s.material)) + "," +
           number(s.width) + "x" + number(s.height) + "x" + number(s.wall) + (s.onEdge ? " turned" : "");
}

void add(std::map<std::string, std::string>& parts, const Project& project, const Axis& axis) {
    double mass = 0.0;
    std::string supports, height;
    if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism)) {
        mass = movingMass(project.payload, axis, *linear);
        const Rail& r = linear->rail;
        supports = number(static_cast<double>(r.support)) + "," + number(r.firstStand) + "," +
                   number(r.secondStand) + "," + number(r.headAt) + sectionOf(r.section);
        height = number(linear->guide.massHeight);
    } else {
        const auto& r = std::get<RotaryMechanism>(axis.mechanism);
        for (const MassItem& item : r.items) mass += item.mass.value;
        if (axis.carriesPayload)
            for (const MassItem& item : project.payload) mass += item.mass.value;
        mass += r.boom.counterweight.mass.value;
        supports =
            number(r.boom.reach) + "," + number(r.boom.counterweight.behind) + sectionOf(r.boom.section);
        height = number(r.boom.tipAbove);
    }
    parts["mass"] += number(mass) + " ";
    parts["supports"] += supports + " ";
    parts["height"] += height + " ";
    parts["motor"] += nameOf(axis.motor) + " ";
}

std::string placesOf(std::span<const MassItem> items) {
    std::string out;
    for (const MassItem& i : items) out += number(i.along) + "," + number(i.above) + " ";
    return out;
}

/// What a rig stands on, as far as it decides whether it tips.
std::string feetOf(const Base& b) {
    std::string out;
    for (const double v :
         {static_cast<double>(b.legs), b.firstLeg, b.length, b.width, b.mass.value, b.massHeight,
          b.columnAhead, b.groundSlope.value, b.downhill, b.ballastOut, b.mount})
        out += number(v) + " ";
    return out;
}

std::map<std::string, std::string> partsOf(const Project& project, std::string_view path) {
    std::map<std::string, std::string> parts;
    if (const Axis* axis = axisOf(project, path))
        add(parts, project, *axis);
    else
        for (const Axis& a : project.axes) add(parts, project, a);
    parts["height"] += number(project.base.height);
    parts["supports"] += number(static_cast<double>(project.base.kind)) + "," +
                         number(project.base.legRadius) + "," + number(project.base.ballast.value);
    if (project.base.padStiffness.value > 0.0)
        parts["supports"] += ",pads " + number(project.base.padStiffness.value);
    if (project.base.ballastLeg > 0) parts["supports"] += ",leg " + number(project.base.ballastLeg);
    if (aboutBase(path)) parts["feet"] = feetOf(project.base);
    const Axis* axis = axisOf(project, path);
    if (axis != nullptr && kindOf(*axis) == AxisKind::Rotary) {
        const auto& r = std::get<RotaryMechanism>(axis->mechanism);
        parts["places"] = placesOf(r.items) + (axis->carriesPayload ? placesOf(project.payload) : "");
    }
    for (const Shot& s : project.shots) parts["lens"] += number(s.focalLength) + " ";
    return parts;
}

std::map<std::string, std::string> read(std::string_view text) {
    std::map<std::string, std::string> parts;
    while (!text.empty()) {
        const std::string_view part = text.substr(0, text.find(';'));
        text.remove_prefix(std::min(text.size(), part.size() + 1));
        if (const auto equals = part.find('='); equals != std::string_view::npos)
            parts[std::string(part.substr(0, equals))] = part.substr(equals + 1);
    }
    return parts;
}

/// Names may hold what the text is cut at.
std::string plain(std::string text) {
    for (char& c : text)
        if (c == ';' || c == '=') c = '_';
    return text;
}

} // namespace

std::string fingerprint(const Project& project, std::string_view path) {
    std::string out;
    for (const auto& [key, value] : partsOf(project, path)) {
        if (!out.empty()) out += ';';
        out += key + "=" + plain(value);
    }
    return out;
}

std::vector<std::string> changedSince(const Project& project, const TestRecord& test) {
    std::vector<std::string> out;
    const auto then = read(test.fingerprint), now = read(fingerprint(project, test.path));
    // What an older note does not tell of was not looked at then; one that tells nothing tells of nothing.
    for (const auto& [key, value] : now)
        if (const auto it = then.find(key); it == then.end() ? then.empty() : it->second != value)
            out.push_back(key);
    return out;
}

} // namespace gantry::evidence
