// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/trajectory/least_time.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace gantry::trajectory {
namespace {

/// Values and derivatives of the four cubic B-splines that live on a span, at a share u of it [0, 1].
struct Basis {
    std::array<double, 4> value, first, second;
};
Basis basisAt(double u, double span) {
    const double w = 1.0 - u, u2 = u * u, u3 = u2 * u;
    return {{w * w * w / 6.0, (3.0 * u3 - 6.0 * u2 + 4.0) / 6.0, (-3.0 * u3 + 3.0 * u2 + 3.0 * u + 1.0) / 6.0,
             u3 / 6.0},
            {-0.5 * w * w / span, (1.5 * u2 - 2.0 * u) / span, (-1.5 * u2 + u + 0.5) / span, 0.5 * u2 / span},
            {w / (span * span), (3.0 * u - 2.0) / (span * span), (1.0 - 3.0 * u) / (span * span),
             u / (span * span)}};
}

/// b, b′ and b″.
using Local = std::array<double, 3>;

/// A symmetric matrix of which only the diagonal and three beside it are filled.
class Banded {
public:
    explicit Banded(std::size_t size) : rows_(size) {}
    void clear() { std::fill(rows_.begin(), rows_.end(), std::array<double, 4>{}); }
    /// Of the lower half: column ≤ row ≤ column + 3.
    double& at(std::size_t row, std::size_t column) { return rows_[row][row - column]; }
    double& diagonal(std::size_t row) { return rows_[row][0]; }
    /// Cholesky's factor in place; false where it is not positive definite.
    bool factor() {
        for (std::size_t r = 0; r < rows_.size(); ++r) {
            for (std::size_t c = r >= 3 ? r - 3 : 0; c <= r; ++c) {
                double sum = at(r, c);
                for (std::size_t k = r >= 3 ? r - 3 : 0; k < c; ++k)
                    if (c - k <= 3) sum -= at(r, k) * at(c, k);
                if (c < r)
                    at(r, c) = sum / at(c, c);
                else if (sum > 0.0)
                    at(r, r) = std::sqrt(sum);
                else
                    return false;
            }
        }
        return true;
    }
    void solve(std::vector<double>& x) {
        for (std::size_t r = 0; r < x.size(); ++r) {
            for (std::size_t c = r >= 3 ? r - 3 : 0; c < r; ++c) x[r] -= at(r, c) * x[c];
            x[r] /= at(r, r);
        }
        for (std::size_t r = x.size(); r-- > 0;) {
            for (std::size_t k = r + 1; k < x.size() && k <= r + 3; ++k) x[r] -= at(k, r) * x[k];
            x[r] /= at(r, r);
        }
    }

private:
    std::vector<std::array<double, 4>> rows_;
};

class LeastTime {
public:
    LeastTime(const Trajectory& path, std::span<const motion::Limits> limits, std::size_t segments)
        : path_(path), limits_(limits), length_(path.duration()),
          spans_(std::clamp<std::size_t>(spansASegment * segments, leastSpans, mostSpans)),
          span_(length_ / static_cast<double>(spans_)) {
        markRests();
        double before = 0.0; // weight that the end of a span has, which is the start of the next
        for (std::size_t i = 0; i < spans_; ++i) {
            // Simpson's rule within the span; limits are asked for at every other of its places.
            const int parts = nearRest_[i] ? 8 : 4;
            const double weight = 1.0 / (3.0 * parts);
            for (int k = 0; k < parts; ++k)
                add(i, static_cast<double>(k) / parts,
                    k == 0       ? before + weight
                    : k % 2 == 0 ? 2.0 * weight
                                 : 4.0 * weight,
                    k % 2 == 0);
            before = weight;
        }
        add(spans_ - 1, 1.0, before, true);
        // Where an axis stands at a key its jerk jumps: both sides count, and no time.
        for (std::size_t k = 1; k < path.pieceCount(); ++k)
            for (const std::size_t piece : {k - 1, k}) {
                const double s = path.times()[k];
                const std::size_t span = std::min(spans_ - 1, static_cast<std::size_t>(s / span_));
                add(span, s / span_ - static_cast<double>(span), 0.0, piece);
            }
    }

    bool run(const std::stop_token& stop) {
        const double stretch = 1.0 / binding(path_, limits_).stretch;
        // A little slower than the stretched move, so that every limit has room.
        coefficients_.assign(spans_ + 3, 0.97 * stretch * stretch);
        const double n = static_cast<double>(points_.size());
        const double last = 1e-5 * length_ / n;
        for (double mu = 0.3 * length_ / n; mu > last; mu /= 6.0)
            if (!descend(mu, stop)) return false;
        return descend(last, stop);
    }

