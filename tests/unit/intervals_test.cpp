// SPDX-License-Identifier: GPL-3.0-or-later
// Interval plans: worked cases, and their limits and laws.
#include "core/intervals/blur.h"
#include "core/intervals/budget.h"
#include "core/intervals/energy.h"
#include "core/intervals/facts.h"
#include "core/intervals/presence.h"
#include "core/intervals/pulses.h"
#include "core/intervals/run.h"
#include "core/intervals/timers.h"
#include "core/intervals/whole_steps.h"
#include "support/dice.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <numbers>
#include <numeric>

using namespace gantry;
using namespace gantry::intervals;
using nlohmann::json;

namespace {

constexpr double pi = std::numbers::pi;

Shape shapeOf(const std::string& name) {
    return name == "smooth" ? Shape::Smooth : name == "ease" ? Shape::Ramps : Shape::Linear;
}
/// A count, or nothing for null.
template <class T>
std::optional<T> orNothing(const json& j) {
    return j.is_null() ? std::nullopt : std::optional<T>(j.get<T>());
}

} // namespace

class IntervalsTest : public QObject, Dice {
    Q_OBJECT
public:
    IntervalsTest() : Dice(31) {}

private slots:
    void budgets() {
        for (const json& c : referenceCases("t31_interval_plan", "frame_budget")) {
            const json &in = c["inputs"], &want = c["expected"];
            std::vector<CameraTimes> cameras;
            for (const json& k : in["cameras"])
                cameras.push_back({k["focus"], k["lag"], k["exposure"], k["write"]});
            const auto moves = in["moves"].get<std::vector<double>>();
            Budget b;
            b.order = in["order"] == "move-shoot" ? Order::MoveFirst : Order::PictureFirst;
            b.writesWhileMoving = in["write_overlaps_move"];
            b.move = in["moves_together"] ? *std::max_element(moves.begin(), moves.end())
                                          : std::accumulate(moves.begin(), moves.end(), 0.0);
            b.settle = in["settle"];
            b.spare = in["margin"];
            const BudgetResults r = budgetOf(b, cameras);
            VERIFY_NEAR(r.rig, want["need_mechanics"].get<double>(), 1e-9);
            VERIFY_NEAR(r.camera, want["need_camera"].get<double>(), 1e-9);
            VERIFY_NEAR(r.least, want["min_interval"].get<double>(), 1e-9);
            QCOMPARE(r.binds == Binds::Rig, want["limiting"] == "mechanics");
            QCOMPARE(r.slowest, want["slowest_camera"].get<std::size_t>());
            VERIFY_NEAR_ABS(r.move.from, want["move_window"][0].get<double>(), 1e-9);
            VERIFY_NEAR_ABS(r.move.to, want["move_window"][1].get<double>(), 1e-9);
            for (std::size_t i = 0; i < cameras.size(); ++i) {
                VERIFY_NEAR_ABS(r.exposures[i].from, want["exposure_window"][i][0].get<double>(), 1e-9);
                VERIFY_NEAR_ABS(r.exposures[i].to, want["exposure_window"][i][1].get<double>(), 1e-9);
            }
        }
    }
    /// Run out as events over two intervals: at the least interval nothing moves while a shutter is open and
    /// no camera is woken before it is ready; a thousandth less breaks one of the two.
    void leastIntervalIsLeast() {
        for (int round = 0; round < 4000; ++round) {
            std::vector<CameraTimes> cameras(static_cast<std::size_t>(1 + round % 3));
            for (CameraTimes& k : cameras)
                k = {within(0.0, 1.0), within(0.0, 0.3), within(0.01, 3.0), within(0.0, 4.0)};
            Budget b;
            b.order = round % 2 == 0 ? Order::MoveFirst : Order::PictureFirst;
            b.writesWhileMoving = round % 5 != 0;
            b.move = round % 7 == 0 ? 0.0 : within(0.1, 3.0);
            b.settle = within(0.0, 2.0);
            const BudgetResults r = budgetOf(b, cameras);
            const double settle = b.move > 0.0 ? b.settle : 0.0;
            const auto goes = [&](double interval) {
                constexpr double exact = 1e-9;
                // The first interval, and the one after it.
                const double trigger = b.order == Order::MoveFirst ? b.move + settle : 0.0;
                double stands = 0.0, ready = 0.0;
                for (const CameraTimes& k : cameras) {
                    stands = std::max(stands,
                                      k.focus + k.lag + k.exposure + (b.writesWhileMoving ? 0.0 : k.write));
                    ready = std::max(ready, k.focus + k.lag + k.exposure + k.write);
                }
                const double done = trigger + ready, closed = trigger + stands;
                const double moves = b.order == Order::MoveFirst ? interval : closed;
                if (b.move > 0.0 && moves < closed - exact) return false;
                const double next = trigger + interval;
                if (next < done - exact) return false;
                return next >= (b.order == Order::MoveFirst ? interval : closed) + b.move + settle - exact;
            };
            QVERIFY(goes(r.least));
            QVERIFY(!goes(0.999 * r.least));
        }
    }
    void bulbs() {
        for (const json& c : referenceCases("t31_interval_plan", "bulb")) {
            const json &in = c["inputs"], &want = c["expected"];
            const Bulb b{in["open_lag"], in["close_lag"], in["min_press"], in["release_gap"]};
            VERIFY_NEAR(pressFor(b, in["exposure"]), want["press"].get<double>(), 1e-9);
            VERIFY_NEAR(shortestExposure(b), want["shortest_exposure"].get<double>(), 1e-9);
            VERIFY_NEAR(longestExposure(b, in["interval"]), want["longest_exposure"].get<double>(), 1e-9);
            VERIFY_NEAR(exposureFor(b, pressFor(b, in["exposure"])), in["exposure"].get<double>(), 1e-12);
        }
    }

