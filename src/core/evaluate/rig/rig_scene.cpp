// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/rig/rig_scene.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {

using geometry::Frame;
using geometry::Solid;
using kinematics::Joint;

namespace {

bool arms(BodyKind kind) {
    return kind == BodyKind::Arm || kind == BodyKind::Counterweight;
}
/// Small things beside which nobody reaches in: all they must not do is touch.
bool small(BodyKind kind) {
    return kind == BodyKind::Camera || kind == BodyKind::Lens || kind == BodyKind::Head ||
           kind == BodyKind::Load || kind == BodyKind::Placed;
}
bool plane(Obstacle obstacle) {
    return obstacle == Obstacle::Ground || obstacle == Obstacle::Wall || obstacle == Obstacle::Ceiling;
}
bool leaning(Joint joint) {
    return joint == Joint::Pitch || joint == Joint::Roll;
}

Solid roomOf(const KeepOut& room) {
    Solid out;
    out.frame.at = {room.x, room.y, room.z};
    out.length = room.length;
    out.width = room.width;
    out.height = room.height;
    return out;
}

} // namespace

Scene::Scene(const RigSetup& rig) : rig_(rig), chain_(chainOf(rig)), sweepOfAxis_(rig.axes.size(), -1) {
    for (std::size_t i = 0; i < rig.axes.size(); ++i) {
        if (chain_.linkOf[i] < 0) continue;
        // A whole turn shows everything that more turns do.
        double range = usableTravel(rig.axes[i]);
        if (kindOf(rig.axes[i]) == AxisKind::Rotary) range = std::min(range, 2.0 * std::numbers::pi);
        if (!(range > 0.0)) continue;
        sweepOfAxis_[i] = static_cast<int>(sweeps_.size());
        sweeps_.push_back({i, range});
    }
    findGround();
}

void Scene::pose(std::span<const double> places) {
    frames_.resize(chain_.links.size());
    kinematics::forward(chain_.links, places, frames_);
    solids_.clear();
    for (const ChainBody& b : chain_.bodies) solids_.push_back(solidOf(b, frameOf(b.link)));
}

void Scene::pose(std::span<const double> places, const Pair& pair) {
    frames_.resize(chain_.links.size());
    kinematics::forward(chain_.links, places, frames_);
    solids_.resize(chain_.bodies.size());
    const auto fill = [&](int i) {
        solids_[static_cast<std::size_t>(i)] = solidOf(body(i), frameOf(body(i).link));
    };
    fill(pair.body);
    if (pair.obstacle == Obstacle::Body) fill(pair.with);
}

double Scene::apart(const Pair& p) const {
    const Solid& a = solid(p.body);
    if (p.obstacle == Obstacle::KeepOut)
        return geometry::apart(a, roomOf(rig_.keepOut[static_cast<std::size_t>(p.with)]));
    if (plane(p.obstacle)) return geometry::apart(a, planeOf(p.obstacle));
    if (p.endless) {
        Solid rail = solid(p.with);
        rail.length += 2.0 * lengthOf(minus(a.frame.at, rail.frame.at)) + 4.0 * reachOf(a);
        return geometry::apart(a, rail);
    }
    const Solid& b = solid(p.with);
    if (!p.cut) return geometry::apart(a, b);
    // What is left of an arm outside of the ball around its pivot.
    constexpr double joint = 0.25; // [m]
    const ChainBody& arm = body(p.body);
    const Frame frame = frameOf(arm.link);
    geometry::Segment pieces[2];
    const int count = geometry::cutOut({frame.to(arm.from), frame.to(arm.to)}, frame.at, joint, pieces);
    double least = 1e6;
    for (int i = 0; i < count; ++i) {
        Solid piece = a;
        piece.frame.at = plus(plus({}, pieces[i].from, 0.5), pieces[i].to, 0.5);
        piece.length = lengthOf(minus(pieces[i].to, pieces[i].from));
        least = std::min(least, geometry::apart(piece, b));
    }
    return least;
}

double Scene::apartAtLeast(const Pair& p) const {
    if (plane(p.obstacle) || p.endless) return -1e6;
    const Solid& a = solid(p.body);
    const Solid b = p.obstacle == Obstacle::KeepOut ? roomOf(rig_.keepOut[static_cast<std::size_t>(p.with)])
                                                    : solid(p.with);
    return lengthOf(minus(a.frame.at, b.frame.at)) - reachOf(a) - reachOf(b);
}

Frame Scene::frameOf(int link) const {
    return link < 0 ? Frame{} : frames_[static_cast<std::size_t>(link)];
}

