// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/geometry/place.h"
#include "core/kinematics/rig_chain.h"

#include <span>

namespace gantry::kinematics {

/// Where a frame is, and how it moves; everything in the frame of the ground.
struct Moving {
    geometry::Frame frame;
    geometry::Place turning;      ///< [rad/s] about its own place
    geometry::Place velocity;     ///< [m/s]
    geometry::Place turningRises; ///< [rad/s²]
    geometry::Place acceleration; ///< [m/s²]

    /// Velocity and acceleration of a place that goes with it, `way` [m] from its own.
    geometry::Place velocityOf(geometry::Place way) const;
    geometry::Place accelerationOf(geometry::Place way) const;
};

/// Places [U], speeds [U/s] and accelerations [U/s²] of the axes; missing ones are 0.
struct AxisMotion {
    std::span<const double> places, speeds, accelerations;
};

/// How all links of a chain move, from the ground up, each after its joint: the forward recursion of velocity
/// and acceleration (Lynch and Park, Modern Robotics, ch. 8). The frames are those of forward().
/// @param out as many as there are links
void forwardMotion(std::span<const Link> chain, const AxisMotion& motion, std::span<Moving> out);
/// The same of one link on what it stands on. @param place [U] of its axis, without its offset
Moving motionOf(const Link& link, const Moving& below, double place, double rate, double rises);

/// What moves at a rate of 1 U/s when a joint does: a turn [rad/s] about the place of its frame, or a
/// velocity [m/s].
struct JointRate {
    geometry::Place turning, velocity;

    geometry::Place velocityOf(geometry::Place way) const; ///< of a place `way` [m] from that of the frame
};
/// @param moving of all links, as forwardMotion() gives them
JointRate rateOf(std::span<const Link> chain, std::span<const Moving> moving, std::size_t link);

/// A place in space that may move.
struct Point {
    geometry::Place at;
    geometry::Place velocity, acceleration;
};

/// A point in the picture of a pinhole camera, from the centre: u to the right, v up.
struct InPicture {
    bool inFront = false;              ///< otherwise there is no picture of it, and the rest is 0
    double u = 0.0, v = 0.0;           ///< [px]
    double uSpeed = 0.0, vSpeed = 0.0; ///< [px/s]
    double uRises = 0.0, vRises = 0.0; ///< [px/s²]
    double depth = 0.0;                ///< [m] along the lens
    double depthSpeed = 0.0;           ///< [m/s]
    double depthRises = 0.0;           ///< [m/s²]
    double range = 0.0;                ///< [m]
};

/// A focal length in pixels of the picture, and how it changes.
struct Focal {
    double length = 1.0; ///< [px] > 0
    double rate = 0.0;   ///< [px/s]
    double rises = 0.0;  ///< [px/s²]
};

/// @param lens the entrance pupil, looking ahead
InPicture pictureOf(const Moving& lens, const Point& point, const Focal& focal);

/// By how much the horizon is turned in the picture [rad], counter-clockwise positive.
double horizonAngle(const geometry::Frame& lens);

} // namespace gantry::kinematics
