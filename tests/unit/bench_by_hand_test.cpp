// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/parts/identify.h"
#include "core/parts/label.h"

#include "support/near.h"

#include <QTest>
#include <cmath>
#include <numbers>

using namespace gantry;

/// What is found of motors on the bench, worked out on paper.
class BenchByHandTest : public QObject {
    Q_OBJECT

    static parts::WarmTest warm(std::vector<parts::WarmReading> readings) {
        return {3.0, 2, 20.0, 80.0, std::move(readings)};
    }
    static parts::DcReadings dc() {
        parts::DcReadings r;
        r.voltage = 12.0;
        r.turns = 100.0;
        r.time = 10.0;
        r.freeCurrent = 0.4;
        r.resistance = 2.0;
        return r;
    }

private slots:
    /// Two readings, 1.5 W for 20 K and 6 W for 50 K: through nothing, least squares give (30 + 300) / 38.25
    /// K/W. 60 K of room then take 6.9545 W, 1.0766 A in both windings of 3 ohm.
    void warmTest() {
        const parts::WarmResult r = parts::evaluateWarmTest(warm({{0.5, 40.0}, {1.0, 70.0}}));
        VERIFY_NEAR(r.thermalResistance.value, 330.0 / 38.25, 1e-12);
        VERIFY_NEAR(r.ratedCurrent.value, 1.076611, 1e-6);
        QCOMPARE(r.thermalResistance.tolerance, 0.15);
        QCOMPARE(r.ratedCurrent.tolerance, 0.075);
        QCOMPARE(r.thermalResistance.source, Source::Measured);
        QVERIFY(!r.stop);
        VERIFY_NEAR(r.nextCurrent, 1.076611, 1e-6); // a quarter more would go beyond
        // One reading tells less, and is followed by a quarter more.
        const parts::WarmResult first = parts::evaluateWarmTest(warm({{0.5, 40.0}}));
        VERIFY_NEAR(first.thermalResistance.value, 20.0 / 1.5, 1e-12);
        QCOMPARE(first.thermalResistance.tolerance, 0.25);
        VERIFY_NEAR(first.nextCurrent, 0.625, 1e-12);
        // Nothing yet: begin small. Readings without heat or rise count for nothing.
        QCOMPARE(parts::evaluateWarmTest(warm({})).nextCurrent, 0.1);
        QCOMPARE(parts::evaluateWarmTest(warm({{0.0, 30.0}, {0.4, 19.0}})).thermalResistance.value, 0.0);
        VERIFY_NEAR(parts::evaluateWarmTest(warm({{0.0, 30.0}, {0.4, 19.0}})).nextCurrent, 0.5, 1e-12);
        // Near enough to what it stands, or at the limit: stop.
        const parts::WarmResult near = parts::evaluateWarmTest(warm({{0.5, 40.0}, {1.0, 75.0}}));
        QVERIFY(near.stop);
        QCOMPARE(near.nextCurrent, 0.0);
        QVERIFY(parts::evaluateWarmTest(warm({{0.2, 80.0}})).stop);
        // 0.24 W for 59.9 K: 60 K take 0.20017 A, and 0.2 A is near enough to that.
        VERIFY_NEAR(parts::evaluateWarmTest(warm({{0.2, 79.9}})).ratedCurrent.value, 0.200167, 1e-5);
        QVERIFY(parts::evaluateWarmTest(warm({{0.2, 79.9}})).stop);
        QVERIFY(!parts::evaluateWarmTest(warm({{0.2, 70.0}})).stop);
    }
    /// 12 V at ten turns a second and 0.4 A through 2 ohm: 6 A at stall, k = 11.2 / 62.83 = 0.17825 N·m/A.
    void brushed() {
        const auto m = parts::identify(dc());
        QVERIFY(m);
        const DcFigures& f = m->figures;
        VERIFY_NEAR(f.noLoadSpeed.value, 20.0 * std::numbers::pi, 1e-12);
        QCOMPARE(f.stallCurrent.value, 6.0);
        const double k = 11.2 / (20.0 * std::numbers::pi);
        VERIFY_NEAR(f.stallTorque.value, k * 5.6, 1e-12);
        QCOMPARE(f.stallTorque.tolerance, 0.15);
        // A fifth of the stall current for hours: (1.2 − 0.4) / 5.6 of the stall torque.
        VERIFY_NEAR(f.ratedTorque.value, k * 0.8, 1e-12);
        VERIFY_NEAR(f.ratedTorque.tolerance, std::hypot(0.4, 0.15), 1e-12);
        QCOMPARE(m->gearboxBacklash.value, 0.0);
        // Behind a gearbox 65 % arrive, give or take 40 %.
        parts::DcReadings geared = dc();
        geared.gearTurnsIn = 30;
        VERIFY_NEAR(parts::identify(geared)->figures.stallTorque.value, 0.65 * k * 5.6, 1e-12);
        QCOMPARE(parts::identify(geared)->figures.stallTorque.tolerance, 0.4);
        QCOMPARE(parts::identify(geared)->gearNumerator, 30);
        // Stalled at 6 V with 20 N on 0.1 m: 3 − 0.4 A gave 2 N·m, so 6 − 0.4 A give 2 · 5.6 / 2.6.
        parts::DcReadings stalled = dc();
        stalled.stallPull = 20.0;
        stalled.stallArm = 0.1;
        stalled.stallVoltage = 6.0;
        VERIFY_NEAR(parts::identify(stalled)->figures.stallTorque.value, 2.0 * 5.6 / 2.6, 1e-12);
        QCOMPARE(parts::identify(stalled)->figures.stallTorque.source, Source::Measured);
        stalled.stallVoltage = 0.5; // less than friction takes: a twentieth of the stall current at least
        VERIFY_NEAR(parts::identify(stalled)->figures.stallTorque.value, 2.0 * 5.6 / 0.3, 1e-12);
        // A can of 30 × 60 mm: 42.41 cm³ of 4500 kg/m³; its rotor a cylinder of 15 × 40 mm of 7500 kg/m³.
        parts::DcReadings can = dc();
        can.frame = 0.03;
        can.length = 0.06;
        VERIFY_NEAR(parts::identify(can)->body.mass.value, 0.190852, 1e-5);
        VERIFY_NEAR(parts::identify(can)->rotorInertia.value,
                    0.5 * (7500.0 * std::numbers::pi * 0.0075 * 0.0075 * 0.04) * 0.0075 * 0.0075, 1e-12);
        for (const auto& spoil :
             {+[](parts::DcReadings& r) { r.voltage = 0.0; }, +[](parts::DcReadings& r) { r.turns = 0.0; },
              +[](parts::DcReadings& r) { r.time = 0.0; }, +[](parts::DcReadings& r) { r.resistance = 0.0; },
              +[](parts::DcReadings& r) { r.freeCurrent = -0.1; },
              +[](parts::DcReadings& r) { r.freeCurrent = 6.0; }}) {
            parts::DcReadings bad = dc();
            spoil(bad);
            QVERIFY(!parts::identify(bad));
        }
    }
    /// A 42 × 40 mm stepper of 2.8 V and 1.4 A: 28.24 mm of it pull.
    void label() {
        const Stepper s = parts::stepperFromLabel({0.042, 0.040, 1.4, 2.8});
        QCOMPARE(s.rotorTeeth, 50);
        VERIFY_NEAR(s.holdingTorque.value, 0.384973, 1e-5);
        VERIFY_NEAR(s.rotorInertia.value, 5.195198e-6, 1e-5);
        VERIFY_NEAR(s.body.mass.value, 0.275184, 1e-6);
        VERIFY_NEAR(s.body.thermalResistance.value, 6.0, 1e-3); // of the usual motor of that size
        VERIFY_NEAR(s.body.radialRating.value, 28.0, 1e-3);
        VERIFY_NEAR(s.body.axialRating.value, 10.0, 1e-3);
        VERIFY_NEAR(s.detentTorque.value, 0.04 * s.holdingTorque.value, 1e-12);
        VERIFY_NEAR(s.resistance.value, 2.0, 1e-12);
        VERIFY_NEAR(s.inductance.value, 0.0038, 1e-12);
        QCOMPARE(s.holdingTorque.tolerance, 0.4);
        QCOMPARE(s.rotorInertia.tolerance, 0.35);
        // Twice the length pulls by what is added; a flat one still by three tenths.
        const double longer = parts::stepperFromLabel({0.042, 0.080, 1.4, 2.8}).holdingTorque.value;
        VERIFY_NEAR(longer / s.holdingTorque.value, (80.0 - 11.76) / (40.0 - 11.76), 1e-9);
        const double flat = parts::stepperFromLabel({0.042, 0.012, 1.4, 2.8}).holdingTorque.value;
        VERIFY_NEAR(flat / s.holdingTorque.value, 3.6 / 28.24, 1e-9);
        // Twice the mass: 2^0.6 times what it stands, and 2^-0.6 of its warmth.
        VERIFY_NEAR(parts::stepperFromLabel({0.042, 0.080, 1.4, 2.8}).body.radialRating.value /
                        s.body.radialRating.value,
                    std::pow(2.0, 0.6), 1e-9);
        VERIFY_NEAR(parts::stepperFromLabel({0.042, 0.080, 1.4, 2.8}).body.thermalResistance.value *
                        std::pow(2.0, 0.6),
                    s.body.thermalResistance.value, 1e-9);
        QCOMPARE(parts::stepperFromLabel({0.042, 0.040, 0.0, 2.8}).ratedCurrent.value, 0.0);
        QCOMPARE(parts::stepperFromLabel({0.042, 0.040, 1.4, 0.0}).resistance.value, 0.0);
        QCOMPARE(parts::stepperFromLabel({0.042, 0.040, 1.4, 2.8, std::numbers::pi / 200.0}).rotorTeeth, 100);
    }
    void stepper() {
        parts::StepperReadings r;
        r.size = {0.042, 0.040, 1.4, 2.8};
        r.resistance = 3.0;
        const parts::IdentifiedStepper plain = parts::identify(r);
        QVERIFY(!plain.gearbox);
        QCOMPARE(plain.motor.winding, Winding::Bipolar);
        QCOMPARE(plain.motor.resistance.value, 3.0);
        QCOMPARE(plain.motor.resistance.source, Source::Measured);
        VERIFY_NEAR(plain.motor.inductance.value, 0.0057, 1e-12);
        QCOMPARE(plain.motor.rotorTeeth, 50);
        // 10 N on 50 mm at half the rated current: twice that torque at the whole.
        r.pull = 10.0;
        r.pullArm = 0.05;
        r.pullCurrent = 0.7;
        const parts::IdentifiedStepper pulled = parts::identify(r);
        VERIFY_NEAR(pulled.motor.holdingTorque.value, 1.0, 1e-12);
        QCOMPARE(pulled.motor.holdingTorque.tolerance, 0.1);
        QCOMPARE(pulled.motor.holdingTorque.source, Source::Measured);
        // Behind a gearbox of 64 turns to 1, 48 steps a turn of the rotor: a tin can with five leads.
        r.leads = 5;
        r.stepsPerTurn = 3072;
        r.gearTurnsIn = 64;
        const parts::IdentifiedStepper can = parts::identify(r);
        QCOMPARE(can.motor.winding, Winding::Unipolar);
        QCOMPARE(can.motor.rotorTeeth, 12);
        QVERIFY(can.gearbox);
        QCOMPARE(can.gearbox->numerator, 64);
        QCOMPARE(can.gearbox->denominator, 1);
        VERIFY_NEAR(can.motor.holdingTorque.value, 1.0 / 64.0, 1e-12);
        QCOMPARE(can.motor.holdingTorque.tolerance, 0.3);
        r.pull = 0.0;
        VERIFY_NEAR(parts::identify(r).motor.holdingTorque.value, 0.4 * 0.384973, 1e-5);
        VERIFY_NEAR(parts::identify(r).motor.detentTorque.value, 0.04 * 0.384973, 1e-5);
        QCOMPARE(parts::identify(r).motor.holdingTorque.tolerance, 0.5);
    }
};

QTEST_APPLESS_MAIN(BenchByHandTest)
#include "bench_by_hand_test.moc"
