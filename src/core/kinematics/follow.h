// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::kinematics {

/// Angular rates [rad/s] and [rad/s²] that keep a fixed subject framed.
struct Follow {
    double panAngle = 0.0; ///< [rad] between the ends
    double panRate = 0.0;  ///< largest magnitude
    double panAcceleration = 0.0;
    double tiltAngle = 0.0; ///< [rad] between its least and its greatest
    double tiltRate = 0.0;
    double tiltAcceleration = 0.0;
};

/// The same over a whole move with ramps, the subject beside the track.
/// @param travel [m] > 0; @param speed [m/s], acceleration [m/s²] of a trapezoid that fits in the travel
/// @param passAt [m] along the travel where the subject is square to the track; @param distance [m] > 0 from
/// the track;
/// @param height [m] of the subject above the camera. Sampled along the move and refined at the largest
/// samples; rates to 1e-6 relative.
Follow followSubject(double travel, double speed, double acceleration, double passAt, double distance,
                     double height);

} // namespace gantry::kinematics