    /// One quintic between the ends of spans and the keys of the path.
    Trajectory refit() const {
        std::vector<double> at;
        for (std::size_t i = 0; i <= spans_; ++i) {
            at.push_back(static_cast<double>(i) * span_);
            if (i < spans_ && nearRest_[i]) at.push_back((static_cast<double>(i) + 0.5) * span_);
        }
        at.insert(at.end(), path_.times().begin(), path_.times().end());
        std::sort(at.begin(), at.end());
        // Of an end that lies next to a key only the key stays.
        std::vector<double> cuts;
        for (const double s : at) {
            if (!cuts.empty() && s - cuts.back() < 0.05 * span_) {
                if (std::binary_search(path_.times().begin(), path_.times().end(), s)) cuts.back() = s;
                continue;
            }
            cuts.push_back(s);
        }
        cuts.back() = length_;
        std::vector<double> times{0.0};
        for (std::size_t i = 0; i + 1 < cuts.size(); ++i)
            times.push_back(times.back() + timeBetween(cuts[i], cuts[i + 1]));
        std::vector<std::vector<Quintic>> axes(path_.axisCount());
        for (std::size_t a = 0; a < axes.size(); ++a) {
            State before = stateAt(a, cuts[0]);
            for (std::size_t i = 0; i + 1 < cuts.size(); ++i) {
                const State behind = stateAt(a, cuts[i + 1]);
                axes[a].push_back(Quintic::between(before, behind, times[i + 1] - times[i]));
                before = behind;
            }
        }
        return Trajectory(std::move(times), std::move(axes));
    }

private:
    static constexpr std::size_t leastSpans = 160, mostSpans = 480, spansASegment = 40;

    /// What the path of an axis asks at a place, in shares of its limits: factors of b, b′ and b″.
    struct Demand {
        double speed;               ///< of b in (speed)²
        double bends, goes;         ///< of b and b′ in the acceleration
        double jerk0, jerk1, jerk2; ///< of b, b′ and b″ in the jerk over √b
    };

    /// A place on the path, with the axes that move there where limits are asked for.
    struct Point {
        std::size_t span;
        Basis basis;
        double weight;             ///< of ds
        std::size_t first, behind; ///< of its demands
    };

    /// Next to where an axis starts or stops its acceleration changes from one span to the next; there it is
    /// looked at more closely.
    void markRests() {
        nearRest_.assign(spans_, false);
        const auto mark = [&](double s) {
            const auto at = static_cast<std::ptrdiff_t>(s / span_);
            for (std::ptrdiff_t i = at - 2; i <= at + 2; ++i)
                if (i >= 0 && i < static_cast<std::ptrdiff_t>(spans_))
                    nearRest_[static_cast<std::size_t>(i)] = true;
        };
        mark(0.0);
        mark(length_);
        for (std::size_t k = 1; k < path_.pieceCount(); ++k)
            for (std::size_t a = 0; a < path_.axisCount(); ++a) {
                const State q = path_.pieces(a)[k].at(0.0);
                if (q.speed == 0.0 && q.acceleration == 0.0) mark(path_.times()[k]);
            }
    }

    void add(std::size_t span, double share, double weight, bool limited) {
        const double s = std::min(length_, (static_cast<double>(span) + share) * span_);
        if (limited) return add(span, share, weight, path_.pieceAt(s));
        points_.push_back({span, basisAt(share, span_), weight * span_, demands_.size(), demands_.size()});
    }
    void add(std::size_t span, double share, double weight, std::size_t piece) {
        const double s = std::min(length_, (static_cast<double>(span) + share) * span_);
        const std::size_t first = demands_.size();
        for (std::size_t a = 0; a < path_.axisCount(); ++a) {
            const State q = path_.pieces(a)[piece].at(s - path_.times()[piece]);
            const motion::Limits& l = limits_[a];
            if (q.speed == 0.0 && q.acceleration == 0.0 && q.jerk == 0.0) continue;
            demands_.push_back({q.speed * q.speed / (l.speed * l.speed), q.acceleration / l.acceleration,
                                0.5 * q.speed / l.acceleration, q.jerk / l.jerk,
                                1.5 * q.acceleration / l.jerk, 0.5 * q.speed / l.jerk});
        }
        points_.push_back({span, basisAt(share, span_), weight * span_, first, demands_.size()});
    }

    Local localAt(const Point& p, const std::vector<double>& c) const {
        Local out{};
        for (std::size_t k = 0; k < 4; ++k) {
            out[0] += p.basis.value[k] * c[p.span + k];
            out[1] += p.basis.first[k] * c[p.span + k];
            out[2] += p.basis.second[k] * c[p.span + k];
        }
        return out;
    }

