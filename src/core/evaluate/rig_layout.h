// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"
#include "core/structure/tipping.h"

#include <span>
#include <string_view>
#include <vector>

namespace gantry {

/// A place in space [m]: x along the rig, y to its left, z above the feet. The middle of the base is x = y =
/// 0.
struct Place {
    double x = 0.0, y = 0.0, z = 0.0;
};

enum class BodyKind { Leg, Column, Stand, Rail, Carriage, Arm, Counterweight, Head, Camera, Ballast };
std::string_view bodyName(BodyKind kind);

/// A part of the rig as a thick line, where it stands in a pose.
struct RigBody {
    BodyKind kind = BodyKind::Head;
    int axis = -1; ///< index in Project::axes of the axis it belongs to; −1: the base
    Place from, to;
    double radius = 0.02; ///< [m]
    double mass = 0.0;    ///< [kg] …
    Place centre;         ///< … and its centre of gravity
};

/// The rig to scale in one pose. Bodies base first; masses add up to what stands on the feet.
struct RigLayout {
    std::vector<RigBody> bodies;
    std::vector<structure::Plan> feet;
    Place camera; ///< where the lens is
    double mass = 0.0;
    Place centre; ///< of gravity of it all
};

/// Lays the rig with each axis at a place from its low end ([m] or [rad]; missing ones at 0, others cut to
/// the travel). Rails lie over the middle of the base, booms on top of the column; a linear axis' moving mass
/// is that of all that it carries, so what stands on it is taken out of it. Angles of swings and pans count
/// from x, those of tilts from level.
RigLayout layRig(const Project& project, std::span<const double> pose);

/// The pose that the drawing shows: the axes' own `shownAt`.
std::vector<double> shownPose(const Project& project);

/// Whether the lowest axis is a rail on two stands of its own, which then are the rig's feet: as far apart
/// along as they stand, and as wide as the base says.
bool standsOnItsRail(const Project& project);

/// Feet in plan for a base; empty where it is not given or has anchors in place of feet.
std::vector<structure::Plan> feetOf(const Base& base);

} // namespace gantry
