// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/project.h"

#include "core/model/retired_ids.h"

#include <algorithm>
#include <set>

namespace gantry {

Section& sectionOf(Axis& axis) {
    if (auto* linear = std::get_if<LinearMechanism>(&axis.mechanism)) return linear->rail.section;
    return std::get<RotaryMechanism>(axis.mechanism).boom.section;
}

const Section& sectionOf(const Axis& axis) {
    if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism)) return linear->rail.section;
    return std::get<RotaryMechanism>(axis.mechanism).boom.section;
}

AxisKind kindOf(const Axis& axis) {
    return std::holds_alternative<LinearMechanism>(axis.mechanism) ? AxisKind::Linear : AxisKind::Rotary;
}

bool isLinear(const AnyOutput& output) {
    return output.index() < std::variant_size_v<LinearOutput>;
}

double usableTravel(const Axis& axis) {
    if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism))
        return std::max(0.0, linear->railLength - linear->carriageLength - 2.0 * linear->bumperLength);
    const auto& rotary = std::get<RotaryMechanism>(axis.mechanism);
    // A lens ring ends at its stops.
    if (const auto* ring = std::get_if<LensRingOutput>(&rotary.output); ring && ring->hardStops)
        return std::min(rotary.range, ring->ringThrow);
    return rotary.range;
}

const Axis* findAxis(const Project& project, std::string_view id) {
    const auto it =
        std::find_if(project.axes.begin(), project.axes.end(), [&](const Axis& a) { return a.id == id; });
    return it == project.axes.end() ? nullptr : &*it;
}

const Movement* findMovement(const Shot& shot, std::string_view axisId) {
    const auto it = std::find_if(shot.moves.begin(), shot.moves.end(),
                                 [&](const ShotMove& m) { return m.axis == axisId; });
    return it == shot.moves.end() ? nullptr : &it->movement;
}

std::optional<double> startOf(const Movement& movement) {
    return std::visit([](const auto& m) { return m.placed ? std::optional(m.start) : std::nullopt; },
                      movement);
}

double distanceOf(const Movement& movement) {
    return std::visit([](const auto& m) { return m.distance; }, movement);
}

AxisKind kindOf(const Movement& movement) {
    return movement.index() < 2 ? AxisKind::Linear : AxisKind::Rotary;
}

const std::string& linkId(const Link& link) {
    return std::visit([](const auto& l) -> const std::string& { return l.id; }, link);
}
std::string& linkId(Link& link) {
    return std::visit([](auto& l) -> std::string& { return l.id; }, link);
}

const MotorBody& bodyOf(const Motor& motor) {
    return std::visit([](const auto& m) -> const MotorBody& { return m.body; }, motor);
}
const std::string& nameOf(const Motor& motor) {
    return std::visit([](const auto& m) -> const std::string& { return m.name; }, motor);
}

double movingMass(std::span<const MassItem> payload, const Axis& axis, const LinearMechanism& linear) {
    double mass = linear.movingMass.value;
    if (axis.carriesPayload)
        for (const MassItem& item : payload) mass += item.mass.value;
    for (const MassItem& item : linear.items) mass += item.mass.value;
    if (const auto* belt = std::get_if<BeltOutput>(&linear.output); belt && belt->motorRides)
        mass += belt->motors * bodyOf(axis.motor).mass.value;
    return mass;
}

