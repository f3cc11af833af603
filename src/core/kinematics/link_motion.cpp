// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/kinematics/link_motion.h"

#include <cmath>
#include <vector>

namespace gantry::kinematics {
namespace {

using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::Place;
using geometry::plus;
using geometry::times;

/// The same body, looked at from a place that goes with it.
Moving shifted(const Moving& m, Place way) {
    Moving out = m;
    out.frame.at = plus(m.frame.at, way);
    out.velocity = m.velocityOf(way);
    out.acceleration = m.accelerationOf(way);
    return out;
}

/// A shift that itself changes as seen from the body: by `rate` [m/s] and `rises` [m/s²].
Moving carried(const Moving& m, Place way, Place rate, Place rises) {
    Moving out = shifted(m, way);
    out.velocity = plus(out.velocity, rate);
    out.acceleration = plus(plus(out.acceleration, cross(m.turning, rate), 2.0), rises);
    return out;
}

Moving turned(const Moving& m, const geometry::Frame& after, Place about, double rate, double rises) {
    Moving out = m;
    out.frame = after;
    out.turningRises = plus(plus(m.turningRises, about, rises), cross(m.turning, about), rate);
    out.turning = plus(m.turning, about, rate);
    return out;
}

double valueOf(std::span<const double> values, int axis) {
    return axis >= 0 && static_cast<std::size_t>(axis) < values.size()
               ? values[static_cast<std::size_t>(axis)]
               : 0.0;
}

} // namespace

Place Moving::velocityOf(Place way) const {
    return plus(velocity, cross(turning, way));
}

Place Moving::accelerationOf(Place way) const {
    return plus(plus(acceleration, cross(turningRises, way)), cross(turning, cross(turning, way)));
}

Place JointRate::velocityOf(Place way) const {
    return plus(velocity, cross(turning, way));
}

Moving motionOf(const Link& link, const Moving& below, double place, double rate, double rises) {
    const Moving stand = shifted(below, below.frame.along(link.shift));
    const geometry::Frame frame = movedBy(link, stand.frame, link.offset + place);
    switch (link.joint) {
    case Joint::Fixed:
        break;
    case Joint::Along: {
        const Place along = stand.frame.along(link.direction);
        return carried(stand, minus(frame.at, stand.frame.at), times(along, rate), times(along, rises));
    }
    case Joint::Yaw:
        return turned(stand, frame, frame.up, rate, rises);
    case Joint::Pitch: // about right, which is minus left
        return turned(stand, frame, times(frame.left, -1.0), rate, rises);
    case Joint::Roll:
        return turned(stand, frame, frame.ahead, rate, rises);
    case Joint::Parallel: {
        const Place arm = minus(frame.at, stand.frame.at), about = times(stand.frame.left, -1.0);
        const Place round = cross(about, arm);
        return carried(stand, arm, times(round, rate),
                       plus(times(round, rises), cross(about, round), rate * rate));
    }
    }
    return stand;
}

void forwardMotion(std::span<const Link> chain, const AxisMotion& motion, std::span<Moving> out) {
    const Moving ground;
    for (std::size_t i = 0; i < chain.size(); ++i) {
        const Link& link = chain[i];
        out[i] = motionOf(link, link.on < 0 ? ground : out[static_cast<std::size_t>(link.on)],
                          valueOf(motion.places, link.axis), valueOf(motion.speeds, link.axis),
                          valueOf(motion.accelerations, link.axis));
    }
}

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

InPicture pictureOf(const Moving& lens, const Point& point, const Focal& focal) {
    const geometry::Frame& f = lens.frame;
    const Place way = minus(point.at, f.at), rate = minus(point.velocity, lens.velocity),
                rises = minus(point.acceleration, lens.acceleration);
    // As seen by one who turns with the camera.
    const Place relative = minus(rate, cross(lens.turning, way));
    const Place bends =
        minus(minus(minus(rises, cross(lens.turningRises, way)), times(cross(lens.turning, relative), 2.0)),
              cross(lens.turning, cross(lens.turning, way)));
    const auto seen = [&](Place a) { return Place{dot(a, f.ahead), dot(a, f.left), dot(a, f.up)}; };
    const Place y = seen(way), d = seen(relative), dd = seen(bends);
    InPicture out;
    if (!(y.x > 0.0)) return out;
    out.inFront = true;
    out.depth = y.x;
    out.depthSpeed = d.x;
    out.depthRises = dd.x;
    out.range = lengthOf(way);
    // Quotient q = n/x: q' = (n' − q x')/x, q" = (n" − 2 q' x' − q x")/x.
    const auto quotient = [&](double n, double rateOf, double risesOf, double sign, double& place,
                              double& speed, double& rise) {
        const double q = n / y.x, q1 = (rateOf - q * d.x) / y.x,
                     q2 = (risesOf - 2.0 * q1 * d.x - q * dd.x) / y.x;
        place = sign * focal.length * q;
        speed = sign * (focal.length * q1 + focal.rate * q);
        rise = sign * (focal.length * q2 + 2.0 * focal.rate * q1 + focal.rises * q);
    };
    quotient(y.y, d.y, dd.y, -1.0, out.u, out.uSpeed, out.uRises);
    quotient(y.z, d.z, dd.z, 1.0, out.v, out.vSpeed, out.vRises);
    return out;
}

double horizonAngle(const geometry::Frame& lens) {
    return std::atan2(lens.left.z, lens.up.z);
}

} // namespace gantry::kinematics
