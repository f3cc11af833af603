// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/geometry/place.h"

#include <span>
#include <vector>

namespace gantry::kinematics {

/// A stored view: the camera looked at the point from here, in this direction.
struct View {
    geometry::Place from;
    geometry::Place towards; ///< of length 1
};

/// Why a point cannot be told from views.
enum class NoPoint {
    None,
    TooFew,   ///< less than two
    Behind,   ///< it would be behind one of the cameras
    Parallel, ///< the directions are too nearly parallel: its range would be a guess
    Disagree  ///< the rays miss each other by more than they are known
};

/// A point told from views, and how well.
struct ToldPoint {
    NoPoint no = NoPoint::None;
    geometry::Place at;          ///< [m]
    geometry::Place deviation;   ///< [m] standard deviation along x, y and z
    double worstDeviation = 0.0; ///< [m] in the direction in which it is known least
    double worstShare = 0.0;     ///< … of the nearest range
    double parallax = 0.0;       ///< [rad] largest angle between two directions
    double misfit = 0.0;         ///< χ² of the misses
    std::vector<double> misses;  ///< [m] of each ray
    explicit operator bool() const { return no == NoPoint::None; }
};

/// Least squares of the distances from the rays, each weighted by how well it is known there:
/// Σ |(I − dᵢdᵢᵀ)(P − cᵢ)|² / ((σ rᵢ)² + σₚ²), the weights renewed five times; the covariance is
/// (Σ wᵢ (I − dᵢdᵢᵀ))⁻¹ (Hartley and Zisserman, ch. 12). Refused when the worst deviation is over a tenth of
/// the nearest range, or when the misses are less likely than one in a thousand.
/// @param angle [rad] > 0 and position [m] ≥ 0, standard deviations of directions and camera places
ToldPoint pointFrom(std::span<const View> views, double angle, double position);

} // namespace gantry::kinematics
