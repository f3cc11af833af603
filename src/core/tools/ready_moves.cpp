// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/ready_moves.h"

#include "core/evaluate/move/plan_move.h"
#include "core/evaluate/rig/rig_layout.h"
#include "core/model/edit_moves.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

constexpr std::array infos{
    ReadyMoveInfo{
        ReadyMove::Reveal, "Reveal",
        "From behind something near to what matters: near things sweep by, and the eye follows them."},
    ReadyMoveInfo{
        ReadyMove::SlidePast, "Slide past, aimed",
        "The subject stays where it is while the background runs behind it: depth, and all attention on it."},
    ReadyMoveInfo{ReadyMove::PushIn, "Push in",
                  "The subject grows and the background does not: what was a place becomes a person."},
    ReadyMoveInfo{ReadyMove::Orbit, "Orbit, aimed",
                  "Round the subject: its shape is seen, and the background turns."},
    ReadyMoveInfo{ReadyMove::Rise, "Rise",
                  "Up and away from the ground: near things sink, and the place opens."},
    ReadyMoveInfo{ReadyMove::Overhead, "Overhead pass",
                  "Across from above, looking down: patterns in place of depth."}};

int axisWith(const Project& p, Role role) {
    for (std::size_t a = 0; a < p.axes.size(); ++a)
        if (p.axes[a].role == role && usableTravel(p.axes[a]) > 0.0) return static_cast<int>(a);
    return -1;
}
int riseOf(const Project& p) {
    const int lift = axisWith(p, Role::Lift);
    return lift >= 0 ? lift : axisWith(p, Role::BoomTilt);
}
/// The axis that a move is made of; −1 where the rig has none.
int leads(const Project& p, ReadyMove move) {
    switch (move) {
    case ReadyMove::Reveal:
    case ReadyMove::SlidePast:
    case ReadyMove::PushIn:
        return axisWith(p, Role::Slide);
    case ReadyMove::Orbit:
        return axisWith(p, Role::Swing);
    case ReadyMove::Rise:
        return riseOf(p);
    case ReadyMove::Overhead:
        return axisWith(p, Role::Tilt) < 0 ? -1
                                           : std::max(axisWith(p, Role::Slide), axisWith(p, Role::Swing));
    }
    return -1;
}
bool aims(ReadyMove move) {
    return move == ReadyMove::SlidePast || move == ReadyMove::Orbit;
}

/// Places with pan and tilt turned from straight ahead, as far as their ranges go.
void turn(const Project& p, std::vector<double>& places, Role role, double angle) {
    const int axis = axisWith(p, role);
    if (axis < 0) return;
    const auto& r = std::get<RotaryMechanism>(p.axes[static_cast<std::size_t>(axis)].mechanism);
    places[static_cast<std::size_t>(axis)] = std::clamp(angle - r.lowAngle, 0.0, r.range);
}

} // namespace

std::span<const ReadyMoveInfo> readyMoves() {
    return infos;
}

bool suits(const Project& project, ReadyMove move) {
    if (leads(project, move) < 0) return false;
    return !aims(move) || axisWith(project, Role::Pan) >= 0;
}

namespace {

/// The poses of a ready-made move that leaves a share of the leading travel free at each end; its index.
int makeMove(Project& project, ReadyMove kind, double freeEnds) {
    const auto lead = static_cast<std::size_t>(leads(project, kind));
    const int index = addMove(project);
    RigMove& move = project.moves[static_cast<std::size_t>(index)];
    for (const ReadyMoveInfo& info : infos)
        if (info.kind == kind) move.name = info.name;
    const double travel = usableTravel(project.axes[lead]);
    const double distance = project.shots.empty() ? 2.0 : project.shots.front().subjectDistance;

    std::vector<double> from = withinTravels(project.axes, shownPose(project.axes));
    // Along a rail and round a column one looks to the side, into a push in ahead; from above straight down.
    if (kind == ReadyMove::Reveal || aims(kind)) turn(project, from, Role::Pan, 0.5 * std::numbers::pi);
    if (kind == ReadyMove::PushIn) turn(project, from, Role::Pan, 0.0);
    if (kind == ReadyMove::Overhead) {
        turn(project, from, Role::Tilt, -0.5 * std::numbers::pi);
        if (const int rise = riseOf(project); rise >= 0)
            from[static_cast<std::size_t>(rise)] =
                0.9 * usableTravel(project.axes[static_cast<std::size_t>(rise)]);
    }
    std::vector<double> to = from;
    from[lead] = freeEnds * travel;
    to[lead] = (1.0 - freeEnds) * travel;
    if (aims(kind)) {
        // What the camera looks at from the middle, at the distance of the first shot.
        std::vector<double> middle = from;
        middle[lead] = 0.5 * travel;
        const RigSetup rig = setupOf(project, Courses::No);
        const MoveScene scene = sceneOf(rig, move);
        std::vector<kinematics::Moving> links(scene.links.size());
        kinematics::forwardMotion(scene.links, {middle, {}, {}}, links);
        const geometry::Place at = geometry::plus(links.back().frame.at, links.back().frame.ahead, distance);
        addTarget(project, index, at.x, at.y, at.z);
    }
    for (std::size_t a = 0; a < from.size(); ++a) {
        const SoftEnds ends = softEnds(project.axes[a]);
        from[a] = std::clamp(from[a], ends.low, ends.high);
        to[a] = std::clamp(to[a], ends.low, ends.high);
    }
    storePose(project, index, -1, from);
    storePose(project, index, 0, to);
    RigMove& made = project.moves[static_cast<std::size_t>(index)];
    if (aims(kind)) {
        made.poses[1].arrive.kind = SegmentKind::Aimed;
        made.poses[1].arrive.target = made.targets.front().id;
    }
    return index;
}

} // namespace

int addReadyMove(Project& project, ReadyMove kind) {
    if (!suits(project, kind)) return -1;
    // As much of the travel as the head can turn with.
    for (const double freeEnds : {0.05, 0.15, 0.25, 0.35, 0.42}) {
        Project tried = project;
        const int index = makeMove(tried, kind, freeEnds);
        RigMove& made = tried.moves[static_cast<std::size_t>(index)];
        const RigSetup rig = setupOf(tried, Courses::No);
        const MovePlan plan = planMove(made, sceneOf(rig, made));
        if (!plan.troubles.empty() || plan.segments.empty()) continue;
        // Half as long again as its limits ask, and not less than five seconds.
        made.poses[1].arrive.time = std::max(5.0, std::ceil(1.5 * plan.segments.front().least));
        project = std::move(tried);
        return index;
    }
    return -1;
}

} // namespace gantry
