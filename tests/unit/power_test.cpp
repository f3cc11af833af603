// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/power/battery.h"
#include "core/power/cable.h"
#include "core/power/regulator.h"
#include "core/rigs/rigs.h"
#include "core/verdicts/ranges.h"
#include "core/verdicts/rules.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <cmath>

using namespace gantry;

class PowerTest : public QObject {
    Q_OBJECT
    static const Verdict* verdict(const std::vector<Verdict>& all, std::string_view rule) {
        for (const Verdict& v : all)
            if (ruleKey(v) == rule) return &v;
        return nullptr;
    }
private slots:
    void regulatorAgainstWorkedCase() {
        for (const auto& c : referenceCases("t11_dc", "ldo")) {
            const auto& in = c.at("inputs");
            const double heat = power::regulatorHeat(in.at("Vin"), in.at("Vout"), in.at("I"), in.at("Iq"));
            VERIFY_NEAR(heat, c.at("expected").at("P").get<double>(), 1e-9);
            VERIFY_NEAR(heat * in.at("Rth").get<double>(), c.at("expected").at("dT").get<double>(), 1e-9);
            const double useful = in.at("Vout").get<double>() * in.at("I").get<double>();
            VERIFY_NEAR(useful / (useful + heat), c.at("expected").at("eff").get<double>(), 1e-9);
        }
        // Everything that goes in comes out, as heat or at the load.
        const double in = 9.0 * (0.3 + 0.01), out = 5.0 * 0.3;
        VERIFY_NEAR(power::regulatorHeat(9, 5, 0.3, 0.01), in - out, 1e-12);
    }
    void batteryAgainstWorkedCase() {
        for (const auto& c : referenceCases("t11_dc", "battery")) {
            const auto& in = c.at("inputs");
            const double current = in.at("P").get<double>() / in.at("Vbat").get<double>();
            const power::BatteryParams b{in.at("Ah").get<double>() * 3600,
                                         in.at("hours_rated").get<double>() * 3600, in.at("peukert"),
                                         in.at("usable")};
            VERIFY_NEAR(power::runTime(b, current), c.at("expected").at("seconds").get<double>(), 1e-9);
        }
        // Without the exponent it is charge over current, at any current.
        VERIFY_NEAR(power::runTime({3600, 72000, 1.0, 1.0}, 2.0), 1800.0, 1e-12);
        // At the rated current the exponent makes no difference.
        VERIFY_NEAR(power::runTime({3600, 7200, 1.3, 1.0}, 0.5), 7200.0, 1e-12);
    }
    void cableAgainstWorkedCase() {
        for (const auto& c : referenceCases("t11_dc", "cable")) {
            const auto& in = c.at("inputs");
            const auto d = power::deliver(in.at("V"), power::copperPair(in.at("L"), in.at("A")), in.at("P"));
            QVERIFY(d);
            VERIFY_NEAR(d->drop, c.at("expected").at("drop").get<double>(), 1e-6);
            VERIFY_NEAR(d->voltage, c.at("expected").at("V_load").get<double>(), 1e-6);
            VERIFY_NEAR(d->loss, c.at("expected").at("loss").get<double>(), 1e-6);
        }
        // The most that a resistance passes on is V²/4R, at half the voltage.
        const auto most = power::deliver(10, 1, 25);
        QVERIFY(most);
        VERIFY_NEAR(most->voltage, 5.0, 1e-9);
        QVERIFY(!power::deliver(10, 1, 25.001));
        // Nothing comes of no voltage; half a volt delivers what it can; a cable of no length has no
        // resistance.
        QVERIFY(!power::deliver(0.0, 1, 0.0) && !power::deliver(-5.0, 1, 1));
        VERIFY_NEAR(power::deliver(0.5, 0.1, 0.2)->voltage, (0.5 + std::sqrt(0.25 - 0.08)) / 2, 1e-12);
        QCOMPARE(power::copperPair(0.0, 1e-6), 0.0);
        VERIFY_NEAR(power::copperPair(0.5, 1e-6), 0.0172, 1e-12); // there and back
    }
    /// The demo's worked slide: 2 · 1.2² A² · (1.2 + bridge) ohm and 0.0988 N·m at 375 rpm.
    void demoTakesWhatItsMotorsTake() {
        Project p = demoProject();
        const double bridge = p.axes[0].driver.bridgeResistance.value;
        const double winding = std::get<Stepper>(p.axes[0].motor).resistance.value;
        const Evaluation e = evaluate(p);
        VERIFY_NEAR(e.axes[0].shots[0].torque.electricalPower.value(),
                    2 * 1.2 * 1.2 * (winding + bridge) + 0.0988 * 375 * 2 * M_PI / 60, 2e-3);
        double sum = 0;
        for (const AxisEvaluation& a : e.axes) {
            double most = 0;
            for (const ShotEvaluation& s : a.shots) most = std::max(most, s.torque.electricalPower.value());
            sum += most;
        }
        VERIFY_NEAR(e.supply.power.value(), sum, 1e-12);
        VERIFY_NEAR(e.supply.voltage.value() * e.supply.current.value(), sum, 1e-9);
        QCOMPARE(e.supply.runTime.reason(), Reason::NotApplicable);
        p.supply.capacity = 7 * 3600;
        QVERIFY(evaluate(p).supply.runTime.value() > 600);
    }
    /// A thin long cable lowers the torque left at speed, and at last nothing arrives.
    void cableReachesTheMotor() {
        Project p = demoProject();
        const double before = evaluate(p).axes[0].shots[0].torque.available.value();
        const double corner = evaluate(p).axes[0].cornerSpeed.value();
        p.supply.cableLength = 20;
        p.supply.cableSection = 2.5e-7;
        QVERIFY(evaluate(p).axes[0].cornerSpeed.value() < 0.9 * corner);
        QVERIFY(evaluate(p).axes[0].shots[0].torque.available.value() <= before);
        p.supply.cableLength = 2000;
        QCOMPARE(evaluate(p).supply.voltage.reason(), Reason::SupplyCollapses);
    }
    /// From 24 V down to 6 V in a linear regulator: three quarters of it are heat.
    void linearRegulatorIsJudged() {
        Project p = rigs::make(rigs::RigKind::OrbitBoom);
        int geared = -1;
        for (std::size_t i = 0; i < p.axes.size(); ++i) {
            GearedDc motor;
            if (const auto* old = std::get_if<GearedDc>(&p.axes[i].motor)) motor = *old;
            p.axes[i].motor = motor;
            geared = static_cast<int>(i);
        }
        auto& motor = std::get<GearedDc>(p.axes[static_cast<std::size_t>(geared)].motor);
        motor.control = SpeedControl::LinearRegulator;
        motor.appliedVoltage = 6;
        p.supply.voltage.value = 24;
        const Assessment a = assess(p);
        const ShotEvaluation& s = a.evaluation.axes[static_cast<std::size_t>(geared)].shots[0];
        const double load = s.regulator.heat.value() / 18.0; // A
        QVERIFY(load > motor.figures.noLoadCurrent.value * 0.9);
        VERIFY_NEAR(s.regulator.temperature.value(),
                    p.conditions.ambient + motor.regulatorResistance.value * s.regulator.heat.value(), 1e-9);
        VERIFY_NEAR(s.torque.electricalPower.value(), 24.0 * s.sourceCurrent.value(), 1e-9);
        const Verdict* v = verdict(a.verdicts, "regulator_heat");
        QVERIFY(v != nullptr && v->ratio);
        motor.regulatorResistance.value = 400;
        const auto hot = assess(p);
        QCOMPARE(verdict(hot.verdicts, "regulator_heat")->state, State::Over);
        // Without room above its output it gives the supply less its dropout.
        p.supply.voltage.value = p.supply.lowVoltage.value = 5.0;
        VERIFY_NEAR(evaluate(p).axes[static_cast<std::size_t>(geared)].model.dc()->voltage, 3.5, 1e-12);
        // A knob has none of it.
        motor.control = SpeedControl::Knob;
        QVERIFY(verdict(assess(p).verdicts, "regulator_heat") == nullptr);
    }
};

QTEST_APPLESS_MAIN(PowerTest)
#include "power_test.moc"
