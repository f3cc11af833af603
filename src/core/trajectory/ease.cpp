// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/trajectory/ease.h"

#include <algorithm>
#include <cmath>

namespace gantry::trajectory {
namespace {

motion::Ramp rampOf(double speed, double time, EaseShape shape) {
    motion::Ramp out;
    if (!(time > 0.0)) return out;
    switch (shape) {
    case EaseShape::Linear:
        out.constantTime = time;
        out.acceleration = speed / time;
        break;
    case EaseShape::S:
        out.jerkTime = 0.5 * time;
        out.acceleration = 2.0 * speed / time;
        break;
    case EaseShape::Cosine:
        out.constantTime = time;
        out.halfSine = true;
        out.acceleration = 0.5 * motion::Ramp::pi * speed / time;
        break;
    }
    return out;
}

/// Length against the path's own time, with its inverse.
class Lengths {
public:
    Lengths(const Trajectory& path, const std::function<double(double)>& rate) : rate_(rate) {
        for (std::size_t i = 0; i < path.pieceCount(); ++i) {
            const double from = path.times()[i], step = (path.times()[i + 1] - from) / spans;
            for (int k = 0; k < spans; ++k) {
                at_.push_back(from + k * step);
                length_.push_back(sum_);
                sum_ += between(at_.back(), at_.back() + step);
            }
        }
        at_.push_back(path.duration());
        length_.push_back(sum_);
    }
    double whole() const { return sum_; }
    /// The moment of the path at which a length has been run.
    double momentOf(double length) const {
        const auto above = std::upper_bound(length_.begin(), length_.end(), length);
        if (above == length_.end()) return at_.back();
        if (above == length_.begin()) return at_.front();
        const auto i = static_cast<std::size_t>(above - length_.begin()) - 1;
        double low = at_[i], high = at_[i + 1];
        const double rest = length - length_[i];
        for (int n = 0; n < 60 && high - low > 1e-14 * at_.back(); ++n) {
            const double middle = 0.5 * (low + high);
            (between(at_[i], middle) < rest ? low : high) = middle;
        }
        return 0.5 * (low + high);
    }

private:
    static constexpr int spans = 32;
    /// Gauss and Legendre's five points.
    double between(double low, double high) const {
        static constexpr double x[] = {0.0, 0.5384693101056831, 0.9061798459386640};
        static constexpr double w[] = {0.5688888888888889, 0.4786286704993665, 0.2369268850561891};
        const double half = 0.5 * (high - low), middle = 0.5 * (high + low);
        double sum = w[0] * rate_(middle);
        for (int i = 1; i < 3; ++i) sum += w[i] * (rate_(middle - half * x[i]) + rate_(middle + half * x[i]));
        return half * sum;
    }
    std::function<double(double)> rate_;
    std::vector<double> at_, length_;
    double sum_ = 0.0;
};

} // namespace

std::optional<motion::Profile> planEased(double distance, double time, const Ease& ease) {
    if (!(ease.in + ease.out <= time * (1.0 + 1e-12))) return std::nullopt;
    const double cruise = distance / (time - 0.5 * (ease.in + ease.out));
    motion::Profile out;
    out.distance = distance;
    out.peakSpeed = cruise;
    out.in = rampOf(cruise, ease.in, ease.shape);
    out.out = rampOf(cruise, ease.out, ease.shape);
    out.cruiseTime = std::max(0.0, time - ease.in - ease.out);
    return out;
}

std::optional<Trajectory> evenly(const Trajectory& path, const std::function<double(double)>& rate,
                                 double time, const Ease& ease) {
    const Lengths lengths(path, rate);
    if (!(lengths.whole() > 0.0)) return std::nullopt;
    const auto profile = planEased(lengths.whole(), time, ease);
    if (!profile) return std::nullopt;
    // Pieces end where the profile changes its law, and are short enough that the refit does not show.
    constexpr int pieces = 48;
    std::vector<double> times{0.0};
    const auto part = [&](double length) {
        if (!(length > 1e-12 * time)) return;
        const double from = times.back();
        const int count = std::max(4, static_cast<int>(std::ceil(pieces * length / time)));
        for (int i = 1; i <= count; ++i) times.push_back(from + length * i / count);
    };
    for (const motion::Ramp* r : {&profile->in, &profile->out}) {
        if (r == &profile->out) part(profile->cruiseTime);
        for (const double phase : {r->jerkTime, r->constantTime, r->jerkTime}) part(phase);
    }
    times.back() = time;
    const double step = 1e-5 * path.duration();
    std::vector<std::vector<State>> states(path.axisCount());
    // Where acceleration jumps, one state ends a piece and another begins the next.
    const auto stateAt = [&](std::size_t axis, double t, double inside) {
        const motion::MotionState l = profile->at(std::clamp(t + inside, 0.0, time));
        const motion::MotionState here = profile->at(t);
        const double s = lengths.momentOf(here.position), now = rate(s);
        const State q = path.at(axis, s);
        if (!(now > 0.0)) return State{q.place, 0.0, 0.0, 0.0};
        const double low = std::max(0.0, s - step), high = std::min(path.duration(), s + step);
        const double bends = (rate(high) - rate(low)) / (high - low);
        const double first = here.speed / now, second = (l.acceleration - bends * first * first) / now;
        return State{q.place, q.speed * first, q.acceleration * first * first + q.speed * second, 0.0};
    };
    std::vector<std::vector<Quintic>> axes(path.axisCount());
    for (std::size_t a = 0; a < axes.size(); ++a)
        for (std::size_t i = 0; i + 1 < times.size(); ++i) {
            const double inside = 1e-9 * time;
            axes[a].push_back(Quintic::between(stateAt(a, times[i], inside),
                                               stateAt(a, times[i + 1], -inside), times[i + 1] - times[i]));
        }
    return Trajectory(std::move(times), std::move(axes));
}

} // namespace gantry::trajectory
