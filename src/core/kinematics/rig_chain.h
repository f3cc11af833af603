// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/geometry/place.h"

#include <span>
#include <vector>

namespace gantry::kinematics {

/// How a joint moves what stands on it. Angles of pitch count about what points to the right, so that
/// positive is up; of yaw to the left; of roll so that the left side rises.
enum class Joint {
    Fixed,
    Along,   ///< along a direction; what stands on it keeps its own
    Yaw,     ///< about up
    Pitch,   ///< about right
    Roll,    ///< about ahead
    Parallel ///< at the end of parallel links: it goes round a circle and keeps its direction
};

/// One joint of a rig: where it stands, and how it moves.
struct Link {
    int on = -1;           ///< index of the link whose frame it stands in; −1: the ground
    geometry::Place shift; ///< [m] in that frame
    Joint joint = Joint::Fixed;
    int axis = -1;             ///< index of the axis whose place moves it; −1: none
    double offset = 0.0;       ///< [U] added to that place
    geometry::Place direction; ///< Along: of length 1, in the frame it stands in; Parallel: the arm [m] level

    friend bool operator==(const Link&, const Link&) = default;
};

/// A frame at which a link stands, after its joint has moved by `place` [m] or [rad].
geometry::Frame movedBy(const Link& link, geometry::Frame stands, double place);

/// Frames of all links from the ground up, each after its joint has moved; a link stands on an earlier one.
/// @param places [m] or [rad] of the axes; missing ones are 0
/// @param out as many as there are links
void forward(std::span<const Link> chain, std::span<const double> places, std::span<geometry::Frame> out);

/// For each link whether it stands, over any others, on `link`, or is it.
std::vector<bool> standingOn(std::span<const Link> chain, int link);

/// A place [m] that is fixed to a link; −1: to the ground.
struct Fixed {
    int link = -1;
    geometry::Place at;
};
/// Velocities [m/s for 1 U/s] of places when one axis alone moves (columns of the Jacobian).
/// @param frames of all links, as forward() gives them
std::vector<geometry::Place> velocities(std::span<const Link> chain, std::span<const geometry::Frame> frames,
                                        int axis, std::span<const Fixed> places);

/// The highest link that both stand on; −1: only the ground.
int commonBelow(std::span<const Link> chain, int a, int b);

} // namespace gantry::kinematics
