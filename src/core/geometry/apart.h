// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/geometry/place.h"

namespace gantry::geometry {

/// A straight piece from one place to another; both may be the same.
struct Segment {
    Place from, to;
};

/// A room with its edges along the axes.
struct Box {
    Place middle;
    double length = 0.0, width = 0.0, height = 0.0; ///< [m] ≥ 0 along x, y, z
};

/// A body: a box that lies anyhow, with everything within `round` of it. A thick line has neither width nor
/// height, a ball no length either.
struct Solid {
    Frame frame;                                    ///< its middle and its edges
    double length = 0.0, width = 0.0, height = 0.0; ///< [m] ≥ 0 along ahead, left and up
    double round = 0.0;                             ///< [m] ≥ 0
};

/// What lies under a plane through a place; `up` has the length 1 and points out of it.
struct Plane {
    Place at;
    Place up{0.0, 0.0, 1.0};
};

/// Distance [m] between two segments (Ericson, Real-Time Collision Detection, 5.1.9).
double apart(const Segment& a, const Segment& b);

/// Distance [m] from a segment to a box, to 1e-4 of the segment's length; where it passes through, the depth
/// at one place inside, negative.
double apart(const Segment& a, const Box& box);

/// Distance [m] between two bodies, to 1e-4 of their longest edge: the least from any edge of either to the
/// other, since the places where two boxes come nearest lie on an edge of one of them. Negative where they
/// pass through each other; how far is not said.
double apart(const Solid& a, const Solid& b);

/// Distance [m] of a body's lowest place from a plane; negative where it reaches in.
double apart(const Solid& a, const Plane& plane);

/// Half [m] of the longest way through a body.
double reachOf(const Solid& a);

/// What of a segment lies outside a ball of `radius` [m] around a place: up to two pieces. Returns how many.
int cutOut(const Segment& a, Place around, double radius, Segment (&pieces)[2]);

} // namespace gantry::geometry