    /// Every limit of an axis as a slack, positive where it is kept, in shares of the limit.
    struct Slacks {
        double speed, up, down, jerkUp, jerkDown;
        double least() const { return std::min({speed, up, down, jerkUp, jerkDown}); }
        double product() const { return speed * up * down * jerkUp * jerkDown; }
    };
    /// @param room 1 / √b
    static Slacks slacksOf(const Demand& d, const Local& b, double room) {
        const double acceleration = d.bends * b[0] + d.goes * b[1];
        const double jerk = d.jerk0 * b[0] + d.jerk1 * b[1] + d.jerk2 * b[2];
        return {1.0 - d.speed * b[0], 1.0 - acceleration, 1.0 + acceleration, room - jerk, room + jerk};
    }

    /// Time plus barrier; infinite outside.
    double value(const std::vector<double>& c, double mu) const {
        double sum = 0.0;
        // What lies between the points stays positive where all coefficients do.
        for (const double coefficient : c) {
            if (!(coefficient > 0.0)) return infinite;
            sum -= mu * std::log(coefficient);
        }
        for (const Point& p : points_) {
            const Local b = localAt(p, c);
            const double room = 1.0 / std::sqrt(b[0]);
            sum += p.weight * room;
            double product = 1.0;
            for (std::size_t i = p.first; i < p.behind; ++i) {
                const Slacks slacks = slacksOf(demands_[i], b, room);
                if (!(slacks.least() > 0.0)) return infinite;
                product *= slacks.product();
                // Logarithms are dear; a product of some slacks needs one.
                if (product < 1e-200 || product > 1e200) {
                    sum -= mu * std::log(product);
                    product = 1.0;
                }
            }
            if (p.first < p.behind) sum -= mu * std::log(product);
        }
        return sum;
    }

    /// Adds what the slacks of an axis do to gradient and lower half of the Hessian by b, b′ and b″. The
    /// second derivative of 1/√b is left out. @param shrinks derivative of 1/√b by b
    static void barrier(const Demand& d, const Slacks& s, double shrinks, double mu, Local& g,
                        std::array<std::array<double, 3>, 3>& h) {
        const double speed = mu / s.speed, up = mu / s.up, down = mu / s.down, jerkUp = mu / s.jerkUp,
                     jerkDown = mu / s.jerkDown;
        const double less = shrinks - d.jerk0, more = shrinks + d.jerk0; // by b, of the jerk up and down
        const double push = up - down, jerk = jerkUp - jerkDown;
        g[0] += speed * d.speed + push * d.bends - jerkUp * less - jerkDown * more;
        g[1] += push * d.goes + jerk * d.jerk1;
        g[2] += jerk * d.jerk2;
        const double speed2 = speed / s.speed, both = up / s.up + down / s.down, up2 = jerkUp / s.jerkUp,
                     down2 = jerkDown / s.jerkDown;
        const double jerkBoth = up2 + down2, jerkByB = down2 * more - up2 * less;
        h[0][0] +=
            speed2 * d.speed * d.speed + both * d.bends * d.bends + up2 * less * less + down2 * more * more;
        h[1][0] += both * d.bends * d.goes + jerkByB * d.jerk1;
        h[1][1] += both * d.goes * d.goes + jerkBoth * d.jerk1 * d.jerk1;
        h[2][0] += jerkByB * d.jerk2;
        h[2][1] += jerkBoth * d.jerk1 * d.jerk2;
        h[2][2] += jerkBoth * d.jerk2 * d.jerk2;
    }

