// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/chain.h"
#include "core/drivetrain/ratio.h"
#include "core/motor/stepper_torque.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <numbers>
#include <random>

using namespace gantry::drivetrain;

class DrivetrainTest : public QObject {
    Q_OBJECT
    static Chain chainOf(const nlohmann::json& in) {
        Chain c;
        c.motorInertia = in["Jm"];
        for (const auto& s : in["stages"]) c.stages.push_back({s[0], s[1], s[2], s[3]});
        c.load = {in["load"]["J"], in["load"]["T"], in["load"]["Tc"], in["load"]["b"]};
        return c;
    }
private slots:
    void ratiosStayExact() {
        const Ratio a = *Ratio::of(104, 20), b = *Ratio::of(3200, 360);
        QCOMPARE(a.times(b)->text(), std::string("416/9"));
        QCOMPARE(a.dividedBy(a)->text(), std::string("1/1"));
        QVERIFY(!Ratio::of(0, 3) && !Ratio::of(3, -1));
        QCOMPARE(exactMetres(0.002032)->text(), std::string("127/62500"));
        QVERIFY(!exactMetres(0.0) && !exactMetres(std::numbers::pi * 1e-3));
    }
    void ratioRefusesOverflow() {
        const Ratio big = *Ratio::of(3'000'000'019, 1);
        QVERIFY(big.times(big).has_value());
        QVERIFY(!big.times(big)->times(big).has_value());
    }
    void workedChains() {
        for (const auto& c : referenceCases("t10_chain", "chain")) {
            const auto& in = c["inputs"];
            const auto& out = c["expected"];
            const double tol = c["tolerance_rel"];
            const Chain chain = chainOf(in);
            const double w = in["v_motor"];
            VERIFY_NEAR(inertiaAtMotor(chain), out["inertia_lossless"].get<double>(), tol);
            VERIFY_NEAR(motorTorque(chain, w, 200, 1), out["T_motor_acc_200"].get<double>(), tol);
            VERIFY_NEAR(motorTorque(chain, w, 0, 1), out["T_motor_const"].get<double>(), tol);
            VERIFY_NEAR(motorTorque(chain, w, -200, 1), out["T_motor_dec_200"].get<double>(), tol);
            VERIFY_NEAR(motorTorque(chain, w, 0, -1), out["T_motor_reverse_const"].get<double>(), tol);
            const auto& m = in["motor_params"];
            const gantry::motor::StepperParams p{m["Nr"], m["Th"], m["Ir"],  m["R"],
                                                 m["L"],  in["V"], in["Ipk"]};
            const double allowed = gantry::motor::pullOutTorque(p, w) / in["S"].get<double>();
            // The worked figure is for the positive direction alone, where speeding up binds.
            const double worked = out["max_motor_acc"];
            VERIFY_NEAR(std::abs(motorTorque(chain, w, worked, 1)), allowed, 1e-4);
            // Ours covers both directions: equal for the slider; smaller for the worm, whose overhauling load
            // must also be lifted back. Either way the worst corner needs just what is allowed.
            const double found = largestAcceleration(chain, w, allowed);
            VERIFY_NEAR(worstTorque(chain, w, found), allowed, 1e-6);
            if (in["load"]["T"].get<double>() > 0)
                VERIFY_NEAR(found, worked, tol);
            else
                QVERIFY(found > 0 && found < worked);
        }
    }
    /// The belt slider worked by hand: 4.1 kg up 12° with 3 N of drag at 0.8 m/s².
    void workedByHand() {
        const double r = 0.04 / (2 * std::numbers::pi);
        Chain c;
        c.motorInertia = 5.7e-6;
        c.stages = {{1 / r, 0.95, backEfficiencyOf(0.95), 0}};
        c.load = {4.1, 4.1 * 9.80665 * std::sin(12 * std::numbers::pi / 180), 3, 0};
        VERIFY_NEAR(motorTorque(c, 39.3, 0.8 / r, 1), 0.0988, 1e-3);
        VERIFY_NEAR(inertiaAtMotor(c), 1.72e-4, 1e-3);
    }
    /// Without losses the power that goes in comes out: T ω = F v + d/dt of the kinetic energy.
    void losslessChainConservesPower() {
        std::mt19937_64 random(3);
        std::uniform_real_distribution<double> u(0.2, 5.0), sign(-1, 1);
        for (int i = 0; i < 2000; ++i) {
            Chain c;
            c.motorInertia = 1e-5 * u(random);
            for (int k = 0; k < 3; ++k) c.stages.push_back({u(random), 1, 1, 1e-5 * u(random)});
            c.load = {u(random), 3 * sign(random), u(random), u(random)};
            const double w = 10 * u(random), a = 100 * sign(random);
            const double n = totalRatio(c), v = w / n;
            const double useful = (c.load.steady + c.load.coulomb + c.load.viscous * v) * v;
            const double kinetic = inertiaAtMotor(c) * a * w;
            VERIFY_NEAR(motorTorque(c, w, a, 1) * w, useful + kinetic, 1e-9);
        }
    }
    /// With losses the motor never needs less than without, driving, and never receives more, driven.
    void lossesOnlyCost() {
        Chain ideal;
        ideal.stages = {{4, 1, 1, 0}};
        ideal.load = {1, 0, 2, 0};
        Chain lossy = ideal;
        lossy.stages[0].efficiency = 0.8;
        lossy.stages[0].backEfficiency = backEfficiencyOf(0.8);
        QVERIFY(motorTorque(lossy, 1, 3, 1) > motorTorque(ideal, 1, 3, 1));
        ideal.load.steady = lossy.load.steady = -30;
        QVERIFY(std::abs(motorTorque(lossy, 1, 0, 1)) < std::abs(motorTorque(ideal, 1, 0, 1)));
    }
    /// Illinois against plain bisection, also where stages change their power direction.
    void largestAccelerationAgreesWithBisection() {
        std::mt19937_64 random(11);
        std::uniform_real_distribution<double> u(0.1, 4.0), eff(0.3, 1.0), sign(-1, 1);
        int positive = 0;
        for (int i = 0; i < 3000; ++i) {
            Chain c;
            c.motorInertia = 1e-5 * u(random);
            for (int k = 0; k < 2; ++k) {
                const double e = eff(random);
                c.stages.push_back({u(random) * 3, e, backEfficiencyOf(e), 1e-6 * u(random)});
            }
            c.load = {0.1 * u(random), sign(random), 0.1 * u(random), 0.01 * u(random)};
            const double allowed = 0.3 * u(random), w = 20 * u(random);
            const double fast = largestAcceleration(c, w, allowed);
            if (worstTorque(c, w, 0) > allowed) {
                QCOMPARE(fast, 0.0);
                continue;
            }
            double low = 0, high = 1e9;
            for (int k = 0; k < 120; ++k) {
                const double m = 0.5 * (low + high);
                (worstTorque(c, w, m) <= allowed ? low : high) = m;
            }
            VERIFY_NEAR(fast, low, 1e-7);
            ++positive;
        }
        QVERIFY(positive > 1000);
    }
};

QTEST_APPLESS_MAIN(DrivetrainTest)
#include "drivetrain_test.moc"