geometry::Plane Scene::planeOf(Obstacle obstacle) const {
    const Base& base = rig_.base;
    if (obstacle == Obstacle::Wall) return {{base.columnAhead - base.mount, 0.0, 0.0}, {1.0, 0.0, 0.0}};
    if (obstacle == Obstacle::Ceiling) return {{0.0, 0.0, base.height + base.mount}, {0.0, 0.0, -1.0}};
    return {{}, groundUp_};
}

/// A track that lies on the ground all along shows how the ground falls; stands stand level.
void Scene::findGround() {
    const LinearMechanism* rail = lowestRail(rig_.axes);
    if (rail == nullptr) return;
    const Rail& r = rail->rail;
    if (r.section.shape != SectionShape::NotGiven && r.support != RailSupport::Bedded) return;
    const double slope = rail->slope.value;
    groundUp_ = {-std::sin(slope), 0.0, std::cos(slope)};
}

void Scene::findPairs() {
    const int bodies = static_cast<int>(chain_.bodies.size());
    for (int i = 0; i < bodies; ++i) {
        const ChainBody& b = body(i);
        if (!b.solid || b.link < 0) continue;
        for (int k = 0; k < static_cast<int>(rig_.keepOut.size()); ++k)
            pairs_.push_back({i, Obstacle::KeepOut, k});
        if (b.kind != BodyKind::Carriage) { // what it and its rail stand on is no danger to it
            const bool comesDown =
                !chain_.feet.empty() && b.kind != BodyKind::Rail && leansBetween(b.link, -1);
            if (comesDown) pairs_.push_back({i, Obstacle::Ground});
            if (rig_.base.kind == BaseKind::WallBracket) pairs_.push_back({i, Obstacle::Wall});
            if (rig_.base.kind == BaseKind::Overhead) pairs_.push_back({i, Obstacle::Ceiling});
        }
        for (int k = 0; k < i; ++k) addBodies(i, k);
    }
    keepMoving();
}

/// A body and one that stands lower, or as low.
void Scene::addBodies(int i, int k) {
    const ChainBody &a = body(i), &b = body(k);
    if (!b.solid || a.link == b.link || a.mountedOn == k) return;
    Pair p{i, Obstacle::Body, k};
    p.below = kinematics::commonBelow(chain_.links, a.link, b.link);
    const bool placed = b.kind == BodyKind::Load || b.kind == BodyKind::Placed;
    if (a.kind == BodyKind::Rail || b.kind == BodyKind::Ballast) return;
    if (a.kind == BodyKind::Carriage && !placed) return;
    // A head's axes and the arm they stand on are one thing for it.
    if (a.kind == BodyKind::Head && (b.kind == BodyKind::Head || b.kind == BodyKind::Arm)) return;
    const bool standKnown = rig_.head.stand.source != Source::Assumed;
    if (!placed && b.axis >= 0 && !standKnown && standsOnArm(a.link, p.below)) return;
    // What only rides along and turns upright stays as far above what it rides on as it was built.
    if (small(a.kind) && !placed && !arms(b.kind) && !leansBetween(a.link, p.below)) return;
    p.cut = a.kind == BodyKind::Arm && !placed;
    p.endless = b.kind == BodyKind::Rail && runsAlong(a.link, p.below, k);
    p.onArm = keptLevelOn(a.link, b.link);
    if (small(a.kind) || small(b.kind)) p.wanted = criteria::ownClearance;
    pairs_.push_back(p);
}

/// Leaves out pairs that nothing moves against each other, and notes what moves the others.
void Scene::keepMoving() {
    pose(std::vector<double>(rig_.axes.size(), 0.0));
    const std::vector<double> half(sweeps_.size(), 1.0);
    std::vector<Pair> moving;
    for (const Pair& p : pairs_) {
        std::vector<std::size_t> by;
        eachStray(p, half, [&](std::size_t sweep, double travel) {
            if (travel > 0.0) by.push_back(sweep);
        });
        if (by.empty()) continue;
        std::sort(by.begin(), by.end());
        by.erase(std::unique(by.begin(), by.end()), by.end());
        moving.push_back(p);
        movers_.push_back(std::move(by));
    }
    pairs_ = std::move(moving);
}

Stray Scene::stray(const Pair& p, std::span<const double> half) const {
    Stray out;
    double most = 0.0;
    eachStray(p, half, [&](std::size_t sweep, double travel) {
        out.travel += travel;
        if (travel <= most) return;
        most = travel;
        out.widest = sweep;
    });
    return out;
}

