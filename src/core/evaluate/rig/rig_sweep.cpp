// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/rig/rig_sweep.h"

#include "core/structure/nearest.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

using structure::Segment;

/// Bodies that move and may run into something.
bool sweeps(BodyKind kind) {
    return kind == BodyKind::Arm || kind == BodyKind::Camera || kind == BodyKind::Counterweight ||
           kind == BodyKind::Carriage;
}

bool standsStill(BodyKind kind) {
    return kind == BodyKind::Leg || kind == BodyKind::Column;
}

/// An axis that sweeps, and how.
struct Joint {
    std::size_t axis = 0;
    bool turns = false; ///< else it runs along
    bool lifts = false; ///< turns about a level axis, so that points rise and fall
    double steep = 0.0; ///< [m/m] by which a running joint rises
    double range = 0.0; ///< [U]
};

/// What one box of poses shows: the nearest thing in its middle, and the least that anything can be apart.
class Look {
public:
    Look(const RigSetup& rig, const RigLayout& layout, std::span<const Joint> joints,
         std::span<const double> half)
        : rig_(rig), layout_(layout), joints_(joints), half_(half) {
        hasArm_ = std::any_of(layout.bodies.begin(), layout.bodies.end(),
                              [](const RigBody& b) { return b.kind == BodyKind::Arm; });
        hasLift_ =
            std::any_of(rig.axes.begin(), rig.axes.end(), [](const Axis& a) { return a.role == Role::Lift; });
        for (const RigBody& b : layout.bodies)
            if (sweeps(b.kind)) lookAt(b);
    }
    const Clearance& nearest() const { return nearest_; }
    structure::Approach approach() const { return {nearest_.distance, nearest_.atLeast, widest_}; }

private:
    /// How far [m] any point of a body can get from where it is in the middle of the box, and how far up or
    /// down. From the camera's end towards the base: a joint swings a point by its distance, to which comes
    /// what the joints above it have moved it already.
    struct Stray {
        double move = 0.0, lift = 0.0;
        std::size_t mover = 0, lifter = 0; ///< the joints that do most of it
    };
    Stray strayOf(const RigBody& b) const {
        Stray out;
        double mostMove = 0.0, mostLift = 0.0;
        for (std::size_t k = joints_.size(); k-- > 0;) {
            const Joint& joint = joints_[k];
            if (half_[k] <= 0.0 || static_cast<int>(joint.axis) > b.axis) continue;
            double swing = 1.0, lift = joint.steep;
            if (joint.turns) {
                const Place from = layout_.joints[joint.axis];
                const auto apart = [&](Place p) {
                    return std::hypot(p.x - from.x, p.y - from.y, joint.lifts ? p.z - from.z : 0.0);
                };
                swing = std::max(apart(b.from), apart(b.to)) + out.move;
                lift = joint.lifts ? swing : 0.0;
            }
            if (swing * half_[k] > mostMove) out.mover = k;
            if (lift * half_[k] > mostLift) out.lifter = k;
            mostMove = std::max(mostMove, swing * half_[k]);
            mostLift = std::max(mostLift, lift * half_[k]);
            out.move += swing * half_[k];
            out.lift += lift * half_[k];
        }
        return out;
    }

    void take(double distance, const Stray& stray, const RigBody& body, Obstacle obstacle, int keepOut = -1,
              BodyKind with = BodyKind::Leg) {
        // Only rising and falling brings anything nearer to the ground.
        const bool ground = obstacle == Obstacle::Ground;
        if (const double least = distance - (ground ? stray.lift : stray.move); least < nearest_.atLeast) {
            nearest_.atLeast = least;
            widest_ = ground ? stray.lifter : stray.mover;
        }
        if (!(distance < nearest_.distance)) return;
        nearest_.distance = distance;
        nearest_.body = body.kind;
        nearest_.obstacle = obstacle;
        nearest_.keepOut = keepOut;
        nearest_.with = with;
    }

