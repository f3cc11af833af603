// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/rig/rig_layout.h"

#include <algorithm>
#include <cmath>

namespace gantry {

using geometry::Frame;
using geometry::plus;

geometry::Solid solidOf(const ChainBody& body, const Frame& frame) {
    const Place way = minus(body.to, body.from);
    const double length = lengthOf(way);
    geometry::Solid out;
    out.frame = frame.shifted(plus(plus({}, body.from, 0.5), body.to, 0.5));
    out.length = length;
    if (body.width > 0.0) {
        out.width = body.width;
        out.height = 2.0 * body.radius;
    } else {
        out.round = body.radius;
    }
    if (length > 0.0) {
        out.frame.ahead = frame.along(plus({}, way, 1.0 / length));
        // Square to the way it runs; the width lies level where that is possible.
        const Place& a = out.frame.ahead;
        Place left = plus(frame.left, a, -dot(a, frame.left));
        if (lengthOf(left) < 0.1) left = plus(frame.up, a, -dot(a, frame.up));
        out.frame.left = plus({}, left, 1.0 / lengthOf(left));
        const Place& l = out.frame.left;
        out.frame.up = {a.y * l.z - a.z * l.y, a.z * l.x - a.x * l.z, a.x * l.y - a.y * l.x};
    }
    return out;
}

std::vector<double> withinTravels(std::span<const Axis> axes, std::span<const double> pose) {
    std::vector<double> out(axes.size(), 0.0);
    for (std::size_t i = 0; i < axes.size() && i < pose.size(); ++i)
        if (std::isfinite(pose[i])) out[i] = std::clamp(pose[i], 0.0, usableTravel(axes[i]));
    return out;
}

RigLayout layRig(const RigSetup& rig, std::span<const double> pose, int free) {
    return layRig(rig, chainOf(rig), pose, free);
}

RigLayout layRig(const RigSetup& rig, const RigChain& chain, std::span<const double> pose, int free) {
    std::vector<double> places = withinTravels(rig.axes, pose);
    if (free >= 0) {
        const auto swing = static_cast<std::size_t>(free);
        places[swing] = pose[swing] - std::get<RotaryMechanism>(rig.axes[swing].mechanism).lowAngle;
    }
    std::vector<Frame> frames(chain.links.size());
    kinematics::forward(chain.links, places, frames);
    const Frame ground;
    const auto frameOf = [&](int link) -> const Frame& {
        return link < 0 ? ground : frames[static_cast<std::size_t>(link)];
    };

    RigLayout out;
    out.feet = chain.feet;
    out.bodies.reserve(chain.bodies.size());
    for (const ChainBody& b : chain.bodies) {
        const Frame& frame = frameOf(b.link);
        out.bodies.push_back(
            {b.kind, b.axis, b.link, frame.to(b.from), frame.to(b.to), b.radius, b.mass, frame.to(b.centre)});
        out.mass += b.mass;
        out.centre = plus(out.centre, out.bodies.back().centre, b.mass);
    }
    if (out.mass > 0.0) out.centre = plus({}, out.centre, 1.0 / out.mass);
    out.joints.resize(rig.axes.size());
    for (std::size_t i = 0; i < rig.axes.size(); ++i)
        if (chain.linkOf[i] >= 0) out.joints[i] = frameOf(chain.linkOf[i]).at;
    out.camera = frameOf(chain.lensOn).to(chain.lens);
    out.frames = std::move(frames);
    return out;
}

std::vector<geometry::Solid> solidsOf(const RigSetup& rig, std::span<const double> pose) {
    const RigChain chain = chainOf(rig);
    std::vector<Frame> frames(chain.links.size());
    kinematics::forward(chain.links, withinTravels(rig.axes, pose), frames);
    std::vector<geometry::Solid> out;
    for (const ChainBody& b : chain.bodies)
        out.push_back(solidOf(b, b.link < 0 ? Frame{} : frames[static_cast<std::size_t>(b.link)]));
    return out;
}

std::vector<double> shownPose(std::span<const Axis> axes) {
    std::vector<double> out;
    out.reserve(axes.size());
    for (const Axis& axis : axes) {
        if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism))
            out.push_back(linear->rail.shownAt);
        else if (const auto& r = std::get<RotaryMechanism>(axis.mechanism); turnsOnHead(axis.role))
            out.push_back(straightAhead(r) + r.boom.shownAt);
        else
            out.push_back(r.boom.shownAt);
    }
    return out;
}

double straightAhead(const RotaryMechanism& r) {
    return std::clamp(-r.lowAngle, 0.0, std::max(0.0, r.range));
}

} // namespace gantry
