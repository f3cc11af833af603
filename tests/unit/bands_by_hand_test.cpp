// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/criteria/criteria.h"
#include "core/drivetrain/carriage.h"
#include "core/drivetrain/chain.h"
#include "core/drivetrain/electronic_gear.h"
#include "core/evaluate/rig/axis_structure.h"
#include "core/evaluate/rig_setup.h"
#include "core/tools/limits.h"
#include "support/every_rig.h"
#include "support/hand_rigs.h"
#include "support/near.h"

#include <QTest>
#include <algorithm>
#include <random>

using namespace gantry;
using namespace hand;

/// Speeds to stay out of and those that are better, on every rig that ships; and formulas of the drive where
/// they turn round.
class BandsByHandTest : public QObject {
    Q_OBJECT
    EveryRig rigs_;

public:
    BandsByHandTest() {
        for (std::size_t r = 0; r < rigs_.projects.size(); r += 3) {
            rigs_.projects[r].conditions.silence = Silence::Quiet;
            rigs_.evaluations[r] = evaluate(rigs_.projects[r]);
        }
    }

private:
    template <class F>
    void everyAxis(F f) {
        for (std::size_t r = 0; r < rigs_.projects.size(); ++r)
            for (std::size_t a = 0; a < rigs_.projects[r].axes.size(); ++a) {
                const Project& p = rigs_.projects[r];
                const AxisEvaluation& e = rigs_.evaluations[r].axes[a];
                if (e.model.missing != Reason::None) continue;
                f(p, e, axisLimits(p, p.axes[a], e),
                  QByteArray::fromStdString(p.name + "/" + p.axes[a].name));
            }
    }

private slots:
    void everyBand() {
        int full = 0, micro = 0, noise = 0, visible = 0;
        everyAxis(
            [&](const Project& p, const AxisEvaluation& e, const AxisLimits& l, const QByteArray& name) {
                const DriveModel& m = e.model;
                const auto band = [&](BandReason reason) {
                    std::optional<std::pair<double, double>> out;
                    for (const SpeedBand& b : l.bands)
                        if (b.reason == reason) out = {b.low, b.high};
                    return out;
                };
                const auto is = [&](BandReason reason, bool there, double low, double high) {
                    const auto b = band(reason);
                    return b.has_value() == there &&
                           (!there || (isNear(b->first, low, 1e-9, 1e-15) && isNear(b->second, high, 1e-9)));
                };
                const bool steps = m.stepper() != nullptr;
                const double rocks = l.mode ? l.mode->frequency : 0.0;
                double pixels = 0.0, slowest = 0.0;
                for (const ShotEvaluation& s : e.shots) {
                    const Shot& shot = p.shots[s.shot.at()];
                    pixels = std::max(pixels, m.microstep() * s.pixelsPerUnit);
                    if (m.commandAngle > 0.0 && m.jump() * s.pixelsPerUnit > shot.limits.jitter)
                        slowest = std::max(slowest, m.jump() * shot.frameRate);
                }
                QVERIFY2(is(BandReason::FullStepsOnMode, steps && rocks > 0.0, 0.9 * m.fullStep() * rocks,
                            1.1 * m.fullStep() * rocks),
                         name);
                QVERIFY2(is(BandReason::MicrostepsOnMode, steps && rocks > 0.0 && pixels > 0.1,
                            0.9 * m.microstep() * rocks, 1.1 * m.microstep() * rocks),
                         name);
                QVERIFY2(is(BandReason::Noise, steps && p.conditions.silence != Silence::Any,
                            100 * m.fullStep(), 5000 * m.fullStep()),
                         name);
                QVERIFY2(is(BandReason::VisibleSteps, slowest > 0.0, 0.0, slowest), name);
                full += band(BandReason::FullStepsOnMode).has_value();
                micro += band(BandReason::MicrostepsOnMode).has_value();
                noise += band(BandReason::Noise).has_value();
                visible += band(BandReason::VisibleSteps).has_value();
            });
        QVERIFY2(full > 5 && micro > 0 && noise > 0 && visible > 0,
                 qPrintable(QString("%1 %2 %3 %4").arg(full).arg(micro).arg(noise).arg(visible)));
    }
    /// A shot within a band is told the nearest speed 2 % outside all of them that the axis reaches.
    void betterSpeeds() {
        int told = 0, none = 0;
        Project p = demoProject();
        p.conditions.silence = Silence::Quiet;
        p.shots.resize(1);
        for (int i = 0; i < 120; ++i) {
            // From a hundredth of a millimetre a second to half a metre.
            const double speed = 1e-5 * std::pow(5e4, i / 119.0);
            p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{0.3, speed, 0.5}}};
            const AxisLimits l = axisLimits(p, p.axes[0], evaluateAxis(p, p.axes[0]));
            const auto inside = [&](double v) {
                return std::any_of(l.bands.begin(), l.bands.end(),
                                   [&](const SpeedBand& b) { return v > b.low && v < b.high; });
            };
            const StripShot& s = l.shots.at(0);
            if (!inside(s.speed)) {
                QVERIFY(!s.better);
                ++none;
                continue;
            }
            std::optional<double> best;
            for (const SpeedBand& b : l.bands)
                for (const double v : {b.low * 0.98, b.high * 1.02})
                    if (v > 0.0 && v <= l.largest.speed && !inside(v) &&
                        (!best || std::abs(std::log(v / s.speed)) < std::abs(std::log(*best / s.speed))))
                        best = v;
            QCOMPARE(s.better.has_value(), best.has_value());
            if (best) VERIFY_NEAR(*s.better, *best, 1e-12);
            told += best.has_value();
        }
        QVERIFY(none > 10);
        QVERIFY(told > 3);
    }
    /// Watchable speeds: what crosses in the least time, shortened where more pictures are shown a second.
    void judderSpeed() {
        Project p = slider();
        p.shots.resize(1);
        Shot& s = p.shots[0];
        s.kind = ShotKind::Live;
        const auto limit = [&] {
            const AxisEvaluation e = evaluate(p).axes[0];
            for (const Limit& l : axisLimits(p, p.axes[0], e).speed)
                if (l.reason == LimitReason::Judder)
                    return l.value /
                           (e.shots[0].motion.topSpeed.value() * e.shots[0].picture.crossingTime.value());
            return 0.0;
        };
        for (const double rate : {12.0, 24.0, 25.0, 50.0, 120.0})
            for (const double crossing : {3.0, 7.0}) {
                s.frameRate = rate;
                s.limits.crossingTime = crossing;
                const double least = crossing * std::min(1.0, criteria::judderRate.value / rate);
                VERIFY_NEAR(limit(), 1 / least, 1e-9);
            }
    }
    /// Speeds of the envelope are spread evenly on a logarithm, from half the slowest shot or a 300th of the
    /// top to twice what the axis or its shots reach.
    void envelopeSpeeds() {
        everyAxis([&](const Project&, const AxisEvaluation& e, const AxisLimits& l, const QByteArray& name) {
            if (l.envelope.empty()) return;
            double fastest = 0.0, slowest = 1e300;
            for (const StripShot& s : l.shots) {
                fastest = std::max(fastest, s.speed);
                if (s.speed > 1e-9) slowest = std::min(slowest, s.speed);
            }
            const double top = 2 * std::max(l.largest.speed, fastest);
            QCOMPARE(l.envelope.size(), std::size_t(48));
            QVERIFY2(isNear(l.envelope.back().speed, top, 1e-9), name);
            const double low = fastest > 0.0 ? std::min(top / 300, slowest / 2) : top / 300;
            QVERIFY2(isNear(l.envelope.front().speed, low, 1e-9), name);
            const double step = l.envelope[1].speed / l.envelope[0].speed;
            for (std::size_t i = 1; i < l.envelope.size(); ++i) {
                const EnvelopePoint& at = l.envelope[i];
                QVERIFY2(isNear(at.speed / l.envelope[i - 1].speed, step, 1e-9), name);
                QVERIFY2(at.speed < 1e-12 || isNear(e.model.largestAcceleration(at.speed), at.atWanted, 1e-9),
                         name);
            }
        });
    }
    /// Between two places of the carriage the rail sags and tips no faster than its rates say, and somewhere
    /// as fast.
    void railRates() {
        Project p = slider();
        LinearMechanism& m = rail(p);
        p.payload.clear();
        m.railLength = 1.4;
        m.rail.firstStand = 0.3;
        m.rail.secondStand = 1.2;
        m.carriageLength = 0.2;
        m.guide.wheelbase = 0.15;
        Reason why = Reason::None;
        const auto s = *railSetting(p.axes[0], massesOf(p, p.axes[0]), why);
        const AxisStructure a = evaluate(p).axes[0].structure;
        double sag = 0.0, slope = 0.0, lowSlope = 1e9, highSlope = -1e9, lowSag = 1e9, highSag = -1e9;
        for (int i = 0; i <= 16; ++i) {
            const double at = s.low + (s.high - s.low) * i / 16;
            const auto q = structure::railPoint(s.rail, s.carriage, at);
            lowSlope = std::min(lowSlope, q.slope);
            highSlope = std::max(highSlope, q.slope);
            lowSag = std::min(lowSag, q.sag);
            highSag = std::max(highSag, q.sag);
        }
        // How fast it changes, by the sags of places close together all along.
        for (int i = 0; i < 400; ++i) {
            const double at = s.low + (s.high - s.low) * (i + 0.5) / 400, d = 1e-4;
            const auto q = structure::railPoint(s.rail, s.carriage, at - d),
                       next = structure::railPoint(s.rail, s.carriage, at + d);
            sag = std::max(sag, std::abs(next.sag - q.sag) / (2 * d));
            slope = std::max(slope, std::abs(next.slope - q.slope) / (2 * d));
        }
        VERIFY_NEAR(a.sagRate.value(), sag, 0.01);
        VERIFY_NEAR(a.slopeRate.value(), slope, 0.01);
        QVERIFY(lowSlope < 0.0 && highSlope > 0.0);
        VERIFY_NEAR(a.slope.value(), std::max(-lowSlope, highSlope), 1e-9);
        VERIFY_NEAR(a.slopeShift.value(), highSlope - lowSlope, 1e-9);
        VERIFY_NEAR(a.sag.value(), std::max(-lowSag, highSag), 1e-9);
        VERIFY_NEAR(a.sagShift.value(), highSag - lowSag, 1e-9);
        // Up and down: half of the rail's mass (0.49 of it) rides with the carriage on the softest place.
        const double own = a.ownMass.value();
        Project twice = p;
        rail(twice).movingMass.value = 10.0 + 0.49 * own;
        VERIFY_NEAR(a.bounce.value() / evaluate(twice).axes[0].structure.bounce.value(), std::sqrt(2.0),
                    0.02);
    }
    /// A bar's angle for a pan: both ways, found again by the triangle.
    void panBarAngles() {
        std::mt19937 random(5);
        std::uniform_real_distribution<double> u(0.0, 1.0);
        int found[2]{};
        for (int i = 0; i < 400; ++i) {
            const double arm = 0.2 + 0.6 * u(random), from = -0.4 * u(random), to = 0.4 * u(random);
            const double pan = (u(random) - 0.5) * 1.2, offset = 0.1 * (u(random) - 0.5);
            for (const bool swapped : {false, true}) {
                const double x = swapped ? to : from, y = swapped ? from : to;
                const auto angle = drivetrain::barAngleForPan({arm, offset, 0.0}, x, y, pan);
                if (!angle) continue;
                ++found[pan < 0.0];
                const drivetrain::PanBarGeometry g{arm, offset, *angle};
                VERIFY_NEAR(*drivetrain::panBarAngle(g, y) - *drivetrain::panBarAngle(g, x), pan, 1e-6);
            }
        }
        QVERIFY(found[0] > 150 && found[1] > 150);
        QVERIFY(!drivetrain::barAngleForPan({0.05, 0.0, 0.0}, -1.0, 1.0, 3.2));
        QVERIFY(!drivetrain::panBarAngle({0.1, 0.11, 0.0}, 0.0));
        VERIFY_NEAR(*drivetrain::panBarAngle({0.1, 0.1, 0.0}, 0.0), pi / 2, 1e-7); // just reaches
    }
    /// How fast a bar turns the camera is what its angle changes by a little farther on, and the picture of a
    /// slide with a bar moves by both.
    void panBarRates() {
        std::mt19937 random(6);
        std::uniform_real_distribution<double> u(0.0, 1.0);
        for (int i = 0; i < 100; ++i) {
            const drivetrain::PanBarGeometry g{0.3 + 0.3 * u(random), 0.1 * (u(random) - 0.5),
                                               u(random) - 0.5};
            const double x = 0.4 * (u(random) - 0.5), d = 1e-5;
            const double rate =
                (*drivetrain::panBarAngle(g, x + d) - *drivetrain::panBarAngle(g, x - d)) / (2 * d);
            QVERIFY(std::abs(*drivetrain::panBarRate(g, x) - rate) < 1e-6 * std::abs(rate) + 1e-8);
        }
        QVERIFY(!drivetrain::panBarRate({0.1, 0.1, 0.0}, 0.0)); // stretched out
        Project p = hand::slider();
        LinearMechanism& m = rail(p);
        const double plain = evaluate(p).axes[0].shots[0].pixelsPerUnit;
        m.panBar = {true, 0.5, 0.02, 0.2};
        const ShotEvaluation with = evaluate(p).axes[0].shots[0];
        // By hand: the arm stands farthest out at the far end of the travel.
        const double half = 0.5 * usableTravel(p.axes[0]);
        const double out = (0.02 + half * std::tan(0.2)) * std::cos(0.2) / 0.5;
        const double rate = std::sin(0.2) / (0.5 * std::sqrt(1 - out * out));
        const double focal = p.shots[0].focalLength * p.camera.deliveredWidth / p.camera.sensorWidth;
        VERIFY_NEAR(with.pixelsPerUnit, plain + focal * rate, 1e-6);
        // One that keeps the subject in the middle takes from it what it gives to the distance.
        p.shots[0].keepFramed = true;
        VERIFY_NEAR(evaluate(p).axes[0].shots[0].pixelsPerUnit,
                    std::max(std::abs(plain - focal * rate), focal * rate), 1e-6);
        m.panBar.armLength = 0.05; // does not reach: nothing is claimed
        QCOMPARE(evaluate(p).axes[0].shots[0].errors.jitter.reason(), Reason::OutOfRange);
    }
    void turning() {
        VERIFY_NEAR(drivetrain::turningRadius(0.5, pi / 4), 0.5, 1e-12);
        VERIFY_NEAR(drivetrain::turningRadius(0.5, -pi / 4), 0.5, 1e-12);
        VERIFY_NEAR(drivetrain::turningRadius(0.3, 0.5), 0.3 / std::tan(0.5), 1e-12);
        QVERIFY(std::isinf(drivetrain::turningRadius(0.5, 0.0)));
        VERIFY_NEAR(drivetrain::bindingRatio(0.1, -0.05, 0.2), 0.1 / (2 * 0.2 * 0.05), 1e-12);
        QVERIFY(std::isinf(drivetrain::bindingRatio(0.1, 0.0, 0.2)));
    }
    /// The nearest fraction is the nearest: against every fraction with terms that small.
    void nearestFractions() {
        std::mt19937 random(11);
        std::uniform_real_distribution<double> u(-3.0, 3.0);
        for (int i = 0; i < 300; ++i) {
            const double value = std::exp(u(random));
            const int most = 3 + i % 40;
            double best = 1e9;
            for (int q = 1; q <= most; ++q)
                for (int p = 1; p <= most; ++p)
                    best = std::min(best, std::abs(static_cast<double>(p) / q - value));
            const auto r = drivetrain::nearestFraction(value, most);
            QVERIFY(r && r->numerator() >= 1 && r->numerator() <= most && r->denominator() >= 1 &&
                    r->denominator() <= most);
            VERIFY_NEAR(std::abs(r->value() - value) + 1.0, best + 1.0, 1e-12);
        }
        QVERIFY(!drivetrain::nearestFraction(0.0, 10) && !drivetrain::nearestFraction(1.0, 0));
    }
    /// Whatever way a chain turns and speeds up, no torque is larger than the one called worst, and the
    /// largest acceleration just takes what is allowed.
    void worstIsWorst() {
        everyAxis([&](const Project&, const AxisEvaluation& e, const AxisLimits&, const QByteArray& name) {
            const drivetrain::Chain& c = e.model.chain;
            for (const double v : {0.0, 3.0, 40.0})
                for (const double a : {0.0, 5.0, 200.0}) {
                    const double worst = drivetrain::worstTorque(c, v, a);
                    double most = 0.0;
                    for (const double sign : {1.0, -1.0})
                        for (const int way : {1, -1})
                            most = std::max(most, std::abs(drivetrain::motorTorque(c, v, sign * a, way)));
                    QVERIFY2(isNear(worst, most, 1e-12, 1e-15), name);
                    QVERIFY2(isNear(drivetrain::worstTorque(c, v, -a), worst, 1e-12, 1e-15), name);
                    if (a == 0.0 || worst <= 0.0) continue;
                    QVERIFY2(isNear(drivetrain::largestAcceleration(c, v, worst), a, 1e-6), name);
                    QVERIFY2(drivetrain::largestAcceleration(
                                 c, v, drivetrain::worstTorque(c, v, 0.0) * 0.999) == 0.0 ||
                                 drivetrain::worstTorque(c, v, 0.0) <= 0.0,
                             name);
                }
        });
    }
};

QTEST_APPLESS_MAIN(BandsByHandTest)
#include "bands_by_hand_test.moc"
