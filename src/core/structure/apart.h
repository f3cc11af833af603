// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::structure {

/// A place in space [m].
struct Place {
    double x = 0.0, y = 0.0, z = 0.0;
};

/// from + share · by.
inline Place plus(Place from, Place by, double share = 1.0) {
    return {from.x + share * by.x, from.y + share * by.y, from.z + share * by.z};
}

/// A straight piece from one place to another; both may be the same.
struct Segment {
    Place from, to;
};

/// A room with its edges along the axes.
struct Box {
    Place middle;
    double length = 0.0, width = 0.0, height = 0.0; ///< [m] ≥ 0 along x, y, z
};

/// Distance [m] between two segments (Ericson, Real-Time Collision Detection, 5.1.9).
double apart(const Segment& a, const Segment& b);

/// Distance [m] from a segment to a box, to 1e-4 of the segment's length; where it passes through, the depth
/// at one place inside, negative.
double apart(const Segment& a, const Box& box);

/// What of a segment lies outside a ball of `radius` [m] around a place: up to two pieces. Returns how many.
int cutOut(const Segment& a, Place around, double radius, Segment (&pieces)[2]);

} // namespace gantry::structure