    void lookAt(const RigBody& b) {
        const Segment line{b.from, b.to};
        const Stray stray = strayOf(b);
        // A carriage does not run into the ground that its track lies on, nor does what stands on it; an arm
        // or a lift may bring something down.
        const bool comesDown = b.kind != BodyKind::Carriage && (hasArm_ || hasLift_);
        if (comesDown && !layout_.feet.empty())
            take(std::min(b.from.z, b.to.z) - b.radius, stray, b, Obstacle::Ground);
        for (std::size_t k = 0; k < rig_.keepOut.size(); ++k) {
            const KeepOut& room = rig_.keepOut[k];
            const structure::Box box{{room.x, room.y, room.z}, room.length, room.width, room.height};
            take(structure::apart(line, box) - b.radius, stray, b, Obstacle::KeepOut, static_cast<int>(k));
        }
        // What rides on a rail stays over its base; a carriage does under an arm, too.
        if (!hasArm_ || b.kind == BodyKind::Carriage) return;
        for (const RigBody& other : layout_.bodies)
            if (standsStill(other.kind)) againstBase(b, line, stray, other);
    }

    void againstBase(const RigBody& b, const Segment& line, const Stray& stray, const RigBody& other) {
        const double thick = b.radius + other.radius;
        const auto against = [&](const Segment& s) {
            take(structure::apart(s, {other.from, other.to}) - thick, stray, b, Obstacle::Base, -1,
                 other.kind);
        };
        if (b.kind != BodyKind::Arm) return against(line);
        // An arm starts on its column and cannot be apart from it there.
        if (other.kind == BodyKind::Column) return;
        constexpr double joint = 0.25; // [m]
        Segment pieces[2];
        const int count = structure::cutOut(line, {0.0, 0.0, rig_.base.height}, joint, pieces);
        for (int i = 0; i < count; ++i) against(pieces[i]);
    }

    const RigSetup& rig_;
    const RigLayout& layout_;
    std::span<const Joint> joints_;
    std::span<const double> half_;
    bool hasArm_ = false, hasLift_ = false;
    std::size_t widest_ = 0;
    Clearance nearest_;
};

std::vector<Joint> jointsOf(const RigSetup& rig) {
    std::vector<Joint> out;
    const auto add = [&](Joint joint) {
        if (joint.range > 0.0) out.push_back(joint);
    };
    for (std::size_t i = 0; i < rig.axes.size(); ++i) {
        const Axis& axis = rig.axes[i];
        if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism)) {
            const bool lift = axis.role == Role::Lift;
            if (lift || axis.role == Role::Slide)
                add({i, false, false, lift ? 1.0 : std::abs(std::sin(linear->slope.value)),
                     usableTravel(axis)});
            continue;
        }
        // A whole turn shows everything that more turns do.
        const double range = std::min(usableTravel(axis), 2.0 * std::numbers::pi);
        if (axis.role == Role::Swing || axis.role == Role::Pan) add({i, true, false, 0.0, range});
        if (axis.role == Role::BoomTilt || axis.role == Role::Tilt) add({i, true, true, 0.0, range});
    }
    return out;
}

} // namespace

std::string_view obstacleName(const Clearance& c) {
    return c.obstacle == Obstacle::Ground ? "ground" : bodyName(c.with);
}

Clearance clearanceAt(const RigSetup& rig, std::span<const double> pose) {
    const RigLayout layout = layRig(rig, pose);
    Clearance out = Look(rig, layout, {}, {}).nearest();
    out.pose.assign(pose.begin(), pose.end());
    out.looks = 1;
    return out;
}

Clearance sweepRig(const RigSetup& rig) {
    const std::vector<Joint> joints = jointsOf(rig);
    std::vector<double> ranges;
    for (const Joint& j : joints) ranges.push_back(j.range);
    std::vector<double> pose = shownPose(rig.axes);
    const auto at = [&](std::span<const double> values) {
        for (std::size_t i = 0; i < values.size(); ++i) pose[joints[i].axis] = values[i];
    };
    const structure::Nearest nearest =
        structure::nearestApproach(ranges, [&](std::span<const double> middle, std::span<const double> half) {
            at(middle);
            const RigLayout layout = layRig(rig, pose);
            return Look(rig, layout, joints, half).approach();
        });
    at(nearest.pose);
    Clearance out = clearanceAt(rig, pose);
    out.atLeast = nearest.atLeast;
    out.looks = nearest.looks;
    return out;
}

} // namespace gantry
