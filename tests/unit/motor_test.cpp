// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motor/frame.h"
#include "core/motor/stepper_motion.h"
#include "core/motor/stepper_torque.h"
#include "core/motor/two_mass.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <limits>
#include <map>
#include <numbers>
#include <random>

using namespace gantry::motor;
constexpr double rpm = 2 * std::numbers::pi / 60;

class MotorTest : public QObject {
    Q_OBJECT
    static StepperParams paramsOf(const nlohmann::json& in) {
        return {in["Nr"], in["Th"], in["Ir"], in["R"], in["L"], in["V"], in["Ipk"]};
    }
    static StepperParams worked() { return {50, 0.44, 1.7, 1.5, 0.0028, 24, 1.2 * std::numbers::sqrt2}; }
private slots:
    void workedEnvelopes() {
        for (const auto& c : referenceCases("t01_pullout", "envelope")) {
            const StepperParams p = paramsOf(c["inputs"]);
            const double tol = c["tolerance_rel"];
            VERIFY_NEAR(torqueConstant(p), c["expected"]["kt"].get<double>(), tol);
            for (std::size_t i = 0; i < c["inputs"]["rpm"].size(); ++i) {
                const double w = c["inputs"]["rpm"][i].get<double>() * rpm;
                VERIFY_NEAR(pullOutTorque(p, w), c["expected"]["T_envelope_V"][i].get<double>(), tol);
                VERIFY_NEAR(pullOutTorqueAtBest(p, w), c["expected"]["T_envelope_4V_pi"][i].get<double>(),
                            tol);
            }
        }
    }
    /// Stall torques found by integrating the motor's equations in time lie between the sizing curve and the
    /// square-wave bound, to the 5 % of that method.
    void stallSimulationsLieBetween() {
        for (const auto& c : referenceCases("t01_pullout", "stall_simulation")) {
            const StepperParams p = paramsOf(c["inputs"]);
            const double w = c["inputs"]["rpm"].get<double>() * rpm;
            const double stall = c["expected"]["stall_torque"];
            QVERIFY(pullOutTorque(p, w) <= stall * 1.05);
            QVERIFY(pullOutTorqueAtBest(p, w) >= stall * 0.95);
        }
    }
    void workedByHand() {
        const StepperParams p = worked();
        VERIFY_NEAR(torqueConstant(p), 0.1830, 1e-3);
        VERIFY_NEAR(pullOutTorque(p, 375 * rpm), 0.3106, 1e-3);
        VERIFY_NEAR(cornerSpeed(p) / rpm, 714.0, 5e-3);
        StepperParams low = p;
        low.supplyVoltage = 21;
        VERIFY_NEAR(cornerSpeed(low) / rpm, 618.0, 5e-3);
    }
    /// Brute force over the current plane finds the same largest quadrature current.
    void agreesWithBruteForce() {
        const StepperParams p = worked();
        for (const double speed : {10.0, 60.0, 80.0, 100.0, 200.0, 400.0}) {
            const double x = p.rotorTeeth * speed * p.inductance, e = torqueConstant(p) * speed;
            double best = 0;
            for (int i = -4000; i <= 0; ++i)
                for (const double radius : {p.peakCurrent}) {
                    const double id = radius * i / 4000.0;
                    // Largest iq on the circle and within the voltage, solved for this id.
                    const double onCircle = std::sqrt(std::max(0.0, radius * radius - id * id));
                    // |(R id − x iq, R iq + x id + e)| ≤ V: quadratic in iq.
                    const double a = p.resistance * p.resistance + x * x;
                    const double b = 2 * p.resistance * e; // the cross terms of R and x cancel
                    const double c = (p.resistance * p.resistance + x * x) * id * id + 2 * x * id * e +
                                     e * e - p.supplyVoltage * p.supplyVoltage;
                    const double d = b * b - 4 * a * c;
                    if (d < 0) continue;
                    best = std::max(best, std::min(onCircle, (-b + std::sqrt(d)) / (2 * a)));
                }
            VERIFY_NEAR(pullOutTorque(p, speed), torqueConstant(p) * best, 1e-4);
        }
    }
    void torqueFallsWithSpeedAndRisesWithVoltage() {
        std::mt19937_64 random(5);
        std::uniform_real_distribution<double> u(0.3, 3.0);
        for (int i = 0; i < 500; ++i) {
            const StepperParams p{50,
                                  0.3 * u(random),
                                  u(random),
                                  u(random),
                                  0.002 * u(random),
                                  20 * u(random),
                                  1.5 * u(random)};
            StepperParams more = p;
            more.supplyVoltage *= 1.3;
            double last = 1e9;
            for (double w = 0; w < 500; w += 10) {
                const double t = pullOutTorque(p, w);
                QVERIFY(t >= 0 && t <= last + 1e-12);
                QVERIFY(pullOutTorque(more, w) >= t - 1e-12);
                last = t;
            }
        }
    }
    /// The least current is the one at which the curve just reaches the torque (bisection on the curve).
    void leastCurrentIsOnTheCurve() {
        for (const double speed : {0.0, 40.0, 80.0, 110.0})
            for (const double torque : {0.05, 0.15, 0.25}) {
                StepperParams p = worked();
                double low = 0, high = 50;
                for (int i = 0; i < 100; ++i) {
                    p.peakCurrent = 0.5 * (low + high);
                    (pullOutTorque(p, speed) >= torque ? high : low) = p.peakCurrent;
                }
                VERIFY_NEAR(leastPeakCurrent(worked(), torque, speed), high, 1e-6);
            }
        QVERIFY(std::isinf(leastPeakCurrent(worked(), 0.4, 900)));
    }
    void workedSmallMotion() {
        for (const auto& c : referenceCases("t02_lag")) {
            const auto& in = c["inputs"];
            const auto& out = c["expected"];
            const double tol = c["tolerance_rel"];
            const double th = in["Th"], load = in["T_load"], inertia = in["J"];
            const int nr = in["Nr"], m = in["microsteps"];
            const auto frequency = [&](double under) {
                return modesOf({inertia, 0.0, fieldStiffness(nr, th, under),
                                std::numeric_limits<double>::infinity()})
                    .low.frequency;
            };
            VERIFY_NEAR(frequency(0.0), out["f_natural_unloaded"].get<double>(), tol);
            VERIFY_NEAR(frequency(load), out["f_natural_at_load"].get<double>(), tol);
            VERIFY_NEAR(rotorLag(nr, th, load), out["lag_rad"].get<double>(), tol);
            // Microsteps that pass before friction gives way are the lag in microsteps.
            const double dead = rotorLag(nr, th, load) * 2.0 * nr * m / M_PI;
            VERIFY_NEAR(dead, out["friction_deadband_microsteps_continuous"].get<double>(), tol);
            QCOMPARE(static_cast<int>(std::floor(dead)) + 1,
                     out["microsteps_before_first_motion_if_T_is_friction"].get<int>());
            QCOMPARE(std::max(1, static_cast<int>(std::ceil(2 * dead))),
                     out["microsteps_lost_on_reversal_if_T_is_friction"].get<int>());
        }
    }
    /// Two masses on two springs, as worked beside the program.
    void twoMassesAsInTheReference() {
        for (const auto& c : referenceCases("t53_two_mass", "modes")) {
            const auto &in = c["inputs"], &out = c["expected"];
            TwoMass m;
            m.rotor = in["rotor"];
            m.load = in["load"];
            m.field = fieldStiffness(in["teeth"], in["field_torque"], in["load_torque"]);
            m.drive = in["drive_stiffness"];
            m.rotorDamper = in["c_rotor"];
            m.driveDamper = in["c_drive"];
            m.loadDamper = in["c_load"];
            const RotorModes modes = modesOf(m);
            VERIFY_NEAR(modes.low.frequency, out["low"].get<double>(), 1e-9);
            VERIFY_NEAR(modes.low.damping, out["low_damping"].get<double>(), 1e-9);
            VERIFY_NEAR(modes.low.loadOverRotor, out["low_load_over_rotor"].get<double>(), 1e-9);
            VERIFY_NEAR(modes.high->frequency, out["high"].get<double>(), 1e-9);
            VERIFY_NEAR(modes.high->damping, out["high_damping"].get<double>(), 1e-9);
            VERIFY_NEAR(modes.high->loadOverRotor, out["high_load_over_rotor"].get<double>(), 1e-9);
            m.drive = std::numeric_limits<double>::infinity();
            VERIFY_NEAR(modesOf(m).low.frequency, out["rigid_drive"].get<double>(), 1e-9);
        }
        for (const auto& c : referenceCases("t53_two_mass", "bands")) {
            const auto& in = c["inputs"];
            const std::map<std::string, Shake> shakes{{"offset", Shake::Offset},
                                                      {"imbalance", Shake::UnequalPhases},
                                                      {"full step", Shake::FullStep},
                                                      {"microstep", Shake::Microstep}};
            for (const auto& band : c["expected"]["bands"]) {
                const bool low = band[0] == "low";
                const double speed = in[low ? "f_low" : "f_high"].get<double>() /
                                     shakesPerTurn(shakes.at(band[1]), in["teeth"], in["microsteps"]);
                VERIFY_NEAR(speed, band[2].get<double>(), 1e-9);
                const auto gain = gainBand(in[low ? "z_low" : "z_high"]);
                VERIFY_NEAR(speed * gain->low, band[3].get<double>(), 1e-9);
                VERIFY_NEAR(speed * gain->high, band[4].get<double>(), 1e-9);
            }
        }
        QVERIFY(gainBand(0.25) && !gainBand(0.27) && !gainBand(0.9));
    }
    /// Bolts stand on the circles that makers of these frames draw, inside the flange, outside the pilot.
    void framesByTheirBoltCircles() {
        for (const auto& [name, circle] :
             std::vector<std::pair<const char*, double>>{{"Stepper size 17, 40 mm", 0.04384},
                                                         {"Stepper size 23, 76 mm, 1.8°", 0.06667},
                                                         {"a size 34 motor", 0.0984},
                                                         {"size 14", 0.03677},
                                                         {"size 11", 0.03253}}) {
            const auto f = frameOf(name);
            QVERIFY(f);
            VERIFY_NEAR(f->boltSquare * std::numbers::sqrt2, circle, 0.002);
            QVERIFY(f->shaft < f->pilot && f->pilot < circle && f->boltSquare < f->flange);
            VERIFY_NEAR(f->flange, f->size * 0.00254, 0.05);
        }
        QVERIFY(!frameOf("Stepper 17") && !frameOf("size 99") && !frameOf("size x") && !frameOf(""));
    }
    void lagEndsAtPullOut() {
        VERIFY_NEAR(rotorLag(50, 0.3, 5.0), std::numbers::pi / 100, 1e-12);
        QCOMPARE(fieldStiffness(50, 0.3, 5.0), 0.0);
    }
};

QTEST_APPLESS_MAIN(MotorTest)
#include "motor_test.moc"