    void runs() {
        for (const json& c : referenceCases("t31_interval_plan", "run_totals")) {
            const json &in = c["inputs"], &want = c["expected"];
            const Gaps g{in["frames"], in["interval"]};
            QCOMPARE(g.count(), want["gaps"].get<std::int64_t>());
            VERIFY_NEAR(g.total() + in["exposure"].get<double>(), want["duration"].get<double>(), 1e-12);
            const Storage s = storageOf(g.pictures, in["bytes_per_frame"], in["card_bytes"]);
            QCOMPARE(s.cards, want["cards_needed_per_camera"].get<std::int64_t>());
            QCOMPARE(s.firstLost, orNothing<std::int64_t>(want["first_frame_not_stored"]));
        }
        for (const json& c : referenceCases("t31_interval_plan", "interval_ramp")) {
            const json &in = c["inputs"], &want = c["expected"];
            const Gaps g{in["frames"], in["first_gap"], in["last_gap"],
                         in["law"] == "linear" ? GapLaw::Linear : GapLaw::Geometric};
            VERIFY_NEAR(g.total(), want["total"].get<double>(), 1e-9);
            VERIFY_NEAR(g.timeOf(g.pictures / 2), want["time_of_middle_frame"].get<double>(), 1e-9);
            VERIFY_NEAR(g.largestChange(), want["largest_change_of_gap"].get<double>(), 1e-9);
            QCOMPARE(g.firstShorter(in["need"]), orNothing<std::int64_t>(want["first_gap_too_short"]));
        }
    }
    /// Any two give the third, and the third with one of them the other; what cannot be is said.
    void twoFactsGiveTheThird() {
        for (const json& c : referenceCases("t31_interval_plan", "run_totals")) {
            const json &in = c["inputs"], &want = c["expected"];
            const std::int64_t n = in["frames"];
            const double interval = in["interval"], exposure = in["exposure"], fps = in["fps"],
                         duration = want["duration"];
            VERIFY_NEAR(durationOf(n, interval, exposure), duration, 1e-12);
            VERIFY_NEAR(intervalFor(n, duration, exposure).value(), interval, 1e-12);
            QCOMPARE(picturesFor(interval, duration, exposure).value(), n);
            VERIFY_NEAR(clipOf(n, fps, 1), want["clip"].get<double>(), 1e-12);
            VERIFY_NEAR(speedUpOf(interval, fps, 1), want["speed_up"].get<double>(), 1e-12);
        }
        for (int round = 0; round < 5000; ++round) {
            const auto n = static_cast<std::int64_t>(within(2.0, 500000.0));
            const double interval = within(0.5, 3600.0), exposure = within(0.001, 30.0),
                         rate = within(12.0, 60.0);
            const int held = round % 3 + 1;
            const double duration = durationOf(n, interval, exposure);
            QCOMPARE(picturesFor(interval, duration, exposure).value(), n);
            // A hair less does not hold the last one.
            QCOMPARE(picturesFor(interval, duration - 1e-3 * interval, exposure).value(), n - 1);
            VERIFY_NEAR(intervalFor(n, duration, exposure).value(), interval, 1e-9);
            QCOMPARE(picturesOfClip(clipOf(n, rate, held), rate, held), n);
            VERIFY_NEAR(intervalOfSpeedUp(speedUpOf(interval, rate, held), rate, held), interval, 1e-12);
            // So many times faster: what took the run's gaps takes the clip's frames.
            VERIFY_NEAR(speedUpOf(interval, rate, held),
                        static_cast<double>(n) * interval / clipOf(n, rate, held), 1e-9);
        }
        QVERIFY(!intervalFor(1, 100.0, 1.0));
        QVERIFY(!intervalFor(10, 0.5, 1.0));
        QVERIFY(!picturesFor(5.0, 0.5, 1.0));
        QVERIFY(!picturesFor(0.0, 100.0, 1.0));
        QVERIFY(!picturesFor(1e-6, 1e9, 1.0));
    }
    /// Times of pictures are the sums of their gaps, picture by picture; the picture of a time is the last
    /// before it.
    void timesAreSumsOfGaps() {
        for (int round = 0; round < 300; ++round) {
            const Gaps g{static_cast<std::int64_t>(within(1.0, 400.0)), within(0.5, 60.0), within(0.5, 60.0),
                         static_cast<GapLaw>(round % 3)};
            double sum = 0.0, least = g.pictures > 1 ? 1e300 : g.first, need = within(0.5, 60.0);
            std::optional<std::int64_t> shorter;
            for (std::int64_t k = 0; k < g.count(); ++k) {
                VERIFY_NEAR_ABS(g.timeOf(k), sum, 1e-9 * std::max(1.0, sum));
                QCOMPARE(g.pictureAt(sum), k);
                QCOMPARE(g.pictureAt(sum + 0.999 * g.gap(k)), k);
                sum += g.gap(k);
                least = std::min(least, g.gap(k));
                if (!shorter && g.gap(k) < need) shorter = k;
            }
            VERIFY_NEAR_ABS(g.total(), sum, 1e-9 * std::max(1.0, sum));
            VERIFY_NEAR(g.least(), least, 1e-9);
            QCOMPARE(g.firstShorter(need), shorter);
        }
        // Half a million pictures at a hair's growth lose no digits.
        const Gaps year{500000, 60.0, 60.0 * (1.0 + 1e-12), GapLaw::Geometric};
        VERIFY_NEAR(year.total(), 499999.0 * 60.0, 1e-11);
    }
    void schedules() {
        for (const json& c : referenceCases("t31_interval_plan", "schedule")) {
            const json &in = c["inputs"], &want = c["expected"];
            std::array<bool, 7> days{};
            for (const json& d : in["weekdays"]) days[d.get<std::size_t>()] = true;
            const WorkingHours h{in["open_s"], in["close_s"], days, in["first_weekday"]};
            const Schedule s = scheduleOf(in["frames"], in["interval"], in["need"], h);
            QCOMPARE(s.perDay, want["frames_per_day"].get<std::int64_t>());
            QCOMPARE(s.workingDays, want["working_days"].get<std::int64_t>());
            QCOMPARE(s.calendarDays, want["calendar_days"].get<std::int64_t>());
            VERIFY_NEAR(s.last, want["last_frame_time"].get<double>(), 1e-12);
        }
        // A day shorter than a picture needs holds none.
        QCOMPARE(scheduleOf(10, 60.0, 20.0, {100.0, 110.0, {}, 0}).perDay, 0);
    }

