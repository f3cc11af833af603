// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/trajectory/trajectory.h"

#include <functional>
#include <optional>
#include <span>

namespace gantry::trajectory {

/// How the speed rises and falls in an eased segment; all ramps are symmetric about their middle.
enum class EaseShape {
    Linear, ///< at constant acceleration: a · t/v = 1
    S,      ///< acceleration rises and falls evenly: a · t/v = 2, jerk · t²/v = 4
    Cosine  ///< half a cosine: a · t/v = π/2, jerk · t²/v = π²/2
};

/// How a segment begins and ends.
struct Ease {
    EaseShape shape = EaseShape::S;
    double in = 0.0, out = 0.0; ///< [s] ≥ 0

    bool operator==(const Ease&) const = default;
};

/// A way of `distance` > 0 in `time` > 0 with given ramps: cruise = distance/(time − (in + out)/2). Nothing
/// where the ramps do not fit in the time.
std::optional<motion::Profile> planEased(double distance, double time, const Ease& ease);

/// A path re-timed so that some length along it runs as a profile does: even speed along the path, or in the
/// picture.
/// @param rate length [L] for 1 s of the path's own time, at a moment of it; > 0 but where it stands
/// @param ease ramps of the length; @param time [s] of the result
/// Through a table of the length and its inverse, refitted to quintics: places to 1e-6 of the way. Nothing
/// where the length is nothing or the ramps do not fit.
std::optional<Trajectory> evenly(const Trajectory& path, const std::function<double(double)>& rate,
                                 double time, const Ease& ease);

} // namespace gantry::trajectory
