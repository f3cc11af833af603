// SPDX-License-Identifier: GPL-3.0-or-later
// Timed moves of several axes: worked cases, exact bounds against dense looks, conservation of what is passed
// through, and least times against what no motion can beat.
#include "core/kinematics/aim.h"
#include "core/trajectory/ease.h"
#include "core/trajectory/least_time.h"
#include "core/trajectory/passes.h"
#include "support/files.h"
#include "support/near.h"
#include "support/paths.h"

#include <QTest>
#include <numbers>

using namespace paths;
using gantry::motion::Profile;
using nlohmann::json;

namespace {

constexpr double pi = std::numbers::pi;

std::vector<Key> keysOf(const json& j) {
    return j.get<std::vector<Key>>();
}
/// A hair apart, so that a place that is held is none for the spline.
std::vector<Key> notHeld(std::vector<Key> keys) {
    for (std::size_t i = 1; i < keys.size(); ++i)
        for (std::size_t a = 0; a < keys[i].size(); ++a)
            if (keys[i][a] == keys[i - 1][a]) keys[i][a] += 1e-13;
    return keys;
}
} // namespace

class TrajectoryTest : public QObject, private paths::PathDice {
    Q_OBJECT

    static void within(const Trajectory& t, const std::vector<Limits>& limits, double by = 1e-9) {
        for (std::size_t a = 0; a < t.axisCount(); ++a) {
            QVERIFY(t.extremes(a, Order::Speed).largest() <= limits[a].speed * (1 + by));
            QVERIFY(t.extremes(a, Order::Acceleration).largest() <= limits[a].acceleration * (1 + by));
            if (limits[a].jerk > 0.0)
                QVERIFY(t.extremes(a, Order::Jerk).largest() <= limits[a].jerk * (1 + by));
        }
    }
    /// Without a jump in place, speed and acceleration from piece to piece.
    static void joined(const Trajectory& t, double by = 1e-8) {
        for (std::size_t a = 0; a < t.axisCount(); ++a)
            for (std::size_t i = 0; i + 1 < t.pieceCount(); ++i) {
                const Quintic &q = t.pieces(a)[i], &next = t.pieces(a)[i + 1];
                const State end = q.at(q.duration()), start = next.at(0.0);
                VERIFY_NEAR_ABS(end.place, start.place, by);
                VERIFY_NEAR_ABS(end.speed, start.speed, by);
                VERIFY_NEAR_ABS(end.acceleration, start.acceleration, by * 10);
            }
    }
    using PathDice::within;

public:
    TrajectoryTest() : PathDice(20261202) {}

private slots:
    void piecesGoFromStateToState() {
        for (int n = 0; n < 300; ++n) {
            const double T = within(0.01, 9.0);
            const auto state = [&] { return State{within(-2, 2), within(-2, 2), within(-2, 2)}; };
            const State from = state(), to = state();
            const Quintic q = Quintic::between(from, to, T);
            const State a = q.at(0.0), b = q.at(T);
            VERIFY_NEAR_ABS(a.place, from.place, 1e-12);
            VERIFY_NEAR_ABS(a.speed, from.speed, 1e-12);
            VERIFY_NEAR_ABS(a.acceleration, from.acceleration, 1e-12);
            VERIFY_NEAR_ABS(b.place, to.place, 1e-9);
            VERIFY_NEAR_ABS(b.speed, to.speed, 1e-9 / std::min(1.0, T));
            VERIFY_NEAR_ABS(b.acceleration, to.acceleration, 1e-9 / std::min(1.0, T * T));
        }
    }
    /// No bound is passed anywhere, and each is reached somewhere.
    void boundsAreExact() {
        for (int n = 0; n < 400; ++n) {
            std::array<double, 6> c;
            for (double& x : c) x = within(-1, 1);
            if (n % 7 == 0) c[5] = 0.0;
            if (n % 11 == 0) c[4] = c[5] = 0.0;
            if (n % 13 == 0) c[3] = c[4] = c[5] = 0.0;
            const double T = within(0.2, 4.0);
            const Quintic q(c, T);
            for (const Order o : {Order::Place, Order::Speed, Order::Acceleration, Order::Jerk}) {
                const Extremes e = q.extremes(o);
                double least = 1e9, greatest = -1e9;
                constexpr int looks = 4000;
                for (int i = 0; i <= looks; ++i) {
                    const double v = q.value(o, T * i / looks);
                    least = std::min(least, v);
                    greatest = std::max(greatest, v);
                }
                const double size = 1.0 + std::abs(greatest) + std::abs(least);
                QVERIFY(e.least <= least + 1e-13 * size && e.greatest >= greatest - 1e-13 * size);
                QVERIFY(least - e.least < 1e-4 * size && e.greatest - greatest < 1e-4 * size);
                QCOMPARE(q.value(o, e.leastAt), e.least);
                QCOMPARE(q.value(o, e.greatestAt), e.greatest);
                // Each root is one, and each change of sign has one.
                if (o == Order::Jerk) continue;
                int changes = 0;
                for (int i = 0; i < looks; ++i)
                    changes += (q.value(o, T * i / looks) < 0.0) != (q.value(o, T * (i + 1) / looks) < 0.0);
                const Moments roots = q.roots(o);
                QVERIFY(static_cast<int>(roots.count) >= changes);
                for (const double t : roots) VERIFY_NEAR_ABS(q.value(o, t), 0.0, 1e-11 * size);
            }
        }
    }
    void workedSplines() {
        for (const json& c : referenceCases("t20_moves", "spline")) {
            const json& in = c["inputs"];
            const std::vector<double> t = in["t"], x = in["x"], at = in["sample_at"];
            std::vector<Key> keys;
            for (const double v : x) keys.push_back({v});
            const auto check = [&](const char* name, const Trajectory& q) {
                const json& e = c["expected"][name];
                const Extremes place = q.extremes(0, Order::Place);
                VERIFY_NEAR_ABS(place.least, e["range"][0].get<double>(), 1e-8);
                VERIFY_NEAR_ABS(place.greatest, e["range"][1].get<double>(), 1e-8);
                VERIFY_NEAR(q.extremes(0, Order::Speed).largest(), e["peak_v"].get<double>(), 1e-7);
                VERIFY_NEAR(q.extremes(0, Order::Acceleration).largest(), e["peak_a"].get<double>(), 1e-7);
                VERIFY_NEAR(q.extremes(0, Order::Jerk).largest(), e["peak_j"].get<double>(), 1e-7);
                for (std::size_t i = 0; i < e["key_speeds"].size(); ++i) {
                    VERIFY_NEAR_ABS(q.at(0, t[i + 1]).speed, e["key_speeds"][i].get<double>(), 1e-8);
                    VERIFY_NEAR_ABS(q.at(0, t[i + 1]).acceleration, e["key_accelerations"][i].get<double>(),
                                    1e-8);
                }
                for (std::size_t i = 0; i < at.size(); ++i)
                    VERIFY_NEAR_ABS(q.at(0, at[i]).place, e["at_quarters"][i].get<double>(), 1e-8);
            };
            check("minjerk", smooth(notHeld(keys), t));
            check("held", smooth(keys, t));
            check("local", smooth(keys, t, Through::Within));
        }
    }
    void workedStretches() {
        for (const json& c : referenceCases("t20_moves", "scale")) {
            const json& in = c["inputs"];
            const auto limits = limitsOf(in["limits_vaj"]);
            const auto check = [&](const char* name, const Trajectory& t) {
                const json& e = c["expected"][name];
                const Binding b = binding(t, limits);
                VERIFY_NEAR(b.stretch, e["stretch"].get<double>(), 1e-7);
                QCOMPARE(b.piece, e["segment"].get<std::size_t>());
                QCOMPARE(b.axis, e["axis"].get<std::size_t>());
                QCOMPARE(static_cast<int>(b.order), e["order"].get<int>());
            };
            const auto keys = keysOf(in["keys"]);
            const auto times = timesFrom(in["segment_times"]);
            check("minjerk", smooth(notHeld(keys), times));
            check("local", smooth(keys, times, Through::Within));
        }
    }
    void workedRestToRest() {
        for (const json& c : referenceCases("t20_moves", "rest")) {
            const json &in = c["inputs"], &e = c["expected"];
            const std::vector<double> d = in["D"], zero(d.size(), 0.0);
            const auto limits = limitsOf(in["limits_vaj"]);
            const Trajectory all = straight(zero, d, limits);
            VERIFY_NEAR(all.duration(), e["T_common"].get<double>(), 1e-8);
            within(all, limits);
            joined(all);
            double slowest = 0.0;
            for (std::size_t a = 0; a < d.size(); ++a) {
                const double alone =
                    straight(std::vector{0.0}, std::vector{d[a]}, std::vector{limits[a]}).duration();
                VERIFY_NEAR(alone, e["T_each"][a].get<double>(), 1e-8);
                slowest = std::max(slowest, alone);
                VERIFY_NEAR_ABS(all.at(a, all.duration()).place, d[a], 1e-12);
                // In step at every moment.
                VERIFY_NEAR_ABS(all.at(a, 1.1).place / d[a], all.at(0, 1.1).place / d[0], 1e-12);
            }
            VERIFY_NEAR(slowest, e["T_own"].get<double>(), 1e-8);
            const json& p = e["profile"];
            const Profile share = gantry::motion::plan(1.0, sharedLimits(zero, d, limits));
            VERIFY_NEAR(share.peakSpeed, p["v"].get<double>(), 1e-8);
            VERIFY_NEAR(share.in.acceleration, p["a"].get<double>(), 1e-8);
            VERIFY_NEAR(share.in.jerkTime, p["tj"].get<double>(), 1e-8);
            VERIFY_NEAR_ABS(share.in.constantTime, p["ta"].get<double>(), 1e-8);
            VERIFY_NEAR_ABS(share.cruiseTime, p["tv"].get<double>(), 1e-8);
        }
        QCOMPARE(straight(std::vector{1.0}, std::vector{1.0}, std::vector{Limits{1, 1, 1}}).duration(), 0.0);
    }
    void workedEases() {
        for (const json& c : referenceCases("t20_moves", "ease")) {
            const json &in = c["inputs"], &e = c["expected"];
            const double L = in["L"], T = in["T"];
            const Ease ease{in["shape"] == "s" ? EaseShape::S : EaseShape::Cosine, in["ease_in"],
                            in["ease_out"]};
            const auto p = planEased(L, T, ease);
            QCOMPARE(p.has_value(), e["possible"].get<bool>());
            if (!p) continue;
            VERIFY_NEAR(p->peakSpeed, e["cruise"].get<double>(), 1e-9);
            VERIFY_NEAR_ABS(p->peakSpeed * p->in.time() / 2.0, e["share_in"].get<double>() * L, 1e-9);
            VERIFY_NEAR_ABS(p->peakSpeed * p->out.time() / 2.0, e["share_out"].get<double>() * L, 1e-9);
            if (!e["acc_in"].is_null()) {
                VERIFY_NEAR(p->in.acceleration, e["acc_in"].get<double>(), 1e-9);
                VERIFY_NEAR(p->in.jerk(), e["jerk_in"].get<double>(), 1e-9);
            }
            VERIFY_NEAR(p->out.acceleration, e["acc_out"].get<double>(), 1e-9);
            VERIFY_NEAR(p->out.jerk(), e["jerk_out"].get<double>(), 1e-9);
            const Trajectory t = along(std::vector{0.3}, std::vector{0.3 + L}, *p);
            VERIFY_NEAR(t.duration(), T, 1e-12);
            VERIFY_NEAR_ABS(t.at(0, T).place, 0.3 + L, 1e-12);
            for (double moment = 0.0; moment < T; moment += 0.037) {
                VERIFY_NEAR_ABS(t.at(0, moment).place - 0.3, p->at(moment).position, 2e-7 * L);
                VERIFY_NEAR_ABS(t.at(0, moment).speed, p->at(moment).speed, 2e-5 * p->peakSpeed);
            }
        }
        // Peak acceleration · t/v: 1, 2 and π/2.
        for (const auto& [shape, peak] :
             {std::pair{EaseShape::Linear, 1.0}, {EaseShape::S, 2.0}, {EaseShape::Cosine, 0.5 * pi}}) {
            const auto p = planEased(2.0, 10.0, {shape, 3.0, 1.0});
            QVERIFY(p);
            VERIFY_NEAR(p->in.acceleration * 3.0 / p->peakSpeed, peak, 1e-12);
            VERIFY_NEAR(p->out.acceleration * 1.0 / p->peakSpeed, peak, 1e-12);
            VERIFY_NEAR(p->peakSpeed, 2.0 / 8.0, 1e-12);
        }
    }
    void workedPictureSpeeds() {
        for (const json& c : referenceCases("t20_moves", "constant_picture_speed")) {
            const json &in = c["inputs"], &e = c["expected"];
            const double from = in["pan_from"], to = in["pan_to"], T = in["T"], focal = in["focal_px"];
            const Trajectory path = along(std::vector{from}, std::vector{to},
                                          *planEased(1.0, 1.0, Ease{EaseShape::Linear, 0.0, 0.0}));
            // A point straight ahead at pan 0: it is at F tan(pan).
            const auto rate = [&](double s) {
                const State q = path.at(0, std::clamp(s, 1e-12, 1.0 - 1e-12));
                return focal / (std::cos(q.place) * std::cos(q.place)) * std::abs(to - from);
            };
            const auto t = evenly(path, rate, T, {EaseShape::S, in["ease_in"], in["ease_out"]});
            QVERIFY(t);
            VERIFY_NEAR(t->duration(), T, 1e-12);
            for (std::size_t i = 0; i < in["at"].size(); ++i) {
                const double at = in["at"][i];
                VERIFY_NEAR_ABS(t->at(0, at).place, e["pan_at"][i].get<double>(), 2e-6);
            }
            const double middle = 0.5 * T;
            const State m = t->at(0, middle);
            VERIFY_NEAR(m.speed * focal / (std::cos(m.place) * std::cos(m.place)),
                        e["picture_cruise_px_s"].get<double>(), 1e-4);
        }
        const Trajectory still = standing(std::vector{1.0}, 2.0);
        QVERIFY(!evenly(still, [](double) { return 0.0; }, 2.0, {}));
    }
    void workedLeastTimes() {
        for (const json& c : referenceCases("t20_moves", "fastest")) {
            const json &in = c["inputs"], &e = c["expected"];
            const auto keys = keysOf(in["keys"]);
            const auto limits = limitsOf(in["limits_vaj"]);
            const auto segments = restTimes(keys, limits);
            for (std::size_t i = 0; i < segments.size(); ++i)
                VERIFY_NEAR(segments[i], e["rest_to_rest_segment_times"][i].get<double>(), 1e-6);
            const Trajectory path = smooth(notHeld(keys), timesFrom(segments));
            VERIFY_NEAR(path.duration(), e["stop_at_each_key_T"].get<double>(), 1e-6);
            const auto fast = fastest(path, limits);
            QVERIFY(fast);
            qInfo("%s: %.4f s, wanted %.4f s, of %zu pieces", c["name"].get<std::string>().c_str(),
                  fast->trajectory.duration(), e["warped_T"].get<double>(), fast->trajectory.pieceCount());
            QVERIFY(fast->trajectory.duration() <= e["warped_T"].get<double>() * 1.01);
            QVERIFY(fast->trajectory.duration() > e["warped_T"].get<double>() * 0.98);
            within(fast->trajectory, limits);
            joined(fast->trajectory);
            // Something binds nearly everywhere.
            const auto free = std::count_if(fast->binds.begin(), fast->binds.end(),
                                            [](const Fastest::Binds& b) { return b.axis < 0; });
            QVERIFY(static_cast<std::size_t>(free) < fast->binds.size() / 2);
        }
    }
    /// Limits hold and every key is reached, whatever the keys; and no slower than stretching the same path.
    void leastTimesKeepLimitsAndKeys() {
        for (int n = 0; n < 60; ++n) {
            const auto axes = static_cast<std::size_t>(within(1, 4.99));
            const auto keys = drawnKeys(static_cast<std::size_t>(within(2, 7.99)), axes);
            auto limits = drawnLimits(axes);
            if (n % 5 == 0) limits[0].jerk = 0.0;
            auto segments = restTimes(keys, limits);
            for (double& s : segments) s = std::max(s, 0.3);
            const Trajectory path = smooth(keys, timesFrom(segments));
            const auto fast = fastest(path, limits);
            QVERIFY(fast);
            within(fast->trajectory, limits);
            joined(fast->trajectory, 1e-7);
            const double stretched = path.duration() * binding(path, limits).stretch;
            QVERIFY2(fast->trajectory.duration() <= stretched * 1.001,
                     qPrintable(QString("%1 of %2").arg(fast->trajectory.duration()).arg(stretched)));
            std::size_t reached = 0;
            for (const double t : fast->trajectory.times()) {
                if (reached == keys.size()) break;
                double off = 0.0;
                for (std::size_t a = 0; a < axes; ++a)
                    off = std::max(off, std::abs(fast->trajectory.at(a, t).place - keys[reached][a]));
                if (off < 1e-9) ++reached;
            }
            QCOMPARE(reached, keys.size());
        }
    }
    /// A straight line in the least time is what the closed form says.
    void leastTimeOfALine() {
        for (int n = 0; n < 20; ++n) {
            const auto limits = drawnLimits(3);
            const auto keys = drawnKeys(2, 3, 0.0);
            const double wanted = straight(keys[0], keys[1], limits).duration();
            const auto fast = fastest(smooth(keys, {0.0, wanted}), limits);
            QVERIFY(fast);
            VERIFY_NEAR(fast->trajectory.duration(), wanted, 0.006);
        }
    }
    void nothingToRun() {
        const std::vector<Limits> limits{{1, 1, 1}};
        QVERIFY(!fastest(standing(std::vector{0.4}, 2.0), limits));
        QVERIFY(!fastest(smooth({{0.0}, {1.0}, {1.0}, {0.0}}, {0.0, 2.0, 3.0, 5.0}), limits));
        std::stop_source stop;
        stop.request_stop();
        QVERIFY(!fastest(smooth({{0.0}, {1.0}}, {0.0, 2.0}), limits, stop.get_token()));
    }
    void workedStops() {
        for (const json& c : referenceCases("t25_passes", "stop")) {
            const json &in = c["inputs"], &e = c["expected"];
            const Stop s = soonestStop(in["v"], in["acceleration_now"], {1.0, in["a"], in["j"]});
            VERIFY_NEAR(s.distance, e["distance"].get<double>(), 1e-9);
            VERIFY_NEAR(s.time, e["time"].get<double>(), 1e-9);
        }
        const Stop s = soonestStop(0.5, 0.0, {1.0, 2.0, 0.0});
        VERIFY_NEAR(s.distance, 0.0625, 1e-12);
        VERIFY_NEAR(s.time, 0.25, 1e-12);
        // While it speeds up it runs on farther than at the same speed without: about twice as far at 0.25
        // m/s.
        VERIFY_NEAR(soonestStop(0.25, 0.5, {1, 0.5, 2.0}).distance, 0.21, 0.01);
    }
    void workedPauses() {
        for (const json& c : referenceCases("t25_passes", "pause")) {
            const json &in = c["inputs"], &e = c["expected"];
            const auto limits = limitsOf(in["limits_vaj"]);
            const Trajectory t = smooth(keysOf(in["keys"]), in["key_times"]);
            const double at = in["pause_at"];
            const auto p = pauseFrom(t, at, limits);
            QVERIFY(p);
            VERIFY_NEAR(p->time, e["pause"]["T"].get<double>(), 0.005);
            VERIFY_NEAR(p->moveTime, e["pause"]["move_time_at_rest"].get<double>(), 0.005);
            const Pause path = stopOnPath(t, at, in["emergency_acceleration"].get<std::vector<double>>());
            VERIFY_NEAR(path.time, e["emergency_on_path"]["T"].get<double>(), 0.005);
            double alone = 0.0;
            for (std::size_t a = 0; a < t.axisCount(); ++a) {
                VERIFY_NEAR_ABS(p->places[a], e["pause"]["places"][a].get<double>(), 2e-4);
                VERIFY_NEAR_ABS(p->runOn[a], e["pause"]["run_on"][a].get<double>(), 2e-4);
                VERIFY_NEAR_ABS(path.runOn[a], e["emergency_on_path"]["run_on"][a].get<double>(), 1e-4);
                const double v = t.at(a, at).speed;
                const Stop s = stopAlone(v, in["emergency_acceleration"][a]);
                VERIFY_NEAR_ABS(std::copysign(s.distance, v),
                                e["emergency_each_axis"]["run_on"][a].get<double>(), 1e-5);
                alone = std::max(alone, s.time);
            }
            VERIFY_NEAR(alone, e["emergency_each_axis"]["T"].get<double>(), 0.005);
            // Next to the end there is no room to pause in, or less than that.
            for (const double before : {0.01, 0.1, 0.3, 0.6})
                if (const auto late = pauseFrom(t, t.duration() - before, limits))
                    QVERIFY(late->moveTime <= t.duration());
        }
    }
    void workedApproaches() {
        for (const json& c : referenceCases("t25_passes", "approach")) {
            const json &in = c["inputs"], &e = c["expected"];
            const Approach a = approachTo(in["start"], in["first_direction"], in["backlash"], in["margin"],
                                          in["soft_limits"][0], in["soft_limits"][1]);
            VERIFY_NEAR_ABS(a.from, e["pre"].get<double>(), 1e-12);
            QCOMPARE(a.takenUp, e["taken_up"].get<bool>());
            VERIFY_NEAR_ABS(a.shortOf, e["short_of"].get<double>(), 1e-12);
        }
    }
    void workedReversals() {
        for (const json& c : referenceCases("t25_passes", "reversals")) {
            const json &in = c["inputs"], &e = c["expected"];
            const auto keys = keysOf(in["keys"]);
            const auto limits = limitsOf(in["limits_vaj"]);
            const Trajectory t = smooth(notHeld(keys), in["key_times"]);
            for (std::size_t a = 0; a < t.axisCount(); ++a) {
                const Extremes place = t.extremes(a, Order::Place);
                VERIFY_NEAR_ABS(place.least, e["ranges"][a][0].get<double>(), 1e-5);
                VERIFY_NEAR_ABS(place.greatest, e["ranges"][a][1].get<double>(), 1e-5);
                QCOMPARE(t.firstDirection(a), e["first_directions"][a].get<int>());
                const auto at = t.reversals(a);
                QCOMPARE(at.size(), e["reversal_times"][a].size());
                for (std::size_t i = 0; i < at.size(); ++i)
                    VERIFY_NEAR_ABS(at[i], e["reversal_times"][a][i].get<double>(), 1e-5);
                // Backwards it turns at the same places.
                const auto back = t.reversed().reversals(a);
                QCOMPARE(back.size(), at.size());
                for (std::size_t i = 0; i < at.size(); ++i)
                    VERIFY_NEAR_ABS(t.duration() - back[at.size() - 1 - i], at[i], 1e-9);
            }
            VERIFY_NEAR(straight(keys.back(), keys.front(), limits).duration(),
                        e["return_time"].get<double>(), 1e-5);
        }
    }
    /// The form that stays within: never past a key, still where two keys are alike, and a moved key changes
    /// its two neighbours only.
    void withinStaysWithin() {
        for (int n = 0; n < 200; ++n) {
            auto keys = drawnKeys(8, 1);
            std::vector<double> times{0.0};
            for (int i = 1; i < 8; ++i) times.push_back(times.back() + within(0.2, 3.0));
            const Trajectory t = smooth(keys, times, Through::Within);
            joined(t);
            for (std::size_t i = 0; i < 7; ++i) {
                const Extremes e = t.extremes(0, Order::Place, i, i + 1);
                const auto [low, high] = std::minmax(keys[i][0], keys[i + 1][0]);
                QVERIFY(e.least >= low - 1e-9 && e.greatest <= high + 1e-9);
            }
            keys[3][0] += 0.1;
            const Trajectory other = smooth(keys, times, Through::Within);
            for (const std::size_t i : {0U, 5U, 6U}) QVERIFY(t.pieces(0)[i] == other.pieces(0)[i]);
        }
    }
    /// Stops are stops; between them all derivatives up to the fourth are joined.
    void smoothIsSmooth() {
        for (int n = 0; n < 100; ++n) {
            const auto keys = drawnKeys(7, 2, 0.0);
            std::vector<double> times{0.0};
            for (int i = 1; i < 7; ++i) times.push_back(times.back() + within(0.4, 3.0));
            std::vector<bool> stops(7, false);
            stops[3] = true;
            const Trajectory t =
                throughKeys(keys, times, stops, std::vector{Through::Smooth, Through::Smooth});
            joined(t);
            for (std::size_t a = 0; a < 2; ++a) {
                for (const std::size_t i : {0U, 3U, 6U}) {
                    VERIFY_NEAR_ABS(t.at(a, times[i]).speed, 0.0, 1e-9);
                    VERIFY_NEAR_ABS(t.at(a, times[i]).place, keys[i][a], 1e-12);
                }
                for (const std::size_t i : {0U, 1U, 3U, 4U}) {
                    const Quintic &q = t.pieces(a)[i], &next = t.pieces(a)[i + 1];
                    const double T = q.duration();
                    VERIFY_NEAR_ABS(q.value(Order::Jerk, T), next.value(Order::Jerk, 0.0), 1e-6);
                    const auto& c = q.coefficients();
                    const double snap = 24.0 * c[4] + 120.0 * c[5] * T, after = 24.0 * next.coefficients()[4];
                    if (i != 2 && i + 1 != 3) VERIFY_NEAR_ABS(snap, after, 1e-5 * (1.0 + std::abs(after)));
                }
            }
        }
    }
    /// Slower, played back, and put together.
    void arithmeticOfMoves() {
        const auto keys = drawnKeys(4, 2, 0.0);
        const Trajectory t = smooth(keys, {0.0, 1.0, 2.5, 4.0});
        const Trajectory slow = t.slower(2.0), back = t.reversed();
        for (double moment = 0.1; moment < 4.0; moment += 0.3) {
            const State a = t.at(0, moment), b = slow.at(0, 2.0 * moment), c = back.at(0, 4.0 - moment);
            VERIFY_NEAR_ABS(b.place, a.place, 1e-12);
            VERIFY_NEAR_ABS(b.speed, a.speed / 2.0, 1e-12);
            VERIFY_NEAR_ABS(b.acceleration, a.acceleration / 4.0, 1e-12);
            VERIFY_NEAR_ABS(b.jerk, a.jerk / 8.0, 1e-11);
            VERIFY_NEAR_ABS(c.place, a.place, 1e-9);
            VERIFY_NEAR_ABS(c.speed, -a.speed, 1e-9);
            VERIFY_NEAR_ABS(c.acceleration, a.acceleration, 1e-8);
        }
        Trajectory both = t;
        both.stand(1.5);
        both.append(back);
        VERIFY_NEAR(both.duration(), 9.5, 1e-12);
        VERIFY_NEAR_ABS(both.at(1, 4.7).place, keys.back()[1], 1e-12);
        VERIFY_NEAR_ABS(both.at(1, 9.5).place, keys.front()[1], 1e-9);
        QCOMPARE(both.at(0, -1.0).place, keys.front()[0]);
        QCOMPARE(both.at(0, -1.0).speed, 0.0);
    }
};

QTEST_APPLESS_MAIN(TrajectoryTest)
#include "trajectory_test.moc"
