// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/trajectory/trajectory.h"

#include <algorithm>
#include <cmath>

namespace gantry::trajectory {

std::size_t Trajectory::pieceAt(double t) const {
    const auto it = std::upper_bound(times_.begin(), times_.end(), t);
    const auto before = it == times_.begin() ? 0 : static_cast<std::size_t>(it - times_.begin()) - 1;
    return std::min(before, pieceCount() > 0 ? pieceCount() - 1 : 0);
}

State Trajectory::at(std::size_t axis, double t) const {
    if (empty()) return {};
    if (t <= 0.0) return {axes_[axis].front().at(0.0).place};
    if (t >= duration()) return {axes_[axis].back().at(axes_[axis].back().duration()).place};
    const std::size_t i = pieceAt(t);
    return axes_[axis][i].at(t - times_[i]);
}

Extremes Trajectory::extremes(std::size_t axis, Order order, std::size_t first, std::size_t last) const {
    Extremes out;
    for (std::size_t i = first; i < last; ++i) {
        const Extremes e = axes_[axis][i].extremes(order);
        if (i == first || e.least < out.least) {
            out.least = e.least;
            out.leastAt = times_[i] + e.leastAt;
        }
        if (i == first || e.greatest > out.greatest) {
            out.greatest = e.greatest;
            out.greatestAt = times_[i] + e.greatestAt;
        }
    }
    return out;
}

namespace {

/// Stretches in which an axis goes one way, in order: `visit(moment, way)` with way 1 or −1; what stands is
/// passed over. It goes on while `visit` says so.
template <class Visit>
void ways(const Trajectory& t, std::size_t axis, const Visit& visit) {
    // What rounding leaves of a standing axis is no movement.
    const double moves = 1e-9 * t.extremes(axis, Order::Speed).largest();
    if (!(moves > 0.0)) return;
    for (std::size_t i = 0; i < t.pieceCount(); ++i) {
        const Quintic& q = t.pieces(axis)[i];
        const Moments roots = q.roots(Order::Speed);
        double from = 0.0;
        for (std::size_t k = 0; k <= roots.count; ++k) {
            const double to = k < roots.count ? roots.at[k] : q.duration();
            // Between two roots it keeps its sign, so the middle tells it.
            const double middle = q.value(Order::Speed, 0.5 * (from + to));
            if (std::abs(middle) > moves && !visit(t.times()[i] + from, middle > 0.0 ? 1 : -1)) return;
            from = to;
        }
    }
}

} // namespace

std::vector<double> Trajectory::reversals(std::size_t axis) const {
    std::vector<double> out;
    int way = 0;
    ways(*this, axis, [&](double at, int now) {
        if (way == -now) out.push_back(at);
        way = now;
        return true;
    });
    return out;
}

int Trajectory::firstDirection(std::size_t axis) const {
    int out = 0;
    ways(*this, axis, [&](double, int now) {
        out = now;
        return false;
    });
    return out;
}

Trajectory Trajectory::slower(double by) const {
    Trajectory out = *this;
    for (double& t : out.times_) t *= by;
    for (auto& axis : out.axes_)
        for (Quintic& q : axis) q = q.slower(by);
    return out;
}

Trajectory Trajectory::reversed() const {
    Trajectory out;
    out.axes_.resize(axes_.size());
    for (std::size_t i = times_.size(); i-- > 0;) out.times_.push_back(duration() - times_[i]);
    for (std::size_t a = 0; a < axes_.size(); ++a)
        for (std::size_t i = pieceCount(); i-- > 0;) {
            const Quintic& q = axes_[a][i];
            State from = q.at(q.duration()), to = q.at(0.0);
            from.speed = -from.speed;
            to.speed = -to.speed;
            out.axes_[a].push_back(Quintic::between(from, to, q.duration()));
        }
    return out;
}

void Trajectory::append(const Trajectory& next) {
    if (empty()) {
        *this = next;
        return;
    }
    const double offset = duration();
    for (std::size_t i = 1; i < next.times_.size(); ++i) times_.push_back(offset + next.times_[i]);
    for (std::size_t a = 0; a < axes_.size(); ++a)
        axes_[a].insert(axes_[a].end(), next.axes_[a].begin(), next.axes_[a].end());
}

void Trajectory::stand(double time) {
    std::vector<double> places;
    for (std::size_t a = 0; a < axes_.size(); ++a) places.push_back(at(a, duration()).place);
    append(standing(places, time));
}

Trajectory Trajectory::withAdded(std::size_t axis, const Trajectory& course, double start) const {
    if (empty() || course.empty()) return *this;
    std::vector<double> cuts = times_;
    for (const double t : course.times())
        if (start + t > 0.0 && start + t < duration()) cuts.push_back(start + t);
    std::sort(cuts.begin(), cuts.end());
    // Two cuts that differ by rounding alone are one; the ends stay as they are.
    const double least = 1e-12 * duration();
    std::vector<double> times{cuts.front()};
    for (const double t : cuts)
        if (t - times.back() > least) times.push_back(t);
    times.back() = duration();
    std::vector<std::vector<Quintic>> axes(axes_.size());
    for (std::size_t i = 0; i + 1 < times.size(); ++i) {
        const double low = times[i], high = times[i + 1], middle = 0.5 * (low + high);
        const std::size_t piece = pieceAt(middle);
        for (std::size_t a = 0; a < axes_.size(); ++a) {
            State from = axes_[a][piece].at(low - times_[piece]),
                  to = axes_[a][piece].at(high - times_[piece]);
            if (a == axis) {
                const auto add = [&](State& s, double t) {
                    const double since = t - start;
                    if (middle - start < 0.0) return;
                    if (middle - start > course.duration()) {
                        s.place += course.at(0, course.duration()).place;
                        return;
                    }
                    // Of the course's piece that holds the middle, so that its jumps fall between pieces.
                    const std::size_t p = course.pieceAt(middle - start);
                    const State more = course.pieces(0)[p].at(since - course.times()[p]);
                    s = {s.place + more.place, s.speed + more.speed, s.acceleration + more.acceleration,
                         s.jerk + more.jerk};
                };
                add(from, low);
                add(to, high);
            }
            axes[a].push_back(Quintic::between(from, to, high - low));
        }
    }
    return Trajectory(std::move(times), std::move(axes));
}

Trajectory standing(std::span<const double> places, double time) {
    std::vector<std::vector<Quintic>> axes;
    for (const double p : places) axes.push_back({Quintic({p, 0, 0, 0, 0, 0}, time)});
    return Trajectory({0.0, time}, std::move(axes));
}

Binding binding(const Trajectory& t, std::span<const motion::Limits> limits) {
    return binding(t, limits, 0, t.pieceCount());
}

Binding binding(const Trajectory& t, std::span<const motion::Limits> limits, std::size_t first,
                std::size_t last) {
    Binding out;
    // Of bounds that are alike but for rounding the first counts.
    constexpr double more = 1.0 + 1e-12;
    for (std::size_t axis = 0; axis < t.axisCount(); ++axis)
        for (std::size_t piece = first; piece < last; ++piece) {
            const auto look = [&](Order order, double limit, double power) {
                if (!(limit > 0.0)) return;
                const Extremes e = t.pieces(axis)[piece].extremes(order);
                const double stretch = std::pow(e.largest() / limit, 1.0 / power);
                if (stretch > out.stretch * more)
                    out = {stretch, axis, piece, order, t.times()[piece] + e.largestAt()};
            };
            look(Order::Speed, limits[axis].speed, 1.0);
            look(Order::Acceleration, limits[axis].acceleration, 2.0);
            look(Order::Jerk, limits[axis].jerk, 3.0);
        }
    return out;
}

} // namespace gantry::trajectory