    void wholeSteps() {
        for (const json& c : referenceCases("t31_interval_plan", "ease_steps")) {
            const json &in = c["inputs"], &want = c["expected"];
            const Shape shape = shapeOf(in["shape"]);
            const double ramp = in["ramp_fraction"];
            const auto rounded = roundedPositions(in["steps"], in["moves"], shape, ramp);
            QCOMPARE(rounded.back(), want["sum"].get<std::int64_t>());
            VERIFY_NEAR(jitterOf(rounded, shape, ramp), want["jerk_rms_round"].get<double>(), 1e-6);
            const auto even = evenestPositions(in["steps"], in["moves"], shape, ramp, in["band"]);
            QCOMPARE(even.back(), want["sum"].get<std::int64_t>());
            VERIFY_NEAR(jitterOf(even, shape, ramp), want["jerk_rms_best"].get<double>(), 1e-6);
        }
    }
    /// No picture is more than half a step off, however long the run, and nothing adds up.
    void roundingNeverDrifts() {
        for (int round = 0; round < 200; ++round) {
            const auto moves = static_cast<std::int64_t>(within(1.0, 3000.0)),
                       steps = static_cast<std::int64_t>(within(-20000.0, 20000.0));
            const Shape shape = static_cast<Shape>(round % 3);
            const double ramp = within(0.0, 0.5);
            const auto at = roundedPositions(steps, moves, shape, ramp);
            QCOMPARE(at.front(), 0);
            QCOMPARE(at.back(), steps);
            for (std::int64_t k = 0; k <= moves; ++k) {
                const double u = static_cast<double>(k) / static_cast<double>(moves);
                QVERIFY(std::abs(static_cast<double>(at[static_cast<std::size_t>(k)]) -
                                 static_cast<double>(steps) * shareDone(shape, ramp, u)) <= 0.5 + 1e-6);
            }
            // The pace is the slope of what is done.
            const double u = within(0.01, 0.99), h = 1e-6;
            VERIFY_NEAR_ABS((shareDone(shape, ramp, u + h) - shareDone(shape, ramp, u - h)) / (2.0 * h),
                            pace(shape, ramp, u), 1e-4);
        }
    }

