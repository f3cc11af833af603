// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/pose_search.h"

#include "core/evaluate/move/move_search.h"

#include <functional>

namespace gantry {
namespace {

/// What a clearance says of the rig; nothing where nothing can come near anything.
ClearanceResults resultsOf(const RigSetup& rig, const Clearance& c) {
    ClearanceResults out;
    if (!c.whole) out.distance = Figure::none(Reason::NotSearched);
    if (!c.whole || !c.any()) return out;
    out.distance = Figure::of(c.distance);
    out.atLeast = Figure::of(c.atLeast);
    out.pose = c.pose;
    Clearance named = c;
    if (const std::vector<int> axes = axesBetween(rig, c); !axes.empty()) {
        out.axis = axes.front();
        const auto axis = static_cast<std::size_t>(out.axis);
        // Angles count from level or from where the rig points, places from the low end.
        const auto* rotary = std::get_if<RotaryMechanism>(&rig.axes[axis].mechanism);
        const double from = rotary != nullptr ? rotary->lowAngle : 0.0;
        out.place = from + c.pose[axis];
        if (c.ratio() < 1.0)
            if (const auto clear = clearRange(rig, c, axis)) {
                out.clearRange = {from + clear->low, from + clear->high};
                // On its way there something else may be met before.
                if (c.distance <= 0.0 && clear->first.obstacle != Obstacle::None) named.pair = clear->first;
            }
    }
    out.wanted = Figure::of(named.pair.wanted);
    out.keepOut = named.pair.obstacle == Obstacle::KeepOut ? named.pair.with : -1;
    out.body = nearestBodyName(rig, named);
    out.with = obstacleName(rig, named);
    return out;
}

std::shared_ptr<const PoseSearch> searched(const RigSetup& rig, const Clearance& found,
                                           std::vector<MoveSearchResults> moves) {
    return std::make_shared<const PoseSearch>(
        PoseSearch{poseInputs(rig), found, resultsOf(rig, found), std::move(moves)});
}

/// Looks along every move of the rig.
std::vector<MoveSearchResults> searchMoves(const RigSetup& rig) {
    std::vector<MoveSearchResults> out;
    if (rig.planned == nullptr) return out;
    for (std::size_t m = 0; m < rig.planned->size(); ++m)
        out.push_back(searchMove(rig, rig.moves[m], (*rig.planned)[m]));
    return out;
}

} // namespace

std::vector<double> poseInputs(const RigSetup& rig) {
    const RigChain chain = chainOf(rig);
    std::vector<double> out;
    out.reserve(16 * (chain.links.size() + chain.bodies.size()));
    const auto put = [&](auto... value) { (out.push_back(static_cast<double>(value)), ...); };
    const auto place = [&](Place p) { put(p.x, p.y, p.z); };
    const auto name = [&](std::string_view text) { put(std::hash<std::string_view>()(text) & 0xffffffffU); };
    for (const kinematics::Link& l : chain.links) {
        put(l.on, l.joint, l.axis, l.offset);
        place(l.shift);
        place(l.direction);
    }
    for (const ChainBody& b : chain.bodies) {
        if (!b.solid) continue;
        put(b.kind, b.axis, b.link, b.radius, b.width, b.mountedOn);
        place(b.from);
        place(b.to);
        name(b.name);
    }
    for (const Axis& axis : rig.axes) put(usableTravel(axis), axis.role);
    for (const KeepOut& k : rig.keepOut) {
        put(k.x, k.y, k.z, k.length, k.width, k.height);
        name(k.name);
    }
    // How the ground falls, whether there is any, and where wall and ceiling are.
    const LinearMechanism* rail = lowestRail(rig.axes);
    if (rail != nullptr) put(rail->rail.support, rail->rail.section.shape, rail->slope.value);
    put(chain.feet.size(), rig.base.kind, rig.base.mount, rig.base.height, rig.head.stand.source);
    if (rig.planned == nullptr) return out;
    for (std::size_t m = 0; m < rig.planned->size(); ++m) {
        const PlannedMove& planned = (*rig.planned)[m];
        const MoveScene& scene = planned.scene;
        put(scene.pixelsPerMetre, scene.shotLens, scene.zoom.has_value());
        if (scene.zoom) {
            put(scene.zoom->axis, scene.zoom->marks.size());
            for (const optics::ZoomMark& mark : scene.zoom->marks) put(mark.angle, mark.focalLength);
        }
        put(scene.frameRate, rig.camera.deliveredWidth, rig.moves[m].preRoll, rig.moves[m].postRoll,
            rig.head.pupilBack.value);
        for (const double t : planned.plan.trajectory.times()) put(t);
        for (std::size_t a = 0; a < planned.plan.trajectory.axisCount(); ++a)
            for (const trajectory::Quintic& piece : planned.plan.trajectory.pieces(a))
                for (const double c : piece.coefficients()) put(c);
    }
    return out;
}

std::shared_ptr<const PoseSearch> searchPoses(const RigSetup& rig) {
    return searched(rig, sweepRig(rig), searchMoves(rig));
}

std::shared_ptr<const PoseSearch> searchPosesAtOnce(const RigSetup& rig) {
    constexpr int few = 60;
    if (rig.planned != nullptr)
        for (const PlannedMove& planned : *rig.planned)
            if (!planned.plan.trajectory.empty()) return nullptr;
    const Clearance found = sweepRig(rig, few, 4000);
    return found.complete ? searched(rig, found, searchMoves(rig)) : nullptr;
}

} // namespace gantry
