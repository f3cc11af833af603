// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/edit_axes.h"

#include "core/model/kinds.h"
#include "core/model/retired_ids.h"

#include <algorithm>
#include <array>

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

/// Puts a candidate into use; false if there is none with this letter.
bool putIntoUse(Axis& axis, std::string_view letter) {
    if (axis.candidate == letter) return true;
    const auto it = std::find_if(axis.candidates.begin(), axis.candidates.end(),
                                 [&](const DriveCandidate& c) { return c.id == letter; });
    if (it == axis.candidates.end()) return false;
    const DriveCandidate chosen = *it;
    *it = driveInUse(axis);
    take(axis, chosen);
    return true;
}

/// Where the parts of a drive stand within its axis: in use, and as a candidate.
constexpr std::array<std::pair<std::string_view, std::string_view>, 5> driveParts{
    {{"motor", "motor"},
     {"driver", "driver"},
     {"links", "links"},
     {"brake", "brake"},
     {"mechanism/output", "output"}}};

/// Keys not understood that stand in a drive itself have no such place while it is in use; they wait beside
/// the axis' own under a name with the letter.
std::string waitingKey(std::string_view letter) {
    return "drive_" + std::string(letter) + "_";
}

/// Gives a drive's keys that are not understood from its place in use to that as a candidate, or back.
void moveDriveKeys(Project& project, const std::string& axisPlace, std::string_view letter, bool intoUse,
                   std::vector<KeptKey>& moved) {
    const std::string candidate = axisPlace + "/candidates/" + std::string(letter);
    const std::string waiting = waitingKey(letter);
    std::erase_if(project.kept, [&](const KeptKey& k) {
        for (const auto& [inUse, asCandidate] : driveParts) {
            const std::string from =
                intoUse ? candidate + '/' + std::string(asCandidate) : axisPlace + '/' + std::string(inUse);
            const std::string to =
                intoUse ? axisPlace + '/' + std::string(inUse) : candidate + '/' + std::string(asCandidate);
            // A link is an element of a list: "links/<id>".
            if (!isWithin(k.owner, from)) continue;
            moved.push_back({to + k.owner.substr(from.size()), k.key, k.rawJson});
            return true;
        }
        if (intoUse && k.owner == candidate) {
            moved.push_back({axisPlace, waiting + k.key, k.rawJson});
            return true;
        }
        if (!intoUse && k.owner == axisPlace && k.key.starts_with(waiting)) {
            moved.push_back({candidate, k.key.substr(waiting.size()), k.rawJson});
            return true;
        }
        return false;
    });
}