    bool descend(double mu, const std::stop_token& stop) {
        constexpr int mostSteps = 30;
        Banded hessian(coefficients_.size());
        std::vector<double> gradient(coefficients_.size()), trial(coefficients_.size());
        double now = value(coefficients_, mu);
        for (int step = 0; step < mostSteps; ++step) {
            if (stop.stop_requested()) return false;
            hessian.clear();
            for (std::size_t i = 0; i < gradient.size(); ++i) {
                const double by = 1.0 / coefficients_[i];
                gradient[i] = -mu * by;
                hessian.diagonal(i) = mu * by * by;
            }
            for (const Point& p : points_) {
                const Local b = localAt(p, coefficients_);
                const double room = 1.0 / std::sqrt(b[0]), by = room / b[0];
                Local g{-0.5 * p.weight * by, 0.0, 0.0};
                std::array<std::array<double, 3>, 3> h{};
                h[0][0] = 0.75 * p.weight * by / b[0];
                for (std::size_t i = p.first; i < p.behind; ++i)
                    barrier(demands_[i], slacksOf(demands_[i], b, room), -0.5 * by, mu, g, h);
                const std::array<const std::array<double, 4>*, 3> basis{&p.basis.value, &p.basis.first,
                                                                        &p.basis.second};
                for (std::size_t r = 0; r < 4; ++r) {
                    std::array<double, 3> row{};
                    for (std::size_t i = 0; i < 3; ++i) {
                        gradient[p.span + r] += (*basis[i])[r] * g[i];
                        for (std::size_t k = 0; k < 3; ++k)
                            row[i] += (*basis[k])[r] * h[std::max(i, k)][std::min(i, k)];
                    }
                    for (std::size_t c = 0; c <= r; ++c)
                        hessian.at(p.span + r, p.span + c) +=
                            row[0] * (*basis[0])[c] + row[1] * (*basis[1])[c] + row[2] * (*basis[2])[c];
                }
            }
            if (!hessian.factor()) return true; // as far as rounding goes
            std::vector<double> way = gradient;
            hessian.solve(way);
            double falls = 0.0;
            for (std::size_t i = 0; i < way.size(); ++i) falls += way[i] * gradient[i];
            // What is left to gain, against the time itself.
            if (falls < 1e-9 * length_) return true;
            double share = 1.0, then = infinite;
            for (; share > 1e-8; share *= 0.5) {
                for (std::size_t i = 0; i < way.size(); ++i) trial[i] = coefficients_[i] - share * way[i];
                then = value(trial, mu);
                if (then < now - 1e-4 * share * falls) break;
            }
            if (!(then < now)) return true;
            coefficients_.swap(trial);
            const bool little = now - then < 1e-7 * now;
            now = then;
            if (little) return true;
        }
        return true;
    }

    Local bAt(double s) const {
        const auto i = std::min(spans_ - 1, static_cast<std::size_t>(std::max(0.0, s / span_)));
        const double u = s / span_ - static_cast<double>(i);
        return localAt({i, basisAt(u, span_), 0.0, 0, 0}, coefficients_);
    }
    double timeBetween(double low, double high) const {
        static constexpr double x[] = {0.0, 0.5384693101056831, 0.9061798459386640};
        static constexpr double w[] = {0.5688888888888889, 0.4786286704993665, 0.2369268850561891};
        const double half = 0.5 * (high - low), middle = 0.5 * (high + low);
        const auto slowness = [&](double s) { return 1.0 / std::sqrt(bAt(s)[0]); };
        double sum = w[0] * slowness(middle);
        for (int i = 1; i < 3; ++i)
            sum += w[i] * (slowness(middle - half * x[i]) + slowness(middle + half * x[i]));
        return half * sum;
    }
    State stateAt(std::size_t axis, double s) const {
        const Local b = bAt(s);
        const std::size_t piece = path_.pieceAt(s);
        const State q = path_.pieces(axis)[piece].at(s - path_.times()[piece]);
        return {q.place, q.speed * std::sqrt(b[0]), q.acceleration * b[0] + 0.5 * q.speed * b[1], 0.0};
    }

    static constexpr double infinite = 1e300;
    const Trajectory& path_;
    std::span<const motion::Limits> limits_;
    double length_;
    std::size_t spans_;
    double span_;
    std::vector<bool> nearRest_;
    std::vector<Point> points_;
    std::vector<Demand> demands_;
    std::vector<double> coefficients_;
};

/// No quintic jumps: without a limit of jerk acceleration comes and goes in this time [s].
constexpr double shortestRise = 0.02;

} // namespace

std::optional<Fastest> fastest(const Trajectory& path, std::span<const motion::Limits> limits,
                               const std::stop_token& stop, std::size_t segments) {
    if (path.empty()) return std::nullopt;
    for (std::size_t i = 0; i < path.pieceCount(); ++i)
        if (!(binding(path, limits, i, i + 1).stretch > 0.0)) return std::nullopt;
    std::vector<motion::Limits> kept(limits.begin(), limits.end());
    for (motion::Limits& l : kept)
        if (!(l.jerk > 0.0)) l.jerk = l.acceleration / shortestRise;
    LeastTime search(path, kept, segments > 0 ? segments : path.pieceCount());
    if (!search.run(stop)) return std::nullopt;
    Fastest out;
    out.trajectory = search.refit();
    out.trajectory = out.trajectory.slower(binding(out.trajectory, limits).stretch);
    for (std::size_t i = 0; i < out.trajectory.pieceCount(); ++i) {
        const Binding b = binding(out.trajectory, limits, i, i + 1);
        const bool atLimit = b.stretch > 0.99;
        out.binds.push_back(atLimit ? Fastest::Binds{static_cast<int>(b.axis), b.order} : Fastest::Binds{});
    }
    return out;
}

} // namespace gantry::trajectory