    void blurs() {
        for (const json& c : referenceCases("t31_interval_plan", "blur")) {
            const json &in = c["inputs"], &want = c["expected"];
            const intervals::Rocking r{in["rock_px"], in["f"], in["zeta"], in["settle"]};
            const double speed = in["px_per_gap"].get<double>() / in["interval"].get<double>(),
                         e = in["exposure"];
            VERIFY_NEAR(blurRunning(speed, e), want["blur_continuous"].get<double>(), 1e-6);
            VERIFY_NEAR(blurStopped(r, e), want["blur_stop"].get<double>(), 1e-6);
            const auto alike = alikeExposure(r, speed);
            QCOMPARE(alike.has_value(), !want["equal_exposure"].is_null());
            if (alike) VERIFY_NEAR(*alike, want["equal_exposure"].get<double>(), 1e-6);
            VERIFY_NEAR(longestRunning(speed, in["limit_px"]),
                        want["longest_exposure_continuous"].get<double>(), 1e-9);
        }
    }
    /// At the alike exposure both are alike; a shorter one is sharper running on. The settle time that is
    /// found leaves just what is allowed.
    void blurCrossesOnce() {
        for (int round = 0; round < 2000; ++round) {
            const intervals::Rocking r{within(0.0, 30.0), within(0.5, 20.0), within(0.005, 0.2),
                                       within(0.0, 2.0)};
            const double speed = within(0.1, 50.0), e = within(0.001, 3.0), limit = within(0.05, 3.0);
            if (const auto alike = alikeExposure(r, speed)) {
                VERIFY_NEAR(blurRunning(speed, *alike), blurStopped(r, *alike), 1e-6);
                QVERIFY(blurRunning(speed, 0.9 * *alike) < blurStopped(r, 0.9 * *alike));
                QVERIFY(blurRunning(speed, 1.1 * *alike) > blurStopped(r, 1.1 * *alike));
            } else {
                for (double t = 1e-4; t < 10.0; t *= 1.3) QVERIFY(blurStopped(r, t) <= blurRunning(speed, t));
            }
            intervals::Rocking settled = r;
            settled.settle = settleFor(r, e, limit).value();
            QVERIFY(blurStopped(settled, e) <= limit * (1.0 + 1e-9));
            if (settled.settle > 0.0) VERIFY_NEAR(blurStopped(settled, e), limit, 1e-9);
        }
        QVERIFY(!settleFor({5.0, 2.0, 0.0, 0.0}, 1.0, 0.5));
    }
    /// A passer-by covers each point for width over speed: counted in small steps of the exposure.
    void passersVanish() {
        const Passer p{120.0, 60.0};
        const double e = exposureToVanish(p, 0.05);
        VERIFY_NEAR(coverOf(p, e), 0.05, 1e-12);
        constexpr int steps = 100000;
        int covered = 0;
        for (int i = 0; i < steps; ++i) {
            const double front = p.speed * e * i / steps, point = 0.5 * p.speed * e;
            covered += front >= point && front - p.width < point;
        }
        VERIFY_NEAR(covered / double(steps), 0.05, 1e-3);
        VERIFY_NEAR_ABS(coverOf(p, 0.1), 1.0, 0.0);
        VERIFY_NEAR(filterStops(1.0 / 60.0, 2.0), std::log2(120.0), 1e-12);
    }

