// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/rig_setup.h"
#include "core/geometry/apart.h"
#include "core/kinematics/rig_chain.h"
#include "core/structure/tipping.h"

#include <string_view>
#include <vector>

namespace gantry {

/// x along the rig, y to its left, z above the feet. The middle of the feet is x = y = 0.
using geometry::Place;

enum class BodyKind {
    Leg,
    Column,
    Stand,
    Rail,
    Carriage,
    Arm,
    Counterweight,
    Head,
    Camera,
    Ballast,
    Lens,
    Load,  ///< that sits on a rail
    Placed ///< where the user put it
};
std::string_view bodyName(BodyKind kind); ///< "the lens"

/// A part of the rig as a thick line or a bar, in the frame of what it is fixed to.
struct ChainBody {
    BodyKind kind = BodyKind::Head;
    int axis = -1; ///< index in Project::axes of the axis it belongs to; −1: the base
    int link = -1; ///< index of the link it is fixed to; −1: the ground
    Place from, to;
    double radius = 0.02;       ///< [m] half its height, if it is a bar
    double width = 0.0;         ///< [m] of a bar with flat ends; 0: a thick line, round
    double mass = 0.0;          ///< [kg] …
    Place centre;               ///< … and its centre of gravity
    bool solid = true;          ///< may run into something; else it only weighs
    int mountedOn = -1;         ///< index of the body that carries it
    std::string_view name = {}; ///< that the user gave it; of the project
};

/// A rig as a chain of joints from the ground to the lens, with the bodies that are fixed to them. Bodies
/// base first; those of an axis stand together.
struct RigChain {
    std::vector<kinematics::Link> links;
    std::vector<ChainBody> bodies;
    std::vector<structure::Plan> feet;
    std::vector<int> linkOf; ///< for each axis of the project the link that it moves; −1: none
    int lensOn = -1;         ///< link that the camera is fixed to …
    Place lens;              ///< … and the front of its lens there
};

/// Joints and bodies of a rig. Rails lie over the middle of the feet, booms on top of the column; a linear
/// axis' moving mass is that of all that it carries, so what stands on it is taken out of it. Angles of
/// swings and pans count from x, those of tilts from level. A head on a plain arm tilts with it, on parallel
/// links it stays level; on a slope it stands upright.
RigChain chainOf(const RigSetup& rig);

/// Pan, tilt and roll: they turn the camera where it is.
bool turnsOnHead(Role role);

/// Whether the lowest axis is a rail on two stands of its own, which then are the rig's feet: as far apart
/// along as they stand, and as wide as the base says.
bool standsOnItsRail(std::span<const Axis> axes, const Base& base);

/// The rail that is the lowest of what carries the camera; null if that is none. A turntable stands beside.
const LinearMechanism* lowestRail(std::span<const Axis> axes);

/// Feet in plan of the rig in whatever pose; empty where it has none.
std::vector<structure::Plan> feetOf(std::span<const Axis> axes, const Base& base);

/// Feet in plan for a base; empty where it is not given or has anchors in place of feet.
std::vector<structure::Plan> feetOf(const Base& base);

} // namespace gantry
