// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <span>
#include <vector>

namespace gantry::structure {

/// What is known of a box of poses.
struct Approach {
    double distance = 0.0;  ///< [m] in its middle
    double atLeast = 0.0;   ///< [m] no pose within it comes nearer; ≤ distance
    std::size_t widest = 0; ///< the joint that makes it uncertain most, to be halved next
};

/// Looks at a box by its middle and its half widths (all 0: one pose). Too large an `atLeast` is an error,
/// too small a one costs time.
using LookAtBox = std::function<Approach(std::span<const double> middle, std::span<const double> half)>;

struct SearchLimits {
    double harmless = 0.15;  ///< [m] farther apart than this nothing is looked at more closely
    double tolerance = 0.01; ///< [m] to which the nearest approach is wanted
    int looks = 400;         ///< poses at most
};

struct Nearest {
    double distance = 0.0;    ///< [m] the least seen
    double atLeast = 0.0;     ///< [m] no pose whatsoever comes nearer than this; ≤ distance
    std::vector<double> pose; ///< where it was seen
    int looks = 0;
};

/// Least distance over all poses of joints that sweep from 0 to their ranges [U] ≥ 0. All corners of the
/// ranges are looked at, then the box of poses that may hide the nearest approach is halved again and again
/// (branch and bound). So a small obstacle between two poses cannot be missed: where time ran out, `atLeast`
/// says how much is still unknown. With something touched (distance ≤ 0) the search is over.
Nearest nearestApproach(std::span<const double> ranges, const LookAtBox& look,
                        const SearchLimits& limits = {});

} // namespace gantry::structure