    void energies() {
        for (const json& c : referenceCases("t31_interval_plan", "energy")) {
            const json &in = c["inputs"], &want = c["expected"];
            std::vector<Consumer> all;
            std::vector<std::string> names;
            for (const auto& [name, l] : in["loads"].items()) {
                all.push_back({l["on_W"], l["on_s"], l["else_W"]});
                names.push_back(name);
            }
            const Draw d = drawOf(all, in["interval"], in["efficiency"]);
            VERIFY_NEAR(d.perInterval, want["J_per_frame"].get<double>(), 1e-9);
            VERIFY_NEAR(d.average, want["average_W"].get<double>(), 1e-9);
            VERIFY_NEAR(d.peak, want["peak_W"].get<double>(), 1e-9);
            QCOMPARE(names[d.biggest], want["biggest"].get<std::string>());
            Pack p{in["pack_Wh"].get<double>() * 3600.0,
                   in["usable"],
                   in["efficiency"],
                   in["V_full"],
                   in["V_empty"],
                   in["R_pack"]};
            const double taken = want["share_used"];
            VERIFY_NEAR(voltageUnder(p, taken, d.average).value(), want["V_end_average"].get<double>(), 1e-9);
            VERIFY_NEAR(voltageUnder(p, taken, d.peak).value(), want["V_end_peak"].get<double>(), 1e-9);
            // The other way round: when is it there?
            VERIFY_NEAR(timeToVoltage(p, d, want["V_end_peak"]).value(), taken * p.energy / d.average, 1e-9);
        }
    }

