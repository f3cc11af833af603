// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/trajectory/trajectory.h"

#include <optional>
#include <span>
#include <stop_token>

namespace gantry::trajectory {

/// A path run as fast as the limits of its axes allow.
struct Fastest {
    Trajectory trajectory;
    /// Which axis binds on each piece, and in which order; −1 where none is at its limit to a hundredth.
    struct Binds {
        int axis = -1;
        Order order = Order::Speed;
    };
    std::vector<Binds> binds;
};

/// The least time over a given path, by running it faster and slower along the way.
///
/// b(s) = (ds/dt)² of the path's own time s is a uniform cubic B-spline; ∫ds/√b is minimised under speed,
/// acceleration and jerk limits of every axis at the ends and middles of its spans by a barrier and Newton's
/// steps (Verscheure et al. 2009; Boyd and Vandenberghe, ch. 11). The result is refitted to quintics, checked
/// exactly, and slowed by what is then over (0.5 % at most). Every limit holds to 1e-9. Key places are kept.
///
/// @param path from rest to rest, its speeds and accelerations continuous; best the minimum-jerk spline over
/// the times that its segments would take from rest to rest
/// @param limits one for each axis, speed and acceleration > 0; with a jerk of 0 the full
/// acceleration comes and goes in 20 ms
/// @param segments between keys, by which the spans go; 0: every piece of the path is one
/// Nothing where nothing moves on one of the path's pieces, which then is a rest between two paths, or where
/// `stop` is requested.
std::optional<Fastest> fastest(const Trajectory& path, std::span<const motion::Limits> limits,
                               const std::stop_token& stop = {}, std::size_t segments = 0);

} // namespace gantry::trajectory
