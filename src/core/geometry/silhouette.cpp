// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/geometry/silhouette.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry::geometry {
namespace {

/// Convex hull, anticlockwise (Andrew's monotone chain).
std::vector<InView> hullOf(std::vector<InView> points) {
    std::sort(points.begin(), points.end(), [](const InView& a, const InView& b) {
        return a.right < b.right || (a.right == b.right && a.up < b.up);
    });
    const auto turn = [](const InView& o, const InView& a, const InView& b) {
        return (a.right - o.right) * (b.up - o.up) - (a.up - o.up) * (b.right - o.right);
    };
    std::vector<InView> hull;
    for (int pass = 0; pass < 2; ++pass) {
        const std::size_t start = hull.size();
        for (const InView& p : points) {
            while (hull.size() >= start + 2 && turn(hull[hull.size() - 2], hull.back(), p) <= 0.0)
                hull.pop_back();
            hull.push_back(p);
        }
        if (!hull.empty()) hull.pop_back();
        std::reverse(points.begin(), points.end());
    }
    return hull;
}

/// Corners of the box within a body, as the eye sees them: x ahead.
std::vector<Place> cornersOf(const Solid& b, const Frame& eye) {
    std::vector<Place> out;
    for (const double x : {-0.5, 0.5})
        for (const double y : {-0.5, 0.5})
            for (const double z : {-0.5, 0.5}) {
                // A thick line has two ends, a ball one middle.
                if ((b.length <= 0.0 && x > 0.0) || (b.width <= 0.0 && y > 0.0) ||
                    (b.height <= 0.0 && z > 0.0))
                    continue;
                out.push_back(eye.seen(b.frame.to({x * b.length, y * b.width, z * b.height})));
            }
    return out;
}

/// Two directions of length 1, square to one and to each other.
std::pair<Place, Place> squareTo(Place way) {
    const Place other = std::abs(way.x) < 0.9 ? Place{1.0, 0.0, 0.0} : Place{0.0, 1.0, 0.0};
    Place a = cross(way, other);
    a = plus({}, a, 1.0 / lengthOf(a));
    return {a, cross(way, a)};
}

/// What stands for a ball: the circle where sight touches it, or where it is too near for that, places all
/// over it.
void addBall(std::vector<Place>& out, Place centre, double radius) {
    constexpr int sides = 24;
    const double range = lengthOf(centre);
    if (centre.x > 1.2 * radius) {
        const Place way = plus({}, centre, 1.0 / range);
        const auto [a, b] = squareTo(way);
        const double sine = radius / range;
        const Place middle = plus(centre, way, -radius * sine);
        const double r = radius * std::sqrt(1.0 - sine * sine);
        for (int i = 0; i < sides; ++i) {
            const double angle = 2.0 * std::numbers::pi * i / sides;
            out.push_back(plus(plus(middle, a, r * std::cos(angle)), b, r * std::sin(angle)));
        }
        return;
    }
    for (const double x : {-1.0, 0.0, 1.0})
        for (const double y : {-1.0, 0.0, 1.0})
            for (const double z : {-1.0, 0.0, 1.0})
                if (const double length = std::hypot(x, y, z); length > 0.0)
                    out.push_back(plus(centre, {x, y, z}, radius / length));
}

} // namespace

std::vector<InView> silhouette(const Solid& body, const Frame& eye, double near) {
    std::vector<Place> places;
    for (const Place& corner : cornersOf(body, eye)) {
        if (body.round > 0.0)
            addBall(places, corner, body.round);
        else
            places.push_back(corner);
    }
    std::vector<InView> seen;
    const auto add = [&](const Place& p) { seen.push_back({-p.y / p.x, p.z / p.x}); };
    bool cut = false;
    for (const Place& p : places)
        if (p.x >= near)
            add(p);
        else
            cut = true;
    if (seen.empty()) return {};
    if (cut) // what is left before the plane is the hull of these and of where lines between them pass it
        for (const Place& front : places)
            for (const Place& behind : places)
                if (front.x >= near && behind.x < near) {
                    const double share = (front.x - near) / (front.x - behind.x);
                    add(plus(front, minus(behind, front), share));
                }
    return hullOf(std::move(seen));
}

namespace {

using Span = std::pair<double, double>;

/// From where to where an outline goes in each of the rows it crosses, added to those of others. Every edge
/// is asked only of its own rows.
void addSpans(std::vector<std::vector<Span>>& rows, const std::vector<InView>& outline, double halfWidth,
              double halfHeight) {
    const auto count = static_cast<double>(rows.size());
    const auto upOf = [&](double row) { return halfHeight * (2.0 * (row + 0.5) / count - 1.0); };
    std::vector<Span> own(rows.size(), {halfWidth, -halfWidth});
    std::size_t lowest = rows.size(), highest = 0;
    for (std::size_t i = 0; i < outline.size(); ++i) {
        const InView &a = outline[i], &b = outline[(i + 1) % outline.size()];
        const double low = std::min(a.up, b.up), high = std::max(a.up, b.up);
        // One row more to each side than rounding could take away; those that it does not cross are left out.
        const auto rowOf = [&](double up) { return 0.5 * count * (up / halfHeight + 1.0) - 0.5; };
        const double first = std::clamp(std::floor(rowOf(low)) - 1.0, 0.0, count),
                     last = std::clamp(std::ceil(rowOf(high)) + 1.0, 0.0, count);
        for (auto row = static_cast<std::size_t>(first); row < static_cast<std::size_t>(last); ++row) {
            const double up = upOf(static_cast<double>(row));
            if ((a.up < up) == (b.up < up)) continue;
            const double x = a.right + (b.right - a.right) * (up - a.up) / (b.up - a.up);
            own[row].first = std::min(own[row].first, x);
            own[row].second = std::max(own[row].second, x);
            lowest = std::min(lowest, row);
            highest = std::max(highest, row + 1);
        }
    }
    for (std::size_t row = lowest; row < highest; ++row) {
        const double low = std::max(own[row].first, -halfWidth), high = std::min(own[row].second, halfWidth);
        if (high > low) rows[row].emplace_back(low, high);
    }
}

} // namespace

double coveredShare(std::span<const std::vector<InView>> outlines, double halfWidth, double halfHeight,
                    int rows) {
    std::vector<std::vector<Span>> spans(static_cast<std::size_t>(rows));
    for (const std::vector<InView>& outline : outlines) addSpans(spans, outline, halfWidth, halfHeight);
    double covered = 0.0;
    for (std::vector<Span>& row : spans) {
        std::sort(row.begin(), row.end());
        double until = -halfWidth;
        for (const auto& [low, high] : row) {
            covered += std::max(0.0, high - std::max(low, until));
            until = std::max(until, high);
        }
    }
    return covered / (rows * 2.0 * halfWidth);
}

} // namespace gantry::geometry
