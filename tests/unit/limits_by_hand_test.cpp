// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/compare_ramps.h"
#include "core/tools/limits.h"
#include "support/paper.h"

#include <algorithm>

using namespace gantry;
using namespace paper;

/// Limits of a slide and its shot with other ramps, worked once more on paper.
class LimitsByHandTest : public QObject {
    Q_OBJECT
private slots:
    /// Limits of the slide: what binds, what is recommended, which speeds to stay out of.
    void limitsOfTheSlide() {
        Project p = slide();
        p.conditions.silence = Silence::Quiet;
        p.shots[0].limits.jitter = 0.01;
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const AxisLimits l = axisLimits(p, p.axes[0], e);
        const double radius = 20 * 0.002 / (2 * pi), perRad = radius / 2, full = perRad * pi / 100;
        const double K = 1 / (1.2 / (4 * 1e4) + 1 / 2e5 + radius * radius / 100.0);
        const double field = 50 * 0.48 / (perRad * perRad); // of the motor, at the carriage
        const double f = std::sqrt(1 / (1 / K + 1 / field) / 4.0) / (2 * pi), px = 0.05 / 0.036 * 3840 / 2.0;
        const double amplitude = 0.48, detent = 0.02;
        const auto band = [&](BandReason reason) {
            for (const SpeedBand& b : l.bands)
                if (b.reason == reason) return std::pair{b.low, b.high};
            return std::pair{0.0, 0.0};
        };
        const auto near = [](std::pair<double, double> is, double low, double high) {
            return isNear(is.first, low, 1e-9, 1e-12) && isNear(is.second, high, 1e-9, 1e-12);
        };
        QVERIFY(near(band(BandReason::Noise), 100 * full, 5000 * full));
        QVERIFY(near(band(BandReason::RotorResonance), e.resonance.low.value(), e.resonance.high.value()));
        QVERIFY(near(band(BandReason::FullStepsOnMode), 0.9 * full * f, 1.1 * full * f));
        // Microsteps of a sixtieth of a pixel ring too softly to be kept clear of.
        QVERIFY(near(band(BandReason::MicrostepsOnMode), 0.0, 0.0));
        // A microstep of 6.25 µm is more than the jitter limit, so those slower than one a frame are seen.
        QVERIFY(near(band(BandReason::VisibleSteps), 0.0, full / 16 * 25));
        const double speed = 1.25 * 0.2, wish = 1.25 * 0.5;
        VERIFY_NEAR(l.recommended.speed, speed, 1e-9);
        // Ramps of whole periods of the belt's spring, no harder than wished.
        const double periods = std::ceil(speed / wish * f);
        VERIFY_NEAR(l.recommended.acceleration, speed * f / periods, 1e-9);
        VERIFY_NEAR(l.stoppingOrdinary.value(), speed * speed / (2 * l.recommended.acceleration), 1e-9);
        VERIFY_NEAR(l.ripplePixels.value(), 2 * std::asin(detent / amplitude) / 50 * perRad * px, 1e-9);
        VERIFY_NEAR(l.powerUpPixels.value(), 2 * full * px, 1e-9);
        const double wind = 0.5 * 1.2 * 1.2 * 0.02 * 9.0;
        VERIFY_NEAR(l.finestMove.value(),
                    std::max(pi / 1600, 2 * std::asin((5.0 + wind) * perRad / amplitude) / 50) * perRad,
                    1e-9);
        const auto limit = [&](const std::vector<Limit>& all, LimitReason reason) {
            for (const Limit& one : all)
                if (one.reason == reason) return one.value;
            return 0.0;
        };
        VERIFY_NEAR(limit(l.speed, LimitReason::PulseRate), 0.25, 1e-9);
        VERIFY_NEAR(limit(l.jerk, LimitReason::OnePeriod), wish * f, 1e-9);
        // Leaning by the jitter limit while it speeds up: a = limit ω².
        VERIFY_NEAR(limit(l.acceleration, LimitReason::RampPicture), 0.01 / px * std::pow(2 * pi * f, 2),
                    1e-9);
        // The belt stage at 40 m/s on its motor's pulley, seen at the carriage; the belt itself.
        std::vector<double> parts;
        for (const Limit& one : l.speed)
            if (one.reason == LimitReason::PartSpeed) parts.push_back(one.value);
        QCOMPARE(parts.size(), std::size_t(2));
        std::sort(parts.begin(), parts.end());
        VERIFY_NEAR(parts[0], 40.0 / (20 * 0.003 / (2 * pi)) * perRad, 1e-9);
        VERIFY_NEAR(parts[1], 40.0, 1e-9);
        // Nearer to people than a cap allows: by speed, and by the energy of all that moves.
        p.conditions.speedNearPeople = 0.15;
        p.conditions.energyNearPeople = 0.05;
        const AxisLimits near2 = axisLimits(p, p.axes[0], evaluateAxis(p, p.axes[0]));
        VERIFY_NEAR(limit(near2.speed, LimitReason::PeopleSpeed), 0.15, 1e-9);
        const double all = e.inertiaAtMotor.value() / (perRad * perRad);
        VERIFY_NEAR(limit(near2.speed, LimitReason::PeopleEnergy), std::sqrt(2 * 0.05 / all), 1e-9);
    }
    /// Torque falls with speed: room above a shot is given up before its ramp is, and a shot that the axis
    /// cannot follow is named.
    void everyShotRunsWithin() {
        Project p = slide();
        p.controller.pulseCeiling = 1e6;
        p.supply.lowVoltage.value = p.supply.voltage.value;
        std::get<BeltStage>(p.axes[0].links[0]).width = 0.1; // torque alone binds
        std::get<BeltOutput>(std::get<LinearMechanism>(p.axes[0].mechanism).output).tensileStiffness.value =
            1e6;
        auto& move = std::get<BySpeed<AxisKind::Linear>>(p.shots[0].moves[0].movement);
        const DriveModel m = evaluateAxis(p, p.axes[0]).model;
        move.speed = 0.5;
        while (m.largestAcceleration(move.speed) > 0.95 * m.largestAcceleration(0.1)) move.speed *= 1.05;
        const double there = m.largestAcceleration(move.speed),
                     above = m.largestAcceleration(1.25 * move.speed);
        QVERIFY(above < 0.99 * there);
        move.distance = 1.5 * move.speed * move.speed / there + 0.3;
        const auto limitsFor = [&](double acceleration) {
            move.acceleration = acceleration;
            return axisLimits(p, p.axes[0], evaluateAxis(p, p.axes[0]));
        };
        const double between = 0.5 * (there + above);
        AxisLimits l = limitsFor(between);
        QVERIFY(l.recommended.speed > move.speed && l.recommended.speed < 1.25 * move.speed);
        VERIFY_NEAR(m.largestAcceleration(l.recommended.speed), between, 1e-6);
        VERIFY_NEAR(l.recommended.acceleration, between, 1e-6);
        QVERIFY(!l.shots.at(0).tooFast && !l.shots.at(0).tooHard);
        l = limitsFor(1.01 * there);
        QVERIFY(l.shots.at(0).tooHard || l.shots.at(0).tooFast);
        p.conditions.speedNearPeople = 0.9 * move.speed;
        l = limitsFor(0.5 * above);
        QVERIFY(l.shots.at(0).tooFast);
        VERIFY_NEAR(l.recommended.speed, 0.9 * move.speed, 1e-9);
        p.conditions.speedNearPeople = 0.0;
        // Ramps of whole periods never end below what a shot asks.
        for (double share = 0.2; share < 1.0; share += 0.013) {
            l = limitsFor(share * above);
            QVERIFY(l.recommended.acceleration >= share * above * (1 - 1e-9));
            QVERIFY(!l.shots.at(0).tooFast && !l.shots.at(0).tooHard);
        }
    }
    /// The shot with other ramps at the same top speed and peak acceleration.
    void otherRamps() {
        const Project p = slide();
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const double v = 0.2, a = 0.5;
        int seen = 0;
        for (const RampRow& row : compareRamps(p, e, e.shots.at(0))) {
            if (row.shape == RampShape::Trapezoid) {
                VERIFY_NEAR(row.time.value(), 0.8 / v + v / a, 1e-9);
                QVERIFY(row.offered);
                ++seen;
            } else if (row.shape == RampShape::SCurve) {
                QVERIFY(!row.offered);
                QVERIFY(row.time.value() > 0.8 / v + v / a);
                ++seen;
            } else if (row.shape == RampShape::HalfSine) {
                // A half sine of peak a reaches v in π v / 2a.
                VERIFY_NEAR(row.time.value(), 0.8 / v + pi * v / (2 * a), 1e-9);
                ++seen;
            }
            VERIFY_NEAR(row.speed.value(), v, 1e-9);
        }
        QCOMPARE(seen, 3);
    }
};

QTEST_APPLESS_MAIN(LimitsByHandTest)
#include "limits_by_hand_test.moc"
