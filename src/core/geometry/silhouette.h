// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/geometry/apart.h"

#include <span>
#include <vector>

namespace gantry::geometry {

/// A place in the picture of a pinhole camera of focal length 1: to the right and up from its middle.
struct InView {
    double right = 0.0, up = 0.0;
};

/// Outline of a body in the picture, convex and anticlockwise, of what lies more than `near` [m] before the
/// camera; empty where nothing does. Round edges as 24-gons on the circle where sight touches them: 1 % of
/// their own area too small.
/// @param eye the entrance pupil, looking ahead
std::vector<InView> silhouette(const Solid& body, const Frame& eye, double near = 0.005);

/// Share [0, 1] of a picture from −halfWidth to halfWidth and −halfHeight to halfHeight that convex outlines
/// cover together, by rows: exact along each, so that the error is that of `rows` slices.
double coveredShare(std::span<const std::vector<InView>> outlines, double halfWidth, double halfHeight,
                    int rows = 180);

} // namespace gantry::geometry
