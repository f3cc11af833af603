// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/profile.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <random>

using namespace gantry::motion;

class MotionTest : public QObject {
    Q_OBJECT
    /// Position by numerical integration of the speed (Simpson), independent of the closed form.
    static double integratedDistance(const Profile& p) {
        const int n = 20000;
        const double h = p.time() / n;
        double sum = p.at(0).speed + p.at(p.time()).speed;
        for (int i = 1; i < n; ++i) sum += (i % 2 ? 4 : 2) * p.at(i * h).speed;
        return sum * h / 3;
    }
private slots:
    void workedProfiles() {
        for (const auto& c : referenceCases("t03_motion", "scurve")) {
            const auto& in = c["inputs"];
            const auto& out = c["expected"];
            const double tol = c["tolerance_rel"];
            const Profile p = plan(in["D"], {in["v"], in["a"], in["j"]});
            VERIFY_NEAR(p.time(), out["T"].get<double>(), tol);
            VERIFY_NEAR(p.peakSpeed, out["v_peak"].get<double>(), tol);
            VERIFY_NEAR(p.in.acceleration, out["a_peak"].get<double>(), tol);
            VERIFY_NEAR(p.in.jerkTime, out["t_jerk"].get<double>(), tol);
            VERIFY_NEAR(p.in.constantTime, out["t_const_acc"].get<double>(), tol);
            VERIFY_NEAR(p.cruiseTime, out["t_cruise"].get<double>(), tol);
            VERIFY_NEAR(integratedDistance(p), in["D"].get<double>(), 1e-6);
        }
    }
    void workedInverse() {
        for (const auto& c : referenceCases("t03_motion", "inverse")) {
            const auto& in = c["inputs"];
            const auto p = planInTime(in["D"], in["T"], {1e9, in["a"], in["j"]});
            if (c["expected"]["v_cruise"].is_null())
                QVERIFY(!p);
            else {
                QVERIFY(p.has_value());
                VERIFY_NEAR(p->peakSpeed, c["expected"]["v_cruise"].get<double>(),
                            c["tolerance_rel"].get<double>());
                VERIFY_NEAR(p->time(), in["T"].get<double>(), 1e-9);
            }
        }
    }
    void workedSynchronising() {
        for (const auto& c : referenceCases("t03_motion", "sync")) {
            std::vector<AxisMove> moves;
            for (const auto& a : c["inputs"]["axes"]) moves.push_back({a["D"], {a["v"], a["a"], a["j"]}});
            const auto profiles = synchronise(moves);
            for (std::size_t i = 0; i < profiles.size(); ++i) {
                VERIFY_NEAR(profiles[i].time(), c["expected"]["T"].get<double>(), 1e-6);
                VERIFY_NEAR(profiles[i].peakSpeed, c["expected"]["cruise_speeds"][i].get<double>(), 1e-6);
            }
        }
    }
    /// A million random cases never exceed a limit and always arrive.
    void randomProfilesKeepTheirLimits() {
        std::mt19937_64 random(42);
        std::uniform_real_distribution<double> e(-3, 2);
        for (int i = 0; i < 1'000'000; ++i) {
            const Limits l{std::pow(10, e(random)), std::pow(10, e(random)),
                           i % 5 ? std::pow(10, e(random)) : 0.0};
            const double d = std::pow(10, e(random));
            const Profile p = plan(d, l);
            const bool fits = p.peakSpeed <= l.speed * (1 + 1e-12) &&
                              p.in.acceleration <= l.acceleration * (1 + 1e-12) &&
                              (l.jerk == 0 || p.in.jerk() <= l.jerk * (1 + 1e-9));
            const double covered = p.peakSpeed * (p.in.time() / 2 + p.cruiseTime + p.out.time() / 2);
            if (!fits || std::abs(covered - d) > 1e-12 * d || p.at(p.time()).position != d)
                QFAIL(qPrintable(QStringLiteral("case %1: d %2 v %3 a %4 j %5 covered %6")
                                     .arg(i)
                                     .arg(d)
                                     .arg(l.speed)
                                     .arg(l.acceleration)
                                     .arg(l.jerk)
                                     .arg(covered, 0, 'g', 17)));
        }
    } /// The least time found by another way: for each peak speed the cruise that makes up the distance,
      /// searched over
    /// all speeds that the limits allow; all degenerate cases.
    void timeIsTheOptimum() {
        std::mt19937_64 random(5);
        std::uniform_real_distribution<double> e(-2, 2);
        for (int i = 0; i < 3000; ++i) {
            const Limits l{std::pow(10, e(random)), std::pow(10, e(random)), std::pow(10, e(random))};
            const double d = std::pow(10, e(random));
            // Time of a ramp to v written out anew: accelerations reached or not.
            const auto ramp = [&](double v) {
                const double full = l.acceleration * l.acceleration / l.jerk;
                return v <= full ? 2 * std::sqrt(v / l.jerk) : v / l.acceleration + l.acceleration / l.jerk;
            };
            // The distance of two ramps grows with v: the highest speed whose ramps still fit, or the limit.
            double low = 0, high = l.speed;
            if (high * ramp(high) > d)
                for (int k = 0; k < 200; ++k) {
                    const double middle = 0.5 * (low + high);
                    (middle * ramp(middle) > d ? high : low) = middle;
                }
            const double v = high * ramp(high) <= d ? high : low;
            const double best = 2 * ramp(v) + std::max(0.0, d / v - ramp(v));
            VERIFY_NEAR(plan(d, l).time(), best, 1e-9);
        }
    }
    void stateIsContinuous() {
        for (const Limits& l :
             {Limits{0.25, 0.5, 2}, Limits{5, 0.5, 2}, Limits{0.1, 9, 1}, Limits{0.25, 0.5, 0}}) {
            const Profile p = plan(0.4, l);
            const double h = p.time() / 5000;
            for (int i = 0; i < 5000; ++i) {
                const MotionState a = p.at(i * h), b = p.at((i + 1) * h);
                QVERIFY(std::abs(b.position - a.position) <= l.speed * h * 1.0001);
                QVERIFY(std::abs(b.speed - a.speed) <= l.acceleration * h * 1.0001);
                QVERIFY(b.position >= a.position - 1e-15);
            }
            VERIFY_NEAR(p.at(p.time() / 2).position, 0.2, 1e-9); // symmetric in time
        }
    }
    void noJerkIsTheLimitOfHighJerk() {
        VERIFY_NEAR(plan(0.3, {0.2, 0.5, 1e9}).time(), plan(0.3, {0.2, 0.5, 0}).time(), 1e-6);
        VERIFY_NEAR(plan(0.01, {0.2, 0.5, 1e9}).time(), plan(0.01, {0.2, 0.5, 0}).time(), 1e-6);
    }
    void slowerInTimeIsRefusedBelowTheMinimum() {
        const Limits l{10, 0.5, 2};
        const double least = plan(0.3, l).time();
        QVERIFY(!planInTime(0.3, least * 0.999, l));
        QVERIFY(planInTime(0.3, least, l).has_value());
        for (double t = least; t < 50; t *= 1.3) {
            const auto p = planInTime(0.3, t, l);
            QVERIFY(p && p->in.acceleration <= 0.5 * (1 + 1e-9));
            VERIFY_NEAR(p->time(), t, 1e-9);
            VERIFY_NEAR(integratedDistance(*p), 0.3, 1e-5);
        }
    }
    void rampsInTime() {
        const Ramp gentle = rampInTime(0.1, 1.5, 4);
        VERIFY_NEAR(gentle.time(), 1.5, 1e-12);
        VERIFY_NEAR(gentle.speed(), 0.1, 1e-12);
        VERIFY_NEAR(gentle.jerk(), 4.0, 1e-9);
        const Ramp hurried = rampInTime(0.1, 0.2, 4); // needs 10 m/s³
        VERIFY_NEAR(hurried.speed(), 0.1, 1e-12);
        VERIFY_NEAR(hurried.jerk(), 10.0, 1e-9);
    }
    void stopping() {
        VERIFY_NEAR(stoppingDistance(0.25, {1, 0.5, 0}), 0.0625, 1e-12);                  // v²/2a
        VERIFY_NEAR(stoppingDistance(0.25, {1, 0.5, 2}), 0.25 * (0.5 + 0.25) / 2, 1e-12); // + v a/2j
    }
    void unequalRamps() {
        const auto p = planWithRamps(1.0, rampInTime(0.2, 1, 0), rampInTime(0.2, 3, 0));
        QVERIFY(p.has_value());
        VERIFY_NEAR(p->time(), 1.0 / 0.2 + 0.5 + 1.5, 1e-12);
        VERIFY_NEAR(integratedDistance(*p), 1.0, 1e-6);
        QVERIFY(!planWithRamps(0.1, rampInTime(0.2, 1, 0), rampInTime(0.2, 3, 0)));
    }
};

QTEST_APPLESS_MAIN(MotionTest)
#include "motion_test.moc"
