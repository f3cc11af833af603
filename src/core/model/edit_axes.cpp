// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/edit_axes.h"

#include "core/model/kinds.h"

#include <algorithm>

namespace gantry {
namespace {

bool has(const Project& p, int axis) {
    return axis >= 0 && axis < static_cast<int>(p.axes.size());
}

LensRingOutput* lensRing(Project& p, int axis) {
    if (!has(p, axis)) return nullptr;
    auto* rotary = std::get_if<RotaryMechanism>(&p.axes[static_cast<std::size_t>(axis)].mechanism);
    return rotary != nullptr ? std::get_if<LensRingOutput>(&rotary->output) : nullptr;
}

AnyOutput outputOf(const Axis& axis) {
    return std::visit(
        [](const auto& mechanism) {
            return std::visit([](const auto& output) -> AnyOutput { return output; }, mechanism.output);
        },
        axis.mechanism);
}

void setOutput(Axis& axis, const AnyOutput& any) {
    std::visit(
        [&](auto& mechanism) {
            std::visit(
                [&](const auto& output) {
                    if constexpr (requires { mechanism.output = output; }) mechanism.output = output;
                },
                any);
        },
        axis.mechanism);
}

DriveCandidate driveInUse(const Axis& axis) {
    return {axis.candidate, axis.candidateNote, axis.price, axis.motor,
            axis.driver,    axis.links,         axis.brake, outputOf(axis)};
}

void take(Axis& axis, const DriveCandidate& c) {
    axis.candidate = c.id;
    axis.candidateNote = c.note;
    axis.price = c.price;
    axis.motor = c.motor;
    axis.driver = c.driver;
    axis.links = c.links;
    axis.brake = c.brake;
    setOutput(axis, c.output);
}

} // namespace

std::string nameOfRole(Role role) {
    switch (role) {
    case Role::Slide:
        return "Slide";
    case Role::Lift:
        return "Lift";
    case Role::Swing:
        return "Swing";
    case Role::BoomTilt:
        return "Boom tilt";
    case Role::Pan:
        return "Pan";
    case Role::Tilt:
        return "Tilt";
    case Role::Roll:
        return "Roll";
    case Role::Focus:
        return "Focus";
    case Role::Zoom:
        return "Zoom";
    case Role::Turntable:
        return "Turntable";
    case Role::Other:
        break;
    }
    return "Axis";
}

int addAxis(Project& p, Role role, bool linear) {
    Axis axis;
    axis.role = role;
    axis.name = nameOfRole(role);
    axis.id = freeId(p, axis.name);
    const auto same = std::count_if(p.axes.begin(), p.axes.end(),
                                    [&](const Axis& a) { return a.name.starts_with(axis.name); });
    if (same > 0) axis.name += ' ' + std::to_string(same + 1);
    const bool straight = role == Role::Slide || role == Role::Lift || (role == Role::Other && linear);
    if (straight) {
        LinearMechanism m;
        if (role == Role::Lift) {
            m.slope = estimate(1.5707963267948966, Source::Measured);
            m.output = ScrewOutput{};
        }
        axis.mechanism = m;
    } else {
        RotaryMechanism m;
        if (role == Role::Focus || role == Role::Zoom) {
            LensRingOutput ring;
            if (role == Role::Zoom) ring.marks = {{"wide", 0.0, 0.024}, {"long", ring.ringThrow, 0.07}};
            m.range = ring.ringThrow;
            m.inertia = assumed(2e-4);
            m.output = ring;
        }
        axis.mechanism = m;
    }
    p.axes.push_back(axis);
    return static_cast<int>(p.axes.size()) - 1;
}

int copyAxis(Project& p, int axis) {
    if (!has(p, axis)) return -1;
    Axis copy = p.axes[static_cast<std::size_t>(axis)];
    const std::string from = copy.id;
    copy.id = freeId(p, from);
    copy.name += " copy";
    // Links keep their ids: they are unique within an axis.
    p.axes.insert(p.axes.begin() + axis + 1, copy);
    for (Shot& shot : p.shots)
        if (const Movement* m = findMovement(shot, from)) {
            const Movement same = *m;
            shot.moves.push_back({copy.id, same});
        }
    return axis + 1;
}

int moveAxis(Project& p, int axis, int step) {
    const int to = axis + step;
    if (!has(p, axis) || !has(p, to)) return axis;
    Axis moved = std::move(p.axes[static_cast<std::size_t>(axis)]);
    p.axes.erase(p.axes.begin() + axis);
    p.axes.insert(p.axes.begin() + to, std::move(moved));
    return to;
}

void removeAxis(Project& p, int axis) {
    if (!has(p, axis)) return;
    const std::string id = p.axes[static_cast<std::size_t>(axis)].id;
    p.axes.erase(p.axes.begin() + axis);
    for (Shot& s : p.shots) std::erase_if(s.moves, [&](const ShotMove& m) { return m.axis == id; });
}

void addLink(Project& project, int axis, std::size_t kind) {
    if (!has(project, axis) || kind >= kindsOf<Link>().size()) return;
    Axis& a = project.axes[static_cast<std::size_t>(axis)];
    Link link = makeKind<Link>(kind);
    linkId(link) = freeId(project, a.id + '-' + std::string(kindsOf<Link>()[kind].key));
    a.links.push_back(std::move(link));
}

void removeLink(Project& project, int axis, int link) {
    if (!has(project, axis)) return;
    std::vector<Link>& links = project.axes[static_cast<std::size_t>(axis)].links;
    if (link >= 0 && link < static_cast<int>(links.size())) links.erase(links.begin() + link);
}

void addItem(Project& project, int axis) {
    if (!has(project, axis)) return;
    Axis& a = project.axes[static_cast<std::size_t>(axis)];
    MassItem item;
    item.id = freeId(project, a.id + "-item");
    std::visit([&](auto& m) { m.items.push_back(item); }, a.mechanism);
}

void removeItem(Project& project, int axis) {
    if (!has(project, axis)) return;
    std::visit(
        [](auto& m) {
            if (!m.items.empty()) m.items.pop_back();
        },
        project.axes[static_cast<std::size_t>(axis)].mechanism);
}

void addRingMark(Project& project, int axis) {
    LensRingOutput* ring = lensRing(project, axis);
    if (ring == nullptr) return;
    RingMark mark = ring->marks.empty() ? RingMark{} : ring->marks.back();
    const auto taken = [&](const std::string& id) {
        return std::any_of(ring->marks.begin(), ring->marks.end(),
                           [&](const RingMark& m) { return m.id == id; });
    };
    int n = static_cast<int>(ring->marks.size()) + 1;
    while (taken("mark-" + std::to_string(n))) ++n;
    mark.id = "mark-" + std::to_string(n);
    ring->marks.push_back(mark);
}

void removeRingMark(Project& project, int axis) {
    LensRingOutput* ring = lensRing(project, axis);
    if (ring != nullptr && !ring->marks.empty()) ring->marks.pop_back();
}

int moveLink(Axis& axis, int link, int step) {
    const int n = static_cast<int>(axis.links.size()), to = link + step;
    if (link < 0 || link >= n || to < 0 || to >= n) return link;
    Link moved = std::move(axis.links[static_cast<std::size_t>(link)]);
    axis.links.erase(axis.links.begin() + link);
    axis.links.insert(axis.links.begin() + to, std::move(moved));
    return to;
}

std::vector<std::string> candidateLetters(const Axis& axis) {
    std::vector<std::string> letters{axis.candidate};
    for (const DriveCandidate& c : axis.candidates) letters.push_back(c.id);
    std::sort(letters.begin(), letters.end());
    return letters;
}

std::string addCandidate(Axis& axis) {
    const std::vector<std::string> taken = candidateLetters(axis);
    if (taken.size() >= static_cast<std::size_t>(mostCandidates)) return {};
    std::string letter;
    for (char c = 'A'; c <= 'Z' && letter.empty(); ++c)
        if (std::find(taken.begin(), taken.end(), std::string(1, c)) == taken.end()) letter = c;
    axis.candidates.push_back(driveInUse(axis));
    if (axis.fittedToday.empty()) axis.fittedToday = axis.candidate; // what was alone is what is on the rig
    axis.candidate = letter;
    axis.candidateNote.clear();
    return letter;
}

bool useCandidate(Axis& axis, std::string_view letter) {
    if (axis.candidate == letter) return true;
    const auto it = std::find_if(axis.candidates.begin(), axis.candidates.end(),
                                 [&](const DriveCandidate& c) { return c.id == letter; });
    if (it == axis.candidates.end()) return false;
    const DriveCandidate chosen = *it;
    *it = driveInUse(axis);
    take(axis, chosen);
    return true;
}

void dropCandidate(Axis& axis, std::string_view letter) {
    std::erase_if(axis.candidates, [&](const DriveCandidate& c) { return c.id == letter; });
    if (axis.fittedToday == letter) axis.fittedToday.clear();
}

Axis withCandidate(const Axis& axis, std::string_view letter) {
    Axis copy = axis;
    useCandidate(copy, letter);
    return copy;
}

} // namespace gantry
