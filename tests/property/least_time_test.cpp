// SPDX-License-Identifier: GPL-3.0-or-later
// Least times over a path against a second judge: sequential linear programmes, written apart from what they
// judge and solved by Clp. GANTRY_PATHS=200 draws that many paths.
#include "core/trajectory/least_time.h"
#include "support/files.h"
#include "support/near.h"
#include "support/paths.h"

#include <QTest>
#include <coin/ClpSimplex.hpp>
#include <coin/CoinPackedMatrix.hpp>
#include <numbers>

using namespace paths;
using nlohmann::json;

namespace {

/// The least time in which a path can be run, as a linear programme made anew about each of its answers.
///
/// Unknown are the coefficients of b(s) = (ds/dt)², a cubic B-spline over 80 spans of the path's own time,
/// and 1/√b at each of its nodes and middles, which lies above tangents of that curve. Speed and acceleration
/// are linear in b; the jerk's j/√b, which is convex, is replaced by its tangent about the answer before,
/// which is below it: every answer is a motion that can be run.
class Programme {
public:
    Programme(const Trajectory& path, std::span<const Limits> limits)
        : path_(path), limits_(limits), span_(path.duration() / spans) {
        for (int i = 0; i < spans; ++i)
            for (const double u : {0.0, 0.5, 1.0})
                points_.push_back({i, u, span_ * (u == 0.5 ? 4.0 : 1.0) / 6.0}); // Simpson's rule
        const double stretch = binding(path, limits).stretch;
        b_.assign(spans + 3, 0.999 / (stretch * stretch));
    }

    /// [s]; nothing where a programme has no answer or the answers do not settle.
    std::optional<double> solve() {
        double before = time();
        for (int round = 0; round < 20; ++round) {
            if (!improve()) return std::nullopt;
            const double now = time();
            if (std::abs(before - now) < 1e-5 * now) return now;
            before = now;
        }
        return std::nullopt;
    }

private:
    static constexpr int spans = 80, unknowns = spans + 3;
    struct Point {
        int span;
        double u;      ///< share of the span
        double weight; ///< [s] in the sum of 1/√b
    };
    using Four = std::array<double, 4>;

    /// Values and derivatives of the four B-splines that live at a point.
    std::array<Four, 3> splines(const Point& p) const {
        const double u = p.u, w = 1.0 - u, h = span_;
        return {Four{w * w * w / 6, (4 - 6 * u * u + 3 * u * u * u) / 6,
                     (1 + 3 * u + 3 * u * u - 3 * u * u * u) / 6, u * u * u / 6},
                Four{-w * w / 2 / h, (1.5 * u * u - 2 * u) / h, (0.5 + u - 1.5 * u * u) / h, u * u / 2 / h},
                Four{w / h / h, (3 * u - 2) / h / h, (1 - 3 * u) / h / h, u / h / h}};
    }
    double value(const Point& p, const Four& of) const {
        double sum = 0.0;
        for (std::size_t k = 0; k < 4; ++k) sum += of[k] * b_[static_cast<std::size_t>(p.span) + k];
        return sum;
    }
    double time() const {
        double sum = 0.0;
        for (const Point& p : points_) sum += p.weight / std::sqrt(value(p, splines(p)[0]));
        return sum;
    }

    void row(const Point& p, const Four& of, double low, double high, int further = -1) {
        for (int k = 0; k < 4; ++k) entry(p.span + k, of[static_cast<std::size_t>(k)]);
        if (further >= 0) entry(further, 1.0);
        low_.push_back(low);
        high_.push_back(high);
    }
    void entry(int column, double value) {
        rows_.push_back(static_cast<int>(low_.size()));
        columns_.push_back(column);
        values_.push_back(value);
    }
    /// Limits of every axis just within the span that the point belongs to, since jerk jumps at keys.
    void limit(const Point& p, double b) {
        const auto [value, first, second] = splines(p);
        const double within = std::clamp(p.u, 1e-7, 1.0 - 1e-7);
        double most = COIN_DBL_MAX;
        for (std::size_t a = 0; a < path_.axisCount(); ++a) {
            const State q = path_.at(a, (p.span + within) * span_);
            const Limits& l = limits_[a];
            if (q.speed != 0.0) most = std::min(most, l.speed * l.speed / (q.speed * q.speed));
            Four acceleration, jerk;
            for (std::size_t k = 0; k < 4; ++k)
                acceleration[k] = q.acceleration * value[k] + 0.5 * q.speed * first[k];
            row(p, acceleration, -l.acceleration, l.acceleration);
            for (const double sign : {1.0, -1.0}) {
                for (std::size_t k = 0; k < 4; ++k)
                    jerk[k] = sign * (q.jerk * value[k] + 1.5 * q.acceleration * first[k] +
                                      0.5 * q.speed * second[k]) +
                              0.5 * l.jerk / (b * std::sqrt(b)) * value[k];
                row(p, jerk, -COIN_DBL_MAX, 1.5 * l.jerk / std::sqrt(b));
            }
        }
        row(p, value, 1e-9, most);
    }
    bool improve() {
        rows_.clear();
        columns_.clear();
        values_.clear();
        low_.clear();
        high_.clear();
        const int all = unknowns + static_cast<int>(points_.size());
        std::vector<double> least(static_cast<std::size_t>(all), -COIN_DBL_MAX),
            greatest(static_cast<std::size_t>(all), COIN_DBL_MAX), cost(static_cast<std::size_t>(all), 0.0);
        for (std::size_t i = 0; i < points_.size(); ++i) {
            const Point& p = points_[i];
            const Four of = splines(p)[0];
            const double b = value(p, of);
            limit(p, b);
            const int inverse = unknowns + static_cast<int>(i);
            cost[static_cast<std::size_t>(inverse)] = p.weight;
            least[static_cast<std::size_t>(inverse)] = 0.0;
            for (const double by : {0.3, 0.5, 0.7, 0.85, 1.0, 1.18, 1.4, 2.0, 3.5}) {
                const double at = by * b;
                Four slope;
                for (std::size_t k = 0; k < 4; ++k) slope[k] = 0.5 * of[k] / (at * std::sqrt(at));
                row(p, slope, 1.5 / std::sqrt(at), COIN_DBL_MAX, inverse);
            }
        }
        const CoinPackedMatrix matrix(false, rows_.data(), columns_.data(), values_.data(),
                                      static_cast<CoinBigIndex>(values_.size()));
        ClpSimplex programme;
        programme.setLogLevel(0);
        programme.loadProblem(matrix, least.data(), greatest.data(), cost.data(), low_.data(), high_.data());
        programme.scaling(3);
        programme.dual();
        if (programme.status() != 0) return false;
        b_.assign(programme.primalColumnSolution(), programme.primalColumnSolution() + unknowns);
        return true;
    }

