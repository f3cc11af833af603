// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/estimate.h"

#include <string>

namespace gantry {

/// One thing that an axis carries. On a turning axis the place counts from the axis, along the arm and square
/// to it; on a carriage from the middle of its wheels, along the rail and above it.
struct MassItem {
    std::string id;
    std::string name = "Item";
    Estimate mass = estimate(1.0, Source::Guess); ///< [kg]
    double along = 0.0;                           ///< [m]
    double above = 0.0;                           ///< [m]

    friend bool operator==(const MassItem&, const MassItem&) = default;
};

/// A body that sticks out of what an axis moves and might run into something: a motor, a gear, a battery. It
/// weighs nothing here; its mass is in what the axis carries.
struct PlacedBody {
    std::string id;
    std::string name = "Body";
    double along = 0.0, left = 0.0, above = 0.0;       ///< [m] its middle: on a turning axis from the axis,
                                                       ///< on a carriage from the middle of its wheels
    double length = 0.06, width = 0.06, height = 0.06; ///< [m]

    friend bool operator==(const PlacedBody&, const PlacedBody&) = default;
};

/// A load that sits on a rail and does not travel: motor, idler, battery, control box.
struct RailLoad {
    std::string id;
    std::string name = "Load";
    Estimate mass = estimate(0.5, Source::Guess);      ///< [kg]
    double at = -0.05;                                 ///< [m] from the low end; below 0 it sits before it
    double left = 0.0, above = 0.0;                    ///< [m] its middle from the rail's
    double length = 0.06, width = 0.06, height = 0.06; ///< [m]

    friend bool operator==(const RailLoad&, const RailLoad&) = default;
};

enum class GuideKind { Wheels, PlainRods, BallRods, Telescope, BallRail };

/// What a carriage runs on.
struct Guide {
    GuideKind kind = GuideKind::Wheels;
    Estimate play = assumed(5e-5);           ///< [m] between bearing and rail
    double wheelbase = 0.12;                 ///< [m] between bearings along the rail
    double track = 0.06;                     ///< [m] between bearings across it
    double pushOffset = 0.0;                 ///< [m] sideways from the rail's middle to where the drive pulls
    Estimate friction = assumed(0.005, 0.5); ///< [1] rolling or sliding
    double massHeight = 0.12;                ///< [m] centre of gravity above the rail
    Estimate bearingRating = assumed(120.0, 0.3); ///< [N] one wheel or bearing

    friend bool operator==(const Guide&, const Guide&) = default;
};

/// A bar along the rail that turns the camera as the carriage travels, through an arm that slides on it.
struct PanBar {
    bool fitted = false;
    double armLength = 0.3; ///< [m] from the pan pivot to the slider on the bar
    double offset = 0.0;    ///< [m] from the pivot's path to the bar, at the middle of the travel
    double angle = 0.15;    ///< [rad] between bar and rail

    friend bool operator==(const PanBar&, const PanBar&) = default;
};

/// Spring that carries part of an arm: torque at the low end of the range and its change with the angle.
struct Counterspring {
    Estimate torqueAtLow = assumed(0.0); ///< [N·m] lifting
    Estimate rate = assumed(0.0);        ///< [N·m/rad] added while the arm rises; negative: falls off

    friend bool operator==(const Counterspring&, const Counterspring&) = default;
};

} // namespace gantry
