// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/rig/rig_bodies.h"

#include <span>
#include <vector>

namespace gantry {

/// A part of the rig where it stands in a pose.
struct RigBody {
    BodyKind kind = BodyKind::Head;
    int axis = -1; ///< index in Project::axes of the axis it belongs to; −1: the base
    int link = -1; ///< of the chain
    Place from, to;
    double radius = 0.02; ///< [m] half its thickness
    double mass = 0.0;    ///< [kg] …
    Place centre;         ///< … and its centre of gravity
};

/// The rig to scale in one pose. Bodies as in its chain; masses add up to what stands on the feet.
struct RigLayout {
    std::vector<RigBody> bodies;
    std::vector<structure::Plan> feet;
    std::vector<geometry::Frame> frames; ///< of the links of its chain
    std::vector<Place> joints;           ///< for each axis of the project where it turns or has run to
    Place camera;                        ///< the front of the lens
    double mass = 0.0;
    Place centre; ///< of gravity of it all
};

/// Lays a rig with each axis at a place from its low end ([m] or [rad]; missing ones at 0, others cut to the
/// travel).
///
/// `free`: index of a swing whose place is taken as its direction from x, whatever its range; −1: none.
RigLayout layRig(const RigSetup& rig, std::span<const double> pose, int free = -1);
/// The same with its chain known, for many poses.
RigLayout layRig(const RigSetup& rig, const RigChain& chain, std::span<const double> pose, int free = -1);

/// What the bodies of a rig fill in a pose, in the order of its chain.
std::vector<geometry::Solid> solidsOf(const RigSetup& rig, std::span<const double> pose);

/// Places of the axes cut to their travels, one for each; what is missing or no number is 0.
std::vector<double> withinTravels(std::span<const Axis> axes, std::span<const double> pose);

/// What a body fills, by the frames of the links of its chain.
geometry::Solid solidOf(const ChainBody& body, const geometry::Frame& frame);

/// The pose that the drawing shows: the axes' own `shownAt`, which of pan, tilt and roll counts from straight
/// ahead.
std::vector<double> shownPose(std::span<const Axis> axes);

/// Where an axis that turns the camera on its head looks straight ahead, from its low end [rad].
double straightAhead(const RotaryMechanism& mechanism);

} // namespace gantry