namespace {

/// What is wrong with one move: poses and targets that are named alike, places of axes that do not exist or
/// are of the other kind, and what it refers to and is not there.
template <class ClaimList>
void checkMove(const Project& project, const RigMove& move, std::vector<std::string>& found,
               const ClaimList& claimList) {
    const std::string of = "moves/" + move.id;
    claimList(move.poses, of + "/poses");
    claimList(move.targets, of + "/targets");
    claimList(move.blocks, of + "/blocks");
    for (const AxisBlock& b : move.blocks)
        if (findAxis(project, b.axis) == nullptr)
            found.push_back(of + "/blocks/" + b.id + ": there is no axis “" + b.axis +
                            "”. Name one of the rig's axes.");
    for (const AimTarget& t : move.targets) {
        const Axis* table = findAxis(project, t.rides);
        if (!t.rides.empty() && (table == nullptr || table->role != Role::Turntable))
            found.push_back(of + "/targets/" + t.id + ": “" + t.rides +
                            "” is no turntable of the rig. Name one, or none.");
    }
    const auto knows = [](const auto& list, const std::string& id) {
        return std::any_of(list.begin(), list.end(), [&](const auto& part) { return part.id == id; });
    };
    if (!move.shot.empty() && !knows(project.shots, move.shot))
        found.push_back(of + ": there is no shot “" + move.shot + "”. Name one of the shots, or none.");
    for (const KeyPose& pose : move.poses) {
        const std::string where = of + "/poses/" + pose.id;
        std::set<std::string_view> placed;
        for (const PosePlace& p : pose.places) {
            const Axis* axis = findAxis(project, p.axis);
            if (axis == nullptr)
                found.push_back(where + ": there is no axis “" + p.axis + "”. Name one of the rig's axes.");
            else if ((kindOf(*axis) == AxisKind::Linear) != (p.place.index() == 0))
                found.push_back(
                    where + ": the place of “" + p.axis +
                    "” is of the wrong kind; lengths belong to linear axes and angles to rotary ones.");
            if (!placed.insert(p.axis).second)
                found.push_back(where + ": the axis “" + p.axis + "” is placed twice. Place it once.");
        }
        const MoveSegment& s = pose.arrive;
        if (!s.target.empty() && !knows(move.targets, s.target))
            found.push_back(where + ": there is no target “" + s.target +
                            "”. Name one of the move's targets.");
        if (!s.speedOf.empty() && findAxis(project, s.speedOf) == nullptr)
            found.push_back(where + ": there is no axis “" + s.speedOf +
                            "” whose speed could be given. Name one of the rig's axes.");
    }
}

/// What is wrong with one plan: parts that are named alike, and a move or a shot that is not there.
template <class ClaimList>
void checkPlan(const Project& project, const IntervalPlan& plan, std::vector<std::string>& found,
               const ClaimList& claimList) {
    const std::string of = "plans/" + plan.id;
    claimList(plan.exposures, of + "/exposures");
    claimList(plan.cameras, of + "/cameras");
    claimList(plan.faults, of + "/faults");
    claimList(plan.sensors, of + "/sensors");
    claimList(plan.pauses, of + "/pauses");
    claimList(plan.consumers, of + "/consumers");
    claimList(plan.readings, of + "/readings");
    const auto knows = [](const auto& list, const std::string& id) {
        return id.empty() ||
               std::any_of(list.begin(), list.end(), [&](const auto& part) { return part.id == id; });
    };
    if (!knows(project.moves, plan.move))
        found.push_back(of + ": there is no move “" + plan.move + "”. Name one of the moves, or none.");
    if (!knows(project.shots, plan.shot))
        found.push_back(of + ": there is no shot “" + plan.shot + "”. Name one of the shots, or none.");
}

} // namespace

