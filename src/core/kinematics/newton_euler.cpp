// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/kinematics/newton_euler.h"

#include <algorithm>
#include <vector>

namespace gantry::kinematics {
namespace {

using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::Place;
using geometry::plus;
using geometry::times;

/// Inertia of a body times a vector, both in the frame of the ground.
Place inertiaTimes(const RigidBody& b, Place along, Place v) {
    return plus(times(v, b.across), along, (b.axial - b.across) * dot(along, v));
}

/// What a link and all that stands on it need, about the place of its frame.
struct Needs {
    Place force, moment;
};

/// What moves at a rate of 1 U/s when the joint does: a turn, or a velocity.
struct JointRate {
    Place turning, velocity;
};

JointRate rateOf(std::span<const Link> chain, std::span<const Moving> moving, std::size_t i) {
    const Link& link = chain[i];
    const geometry::Frame& f = moving[i].frame;
    switch (link.joint) {
    case Joint::Fixed:
        break;
    case Joint::Along: // keeps the direction of what it stands in
        return {{}, f.along(link.direction)};
    case Joint::Yaw:
        return {f.up, {}};
    case Joint::Pitch:
        return {times(f.left, -1.0), {}};
    case Joint::Roll:
        return {f.ahead, {}};
    case Joint::Parallel: {
        const geometry::Frame ground;
        const geometry::Frame& below = link.on < 0 ? ground : moving[static_cast<std::size_t>(link.on)].frame;
        const Place arm = minus(f.at, below.to(link.shift));
        return {{}, cross(times(f.left, -1.0), arm)};
    }
    }
    return {};
}

} // namespace

void jointForces(std::span<const Link> chain, std::span<const Moving> moving,
                 std::span<const RigidBody> bodies, double gravity, std::span<double> out) {
    std::fill(out.begin(), out.end(), 0.0);
    std::vector<Needs> needs(chain.size());
    for (const RigidBody& b : bodies) {
        if (b.link < 0) continue;
        const auto i = static_cast<std::size_t>(b.link);
        const Moving& m = moving[i];
        const Place way = m.frame.along(b.at), along = m.frame.along(b.along);
        Place rises = m.accelerationOf(way);
        rises.z += gravity; // holding up asks the same as speeding up
        const Place force = times(rises, b.mass);
        const Place spin =
            plus(inertiaTimes(b, along, m.turningRises), cross(m.turning, inertiaTimes(b, along, m.turning)));
        needs[i].force = plus(needs[i].force, force);
        needs[i].moment = plus(needs[i].moment, plus(spin, cross(way, force)));
    }
    for (std::size_t i = chain.size(); i-- > 0;) {
        const Link& link = chain[i];
        const Needs& need = needs[i];
        if (link.axis >= 0 && static_cast<std::size_t>(link.axis) < out.size()) {
            const JointRate rate = rateOf(chain, moving, i);
            out[static_cast<std::size_t>(link.axis)] +=
                dot(need.moment, rate.turning) + dot(need.force, rate.velocity);
        }
        if (link.on < 0) continue;
        const auto below = static_cast<std::size_t>(link.on);
        const Place way = minus(moving[i].frame.at, moving[below].frame.at);
        needs[below].force = plus(needs[below].force, need.force);
        needs[below].moment = plus(needs[below].moment, plus(need.moment, cross(way, need.force)));
    }
}

double energyOf(std::span<const Moving> moving, std::span<const RigidBody> bodies, double gravity) {
    double out = 0.0;
    for (const RigidBody& b : bodies) {
        if (b.link < 0) continue;
        const Moving& m = moving[static_cast<std::size_t>(b.link)];
        const Place way = m.frame.along(b.at), v = m.velocityOf(way);
        out += 0.5 * b.mass * dot(v, v) +
               0.5 * dot(m.turning, inertiaTimes(b, m.frame.along(b.along), m.turning)) +
               b.mass * gravity * plus(m.frame.at, way).z;
    }
    return out;
}

} // namespace gantry::kinematics
