// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/kinematics/rig_chain.h"

#include <cmath>

namespace gantry::kinematics {
namespace {

using geometry::Frame;
using geometry::Place;
using geometry::plus;

/// c·a + s·b.
Place mix(Place a, double c, Place b, double s) {
    return plus(plus({}, a, c), b, s);
}

} // namespace

Frame movedBy(const Link& link, Frame f, double q) {
    const double c = std::cos(q), s = std::sin(q);
    switch (link.joint) {
    case Joint::Fixed:
        break;
    case Joint::Along:
        f.at = plus(f.at, f.along(link.direction), q);
        break;
    case Joint::Yaw:
        return {f.at, mix(f.ahead, c, f.left, s), mix(f.left, c, f.ahead, -s), f.up};
    case Joint::Pitch:
        return {f.at, mix(f.ahead, c, f.up, s), f.left, mix(f.up, c, f.ahead, -s)};
    case Joint::Roll:
        return {f.at, f.ahead, mix(f.left, c, f.up, s), mix(f.up, c, f.left, -s)};
    case Joint::Parallel: {
        const Place& arm = link.direction;
        f.at = plus(f.at, f.along({c * arm.x - s * arm.z, arm.y, s * arm.x + c * arm.z}));
        break;
    }
    }
    return f;
}

void forward(std::span<const Link> chain, std::span<const double> places, std::span<geometry::Frame> out) {
    for (std::size_t i = 0; i < chain.size(); ++i) {
        const Link& link = chain[i];
        const Frame below = link.on < 0 ? Frame{} : out[static_cast<std::size_t>(link.on)];
        const auto axis = static_cast<std::size_t>(link.axis);
        const double place = link.axis >= 0 && axis < places.size() ? places[axis] : 0.0;
        out[i] = movedBy(link, below.shifted(link.shift), link.offset + place);
    }
}

std::vector<bool> standingOn(std::span<const Link> chain, int link) {
    std::vector<bool> out(chain.size());
    for (auto i = static_cast<std::size_t>(link); i < chain.size(); ++i)
        out[i] =
            static_cast<int>(i) == link || (chain[i].on >= 0 && out[static_cast<std::size_t>(chain[i].on)]);
    return out;
}

namespace {

/// What one joint alone does to a place that stands on it.
Place velocityBy(const Link& l, const Frame& f, const Frame& below, Place at) {
    const Place way = minus(at, f.at);
    switch (l.joint) {
    case Joint::Fixed:
        break;
    case Joint::Along:
        return f.along(l.direction);
    case Joint::Yaw:
        return cross(f.up, way);
    case Joint::Pitch: // about right, which is minus left
        return cross(way, f.left);
    case Joint::Roll:
        return cross(f.ahead, way);
    case Joint::Parallel:
        // The end of the arm goes round where its link stands; what stands on it keeps its direction.
        return cross(minus(f.at, below.to(l.shift)), f.left);
    }
    return {};
}

} // namespace

std::vector<Place> velocities(std::span<const Link> chain, std::span<const Frame> frames, int axis,
                              std::span<const Fixed> places) {
    std::vector<Place> out(places.size());
    for (std::size_t k = 0; k < chain.size(); ++k) {
        const Link& l = chain[k];
        if (l.axis != axis) continue;
        const Frame below = l.on < 0 ? Frame{} : frames[static_cast<std::size_t>(l.on)];
        const std::vector<bool> stands = standingOn(chain, static_cast<int>(k));
        for (std::size_t i = 0; i < places.size(); ++i)
            if (places[i].link >= 0 && stands[static_cast<std::size_t>(places[i].link)])
                out[i] = plus(out[i], velocityBy(l, frames[k], below, places[i].at));
    }
    return out;
}

int commonBelow(std::span<const Link> chain, int a, int b) {
    while (a != b) {
        int& higher = a > b ? a : b;
        higher = chain[static_cast<std::size_t>(higher)].on;
    }
    return a;
}

} // namespace gantry::kinematics