/// The letter of a drive as an id of the project, so that it is not given again.
std::string letterId(const Axis& axis, std::string_view letter) {
    return axis.id + "." + std::string(letter);
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
    copyKept(p, "axes/" + from, "axes/" + copy.id);
    p.axes.insert(p.axes.begin() + axis + 1, copy);
    for (Shot& shot : p.shots)
        if (const Movement* m = findMovement(shot, from)) {
            const Movement same = *m;
            shot.moves.push_back({copy.id, same});
            copyKept(p, "shots/" + shot.id + "/moves/" + from, "shots/" + shot.id + "/moves/" + copy.id);
        }
    for (RigMove& move : p.moves)
        for (KeyPose& pose : move.poses)
            for (std::size_t i = 0; i < pose.places.size(); ++i)
                if (pose.places[i].axis == from) {
                    pose.places.push_back({copy.id, pose.places[i].place});
                    break;
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
    for (RigMove& move : p.moves) {
        std::erase_if(move.blocks, [&](const AxisBlock& block) { return block.axis == id; });
        for (AimTarget& target : move.targets)
            if (target.rides == id) target.rides.clear();
        for (KeyPose& pose : move.poses) {
            std::erase_if(pose.places, [&](const PosePlace& place) { return place.axis == id; });
            if (pose.arrive.speedOf == id) {
                pose.arrive.speedOf.clear();
                pose.arrive.pace = SegmentPace::Time;
            }
        }
    }
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
    mark.id = freeIdIn(project, ring->marks, "mark");
    ring->marks.push_back(mark);
}

void removeRingMark(Project& project, int axis) {
    LensRingOutput* ring = lensRing(project, axis);
    if (ring != nullptr && !ring->marks.empty()) ring->marks.pop_back();
}

namespace {
constexpr double usualStep = 1.5;
}

void addFixedSpeed(Project& project, int axis) {
    if (!has(project, axis)) return;
    std::visit(
        [&](auto& m) {
            auto& speeds = m.motion.speeds;
            const double next = speeds.empty() ? m.motion.maxSpeed : usualStep * speeds.back().speed;
            speeds.push_back({freeIdIn(project, speeds, "speed"), next});
        },
        project.axes[static_cast<std::size_t>(axis)].mechanism);
}

void removeFixedSpeed(Project& project, int axis) {
    if (!has(project, axis)) return;
    std::visit(
        [](auto& m) {
            if (!m.motion.speeds.empty()) m.motion.speeds.pop_back();
        },
        project.axes[static_cast<std::size_t>(axis)].mechanism);
}

void addFixedTime(Project& project) {
    std::vector<FixedTime>& times = project.controller.times;
    const double next = times.empty() ? FixedTime{}.time : usualStep * times.back().time;
    times.push_back({freeIdIn(project, times, "time"), next});
}

void removeFixedTime(Project& project) {
    if (!project.controller.times.empty()) project.controller.times.pop_back();
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

std::string addCandidate(Project& project, int index) {
    if (!has(project, index)) return {};
    Axis& axis = project.axes[static_cast<std::size_t>(index)];
    const std::vector<std::string> taken = candidateLetters(axis);
    if (taken.size() >= static_cast<std::size_t>(mostCandidates)) return {};
    const auto firstFree = [&](bool mindRetired) {
        for (char c = 'A'; c <= 'Z'; ++c) {
            std::string letter(1, c);
            if (std::find(taken.begin(), taken.end(), letter) == taken.end() &&
                !(mindRetired && isRetired(project, letterId(axis, letter))))
                return letter;
        }
        return std::string();
    };
    std::string letter = firstFree(true);
    if (letter.empty()) letter = firstFree(false); // all 26 were used; better again than not at all
    const std::string place = "axes/" + axis.id, before = axis.candidate;
    axis.candidates.push_back(driveInUse(axis));
    if (axis.fittedToday.empty()) axis.fittedToday = axis.candidate; // what was alone is what is on the rig
    axis.candidate = letter;
    axis.candidateNote.clear();
    // The keys go with the drive that is put by, and the copy in use has them too.
    std::vector<KeptKey> moved;
    const std::vector<KeptKey> all = project.kept;
    moveDriveKeys(project, place, before, false, moved);
    for (const auto& [inUse, asCandidate] : driveParts)
        for (const KeptKey& k : all)
            if (isWithin(k.owner, place + '/' + std::string(inUse))) moved.push_back(k);
    project.kept.insert(project.kept.end(), moved.begin(), moved.end());
    return letter;
}

bool useCandidate(Project& project, int index, std::string_view letter) {
    if (!has(project, index)) return false;
    Axis& axis = project.axes[static_cast<std::size_t>(index)];
    const std::string before = axis.candidate, chosen(letter);
    if (!putIntoUse(axis, chosen)) return false;
    if (before == chosen) return true;
    std::vector<KeptKey> moved;
    moveDriveKeys(project, "axes/" + axis.id, before, false, moved);
    moveDriveKeys(project, "axes/" + axis.id, chosen, true, moved);
    project.kept.insert(project.kept.end(), moved.begin(), moved.end());
    return true;
}

void dropCandidate(Project& project, int index, std::string_view letter) {
    if (!has(project, index)) return;
    Axis& axis = project.axes[static_cast<std::size_t>(index)];
    if (std::erase_if(axis.candidates, [&](const DriveCandidate& c) { return c.id == letter; }) == 0) return;
    if (axis.fittedToday == letter) axis.fittedToday.clear();
    retireId(project, letterId(axis, letter));
    const std::string gone = "axes/" + axis.id + "/candidates/" + std::string(letter);
    std::erase_if(project.kept, [&](const KeptKey& k) { return isWithin(k.owner, gone); });
}

Axis withCandidate(const Axis& axis, std::string_view letter) {
    Axis copy = axis;
    putIntoUse(copy, letter);
    return copy;
}

} // namespace gantry
