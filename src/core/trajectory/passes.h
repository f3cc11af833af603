// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/trajectory/trajectory.h"

#include <optional>
#include <span>
#include <vector>

namespace gantry::trajectory {

/// How far [U] and how long [s] an axis runs on when it stops as soon as it may.
struct Stop {
    double distance = 0.0, time = 0.0;
};

/// The soonest stop within an acceleration and a jerk from a speed ≥ 0 and an acceleration that may be of
/// either sign; an acceleration towards the stop beyond the limit is taken as the limit. Jerk to the largest
/// braking, hold, jerk back to nothing: â = min(a, √(j v + a₀²/2)).
/// @param jerk 0: none, braking begins at once
Stop soonestStop(double speed, double accelerationNow, const motion::Limits& limits);

/// The time of a move taken out of step: from running to standing by a quintic step of its rate in T.
struct Pause {
    double time = 0.0;          ///< T [s]
    double moveTime = 0.0;      ///< [s] of the move at which it stands
    std::vector<double> places; ///< [U]
    std::vector<double> runOn;  ///< [U] from where it was when the pause was called
};

/// The shortest pause within acceleration and jerk of all axes: q̈ = q″τ̇² + q′τ̈, jerk q‴τ̇³ + 3q″τ̇τ̈ + q′τ⃛.
/// Nothing if the move ends before it would stand. @param at [s] of the move
std::optional<Pause> pauseFrom(const Trajectory& t, double at, std::span<const motion::Limits> limits);

/// An emergency stop on the path: all axes brake in step, as hard as the weakest of them may.
/// @param brakes [U/s²] > 0 of each axis
Pause stopOnPath(const Trajectory& t, double at, std::span<const double> brakes);

/// How far each axis runs on when it brakes by itself: v²/2a. @param speed [U/s]
Stop stopAlone(double speed, double brake);

/// Where a pass begins so that backlash is taken up when it reaches its start.
struct Approach {
    double from = 0.0; ///< [U]
    bool takenUp = true;
    double shortOf = 0.0; ///< [U] that the travel lacks
};
/// @param firstDirection the way the pass begins, 1 or −1; 0: it stands, and comes from below
/// @param backlash, margin [U] ≥ 0; @param low, high [U] the soft limits
Approach approachTo(double start, int firstDirection, double backlash, double margin, double low,
                    double high);

} // namespace gantry::trajectory