    void timers() {
        for (const json& c : referenceCases("t32_timers", "two_timers")) {
            const json &in = c["inputs"], &want = c["expected"];
            const TwoTimers t{{in["camera_period"], in["camera_ppm"]},
                              {in["mover_period"], in["mover_ppm"]},
                              in["exposure"],
                              in["move_and_settle"],
                              in["offset"],
                              in["frames"]};
            const Drift d = driftOf(t);
            VERIFY_NEAR_ABS(d.perPicture, want["drift_per_frame"].get<double>(), 1e-12);
            VERIFY_NEAR_ABS(d.perDay, want["drift_per_day"].get<double>(), 1e-6);
            QCOMPARE(d.beat.has_value(), !want["beat"].is_null());
            if (d.beat) VERIFY_NEAR(*d.beat, want["beat"].get<double>(), 1e-9);
            VERIFY_NEAR(d.longRunShare, want["long_run_share"].get<double>(), 1e-9);
            const Collisions found = collisionsOf(t);
            QCOMPARE(found.spoiled, want["spoiled"].get<std::int64_t>());
            QCOMPARE(found.first, orNothing<std::int64_t>(want["first"]));
            QCOMPARE(found.runs.size(), want["spoiled_runs"].size());
            for (std::size_t i = 0; i < found.runs.size(); ++i) {
                QCOMPARE(found.runs[i].first, want["spoiled_runs"][i][0].get<std::int64_t>());
                QCOMPARE(found.runs[i].second, want["spoiled_runs"][i][1].get<std::int64_t>());
            }
            QCOMPARE(found.gapsWithout, want["gaps_without_move"].get<std::int64_t>());
            QCOMPARE(found.gapsWithMore, want["gaps_with_two_moves"].get<std::int64_t>());
        }
    }
    /// Against every pair of a picture and a movement.
    void collisionsAreThoseOfAllPairs() {
        for (int round = 0; round < 300; ++round) {
            const TwoTimers t{{within(1.0, 10.0), within(-200.0, 200.0)},
                              {within(1.0, 10.0), within(-200.0, 200.0)},
                              within(0.01, 2.0),
                              within(0.1, 3.0),
                              within(-3.0, 12.0),
                              200};
            std::int64_t count = 0;
            for (std::int64_t k = 0; k < t.pictures; ++k) {
                bool bad = false;
                const double opens = k * t.camera.period();
                for (int m = 0; m * t.rig.period() + t.offset < opens + t.exposure; ++m)
                    bad = bad || m * t.rig.period() + t.offset + t.moveAndSettle > opens;
                count += bad;
                QCOMPARE(spoiled(t, k), bad);
            }
            QCOMPARE(collisionsOf(t).spoiled, count);
        }
    }

    void pulses() {
        const auto motorOf = [](const json& in) {
            return PulsedMotor{in["speed"], in["dead_time"], in["spin_up"],
                               in["coast_tau"].is_null() ? 0.0 : in["coast_tau"].get<double>(),
                               in["coast_decel"]};
        };
        for (const json& c : referenceCases("t32_timers", "dc_pulse")) {
            const json &in = c["inputs"], &want = c["expected"];
            const PulsedMotor m = motorOf(in);
            const PulseScatter s{in["pulse_sd"], in["speed_sd_rel"], in["dead_sd"]};
            const PulseWay w = wayOf(m, in["pulse"]);
            VERIFY_NEAR(w.way(), want["distance"].get<double>(), 1e-6);
            VERIFY_NEAR(w.coasted / w.way(), want["coast_share"].get<double>(), 1e-6);
            VERIFY_NEAR(w.coasting, want["coast_time"].get<double>(), 1e-6);
            VERIFY_NEAR(w.perSecond, want["mm_per_ms"].get<double>(), 1e-6);
            VERIFY_NEAR(scatterOf(m, in["pulse"], s), want["sd"].get<double>(), 1e-6);
            const MovesThatFit fit =
                movesThatFit(m, in["pulse"], s, in["rail"], in["speed_drift_rel"], in["z"]);
            QCOMPARE(fit.byMean, want["moves_nominal"].get<std::int64_t>());
            QCOMPARE(fit.surely, want["moves_sure"].get<std::int64_t>());
        }
        for (const json& c : referenceCases("t32_timers", "pulse_for_step")) {
            const PulsedMotor m = motorOf(c["inputs"]);
            VERIFY_NEAR(pulseFor(m, c["inputs"]["step"]), c["expected"]["pulse"].get<double>(), 1e-6);
        }
    }
    /// Marched in small steps of time.
    void pulsesAreThoseOfTheirMotion() {
        for (int round = 0; round < 40; ++round) {
            const PulsedMotor m{within(0.005, 0.1), within(0.0, 0.1), within(0.01, 0.2),
                                round % 2 == 0 ? 0.0 : within(0.02, 0.3), within(0.05, 1.0)};
            const double pulse = m.deadTime + within(0.02, 1.0), dt = 2e-6;
            double way = 0.0, v = 0.0, t = m.deadTime;
            for (; t < pulse; t += dt) {
                v += (m.speed - v) / m.runUp * dt;
                way += v * dt;
            }
            while (v > 0.0) {
                v -= ((m.coastTime > 0.0 ? v / m.coastTime : 0.0) + m.coastBrake) * dt;
                way += std::max(v, 0.0) * dt;
            }
            VERIFY_NEAR(wayOf(m, pulse).way(), way, 1e-3);
            VERIFY_NEAR(pulseFor(m, wayOf(m, pulse).way()), pulse, 1e-9);
        }
    }
    void separateHeads() {
        for (const json& c : referenceCases("t32_timers", "separate_head")) {
            const json &in = c["inputs"], &want = c["expected"];
            const SeparateHead h{in["slide_seconds"], in["travel"],
                                 in["subject"],       in["pan_deg"].get<double>() * pi / 180.0,
                                 in["head_limit"],    in["head_start_delay"],
                                 in["focal_px"],      in["interval"]};
            const SeparateHeadResults r = followedBy(h);
            VERIFY_NEAR(r.time, want["head_seconds"].get<double>(), 1e-9);
            VERIFY_NEAR(r.frozenShare, want["frozen_share"].get<double>(), 1e-6);
            QCOMPARE(r.lastTurning, want["last_frame_with_pan"].get<std::int64_t>());
            VERIFY_NEAR_ABS(r.errorAtEnd, want["aim_error_end_px"].get<double>(), 1e-3);
            VERIFY_NEAR(r.errorAtStop, want["aim_error_when_head_stops_px"].get<double>(), 1e-6);
        }
    }

