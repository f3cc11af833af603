// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/kinematics/follow.h"
#include "core/motor/curve.h"
#include "core/motor/hobby_servo.h"
#include "core/motor/noise.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <cmath>
#include <random>

using namespace gantry::motor;

/// Servos, brushed motors and hobby servos; and what following a subject asks.
class MotorKindsTest : public QObject {
    Q_OBJECT
    static DcParams motorOf(const nlohmann::json& in) {
        DcParams p;
        p.nominalVoltage = in["Vn"];
        p.noLoadSpeed = in["w0"];
        p.noLoadCurrent = in["I0"];
        p.stallCurrent = in["Is"];
        p.voltage = in["V"];
        p.duty = in["duty"];
        p.sourceResistance = in["Rs"];
        p.busCapacitor = in["bus_cap"];
        return p;
    }
private slots:
    void brushedMotors() {
        const auto cases = referenceCases("t11_dc", "dc");
        QVERIFY(!cases.empty());
        for (const auto& c : cases) {
            const DcParams p = motorOf(c["inputs"]);
            const double torque = c["inputs"]["T"];
            const auto& out = c["expected"];
            VERIFY_NEAR(speedUnder(p, torque), out["speed"].get<double>(), 1e-6);
            VERIFY_NEAR(motorCurrent(p, torque), out["motor_current"].get<double>(), 1e-6);
            VERIFY_NEAR(sourceCurrent(p, torque), out["source_current"].get<double>(), 1e-6);
            VERIFY_NEAR(p.voltage - p.sourceResistance * sourceCurrent(p, torque),
                        out["bus_voltage"].get<double>(), 1e-6);
            VERIFY_NEAR(stallTorque(p), out["stall_torque"].get<double>(), 1e-6);
            VERIFY_NEAR(noLoadSpeed(p), out["no_load_speed"].get<double>(), 1e-6);
            // The line through the same points the other way round.
            VERIFY_NEAR(peakTorque(p, speedUnder(p, torque)), torque, 1e-9);
            VERIFY_NEAR(dutyFor(p, speedUnder(p, torque), torque), p.duty, 1e-9);
        }
    }
    /// A bus capacitor makes the source resistance count duty squared: power in equals power out and lost.
    void powerIsConserved() {
        DcParams p{12, 600, 0.1, 2.4, 0.0, 0.05, 14, 0.5, 1.5, true, 0};
        const double torque = 0.012, current = motorCurrent(p, torque), source = sourceCurrent(p, torque);
        const double speed = speedUnder(p, torque), k = torqueConstant(p);
        const double in = p.voltage * source;
        const double lost =
            source * source * p.sourceResistance + current * current * (p.nominalVoltage / p.stallCurrent);
        VERIFY_NEAR(in, k * current * speed + lost, 1e-9);
    }
    /// No motor gives more the faster it turns, whatever its data: moves are judged by it.
    void torqueNeverRisesWithSpeed() {
        std::mt19937 random(20261202);
        const auto between = [&](double low, double high) {
            return low * std::pow(high / low, std::uniform_real_distribution(0.0, 1.0)(random));
        };
        for (int i = 0; i < 3000; ++i) {
            StepperParams stepper;
            stepper.holdingTorque = between(0.05, 20.0);
            stepper.ratedCurrentRms = between(0.1, 10.0);
            stepper.resistance = between(0.05, 50.0);
            stepper.inductance = between(1e-4, 0.1);
            stepper.supplyVoltage = between(3.0, 100.0);
            stepper.peakCurrent = between(0.05, 15.0);
            ServoParams servo;
            servo.ratedTorque = between(0.05, 20.0);
            servo.peakTorque = between(0.05, 60.0);
            servo.ratedSpeed = between(10.0, 500.0);
            servo.topSpeed = servo.ratedSpeed * between(1.01, 3.0);
            servo.ratedVoltage = between(12.0, 300.0);
            servo.voltage = between(12.0, 300.0);
            DcParams dc{12.0,
                        between(50.0, 2000.0),
                        between(0.01, 0.5),
                        between(1.0, 50.0),
                        0.0,
                        0.05,
                        between(3.0, 24.0),
                        between(0.05, 1.0),
                        between(0.01, 2.0),
                        true,
                        between(0.1, 20.0)};
            for (const Curve& curve : {Curve(stepper), Curve(servo), Curve(dc)}) {
                double before = peakTorque(curve, 0.0);
                for (double speed = 0.01; speed < 5000.0; speed *= 1.3) {
                    const double now = peakTorque(curve, speed);
                    QVERIFY2(now <= before * (1.0 + 1e-12),
                             qPrintable(QStringLiteral("motor %1 at %2 rad/s").arg(i).arg(speed)));
                    before = now;
                }
            }
        }
    }
    void currentLimitCutsTheStall() {
        DcParams p{12, 600, 0.1, 2.4, 0.0, 0.05, 12, 1.0, 0.0, true, 1.0};
        VERIFY_NEAR(peakTorque(p, 0.0), torqueConstant(p) * 0.9, 1e-12);
        QVERIFY(peakTorque(p, 599.0) < torqueConstant(p) * 0.9);
        QVERIFY(reversalCurrent(p, noLoadSpeed(p)) > 1.9 * 2.4);
    }
    void hobbyServos() {
        for (const auto& c : referenceCases("t11_dc", "servo")) {
            const auto& in = c["inputs"];
            const ServoResolution r =
                servoResolution(in["range"], in["pulse_span"], in["resolution"], in["deadband_full"]);
            VERIFY_NEAR(r.step, c["expected"]["angle_step"].get<double>(), 1e-9);
            VERIFY_NEAR(r.deadBand, c["expected"]["angle_deadband"].get<double>(), 1e-9);
            VERIFY_NEAR(r.worstError, c["expected"]["worst_error"].get<double>(), 1e-9);
            QCOMPARE(r.distinct, c["expected"]["steps_distinct"].get<int>());
        }
        const DcParams p = hobbyServoMotor(6.0, 6.0, 0.2, 1.0);
        VERIFY_NEAR(noLoadSpeed(p), 3.14159265358979 / 3 / 0.2, 1e-9);
        VERIFY_NEAR(stallTorque(p), 1.0, 1e-9);
        VERIFY_NEAR(p.ratedTorque, 1.0 / 3, 1e-12); // that it stands all day, as hobby servos do
        // Speed and torque go with the voltage.
        VERIFY_NEAR(stallTorque(hobbyServoMotor(6.0, 4.8, 0.2, 1.0)), 0.8, 1e-9);
        VERIFY_NEAR(noLoadSpeed(hobbyServoMotor(6.0, 4.8, 0.2, 1.0)), 0.8 * noLoadSpeed(p), 1e-9);
    }
    void servoOutlineIsClosed() {
        const ServoParams p{0.32, 0.95, 300, 450, 48, 48};
        VERIFY_NEAR(peakTorque(p, 300.0), 0.95, 1e-12);
        VERIFY_NEAR(peakTorque(p, 450.0), continuousTorque(p, 450.0), 1e-12);
        QCOMPARE(peakTorque(p, 451.0), 0.0);
        for (double w = 0; w < 450; w += 7) QVERIFY(peakTorque(p, w) >= continuousTorque(p, w));
        // Half the bus voltage: half the speeds.
        const ServoParams low{0.32, 0.95, 300, 450, 48, 24};
        VERIFY_NEAR(topSpeed(low), 225.0, 1e-12);
        QCOMPARE(peakTorque(low, 226.0), 0.0);
        // Lasting torque falls with speed above the rated one, as constant power does, and ends with it.
        VERIFY_NEAR(continuousTorque(p, 150.0), 0.32, 1e-12);
        VERIFY_NEAR(continuousTorque(p, 300.0), 0.32, 1e-12);
        VERIFY_NEAR(continuousTorque(p, 400.0), 0.32 * 300 / 400, 1e-12);
        QCOMPARE(continuousTorque(p, 451.0), 0.0);
        VERIFY_NEAR(continuousTorque(low, 200.0), 0.32 * 150 / 200, 1e-12);
        VERIFY_NEAR(peakTorque(p, 375.0), (0.95 + 0.32 * 300 / 450) / 2,
                    1e-12); // halfway down the straight line
        // A data sheet that gives less at its peak than lasting, or a top speed below the rated one.
        VERIFY_NEAR(peakTorque(ServoParams{0.32, 0.2, 300, 450, 48, 48}, 100.0), 0.32, 1e-12);
        VERIFY_NEAR(topSpeed(ServoParams{0.32, 0.95, 300, 200, 48, 48}), 300.0, 1e-12);
    }
    void rootMeanSquare() {
        for (const auto& c : referenceCases("t10_chain", "rms")) {
            RmsTorque rms;
            for (const auto& s : c["inputs"]["segments_t_T0_T1"]) rms.add(s[0], s[1], s[2]);
            VERIFY_NEAR(rms.value(), c["expected"]["T_rms"].get<double>(), 1e-9);
        }
    }
    void noiseRanks() {
        QVERIFY(stepperNoise(800, 2).rank > stepperNoise(800, 16).rank);
        QVERIFY(stepperNoise(20, 16).rank < stepperNoise(800, 16).rank);
        QCOMPARE(stepperNoise(0, 16).rank, NoiseRank::Silent);
        QCOMPARE(louder(meshNoise(400, false), brushNoise(100)).reason, NoiseReason::GearWhine);
    }
    void followingASubject() {
        for (const auto& c : referenceCases("t13_kinematics", "slider")) {
            const auto& in = c["inputs"];
            const auto& out = c["expected"];
            const double travel = in["D"], pass = in["target"][0].get<double>() - in["x0"].get<double>();
            const auto f = gantry::kinematics::followSubject(travel, in["v"], in["a"], pass, in["target"][1],
                                                             in["target"][2].get<double>() -
                                                                 in["camera_z"].get<double>());
            VERIFY_NEAR(f.panRate, out["pan_rate"].get<double>(), 1e-4);
            VERIFY_NEAR(f.panAcceleration, out["pan_acc"].get<double>(), 1e-4);
            VERIFY_NEAR(f.panAngle, std::abs(out["pan_end"].get<double>() - out["pan_start"].get<double>()),
                        1e-9);
            if (out["tilt_rate"].get<double>() > 0) {
                VERIFY_NEAR(f.tiltRate, out["tilt_rate"].get<double>(), 1e-4);
                VERIFY_NEAR(f.tiltAcceleration, out["tilt_acc"].get<double>(), 1e-4);
            }
        }
    }
    /// Walked through: from where to where the camera looks, whichever end it starts at, up and down.
    void followedAnglesByWalking() {
        for (const double pass : {0.0, 0.4, 1.0, 1.7, -0.5})
            for (const double height : {0.0, 0.7, -0.7, 0.2}) {
                const double travel = 1.0, distance = 1.5;
                const auto f = gantry::kinematics::followSubject(travel, 0.3, 0.5, pass, distance, height);
                double lowPan = 9, highPan = -9, lowTilt = 9, highTilt = -9;
                for (int i = 0; i <= 2000; ++i) {
                    const double x = travel * i / 2000 - pass, pan = std::atan2(x, distance),
                                 tilt = std::atan2(height, std::hypot(x, distance));
                    lowPan = std::min(lowPan, pan);
                    highPan = std::max(highPan, pan);
                    lowTilt = std::min(lowTilt, tilt);
                    highTilt = std::max(highTilt, tilt);
                }
                VERIFY_NEAR(f.panAngle, highPan - lowPan, 1e-9);
                QVERIFY(isNear(f.tiltAngle, highTilt - lowTilt, 1e-4, 1e-9));
                QVERIFY(f.panRate > 0.0 && (f.tiltRate > 0.0) == (height != 0.0));
            }
        // The speed is reached only where the way is long enough for its ramps.
        const auto shortWay = gantry::kinematics::followSubject(0.1, 9.0, 0.5, 0.05, 1.0, 0.0);
        VERIFY_NEAR(shortWay.panRate, std::sqrt(0.5 * 0.1) / 1.0, 1e-3);
    }
    /// A long cruise with hardly any ramps reaches the closed form.
    void cruiseClosedForm() {
        const auto f = gantry::kinematics::followSubject(40.0, 0.3, 1000.0, 20.0, 1.5, 0.0);
        VERIFY_NEAR(f.panRate, 0.3 / 1.5, 1e-6); // v/d
    }
};

QTEST_APPLESS_MAIN(MotorKindsTest)
#include "motor_kinds_test.moc"
