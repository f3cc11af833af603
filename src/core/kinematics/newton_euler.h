// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/kinematics/link_motion.h"

#include <span>

namespace gantry::kinematics {

/// A body fixed to a link, the same all round one direction of its own.
struct RigidBody {
    int link = -1;                        ///< index; −1: the ground, where it asks nothing
    double mass = 0.0;                    ///< [kg]
    geometry::Place at;                   ///< [m] its centre of gravity, in the frame of the link
    geometry::Place along{1.0, 0.0, 0.0}; ///< of length 1, in the frame of the link
    double axial = 0.0;                   ///< [kg·m²] moment of inertia about that direction …
    double across = 0.0; ///< [kg·m²] … and about any square to it, both through the centre of gravity
};

/// Forces [N] and torques [N·m] that the joints must give, so that bodies move as they do: Newton and Euler
/// for each body, summed link by link from the lens down to the ground (Lynch and Park, Modern
/// Robotics, 8.3). Friction and whatever drives the joints are not among them. Parallel links take the moment
/// of what they carry straight to what they stand on.
/// @param moving of all links, as forwardMotion() gives them @param gravity [m/s²] straight down
/// @param out for each axis, as many as the chain names; what no link moves is 0
void jointForces(std::span<const Link> chain, std::span<const Moving> moving,
                 std::span<const RigidBody> bodies, double gravity, std::span<double> out);

/// Energy [J] of motion, and of height above the ground.
double energyOf(std::span<const Moving> moving, std::span<const RigidBody> bodies, double gravity);

} // namespace gantry::kinematics