    const Trajectory& path_;
    std::span<const Limits> limits_;
    double span_;
    std::vector<Point> points_;
    std::vector<double> b_;
    std::vector<int> rows_, columns_;
    std::vector<double> values_, low_, high_;
};

/// A camera on a slide along x at y = z = 0, whose pan and tilt hold a target: places of slide, pan and tilt
/// and their derivatives by x, in closed form.
struct AimedSlide {
    double x, y, z; ///< of the target

    std::array<State, 3> at(const State& slide) const {
        const double r = x - slide.place, h2 = r * r + y * y, h = std::sqrt(h2), d2 = h2 + z * z;
        const double pan1 = y / h2, pan2 = 2.0 * r * y / (h2 * h2);
        const double tilt1 = z * r / (h * d2);
        const double tilt2 = -(z / (h * d2) - z * r * (r / h * d2 + 2.0 * h * r) / (h2 * d2 * d2));
        const auto led = [&](double place, double by, double by2) {
            return State{place, by * slide.speed, by2 * slide.speed * slide.speed + by * slide.acceleration,
                         0.0};
        };
        return {slide, led(std::atan2(y, r), pan1, pan2), led(std::atan2(z, h), tilt1, tilt2)};
    }
    /// The three of them as the slide runs, refitted between many moments.
    Trajectory along(const Trajectory& slide) const {
        constexpr int parts = 60;
        std::vector<double> times{0.0};
        std::vector<std::vector<Quintic>> pieces(3);
        for (std::size_t i = 0; i < slide.pieceCount(); ++i) {
            const Quintic& q = slide.pieces(0)[i];
            for (int k = 0; k < parts; ++k) {
                const double low = q.duration() * k / parts, high = q.duration() * (k + 1) / parts;
                const auto from = at(q.at(low)), to = at(q.at(high));
                for (std::size_t a = 0; a < 3; ++a)
                    pieces[a].push_back(Quintic::between(from[a], to[a], high - low));
                times.push_back(slide.times()[i] + high);
            }
        }
        return Trajectory(std::move(times), std::move(pieces));
    }
};

} // namespace