    void presence() {
        for (const json& c : referenceCases("t33_presence", "pause_log")) {
            const json &in = c["inputs"], &want = c["expected"];
            const auto seen = in["detections"].get<std::vector<std::vector<double>>>();
            std::vector<Sensor> sensors;
            for (std::size_t i = 0; i < seen.size(); ++i)
                sensors.push_back({in["holds"][i], in["warmups"][i], seen[i]});
            const PresenceLog r = presenceOf(sensors, in["t_end"], in["interval"], in["rewind"]);
            QCOMPARE(r.pictures, want["frames"].get<std::int64_t>());
            QCOMPARE(r.deleted, want["delete"].get<std::vector<std::int64_t>>());
            QCOMPARE(r.kept.size(), want["kept"].get<std::size_t>());
            QCOMPARE(r.kept.back().position, want["kept_positions_last"].get<std::int64_t>());
            QCOMPARE(r.largestJump, want["largest_jump_moves"].get<std::int64_t>());
            VERIFY_NEAR(r.ran, want["ran_share"].get<double>(), 1e-9);
            QCOMPARE(r.pauses.size(), want["pauses"].size());
            for (std::size_t i = 0; i < r.pauses.size(); ++i) {
                VERIFY_NEAR(r.pauses[i].first, want["pauses"][i][0].get<double>(), 1e-9);
                VERIFY_NEAR(r.pauses[i].second, want["pauses"][i][1].get<double>(), 1e-9);
            }
        }
        for (const json& c : referenceCases("t33_presence", "false_stops")) {
            const json &in = c["inputs"], &want = c["expected"];
            std::vector<Seldom> s;
            for (std::size_t i = 0; i < in["rates"].size(); ++i)
                s.push_back({in["rates"][i], in["holds"][i]});
            const FalseStops f = falseStopsOf(s);
            VERIFY_NEAR(f.perSecond * 3600.0, want["false_stops_per_hour"].get<double>(), 1e-9);
            VERIFY_NEAR(f.share, want["share_of_time_stopped"].get<double>(), 1e-9);
            VERIFY_NEAR(f.meanStop, want["mean_stop"].get<double>(), 1e-9);
            VERIFY_NEAR(holdFor(s, in["wanted_per_hour"].get<double>() / 3600.0),
                        want["common_hold_for_wanted"].get<double>(), 1e-9);
        }
        for (const json& c : referenceCases("t33_presence", "self_trigger")) {
            const json &in = c["inputs"], &want = c["expected"];
            const auto extra = extraPictures(in["interval"], in["hold"], in["p"], in["blank"]);
            QCOMPARE(!extra, want["never_stops"].get<bool>());
            if (extra) VERIFY_NEAR_ABS(*extra, want["extra_frames"].get<double>(), 1e-9);
        }
        QVERIFY(!extraPictures(10.0, 45.0, 1.0, false));
    }
};

QTEST_APPLESS_MAIN(IntervalsTest)
#include "intervals_test.moc"
