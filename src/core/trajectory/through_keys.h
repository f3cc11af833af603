// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/trajectory/trajectory.h"

#include <span>
#include <vector>

namespace gantry::trajectory {

/// Places [U] of all axes at one key.
using Key = std::vector<double>;

/// How an axis goes through keys at which it does not stop.
enum class Through {
    Smooth, ///< least jerk: all derivatives up to the fourth continuous; swings past the keys where it must
    Within  ///< never leaves what lies between neighbouring keys: acceleration nothing at each key, speed
            ///< limited
};

/// Through keys at given times, from rest to rest.
///
/// Smooth: the quintic spline that minimises ∫jerk² (Biagiotti and Melchiorri, ch. 4), solved between stops.
/// Within: quintics with Steffen's speeds, at most twice the smaller slope beside a key (Steffen 1990).
/// @param keys two or more, of as many axes each; @param times [s] rising, one a key
/// @param stops for each key, whether all axes stop there; the ends always do. Besides, an axis that has the
/// same place at two keys one after the other stands between them, in either way of going.
/// @param through one for each axis
Trajectory throughKeys(std::span<const Key> keys, std::span<const double> times,
                       const std::vector<bool>& stops, std::span<const Through> through);

/// From rest to rest along a straight line through the axes, in the least time: one course in shares of the
/// way for all of them, so that they are in step at every moment. @param limits one for each axis Nothing
/// moves: a trajectory of no duration.
Trajectory straight(std::span<const double> from, std::span<const double> to,
                    std::span<const motion::Limits> limits);

/// What one course for all axes may do, in shares of the way: the least of each axis' limits over its
/// distance.
motion::Limits sharedLimits(std::span<const double> from, std::span<const double> to,
                            std::span<const motion::Limits> limits);

/// A profile as pieces, along a straight line through the axes.
Trajectory along(std::span<const double> from, std::span<const double> to, const motion::Profile& share);

} // namespace gantry::trajectory
