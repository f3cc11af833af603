// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structure/apart.h"

#include <algorithm>
#include <cmath>

namespace gantry::structure {
namespace {

Place minus(Place a, Place b) {
    return plus(a, b, -1.0);
}
double dot(Place a, Place b) {
    return a.x * b.x + a.y * b.y + a.z * b.z;
}
double share(double part, double whole) {
    return whole > 0.0 ? std::clamp(part / whole, 0.0, 1.0) : 0.0;
}

/// How far a coordinate is outside of ± half; negative inside.
double outside(double at, double middle, double size) {
    return std::abs(at - middle) - 0.5 * size;
}

} // namespace

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

} // namespace gantry::structure
