// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cmath>

namespace gantry::geometry {

/// A place in space, or the way from one to another [m]: x ahead, y to the left, z up.
struct Place {
    double x = 0.0, y = 0.0, z = 0.0;

    friend bool operator==(const Place&, const Place&) = default;
};

/// from + share · by.
inline Place plus(Place from, Place by, double share = 1.0) {
    return {from.x + share * by.x, from.y + share * by.y, from.z + share * by.z};
}
inline Place minus(Place a, Place b) {
    return plus(a, b, -1.0);
}
inline Place times(Place a, double by) {
    return {a.x * by, a.y * by, a.z * by};
}
inline double dot(Place a, Place b) {
    return a.x * b.x + a.y * b.y + a.z * b.z;
}
inline Place cross(Place a, Place b) {
    return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x};
}
inline double lengthOf(Place a) {
    return std::hypot(a.x, a.y, a.z);
}

/// A place with three directions of length 1, square to each other, right-handed.
struct Frame {
    Place at;
    Place ahead{1.0, 0.0, 0.0}, left{0.0, 1.0, 0.0}, up{0.0, 0.0, 1.0};

    /// A direction given along this frame's own.
    Place along(Place local) const {
        return plus(plus(plus({}, ahead, local.x), left, local.y), up, local.z);
    }
    /// A place given in this frame.
    Place to(Place local) const { return plus(at, along(local)); }
    /// A place in space as this frame sees it.
    Place seen(Place place) const {
        const Place way = minus(place, at);
        return {dot(way, ahead), dot(way, left), dot(way, up)};
    }
    Frame shifted(Place local) const { return {to(local), ahead, left, up}; }
};

} // namespace gantry::geometry
