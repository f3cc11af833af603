// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/brief_parts.h"

#include <string>
#include <variant>
#include <vector>

namespace gantry {

enum class AxisKind { Linear, Rotary };

struct Camera {
    std::string name;
    double sensorWidth = 0.036; ///< [m]
    int pixelsAcross = 3840;    ///< recorded, over the sensor width
    int deliveredWidth = 3840;  ///< of the delivered picture

    friend bool operator==(const Camera&, const Camera&) = default;
};

/// What the four kinds of picture error may reach in one shot.
struct ErrorLimits {
    double drift = 0.3;        ///< [px/frame] slow drift
    double jitter = 0.5;       ///< [px] peak to peak, frame to frame
    double repeat = 1.0;       ///< [px] between passes
    double framing = 0.02;     ///< [1] share of the picture width
    double crossingTime = 5.0; ///< [s] least time in which detail may cross the picture

    friend bool operator==(const ErrorLimits&, const ErrorLimits&) = default;
};

/// A movement given by speed and acceleration. Distances are signed, positive away from the axis' low end.
template <AxisKind>
struct BySpeed {
    double distance = 0.0;     ///< [m] or [rad]
    double speed = 0.0;        ///< [m/s] or [rad/s]
    double acceleration = 0.0; ///< [m/s²] or [rad/s²]
    bool placed = false;       ///< begins at a place of its own; else anywhere on the axis
    double start = 0.0;        ///< [m] or [rad] from the low end

    friend bool operator==(const BySpeed&, const BySpeed&) = default;
};

/// A movement given by its whole time, with ease in and out counted in it.
template <AxisKind>
struct ByTime {
    double distance = 0.0; ///< [m] or [rad]
    double time = 1.0;     ///< [s]
    double easeIn = 0.0;   ///< [s] from rest to cruise
    double easeOut = 0.0;  ///< [s] from cruise to rest
    bool placed = false;   ///< begins at a place of its own; else anywhere on the axis
    double start = 0.0;    ///< [m] or [rad] from the low end

    friend bool operator==(const ByTime&, const ByTime&) = default;
};

using Movement = std::variant<BySpeed<AxisKind::Linear>, ByTime<AxisKind::Linear>, BySpeed<AxisKind::Rotary>,
                              ByTime<AxisKind::Rotary>>;

/// What one shot asks of one axis.
struct ShotMove {
    std::string axis; ///< id of the axis
    Movement movement;

    friend bool operator==(const ShotMove&, const ShotMove&) = default;
};

struct Shot {
    std::string id;
    std::string name;
    double focalLength = 0.035;   ///< [m]
    double subjectDistance = 1.0; ///< [m]
    double frameRate = 25.0;      ///< [1/s]
    double exposure = 0.02;       ///< [s] time the shutter is open per frame
    double fNumber = 4.0;         ///< [1] lens opening, for what focus errors show
    ShotKind kind = ShotKind::Live;
    int frames = 240;           ///< pictures of an interval shot
    double interval = 5.0;      ///< [s] between its pictures
    double clipTime = 10.0;     ///< [s] of a stop-motion clip as it is shown
    double stepTime = 1.0;      ///< [s] in which the rig moves one step between two pictures
    int passes = 2;             ///< of a repeat shot, laid over each other
    double settle = 2.0;        ///< [s] after a stop until the picture must stand still
    double swingSeen = 0.0;     ///< [px] amplitude seen after a stop; 0: not looked at, computed
    bool thereAndBack = false;  ///< filmed both ways; else it comes back unfilmed
    bool keepFramed = false;    ///< pan and tilt without a movement of their own follow the subject
    bool towards = false;       ///< the slide goes along the lens, positive towards the subject
    double subjectPlace = 0.5;  ///< [1] share of the travel at which the camera passes the subject
    double subjectHeight = 0.0; ///< [m] of the subject above the camera
    ErrorLimits limits;
    std::vector<ShotMove> moves;

    // Defined in special_members.cpp, which says why.
    Shot();
    Shot(const Shot&);
    Shot(Shot&&) noexcept;
    Shot& operator=(const Shot&);
    Shot& operator=(Shot&&) noexcept;
    ~Shot();
    bool operator==(const Shot&) const;
};

} // namespace gantry
