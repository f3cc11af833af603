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

} // namespace

void jointForces(std::span<const Link> chain, std::span<const Moving> moving,
                 std::span<const RigidBody> bodies, double gravity, std::span<double> out) {
    std::fill(out.begin(), out.end(), 0.0);
    // What the bodies on a link and on all that stands on it ask, the moment about the place of its frame.
    struct Asked {
        Place force, moment;
        bool any = false;

        void add(Place f, Place m) {
            force = plus(force, f);
            moment = plus(moment, m);
            any = true;
        }
    };
    thread_local std::vector<Asked> of;
    of.assign(chain.size(), {});
    for (const RigidBody& b : bodies) {
        if (b.link < 0) continue;
        const auto i = static_cast<std::size_t>(b.link);
        const Moving& m = moving[i];
        const Place way = m.frame.along(b.at), along = m.frame.along(b.along);
        Place rises = m.accelerationOf(way);
        rises.z += gravity; // holding up asks the same as speeding up
        const Place force = times(rises, b.mass);
        const Place turns =
            plus(inertiaTimes(b, along, m.turningRises), cross(m.turning, inertiaTimes(b, along, m.turning)));
        of[i].add(force, plus(turns, cross(way, force)));
    }
    for (std::size_t i = chain.size(); i-- > 0;) {
        if (!of[i].any) continue;
        const auto& [force, moment, any] = of[i];
        const Link& link = chain[i];
        if (link.axis >= 0 && static_cast<std::size_t>(link.axis) < out.size()) {
            const JointRate rate = rateOf(chain, moving, i);
            out[static_cast<std::size_t>(link.axis)] += dot(moment, rate.turning) + dot(force, rate.velocity);
        }
        if (link.on < 0) continue;
        const auto below = static_cast<std::size_t>(link.on);
        of[below].add(force, plus(moment, cross(minus(moving[i].frame.at, moving[below].frame.at), force)));
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