/// Calls f(sweep, travel [m]) for each joint that moves the two things of a pair.
template <class F>
void Scene::eachStray(const Pair& p, std::span<const double> half, F f) const {
    const auto down = [&](int of) {
        double moved = 0.0;
        for (int link = body(of).link; link > p.below; link = linkAt(link).on) {
            const int sweep = sweepOf(link);
            if (sweep < 0 || half[static_cast<std::size_t>(sweep)] <= 0.0) continue;
            const double by = half[static_cast<std::size_t>(sweep)] * swing(p, link, solid(of), moved);
            f(static_cast<std::size_t>(sweep), by * share(p, link));
            moved += by;
        }
    };
    down(p.body);
    if (p.obstacle == Obstacle::Body && !p.onArm) down(p.with);
}

/// How far [m/U] a joint moves the farthest place of a body that the joints above it have moved already.
double Scene::swing(const Pair& p, int link, const Solid& s, double moved) const {
    const kinematics::Link& l = linkAt(link);
    const Frame& f = frames_[static_cast<std::size_t>(link)];
    const auto around = [&](Place axis) {
        const Place way = minus(s.frame.at, f.at);
        const double along = dot(way, axis);
        return std::sqrt(std::max(0.0, dot(way, way) - along * along)) +
               0.5 * std::hypot(s.length, s.width, s.height) + moved;
    };
    switch (l.joint) {
    case Joint::Fixed:
        break;
    case Joint::Along:
        return p.endless && l.on == p.below ? 0.0 : 1.0;
    case Joint::Yaw: {
        // The pan's own body looks the same from all sides.
        const bool round = p.obstacle == Obstacle::Body && body(p.with).kind == BodyKind::Head &&
                           body(p.with).axis == l.axis;
        return round ? 0.0 : around(f.up);
    }
    case Joint::Pitch:
        return around(f.left);
    case Joint::Roll:
        return around(f.ahead);
    case Joint::Parallel:
        return p.onArm ? around(f.left) : lengthOf(l.direction);
    }
    return 0.0;
}

/// Share [1] of what a joint moves that brings a body nearer to the plane of a pair; 1 for all else.
double Scene::share(const Pair& p, int link) const {
    if (!plane(p.obstacle) || anyBelow(link, leaning)) return 1.0;
    const kinematics::Link& l = linkAt(link);
    const Frame& f = frames_[static_cast<std::size_t>(link)];
    const Place normal = planeOf(p.obstacle).up;
    // Turning about its normal brings nothing nearer to a plane.
    if (l.joint == Joint::Yaw) return std::abs(dot(f.up, normal)) > 1.0 - 1e-12 ? 0.0 : 1.0;
    if (l.joint != Joint::Along) return 1.0;
    const bool turned = anyBelow(link, [](Joint j) { return j == Joint::Yaw; });
    return std::abs(normal.z) == 1.0 || !turned ? std::abs(dot(f.along(l.direction), normal)) : 1.0;
}

/// Whether what stands on `link` leans or rises against what stands on `below`.
bool Scene::leansBetween(int link, int below) const {
    for (; link > below; link = linkAt(link).on) {
        const kinematics::Link& l = linkAt(link);
        const bool lifts =
            l.joint == Joint::Along && rig_.axes[static_cast<std::size_t>(l.axis)].role == Role::Lift;
        if (lifts || leaning(l.joint) || l.joint == Joint::Parallel) return true;
    }
    return false;
}

/// Whether something on `link` is kept level by the links of the arm that turns with `arm`.
bool Scene::keptLevelOn(int link, int arm) const {
    if (arm < 0) return false;
    const kinematics::Link& turns = linkAt(arm);
    for (; link > turns.on; link = linkAt(link).on) {
        const kinematics::Link& l = linkAt(link);
        if (l.joint == Joint::Parallel && l.on == turns.on && l.axis == turns.axis) return true;
    }
    return false;
}

/// Whether what stands on `link` stands on an arm over `below`.
bool Scene::standsOnArm(int link, int below) const {
    for (; link > below; link = linkAt(link).on) {
        const Role role = rig_.axes[static_cast<std::size_t>(linkAt(link).axis)].role;
        if (role == Role::Swing || role == Role::BoomTilt) return true;
    }
    return false;
}

/// Whether a rail is that of the lowest link between the two.
bool Scene::runsAlong(int link, int below, int rail) const {
    while (linkAt(link).on > below) link = linkAt(link).on;
    return linkAt(link).axis == body(rail).axis;
}

bool Scene::anyBelow(int link, bool (*is)(Joint)) const {
    for (link = linkAt(link).on; link >= 0; link = linkAt(link).on)
        if (is(linkAt(link).joint)) return true;
    return false;
}

} // namespace gantry
