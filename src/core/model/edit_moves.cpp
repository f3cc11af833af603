// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/edit_moves.h"

#include "core/model/retired_ids.h"

#include <algorithm>
#include <utility>

namespace gantry {
namespace {

template <class List>
bool has(const List& list, int index) {
    return index >= 0 && index < static_cast<int>(list.size());
}
RigMove* moveIn(Project& p, int move) {
    return has(p.moves, move) ? &p.moves[static_cast<std::size_t>(move)] : nullptr;
}
KeyPose* poseIn(Project& p, int move, int pose) {
    RigMove* m = moveIn(p, move);
    return m != nullptr && has(m->poses, pose) ? &m->poses[static_cast<std::size_t>(pose)] : nullptr;
}

PosePlace placeOf(const Axis& axis, double at) {
    if (kindOf(axis) == AxisKind::Linear)
        return {axis.id, AxisPlace<AxisKind::Linear>{at, PlaceFrom::LowEnd}};
    return {axis.id, AxisPlace<AxisKind::Rotary>{at, PlaceFrom::LowEnd}};
}

std::vector<PosePlace> placesOf(const Project& p, std::span<const double> places) {
    std::vector<PosePlace> out;
    for (std::size_t a = 0; a < p.axes.size() && a < places.size(); ++a)
        out.push_back(placeOf(p.axes[a], places[a]));
    return out;
}

} // namespace

int addMove(Project& project) {
    RigMove move;
    move.id = freeIdIn(project, project.moves, "move");
    move.name = project.moves.empty() ? "Move" : "Move " + std::to_string(project.moves.size() + 1);
    if (!project.shots.empty()) move.shot = project.shots.front().id;
    project.moves.push_back(std::move(move));
    return static_cast<int>(project.moves.size()) - 1;
}

int copyMove(Project& project, int move) {
    if (!has(project.moves, move)) return -1;
    RigMove copy = project.moves[static_cast<std::size_t>(move)];
    const std::string from = copy.id;
    copy.id = freeIdIn(project, project.moves, from);
    copy.name += " copy";
    copyKept(project, "moves/" + from, "moves/" + copy.id);
    project.moves.insert(project.moves.begin() + move + 1, std::move(copy));
    return move + 1;
}

void removeMove(Project& project, int move) {
    if (has(project.moves, move)) project.moves.erase(project.moves.begin() + move);
}

int storePose(Project& project, int move, int after, std::span<const double> places) {
    RigMove* m = moveIn(project, move);
    if (m == nullptr) return -1;
    KeyPose pose;
    pose.id = freeIdIn(project, m->poses, "pose");
    pose.places = placesOf(project, places);
    if (const KeyPose* before = poseIn(project, move, after)) pose.arrive = before->arrive;
    const int at = std::clamp(after + 1, 0, static_cast<int>(m->poses.size()));
    m->poses.insert(m->poses.begin() + static_cast<std::ptrdiff_t>(at), std::move(pose));
    return at;
}

void restorePose(Project& project, int move, int pose, std::span<const double> places) {
    if (KeyPose* p = poseIn(project, move, pose)) p->places = placesOf(project, places);
}

void removePose(Project& project, int move, int pose) {
    if (poseIn(project, move, pose) == nullptr) return;
    RigMove& m = *moveIn(project, move);
    m.poses.erase(m.poses.begin() + pose);
}

int movePose(Project& project, int move, int pose, int step) {
    if (poseIn(project, move, pose) == nullptr || poseIn(project, move, pose + step) == nullptr) return pose;
    RigMove& m = *moveIn(project, move);
    std::iter_swap(m.poses.begin() + pose, m.poses.begin() + pose + step);
    return pose + step;
}

namespace {

double& wayOf(const Project& project, AxisBlock& block) {
    const Axis* axis = findAxis(project, block.axis);
    return axis == nullptr || kindOf(*axis) == AxisKind::Linear ? block.by : block.byAngle;
}

} // namespace

void reverseMove(Project& project, int move, double duration) {
    RigMove* m = moveIn(project, move);
    if (m == nullptr) return;
    for (AxisBlock& block : m->blocks) {
        // It begins where the block left the axis, and undoes it.
        double& way = wayOf(project, block);
        for (KeyPose& pose : m->poses)
            for (PosePlace& place : pose.places)
                if (place.axis == block.axis)
                    std::visit(
                        [&](auto& at) {
                            if (at.from != PlaceFrom::PoseBefore)
                                at.at += at.from == PlaceFrom::HighEnd ? -way : way;
                        },
                        place.place);
        way = -way;
        block.start = std::max(0.0, duration - block.start - block.length);
        std::swap(block.easeIn, block.easeOut);
    }
    std::reverse(m->poses.begin(), m->poses.end());
    // How the rig came to a pose is how it leaves it now.
    std::vector<MoveSegment> arrive;
    for (const KeyPose& pose : m->poses) arrive.push_back(pose.arrive);
    for (std::size_t i = 0; i < m->poses.size(); ++i) {
        MoveSegment& s = m->poses[i].arrive;
        s = i > 0 ? arrive[i - 1] : arrive.back();
        std::swap(s.easeIn, s.easeOut);
    }
}

void mirrorMove(Project& project, int move, int axis) {
    RigMove* m = moveIn(project, move);
    if (m == nullptr) return;
    for (AxisBlock& block : m->blocks)
        if (axis < 0 || block.axis == project.axes[static_cast<std::size_t>(axis)].id) {
            double& way = wayOf(project, block);
            way = -way;
        }
    for (KeyPose& pose : m->poses)
        for (PosePlace& place : pose.places) {
            const Axis* of = findAxis(project, place.axis);
            if (of == nullptr || (axis >= 0 && of != &project.axes[static_cast<std::size_t>(axis)])) continue;
            const double travel = usableTravel(*of);
            std::visit(
                [&](auto& at) {
                    if (at.from == PlaceFrom::PoseBefore)
                        at.at = -at.at;
                    else
                        at.at = travel - at.at;
                },
                place.place);
        }
}

void retimeMove(Project& project, int move, double factor) {
    RigMove* m = moveIn(project, move);
    if (m == nullptr || !(factor > 0.0)) return;
    for (KeyPose& pose : m->poses) {
        pose.wait *= factor;
        pose.arrive.time *= factor;
        pose.arrive.speed /= factor;
        pose.arrive.angularSpeed /= factor;
    }
    for (AxisBlock& block : m->blocks) {
        block.start *= factor;
        block.length *= factor;
    }
}

int addTarget(Project& project, int move, double x, double y, double z) {
    RigMove* m = moveIn(project, move);
    if (m == nullptr) return -1;
    AimTarget target;
    target.id = freeIdIn(project, m->targets, "target");
    target.name = m->targets.empty() ? "Target" : "Target " + std::to_string(m->targets.size() + 1);
    target.x = x;
    target.y = y;
    target.z = z;
    m->targets.push_back(std::move(target));
    return static_cast<int>(m->targets.size()) - 1;
}

void rideOn(Project& project, int move, int target, const std::string& turntable) {
    RigMove* m = moveIn(project, move);
    if (m == nullptr || target < 0 || target >= static_cast<int>(m->targets.size())) return;
    AimTarget& t = m->targets[static_cast<std::size_t>(target)];
    if (t.rides == turntable) {
        t.rides.clear();
        return;
    }
    t.rides = turntable;
    t.aboutX = t.x;
    t.aboutY = t.y;
}

void removeTarget(Project& project, int move, int target) {
    RigMove* m = moveIn(project, move);
    if (m != nullptr && has(m->targets, target)) m->targets.erase(m->targets.begin() + target);
}

int addBlock(Project& project, int move, int axis, double start, double end) {
    RigMove* m = moveIn(project, move);
    if (m == nullptr || !has(project.axes, axis) || !(end > start)) return -1;
    const Axis& of = project.axes[static_cast<std::size_t>(axis)];
    AxisBlock block;
    block.id = freeIdIn(project, m->blocks, "block");
    block.axis = of.id;
    block.start = start;
    block.length = std::min(4.0, end - start);
    // A tenth of what it can do, which no rig is hurt by.
    wayOf(project, block) = 0.1 * usableTravel(of);
    m->blocks.push_back(std::move(block));
    return static_cast<int>(m->blocks.size()) - 1;
}

void removeBlock(Project& project, int move, int block) {
    RigMove* m = moveIn(project, move);
    if (m != nullptr && has(m->blocks, block)) m->blocks.erase(m->blocks.begin() + block);
}

PosePlace* placeIn(Project& project, int move, int pose, int axis) {
    KeyPose* p = poseIn(project, move, pose);
    if (p == nullptr || !has(project.axes, axis)) return nullptr;
    const Axis& of = project.axes[static_cast<std::size_t>(axis)];
    const auto it =
        std::find_if(p->places.begin(), p->places.end(), [&](const PosePlace& x) { return x.axis == of.id; });
    if (it != p->places.end()) return &*it;
    p->places.push_back(placeOf(of, 0.0));
    return &p->places.back();
}

} // namespace gantry
