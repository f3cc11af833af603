// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/rocking.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <random>

using namespace gantry::motion;
constexpr double pi = std::numbers::pi;

class RockingTest : public QObject {
    Q_OBJECT
    /// The mode integrated numerically through a profile: its amplitude at the end, and the largest on the
    /// way.
    static std::pair<double, double> integrated(const Profile& p, const Mode& m) {
        const double w = 2 * pi * m.frequency, T = p.time();
        const int n = 200000;
        const double h = T / n;
        double x = 0, v = 0, most = 0;
        const auto acceleration = [&](double t, double px, double pv) {
            return -p.at(t).acceleration - 2 * m.damping * w * pv - w * w * px;
        };
        for (int i = 0; i < n; ++i) {
            const double t = i * h;
            const double k1 = acceleration(t, x, v), l1 = v;
            const double k2 = acceleration(t + h / 2, x + h / 2 * l1, v + h / 2 * k1), l2 = v + h / 2 * k1;
            const double k3 = acceleration(t + h / 2, x + h / 2 * l2, v + h / 2 * k2), l3 = v + h / 2 * k2;
            const double k4 = acceleration(t + h, x + h * l3, v + h * k3), l4 = v + h * k3;
            x += h / 6 * (l1 + 2 * l2 + 2 * l3 + l4);
            v += h / 6 * (k1 + 2 * k2 + 2 * k3 + k4);
            most = std::max(most, std::abs(x));
        }
        const double d = w * std::sqrt(1 - m.damping * m.damping);
        return {std::hypot(x, (v + m.damping * w * x) / d), most};
    }
private slots:
    void workedResiduals() {
        for (const auto& c : referenceCases("t04_residual")) {
            const auto& in = c["inputs"];
            const auto& out = c["expected"];
            const Profile p = plan(in["D"], {in["v"], in["a"], in["j"]});
            const Mode m{in["f_undamped"], in["zeta"]};
            const double found = rockingAfter(p, m), wanted = out["residual_amplitude"];
            if (wanted < 1e-9)
                QVERIFY(found < 1e-9);
            else
                VERIFY_NEAR(found, wanted, 1e-4);
            const double w = 2 * pi * m.frequency;
            VERIFY_NEAR(8 * in["j"].get<double>() / (w * w * w), out["upper_bound_8j_w3"].get<double>(),
                        1e-6);
            if (!out["settle_time_envelope"].is_null())
                VERIFY_NEAR(*settlingTime(found, in["tol"], m), out["settle_time_envelope"].get<double>(),
                            1e-4);
        }
    }
    /// What can be left at most is never less than what is left, whatever the frequency; and at the worst
    /// phase it is nearly that.
    void mostIsNeverLess() {
        for (const double jerk : {0.0, 0.5, 2.0})
            for (const double damping : {0.0, 0.03}) {
                double closest = 0.0;
                for (double f = 0.2; f < 20.0; f *= 1.01) {
                    const Profile p = plan(0.4, {0.2, 0.5, jerk});
                    const Mode m{f, damping};
                    const double left = rockingAfter(p, m), most = mostRockingAfter(p, m);
                    QVERIFY2(left <= most * (1 + 1e-9), qPrintable(QString::number(f)));
                    closest = std::max(closest, left / most);
                }
                QVERIFY(closest > 0.6);
            }
    }
    /// Closed form against numerical integration, for every shape of ramp.
    void agreesWithIntegration() {
        const Limits l{0.25, 0.5, 2.0};
        for (const double f : {2.3, 6.4})
            for (const double zeta : {0.0, 0.02, 0.1}) {
                const Mode m{f, zeta};
                for (const Profile& p :
                     {plan(0.5, l), plan(0.02, l), plan(0.5, {0.25, 0.5, 0}), planHalfSine(0.5, l),
                      planTuned(0.5, l, 1.07 / f), planTunedTrapezoid(0.5, l, 1.07 / f)}) {
                    const auto [left, most] = integrated(p, m);
                    const double scale = p.in.acceleration / std::pow(2 * pi * f, 2);
                    QVERIFY(std::abs(rockingAfter(p, m) - left) < 2e-4 * scale);
                    // An estimate on the safe side, never more than twice the steady deflection.
                    QVERIFY(rockingDuring(p, m) > 0.98 * most - left);
                    QVERIFY(rockingDuring(p, m) <= 2 * scale * (1 + 1e-12));
                }
            }
    }
    /// Undamped a tuned profile leaves nothing, whatever the distance; a tenth off about a tenth of a
    /// trapezoid's worst; damping leaves the known shares of 8j/ω³.
    void tunedLeavesNothing() {
        const Limits l{0.25, 0.5, 0};
        for (const double f : {1.1, 6.0, 17.0})
            for (const double d : {0.001, 0.01, 0.1, 0.3, 1.0}) {
                const Profile p = planTuned(d, l, 1 / f);
                const double steady = p.in.acceleration / std::pow(2 * pi * f, 2);
                QVERIFY(rockingAfter(p, {f, 0}) < 1e-9 * steady);
                QVERIFY(p.peakSpeed <= 0.25 * (1 + 1e-12) && p.in.acceleration <= 0.5 * (1 + 1e-12));
                VERIFY_NEAR(p.peakSpeed * (p.cruiseTime + p.in.time()), d, 1e-12);
                VERIFY_NEAR(p.in.jerkTime, 1 / f, 1e-12);
                const Profile t = planTunedTrapezoid(d, l, 1 / f);
                QVERIFY(rockingAfter(t, {f, 0}) < 1e-9 * 0.5 / std::pow(2 * pi * f, 2));
                QVERIFY(t.in.acceleration <= 0.5 * (1 + 1e-12) && t.peakSpeed <= 0.25 * (1 + 1e-12));
                VERIFY_NEAR(t.peakSpeed * (t.cruiseTime + t.in.time()), d, 1e-12);
            }
        double off = 0;
        for (double f = 5.4; f <= 6.6; f += 1.2)
            for (double v = 0.15; v < 0.25; v += 0.003) // the worst phase of the other factors
                off = std::max(off, rockingAfter(planTuned(0.5, {v, 0.5, 0}, 1 / 6.0), {f, 0}) /
                                        (4 * 0.5 / std::pow(2 * pi * f, 2)));
        QVERIFY2(off > 0.05 && off < 0.13, qPrintable(QString::number(off)));
        // Shares of 8j/ω³ that damping leaves, known from independent work: jerk phases four periods apart,
        // and a cruise long enough to forget the ramp in.
        const Profile p = planTuned(20, {0.25, 0.375, 0}, 1 / 6.0);
        for (const auto& [zeta, share] : {std::pair{0.01, 0.002}, {0.02, 0.006}, {0.05, 0.02}, {0.1, 0.05}}) {
            const double left = rockingAfter(p, {6.0, zeta}) / (8 * p.in.jerk() / std::pow(2 * pi * 6, 3));
            QVERIFY2(std::abs(left / share - 1) < 0.3, qPrintable(QString::number(left)));
        }
    }
    void halfSineKeepsItsLimits() {
        std::mt19937_64 random(11);
        std::uniform_real_distribution<double> e(-3, 2);
        for (int i = 0; i < 100000; ++i) {
            const Limits l{std::pow(10, e(random)), std::pow(10, e(random)),
                           i % 3 ? std::pow(10, e(random)) : 0.0};
            const double d = std::pow(10, e(random));
            const Profile p = planHalfSine(d, l);
            const bool fits = p.peakSpeed <= l.speed * (1 + 1e-12) &&
                              p.in.acceleration <= l.acceleration * (1 + 1e-12) &&
                              (l.jerk == 0 || p.in.jerk() <= l.jerk * (1 + 1e-9));
            if (!fits || std::abs(p.peakSpeed * (p.in.time() + p.cruiseTime) - d) > 1e-12 * d)
                QFAIL(qPrintable(QString("case %1").arg(i)));
        }
        const Profile p = planHalfSine(0.4, {0.25, 0.5, 0});
        double x = 0, v = 0;
        const int n = 200000;
        for (int i = 0; i < n; ++i) {
            const double h = p.time() / n;
            v += p.at((i + 0.5) * h).acceleration * h;
            x += v * h;
        }
        VERIFY_NEAR(x, 0.4, 1e-4);
        QVERIFY(std::abs(v) < 1e-9);
        VERIFY_NEAR(p.at(p.time() / 2).position, 0.2, 1e-9);
    }
    void settling() {
        QCOMPARE(*settlingTime(1.0, 2.0, {5, 0.0}), 0.0);
        QVERIFY(!settlingTime(1.0, 0.5, {5, 0.0}));
        VERIFY_NEAR(*settlingTime(std::exp(3.0), 1.0, {1 / (2 * pi), 0.1}), 30.0, 1e-12);
    }
};

QTEST_APPLESS_MAIN(RockingTest)
#include "rocking_test.moc"
