// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "support/near.h"

#include <QTest>
#include <random>

using namespace gantry;
using Linear = BySpeed<AxisKind::Linear>;
using Timed = ByTime<AxisKind::Linear>;

/// Shots as profiles, checked by walking the profile in small steps.
class PlanShotTest : public QObject {
    Q_OBJECT
    struct Walk {
        double distance = 0, topSpeed = 0, topAcceleration = 0, timeToCruise = -1;
    };
    static Walk walk(const motion::Profile& p) {
        Walk w;
        const int n = 40000;
        const double h = p.time() / n;
        for (int i = 0; i < n; ++i) {
            const motion::MotionState s = p.at((i + 0.5) * h);
            w.distance += s.speed * h;
            w.topSpeed = std::max(w.topSpeed, s.speed);
            w.topAcceleration = std::max(w.topAcceleration, std::abs(s.acceleration));
            if (w.timeToCruise < 0 && s.speed >= p.peakSpeed * (1 - 1e-6)) w.timeToCruise = (i + 0.5) * h;
        }
        return w;
    }
    const motion::Limits set_{0.5, 1.0, 4.0};
private slots:
    void bySpeedReachesItsSpeedAndAcceleration() {
        const PlannedShot p = planShot(Linear{0.86, 0.25, 0.8}, set_);
        const Walk w = walk(p.profile);
        VERIFY_NEAR(w.distance, 0.86, 1e-6);
        VERIFY_NEAR(w.topSpeed, 0.25, 1e-6);
        VERIFY_NEAR(w.topAcceleration, 0.8, 1e-6);
        QVERIFY(!p.jerkExceeded);
    }
    void shortMoveNeverReachesItsSpeed() {
        const Walk w = walk(planShot(Linear{0.01, 0.25, 0.8}, set_).profile);
        VERIFY_NEAR(w.distance, 0.01, 1e-6);
        QVERIFY(w.topSpeed < 0.25 && w.topAcceleration < 0.8);
    }
    void directionDoesNotMatter() {
        QCOMPARE(planShot(Linear{-0.3, 0.2, 0.5}, set_).profile.time(),
                 planShot(Linear{0.3, 0.2, 0.5}, set_).profile.time());
    }
    void byTimeTakesItsTimeAndItsEases() {
        const PlannedShot p = planShot(Timed{0.5, 8, 1.5, 3}, set_);
        const Walk w = walk(p.profile);
        VERIFY_NEAR(p.profile.time(), 8.0, 1e-12);
        VERIFY_NEAR(w.distance, 0.5, 1e-6);
        VERIFY_NEAR(w.timeToCruise, 1.5, 5e-3);
        VERIFY_NEAR(w.topSpeed, 0.5 / (8 - 4.5 / 2), 1e-6);
        VERIFY_NEAR(p.profile.out.time(), 3.0, 1e-12);
    }
    void easeOfZeroTakesTheControllersRamp() {
        const PlannedShot both = planShot(Timed{0.5, 8, 0, 0}, set_);
        VERIFY_NEAR(both.profile.time(), 8.0, 1e-9);
        VERIFY_NEAR(walk(both.profile).distance, 0.5, 1e-6);
        const PlannedShot one = planShot(Timed{0.5, 8, 2, 0}, set_);
        VERIFY_NEAR(one.profile.in.time(), 2.0, 1e-12);
        QVERIFY(one.profile.out.acceleration <= 1.0 + 1e-12);
        VERIFY_NEAR(walk(one.profile).distance, 0.5, 1e-6);
    }
    void tooShortATimeIsAProblem() {
        QCOMPARE(planShot(Timed{0.5, 0.3, 0, 0}, set_).problem, Reason::TimeTooShort);
        QCOMPARE(planShot(Timed{0.5, 2, 1.5, 1.5}, set_).problem, Reason::TimeTooShort);
        QCOMPARE(planShot(Linear{0, 0.2, 0.5}, set_).problem, Reason::NoDistance);
    }
    void hastyEaseExceedsTheJerk() {
        const PlannedShot p = planShot(Timed{0.5, 3, 0.2, 0.2}, set_);
        QVERIFY(p.jerkExceeded);
        VERIFY_NEAR(p.profile.in.jerk(), 4 * (0.5 / 2.8) / (0.2 * 0.2), 1e-9); // 4v/T²
        motion::Limits none = set_;
        none.jerk = 0;
        QVERIFY(!planShot(Timed{0.5, 3, 0.2, 0.2}, none).jerkExceeded);
    }
    void randomTimedShotsArriveInTime() {
        std::mt19937_64 random(8);
        std::uniform_real_distribution<double> u(0, 1);
        int planned = 0;
        for (int i = 0; i < 20000; ++i) {
            const Timed m{0.01 + u(random), 0.5 + 10 * u(random), i % 3 ? 3 * u(random) : 0,
                          i % 4 ? 3 * u(random) : 0};
            const PlannedShot p = planShot(m, {1, 0.2 + u(random), i % 2 ? 0.5 + 5 * u(random) : 0});
            if (p.problem != Reason::None) continue;
            ++planned;
            const double covered = p.profile.peakSpeed * (p.profile.in.time() / 2 + p.profile.cruiseTime +
                                                          p.profile.out.time() / 2);
            if (!isNear(covered, m.distance, 1e-9) || !isNear(p.profile.time(), m.time, 1e-6))
                QFAIL(qPrintable(QStringLiteral("case %1: covers %2 of %3 in %4 of %5")
                                     .arg(i)
                                     .arg(covered)
                                     .arg(m.distance)
                                     .arg(p.profile.time())
                                     .arg(m.time)));
        }
        QVERIFY(planned > 8000);
    }
};

QTEST_APPLESS_MAIN(PlanShotTest)
#include "plan_shot_test.moc"
