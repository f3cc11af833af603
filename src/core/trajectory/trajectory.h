// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/motion/profile.h"
#include "core/trajectory/quintic.h"

#include <optional>
#include <span>
#include <vector>

namespace gantry::trajectory {

/// A timed move of several axes: for each axis quintic pieces between shared times. Whatever a move is made
/// of, this is what it becomes, so that its bounds are exact.
class Trajectory {
public:
    Trajectory() = default;
    /// @param times [s] from 0, rising; @param axes for each axis one piece between two times, of that
    /// duration
    Trajectory(std::vector<double> times, std::vector<std::vector<Quintic>> axes)
        : times_(std::move(times)), axes_(std::move(axes)) {}

    bool empty() const { return times_.size() < 2; }
    double duration() const { return times_.empty() ? 0.0 : times_.back(); } ///< [s]
    std::size_t axisCount() const { return axes_.size(); }
    std::size_t pieceCount() const { return times_.empty() ? 0 : times_.size() - 1; }
    std::span<const double> times() const { return times_; }
    std::span<const Quintic> pieces(std::size_t axis) const { return axes_[axis]; }

    /// At a moment [s]; before the start and after the end it stands.
    State at(std::size_t axis, double t) const;
    /// Index of the piece that holds a moment.
    std::size_t pieceAt(double t) const;

    /// Exact bounds over the whole of it, or over pieces [first, last).
    Extremes extremes(std::size_t axis, Order order) const { return extremes(axis, order, 0, pieceCount()); }
    Extremes extremes(std::size_t axis, Order order, std::size_t first, std::size_t last) const;

    /// Moments [s] at which an axis turns back: where its speed changes sign, at a stop as well.
    std::vector<double> reversals(std::size_t axis) const;
    /// The way in which it moves first: 1, −1, or 0 where it never does.
    int firstDirection(std::size_t axis) const;

    /// The same path in `by` times the time.
    Trajectory slower(double by) const;
    /// Played from its end to its start.
    Trajectory reversed() const;
    /// With another behind it, which has as many axes and begins where this ends.
    void append(const Trajectory& next);
    /// Standing for a time [s] > 0 behind it.
    void stand(double time);

    /// One axis moved besides by a course of one axis, from a moment [s] ≥ 0 on; after it, by where it ends.
    /// Exact: pieces are cut where the course has its own. Nothing of it comes after the end.
    Trajectory withAdded(std::size_t axis, const Trajectory& course, double start) const;

    bool operator==(const Trajectory&) const = default;

private:
    std::vector<double> times_;
    std::vector<std::vector<Quintic>> axes_;
};

/// All axes standing at these places for a time [s] > 0.
Trajectory standing(std::span<const double> places, double time);

/// What decides how much a move must be slowed down.
struct Binding {
    double stretch = 0.0; ///< its time must grow by this factor; below 1 it could be shorter
    std::size_t axis = 0, piece = 0;
    Order order = Order::Speed;
    double at = 0.0; ///< [s]
};

/// The factor by which the time of a move must grow to keep all limits: max(v̂/v, √(â/a), ∛(ĵ/j)), exact.
/// @param limits one for each axis; a jerk of 0 is none
Binding binding(const Trajectory& t, std::span<const motion::Limits> limits);
/// The same of some pieces, [first, last).
Binding binding(const Trajectory& t, std::span<const motion::Limits> limits, std::size_t first,
                std::size_t last);

} // namespace gantry::trajectory
