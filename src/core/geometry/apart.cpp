// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/geometry/apart.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

namespace gantry::geometry {
namespace {

double share(double part, double whole) {
    return whole > 0.0 ? std::clamp(part / whole, 0.0, 1.0) : 0.0;
}

/// How far a coordinate is outside of ± half; negative inside.
double outside(double at, double middle, double size) {
    return std::abs(at - middle) - 0.5 * size;
}

/// The edges of a body's box; one if it is a line, four if it is a sheet.
struct Edges {
    std::array<Segment, 12> of;
    int count = 0;
};
Edges edgesOf(const Solid& s) {
    Edges out;
    const double x = 0.5 * s.length, y = 0.5 * s.width, z = 0.5 * s.height;
    const auto add = [&](Place from, Place to) {
        out.of[static_cast<std::size_t>(out.count++)] = {s.frame.to(from), s.frame.to(to)};
    };
    if (y == 0.0 && z == 0.0) {
        add({-x, 0.0, 0.0}, {x, 0.0, 0.0});
        return out;
    }
    for (const double a : {-1.0, 1.0})
        for (const double b : {-1.0, 1.0}) {
            add({-x, a * y, b * z}, {x, a * y, b * z});
            add({a * x, -y, b * z}, {a * x, y, b * z});
            add({a * x, b * y, -z}, {a * x, b * y, z});
        }
    return out;
}

/// From the edges of one body to the other, both without their rounding.
double fromEdges(const Edges& edges, const Solid& other) {
    const Box box{{}, other.length, other.width, other.height};
    const double reach = 0.5 * std::hypot(other.length, other.width, other.height);
    double least = std::numeric_limits<double>::infinity();
    for (int i = 0; i < edges.count; ++i) {
        const Segment& e = edges.of[static_cast<std::size_t>(i)];
        const Segment seen{other.frame.seen(e.from), other.frame.seen(e.to)};
        // Far edges need no closer look.
        const Place middle = plus(plus({}, seen.from, 0.5), seen.to, 0.5);
        if (lengthOf(middle) - 0.5 * lengthOf(minus(seen.to, seen.from)) - reach > least) continue;
        least = std::min(least, apart(seen, box));
    }
    return least;
}

} // namespace

double apart(const Solid& a, const Solid& b) {
    const Edges ofA = edgesOf(a), ofB = edgesOf(b);
    const double round = a.round + b.round;
    if (ofA.count == 1 && ofB.count == 1) return apart(ofA.of[0], ofB.of[0]) - round;
    // A line has no inside that an edge of the other could be in.
    double least = ofB.count > 1 ? fromEdges(ofA, b) : std::numeric_limits<double>::infinity();
    if (ofA.count > 1) least = std::min(least, fromEdges(ofB, a));
    return least - round;
}

double apart(const Solid& a, const Plane& plane) {
    const auto half = [&](Place edge, double size) { return 0.5 * size * std::abs(dot(edge, plane.up)); };
    return dot(minus(a.frame.at, plane.at), plane.up) - half(a.frame.ahead, a.length) -
           half(a.frame.left, a.width) - half(a.frame.up, a.height) - a.round;
}

double reachOf(const Solid& a) {
    return 0.5 * std::hypot(a.length, a.width, a.height) + a.round;
}

double apart(const Segment& a, const Segment& b) {
    const Place u = minus(a.to, a.from), v = minus(b.to, b.from), w = minus(a.from, b.from);
    const double uu = dot(u, u), vv = dot(v, v), uv = dot(u, v), uw = dot(u, w), vw = dot(v, w);
    const double det = uu * vv - uv * uv;
    // Along parallel segments any start does; the other's end decides.
    double s = det > 1e-12 * uu * vv ? std::clamp((uv * vw - uw * vv) / det, 0.0, 1.0) : 0.0;
    double t = share(uv * s + vw, vv);
    // With t cut to its segment, s follows once more.
    s = share(uv * t - uw, uu);
    const Place gap = minus(plus(a.from, u, s), plus(b.from, v, t));
    return std::sqrt(dot(gap, gap));
}

double apart(const Segment& a, const Box& box) {
    const Place u = minus(a.to, a.from);
    // The squared distance is convex along the segment, so where it falls and where it rises again are parted
    // by one place.
    const auto rises = [&](Place p) {
        const auto part = [](double at, double middle, double size, double step) {
            return std::max(0.0, outside(at, middle, size)) * (at < middle ? -step : step);
        };
        return part(p.x, box.middle.x, box.length, u.x) + part(p.y, box.middle.y, box.width, u.y) +
               part(p.z, box.middle.z, box.height, u.z);
    };
    double low = 0.0, high = 1.0;
    for (int i = 0; i < 14; ++i) {
        const double middle = 0.5 * (low + high), slope = rises(plus(a.from, u, middle));
        if (slope == 0.0) {
            low = high = middle;
            break;
        }
        (slope > 0.0 ? high : low) = middle;
    }
    // The ends themselves are never halved upon.
    const double t = low == 0.0 ? 0.0 : high == 1.0 ? 1.0 : 0.5 * (low + high);
    const Place p = plus(a.from, u, t);
    const double dx = outside(p.x, box.middle.x, box.length), dy = outside(p.y, box.middle.y, box.width),
                 dz = outside(p.z, box.middle.z, box.height);
    const double inside = std::max({dx, dy, dz});
    if (inside <= 0.0) return inside;
    return std::hypot(std::max(dx, 0.0), std::max(dy, 0.0), std::max(dz, 0.0));
}

int cutOut(const Segment& a, Place around, double radius, Segment (&pieces)[2]) {
    const Place u = minus(a.to, a.from);
    const double length = std::sqrt(dot(u, u));
    if (!(length > 0.0)) return 0;
    const Place w = minus(around, a.from);
    const double foot = dot(w, u) / length, square = radius * radius - (dot(w, w) - foot * foot);
    if (square <= 0.0) {
        pieces[0] = a;
        return 1;
    }
    const double half = std::sqrt(square);
    int count = 0;
    if (foot - half > 0.0) pieces[count++] = {a.from, plus(a.from, u, std::min(1.0, (foot - half) / length))};
    if (foot + half < length)
        pieces[count++] = {plus(a.from, u, std::max(0.0, (foot + half) / length)), a.to};
    return count;
}

} // namespace gantry::geometry
