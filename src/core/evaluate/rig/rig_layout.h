// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/rig_setup.h"
#include "core/structure/apart.h"
#include "core/structure/tipping.h"

#include <span>
#include <string_view>
#include <vector>

namespace gantry {

/// x along the rig, y to its left, z above the feet. The middle of the base is x = y = 0.
using structure::Place;

/// [m] as they are drawn and swept where nothing is entered.
constexpr double headHeight = 0.08, cameraLength = 0.18;
/// [m] between a wall or ceiling and what hangs on it, as it is drawn; only its anchors are judged.
constexpr double drawnMount = 0.3;

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
    std::vector<Place> joints; ///< for each axis of the project where it turns or runs from
    Place camera;              ///< where the lens is
    double mass = 0.0;
    Place centre; ///< of gravity of it all
};

/// Lays the rig with each axis at a place from its low end ([m] or [rad]; missing ones at 0, others cut to
/// the travel). Rails lie over the middle of the base, booms on top of the column; a linear axis' moving mass
/// is that of all that it carries, so what stands on it is taken out of it. Angles of swings and pans count
/// from x, those of tilts from level.
///
/// `free`: index of a swing whose place is taken as its direction from x, whatever its range; −1: none.
RigLayout layRig(const RigSetup& rig, std::span<const double> pose, int free = -1);

/// The pose that the drawing shows: the axes' own `shownAt`; pan, tilt and roll look straight ahead.
std::vector<double> shownPose(std::span<const Axis> axes);

/// Where an axis that turns the camera on its head looks straight ahead, from its low end [rad].
double straightAhead(const RotaryMechanism& mechanism);
/// Pan, tilt and roll: they turn the camera where it is.
bool turnsOnHead(Role role);

/// Whether the lowest axis is a rail on two stands of its own, which then are the rig's feet: as far apart
/// along as they stand, and as wide as the base says.
bool standsOnItsRail(std::span<const Axis> axes, const Base& base);

/// Feet in plan of the rig in whatever pose; empty where it has none.
std::vector<structure::Plan> feetOf(std::span<const Axis> axes, const Base& base);

/// Feet in plan for a base; empty where it is not given or has anchors in place of feet.
std::vector<structure::Plan> feetOf(const Base& base);

} // namespace gantry
