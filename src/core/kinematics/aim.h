// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/kinematics/link_motion.h"

#include <array>
#include <optional>
#include <span>
#include <vector>

namespace gantry::kinematics {

/// The joints of a rig that point its camera, as indices of its chain; −1: it has none. Each stands on the
/// ones before it, the lens on all of them.
struct Head {
    int pan = -1, tilt = -1, roll = -1;
    int lens = -1; ///< the entrance pupil

    bool operator==(const Head&) const = default;
};

/// Where in the picture something is to be held.
struct PicturePlace {
    double u = 0.0, v = 0.0; ///< [px] from the centre: right, up

    bool operator==(const PicturePlace&) const = default;
};

/// What is aimed for.
struct Aim {
    PicturePlace place;
    double focal = 1.0;        ///< [px] > 0
    bool levelHorizon = false; ///< by the roll axis, where there is one
};

/// Why a camera cannot be aimed.
enum class NoAim {
    None,
    NoHead,     ///< neither pan nor tilt
    Blind,      ///< the point is nearer to the pan or tilt axis than the lens stands beside it
    NotReached, ///< no angles put it there: near straight up or down, or what the head lacks
};

/// Angles of the head; each in the axis' own count, the offset of its link taken off. What a head does not
/// have stays as it was given.
struct Aimed {
    NoAim no = NoAim::None;
    double pan = 0.0, tilt = 0.0, roll = 0.0; ///< [rad]
    explicit operator bool() const { return no == NoAim::None; }
};

/// Angles with which the camera shows a point at a place of its picture, on the upright branch: tilt within
/// a right angle of the head's base, pan within half a turn.
///
/// From the closed form for a lens that stands beside its axes, by damped Newton steps on the whole chain; to
/// 1e-12 rad. A head that lacks pan or tilt gets the picture place right in the other direction only.
/// @param places [U] of all axes; those of the head are where it starts (roll stays unless the horizon is
/// levelled)
Aimed aimAt(std::span<const Link> chain, const Head& head, std::span<const double> places,
            geometry::Place target, const Aim& aim);

/// The same direction over the top: pan half a turn on, tilt beyond upright, roll half a turn on with it.
/// Only a start: with offsets, or away from the centre, aimFrom() makes it exact.
Aimed overTheTop(const Aimed& upright);

/// From given angles of the head (those in `places`), to the nearest that aim; the branch that they are on.
Aimed aimFrom(std::span<const Link> chain, const Head& head, std::span<const double> places,
              geometry::Place target, const Aim& aim);

/// Speeds and accelerations of the head that keep a point at its place in the picture while all other axes
/// move; of the axes that there are, others 0.
struct HeadRates {
    double pan = 0.0, tilt = 0.0, roll = 0.0;                ///< [rad/s]
    double panRises = 0.0, tiltRises = 0.0, rollRises = 0.0; ///< [rad/s²]
};

/// @param motion of all axes, aimed; what it says of the head's own speeds and accelerations is not looked
/// at. Nothing where the angles are at a pole and no finite rate holds it.
std::optional<HeadRates> ratesToHold(std::span<const Link> chain, const Head& head, const AxisMotion& motion,
                                     const Point& target, const Aim& aim);

/// A turning axis over a whole move, taken on without jumps of a turn, and then brought into its range.
struct Turns {
    bool fits = false;
    double by = 0.0;          ///< [rad] whole turns, added to all of it
    std::size_t leavesAt = 0; ///< where it first leaves the range if nothing fits
};

/// Takes jumps of more than half a turn out of a course of angles [rad].
void unwrap(std::span<double> angles);

/// The one count of whole turns that keeps a course from `least` to `greatest` [rad] in a range; of several
/// the one that begins nearest to where the axis is now.
Turns turnsInto(std::span<const double> course, double low, double high, double now);

} // namespace gantry::kinematics
