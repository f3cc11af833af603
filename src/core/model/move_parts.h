// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/optics_parts.h"

#include <string>
#include <variant>
#include <vector>

namespace gantry {

/// From where a place of a pose is counted. A move from the low end to the high end grows with its rail.
enum class PlaceFrom {
    LowEnd,    ///< of the usable travel
    HighEnd,   ///< backwards
    PoseBefore ///< a distance; from the low end for the first pose
};

/// Where one axis stands in a pose.
template <AxisKind>
struct AxisPlace {
    double at = 0.0; ///< [m] or [rad]
    PlaceFrom from = PlaceFrom::LowEnd;

    friend bool operator==(const AxisPlace&, const AxisPlace&) = default;
};

/// What a pose says of one axis; an axis of which it says nothing stays where it was.
struct PosePlace {
    std::string axis; ///< id
    std::variant<AxisPlace<AxisKind::Linear>, AxisPlace<AxisKind::Rotary>> place;

    friend bool operator==(const PosePlace&, const PosePlace&) = default;
};

/// How the rig comes to a pose from the one before.
enum class SegmentKind {
    Straight, ///< straight in the axes: all set off and arrive together
    Aimed     ///< pan and tilt hold a target at its place in the picture
};

/// What says how long a segment takes.
enum class SegmentPace {
    Time,   ///< its time
    Speed,  ///< the top speed of one axis
    Fastest ///< the limits that are set on the axes
};

enum class EaseKind { Linear, S, Cosine };

/// Whose speed stays the same between speeding up and braking, where the axes' own shares would not keep it.
enum class EvenSpeed {
    Axes,   ///< that of the axes, in shares of their ways
    Lens,   ///< of the lens along its way in space
    Picture ///< of the target across the picture
};

/// How the rig comes to a pose. Of the first pose nothing of it counts.
struct MoveSegment {
    SegmentKind kind = SegmentKind::Straight;
    std::string target;      ///< id, of an aimed one
    double placeRight = 0.0; ///< [px] where in the delivered picture the target is held, from its middle …
    double placeUp = 0.0;    ///< [px]
    SegmentPace pace = SegmentPace::Time;
    double time = 4.0;         ///< [s]
    std::string speedOf;       ///< id of the axis whose top speed is given
    double speed = 0.1;        ///< [m/s] …
    double angularSpeed = 0.1; ///< … or [rad/s], where that axis turns
    EaseKind ease = EaseKind::S;
    double easeIn = 0.25, easeOut = 0.25; ///< [1] shares of the segment's time
    EvenSpeed even = EvenSpeed::Axes;
    bool pullsFocus = true; ///< of an aimed one: the focus axis, where there is one, holds the target too

    friend bool operator==(const MoveSegment&, const MoveSegment&) = default;
};

/// One axis by itself, beside the segments of the whole rig: a pan that begins and ends within a longer
/// slide. It starts from where the poses leave the axis and goes on from there.
struct AxisBlock {
    std::string id;
    std::string axis;     ///< id
    double start = 0.0;   ///< [s] of the move
    double length = 2.0;  ///< [s]
    double by = 0.1;      ///< [m] of an axis that slides …
    double byAngle = 0.5; ///< … or [rad] of one that turns
    EaseKind ease = EaseKind::S;
    double easeIn = 0.25, easeOut = 0.25; ///< [1] shares of its length

    friend bool operator==(const AxisBlock&, const AxisBlock&) = default;
};

/// A place of the whole rig that a move goes through or stops at.
struct KeyPose {
    std::string id; ///< its letter goes by its place in the move: poseLetter()
    std::string name;
    std::string note;
    bool passes = false; ///< goes through without stopping
    double wait = 0.0;   ///< [s] that it stands there before it goes on
    double focus = 0.0;  ///< [m] that the lens is focused at, from the sensor mark; 0: as its axis stands
    double focal = 0.0;  ///< [m] focal length that the lens is zoomed to; 0: as its axis stands
    std::vector<PosePlace> places;
    MoveSegment arrive;

    friend bool operator==(const KeyPose&, const KeyPose&) = default;
};

/// A point in space that a camera can be aimed at. From the middle of the base: x along the rig, y to its
/// left, z above the feet.
struct AimTarget {
    std::string id;
    std::string name = "Target";
    double x = 1.0, y = 0.0, z = 1.0;  ///< [m]; of one on a turntable, with that at its low end
    double deviation = 0.0;            ///< [m] how well it is known, where it was told from views
    std::string rides;                 ///< id of the turntable that it stands on; empty: it stands still …
    double aboutX = 0.0, aboutY = 0.0; ///< [m] … and where the middle of that is

    friend bool operator==(const AimTarget&, const AimTarget&) = default;
};

/// A timed move of the whole rig.
struct RigMove {
    std::string id;
    std::string name;
    std::string shot; ///< id of the shot whose lens, frame rate and limits it is taken with; empty: the first
    bool realises = false; ///< that shot's speeds, accelerations and distances are those of the move
    std::vector<KeyPose> poses;
    std::vector<AxisBlock> blocks;
    std::vector<AimTarget> targets;
    double preRoll = 0.0, postRoll = 0.0; ///< [s] recorded while it stands before and after
    int repeats = 1;                      ///< passes
    bool comesBack = false;               ///< the way back to the first pose is part of it
    bool takesUpBacklash = true;          ///< the first pose is approached in the way the move goes on
    bool overshoots = false; ///< on its way through poses an axis may go past them where that is smoother

    friend bool operator==(const RigMove&, const RigMove&) = default;
};

/// "A", … "Z", "AA", … for the first, … pose of a move.
std::string poseLetter(std::size_t pose);

/// Whether the rig goes through a pose of a move without stopping: never through the first and the last.
bool goesThrough(const RigMove& move, std::size_t pose);

} // namespace gantry