class LeastTimeTest : public QObject, private PathDice {
    Q_OBJECT
public:
    LeastTimeTest() : PathDice(20261201) {}

private slots:
    void linearProgrammesAgree() {
        const int asked = qEnvironmentVariableIntValue("GANTRY_PATHS"), paths = asked > 0 ? asked : 20;
        double worst = 0.0, slowest = 0.0;
        for (int n = 0; n < paths; ++n) {
            const auto axes = static_cast<std::size_t>(within(1, 3.99));
            const auto keys = drawnKeys(static_cast<std::size_t>(within(2, 5.99)), axes, 0.0);
            const auto limits = drawnLimits(axes);
            const Trajectory path = smooth(keys, timesFrom(restTimes(keys, limits)));
            const auto ours = fastest(path, limits);
            QVERIFY(ours);
            const auto theirs = Programme(path, limits).solve();
            QVERIFY2(theirs, qPrintable(QString("path %1").arg(n)));
            const double off = ours->trajectory.duration() / *theirs - 1.0;
            worst = std::max(worst, std::abs(off));
            slowest = std::max(slowest, off);
            QVERIFY2(
                std::abs(off) < 0.005,
                qPrintable(
                    QString("path %1: %2 s of %3 s").arg(n).arg(ours->trajectory.duration()).arg(*theirs)));
        }
        qInfo("%d paths: %.3f %% apart at most, %.3f %% slower at most", paths, 100 * worst, 100 * slowest);
    }
    /// The judge is no mirror: told of other limits, it finds other times.
    void theJudgeSeesAMistake() {
        const std::vector<Key> keys{{0.0}, {0.6}, {1.0}};
        const std::vector<Limits> limits{{0.25, 0.5, 2.0}}, other{{0.25, 0.5, 1.8}};
        const Trajectory path = smooth(keys, timesFrom(restTimes(keys, limits)));
        const double ours = fastest(path, limits)->trajectory.duration();
        VERIFY_NEAR(*Programme(path, limits).solve(), ours, 0.005);
        QVERIFY(*Programme(path, other).solve() > 1.005 * ours);
        // On a line the S-curve is the least.
        VERIFY_NEAR(ours, straight(keys.front(), keys.back(), limits).duration(), 0.005);
    }
    /// A slide with pan and tilt that hold a target: by stretching, by a lower cruise, and as axes of the
    /// path.
    void aimLocked() {
        for (const json& c : referenceCases("t20_moves", "aim_locked")) {
            const json &in = c["inputs"], &e = c["expected"];
            const AimedSlide aim{in["target"][0], in["target"][1], in["target"][2]};
            const Limits slide{in["slide_vaj"][0], in["slide_vaj"][1], in["slide_vaj"][2]};
            const json& l = in["limits"];
            const double x0 = in["x0"], D = in["D"], panRises = l["pan_acc"], tiltRises = l["tilt_acc"];
            std::vector<Limits> limits{
                slide, {l["pan_rate"], panRises, 0.0}, {l["tilt_rate"], tiltRises, 0.0}};
            const auto run = [&](const Limits& of) {
                return straight(std::vector{x0}, std::vector{x0 + D}, std::vector{of});
            };
            const Trajectory free = run(slide);
            VERIFY_NEAR(free.duration(), e["T_free"].get<double>(), 1e-8);
            const Trajectory held = aim.along(free);
            const Binding b = binding(held, limits);
            VERIFY_NEAR(free.duration() * std::max(1.0, b.stretch), e["T_uniform"].get<double>(), 1e-4);
            if (e.contains("binds_uniform")) {
                QCOMPARE(b.axis, e["binds_uniform"].get<std::string>().starts_with("pan") ? 1u : 2u);
                QCOMPARE(b.order, e["binds_uniform"].get<std::string>().ends_with("rate")
                                      ? Order::Speed
                                      : Order::Acceleration);
            }
            // The largest cruise at which pan and tilt follow.
            double low = 1e-3, high = slide.speed;
            const std::vector<Limits> headAlone{{1e3, 1e3, 0.0}, limits[1], limits[2]};
            const auto follows = [&](double cruise) {
                const Trajectory t = aim.along(run({cruise, slide.acceleration, slide.jerk}));
                return binding(t, headAlone).stretch <= 1.0 + 1e-9;
            };
            if (follows(high)) low = high;
            for (int i = 0; i < 40 && low < high; ++i)
                (follows(0.5 * (low + high)) ? low : high) = 0.5 * (low + high);
            VERIFY_NEAR(low, e["cruise"].get<double>(), 1e-4);
            VERIFY_NEAR(run({low, slide.acceleration, slide.jerk}).duration(),
                        e["T_lower_speed"].get<double>(), 1e-4);

            limits[1].jerk = 4.0 * panRises;
            limits[2].jerk = 4.0 * tiltRises;
            const Quintic step = Quintic::between({x0, 0.0, 0.0, 0.0}, {x0 + D, 0.0, 0.0, 0.0}, 1.0);
            const Trajectory path = aim.along(Trajectory({0.0, 1.0}, {{step}}));
            const auto fast = fastest(path, limits);
            QVERIFY(fast);
            const double T = fast->trajectory.duration(), warp = e["T_warp"];
            qInfo("%s: %.4f s, wanted %.4f s", c["name"].get<std::string>().c_str(), T, warp);
            QVERIFY(T <= 1.01 * warp);
            QVERIFY(T >= free.duration() * (1.0 - 1e-6) && T > 0.97 * warp);
            for (std::size_t a = 0; a < 3; ++a) {
                QVERIFY(fast->trajectory.extremes(a, Order::Speed).largest() <= limits[a].speed * (1 + 1e-9));
                QVERIFY(fast->trajectory.extremes(a, Order::Jerk).largest() <= limits[a].jerk * (1 + 1e-9));
            }
            // Still aimed all the way.
            for (double t = 0.0; t < T; t += 0.05 * T) {
                const auto want = aim.at(fast->trajectory.at(0, t));
                VERIFY_NEAR_ABS(fast->trajectory.at(1, t).place, want[1].place, 2e-5);
                VERIFY_NEAR_ABS(fast->trajectory.at(2, t).place, want[2].place, 2e-5);
            }
        }
    }
};

QTEST_APPLESS_MAIN(LeastTimeTest)
#include "least_time_test.moc"
