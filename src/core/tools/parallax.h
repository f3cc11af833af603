// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/geometry/place.h"

namespace gantry {

/// By how much a near plane shifts against the background when the lens goes sideways [px], and the travel
/// that gives a wanted shift [m]: F Δ (1/near − 1/far).
/// @param focal [px] > 0; @param travel [m]; @param nearest, farthest [m] > 0, farthest > nearest; it may be
/// infinite
double parallax(double focal, double travel, double nearest, double farthest);
double travelForParallax(double focal, double shift, double nearest, double farthest);

/// How far a lens goes [m] across the way that it looks, midway between how it looks at both ends.
double travelAcross(const geometry::Frame& from, const geometry::Frame& to);

} // namespace gantry