std::vector<std::string> inconsistencies(const Project& project) {
    std::vector<std::string> found;
    std::set<std::string_view> axisIds, shotIds;
    const auto claim = [&](std::set<std::string_view>& ids, const std::string& id, const std::string& where) {
        if (id.empty())
            found.push_back(where + ": an id is missing. Give every part an id of its own.");
        else if (id.find('/') != std::string::npos)
            found.push_back(where + ": the id “" + id + "” has a “/” in it, which parts places. Use “-”.");
        else if (!ids.insert(id).second)
            found.push_back(where + ": the id “" + id + "” stands twice. Give each part an id of its own.");
    };
    for (const Axis& axis : project.axes) {
        claim(axisIds, axis.id, "axes");
        std::set<std::string_view> linkIds;
        for (const Link& link : axis.links) claim(linkIds, linkId(link), "axes/" + axis.id + "/links");
        const auto claimAll = [&](const auto& parts, const char* list) {
            std::set<std::string_view> ids;
            for (const auto& part : parts) claim(ids, part.id, "axes/" + axis.id + "/" + list);
        };
        std::visit(
            [&](const auto& m) {
                claimAll(m.items, "mechanism/items");
                claimAll(m.bodies, "mechanism/bodies");
            },
            axis.mechanism);
        if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism))
            claimAll(linear->rail.loads, "mechanism/rail/loads");
        if (const auto* rotary = std::get_if<RotaryMechanism>(&axis.mechanism)) {
            claimAll(rotary->boom.discs, "mechanism/boom/discs");
            if (const auto* ring = std::get_if<LensRingOutput>(&rotary->output))
                claimAll(ring->marks, "mechanism/output/marks");
        }
        claimAll(axis.candidates, "candidates");
        for (const DriveCandidate& candidate : axis.candidates) {
            const std::string where = "axes/" + axis.id + "/candidates/" + candidate.id;
            if (candidate.id == axis.candidate)
                found.push_back(
                    where + ": the letter is that of the drive in use. Give each drive a letter of its own.");
            if (isLinear(candidate.output) != (kindOf(axis) == AxisKind::Linear))
                found.push_back(where +
                                ": the output does not suit this axis; a linear axis needs a linear output.");
            std::set<std::string_view> ids;
            for (const Link& link : candidate.links) claim(ids, linkId(link), where + "/links");
        }
    }
    const auto claimList = [&](const auto& parts, const std::string& where) {
        std::set<std::string_view> ids;
        for (const auto& part : parts) claim(ids, part.id, where);
    };
    std::set<std::string> aside;
    for (const SetAside& s : project.setAside)
        if (s.rule.empty())
            found.push_back("set_aside: a rule is missing. Name the verdict's rule, or remove the entry.");
        else if (!aside.insert(s.rule + '@' + s.axis + '@' + s.shot).second)
            found.push_back("set_aside: “" + s.rule + "” of “" + s.axis +
                            "” stands twice. Keep one entry for each verdict.");
    claimList(project.base.bodies, "base/bodies");
    claimList(project.payload, "payload");
    claimList(project.keepOut, "keep_out");
    claimList(project.kits, "kits");
    claimList(project.profiles, "profiles");
    claimList(project.later, "later");
    claimList(project.tests, "tests");
    claimList(project.moves, "moves");
    for (const RigMove& move : project.moves) checkMove(project, move, found, claimList);
    claimList(project.plans, "plans");
    for (const IntervalPlan& plan : project.plans) checkPlan(project, plan, found, claimList);
    for (const Shot& shot : project.shots) {
        claim(shotIds, shot.id, "shots");
        std::set<std::string_view> moved;
        for (const ShotMove& move : shot.moves) {
            const std::string where = "shots/" + shot.id + "/moves/" + move.axis;
            const Axis* axis = findAxis(project, move.axis);
            if (axis == nullptr)
                found.push_back(where + ": there is no axis “" + move.axis +
                                "”. Name one of the rig's axes.");
            else if (kindOf(*axis) != kindOf(move.movement))
                found.push_back(where +
                                ": the movement is of the wrong kind for this axis; lengths belong to "
                                "linear axes and angles to rotary ones.");
            if (!moved.insert(move.axis).second)
                found.push_back(where + ": the shot moves this axis twice. Keep one movement.");
        }
    }
    return found;
}

bool goesThrough(const RigMove& move, std::size_t pose) {
    return pose > 0 && pose + 1 < move.poses.size() && move.poses[pose].passes &&
           !(move.poses[pose].wait > 0.0);
}

std::string poseLetter(std::size_t pose) {
    std::string out;
    for (std::size_t n = pose + 1; n > 0; n = (n - 1) / 26)
        out.insert(out.begin(), static_cast<char>('A' + (n - 1) % 26));
    return out;
}

std::string freeId(const Project& project, std::string_view wish) {
    std::string base;
    for (const char c : wish) {
        const bool letter = (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9');
        if (letter)
            base += c;
        else if (c >= 'A' && c <= 'Z')
            base += static_cast<char>(c - 'A' + 'a');
        else if (!base.empty() && base.back() != '-')
            base += '-';
    }
    while (!base.empty() && base.back() == '-') base.pop_back();
    // A copy of "slide-2" is the next slide, not "slide-2-2".
    if (const auto dash = base.rfind('-');
        dash != std::string::npos && dash > 0 && dash + 1 < base.size() &&
        base.find_first_not_of("0123456789", dash + 1) == std::string::npos)
        base.resize(dash);
    if (base.empty()) base = "part";
    std::set<std::string_view> taken;
    for (const Axis& axis : project.axes) {
        taken.insert(axis.id);
        for (const Link& link : axis.links) taken.insert(linkId(link));
        for (const DriveCandidate& c : axis.candidates)
            for (const Link& link : c.links) taken.insert(linkId(link));
        std::visit(
            [&](const auto& m) {
                for (const MassItem& item : m.items) taken.insert(item.id);
            },
            axis.mechanism);
    }
    for (const Shot& shot : project.shots) taken.insert(shot.id);
    for (const RigMove& move : project.moves) taken.insert(move.id);
    for (const IntervalPlan& plan : project.plans) taken.insert(plan.id);
    std::string id = base;
    for (int n = 2; taken.contains(id) || isRetired(project, id); ++n) id = base + '-' + std::to_string(n);
    return id;
}

} // namespace gantry
