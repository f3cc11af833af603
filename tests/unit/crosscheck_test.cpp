// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/rigs/rigs.h"
#include "core/units/constants.h"
#include "core/verdicts/fix.h"
#include "support/files.h"
#include "support/hand_rigs.h"
#include "support/near.h"
#include "support/told.h"

#include <QTest>
#include <numbers>

using namespace gantry;
using namespace gantry::crosscheck;
using namespace told;

constexpr double pi = std::numbers::pi;

namespace {

Project rigNamed(const QString& key) {
    for (const rigs::RigInfo& info : rigs::all())
        if (key == QString::fromUtf8(info.key.data(), qsizetype(info.key.size())))
            return rigs::make(info.kind);
    return {};
}

Claim one(const char* text, AxisKind kind = AxisKind::Linear) {
    const std::vector<std::string> lines{text};
    const std::vector<Claim> all = readClaims(lines, kind);
    return all.size() == 1 ? all[0] : Claim{};
}

} // namespace

/// Claims just this side and just that side of what an axis does, and typed steps that one wrong part
/// explains.
class CrosscheckTest : public QObject {
    Q_OBJECT
private slots:
    /// Each claim turns from plausible to not at what the axis can do, with a per cent or so for rounding.
    void whereClaimsTurn() {
        Project p = demoProject();
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const double rated = e.model.stepper()->ratedCurrentRms;
        const auto amps = [](double a) { return "current = " + number(a) + " A"; };
        QVERIFY(plausible(p, amps(rated)));
        QVERIFY(plausible(p, amps(1.015 * rated)));
        QVERIFY(!plausible(p, amps(1.03 * rated)));
        QVERIFY(said(p, amps(1.4142 * rated)).contains("peak: a driver"));
        QVERIFY(!plausible(p, amps(1.4142 * rated)));
        QVERIFY(!said(p, amps(1.3 * rated)).contains("peak: a driver"));
        QVERIFY(plausible(p, "peak current " + number(1.4142 * rated) + " A"));
        double fastest = 0.0, steepest = 0.0, most = 1e9;
        for (const ShotEvaluation& s : e.shots) {
            fastest = std::max(fastest, s.motion.topSpeed.value());
            steepest = std::max(steepest, s.motion.acceleration.value());
            most = std::min(most, s.torque.maxAcceleration.value());
        }
        const auto speed = [](double v) { return "top speed = " + number(v * 1e3) + " mm/s"; };
        // The drive ends where it moves its load no more, or its pulses do.
        double end = e.pulseLimitSpeed.value();
        while (e.model.available(end / e.model.outputPerRad) < e.model.rampTorque(end, 0.0)) end *= 0.9999;
        QVERIFY(plausible(p, speed(fastest)));
        QVERIFY(plausible(p, speed(0.999 * end)));
        QVERIFY(said(p, speed(1.01 * end)).contains("the drive ends at"));
        QVERIFY(!plausible(p, speed(1.01 * end)));
        QVERIFY(said(p, speed(0.99 * fastest)).contains("too slow"));
        QVERIFY(!plausible(p, speed(0.99 * fastest)));
        QVERIFY(said(p, speed(60 * fastest)).contains("per minute"));
        // A tenth either way is what such a mix-up may be off.
        QVERIFY(said(p, speed(60 * 1.09 * fastest)).contains("per minute"));
        QVERIFY(!said(p, speed(60 * 1.12 * fastest)).contains("per minute"));
        QVERIFY(!plausible(p, number(1.01 * end / e.model.outputPerRad * 60 / (2 * pi)) + " rpm"));
        QVERIFY(plausible(p, number(0.99 * end / e.model.outputPerRad * 60 / (2 * pi)) + " rpm"));
        const auto ramp = [](double a) { return "acceleration = " + number(a * 1e3) + " mm/s²"; };
        QVERIFY(plausible(p, ramp(steepest)));
        QVERIFY(plausible(p, ramp(0.998 * most)));
        QVERIFY(!plausible(p, ramp(1.002 * most)));
        QVERIFY(!plausible(p, ramp(0.99 * steepest)));
        // Force at the carriage [N]: torque times ratio at most, and times the efficiency really.
        const double free = e.model.available(0.0) / e.model.outputPerRad;
        QVERIFY(!plausible(p, number(0.99 * free) + " N"));
        QVERIFY(plausible(p, number(0.9 * free) + " N"));
        double power = 0.0;
        for (double w = 1.0; w < 1000; w += 1.0) power = std::max(power, w * e.model.available(w));
        QVERIFY(plausible(p, "power " + number(power) + " W"));
        QVERIFY(!plausible(p, "power " + number(1.1 * power) + " W"));
        QVERIFY(plausible(p, "1:1"));
        QVERIFY(!plausible(p, "ratio 3:1"));
    }
    /// A stage of 25:1 that passes on 78 %: 0.36 N·m at the motor are 9 N·m without losses and 7.02 with
    /// them.
    void lossesThatAreForgotten() {
        Project p = rigs::make(rigs::RigKind::PanTiltHead);
        ReducerStage gears;
        gears.id = "gears";
        gears.numerator = 25;
        gears.figures.efficiency.value = 0.78;
        p.axes[0].links = {gears};
        std::get<RotaryMechanism>(p.axes[0].mechanism).output = DirectOutput{};
        const double motor = evaluateAxis(p, p.axes[0]).model.available(0.0);
        const auto gives = [&](double share) { return "gives " + number(share * 25 * motor) + " N·m"; };
        QVERIFY(plausible(p, gives(0.78)));
        QVERIFY(plausible(p, gives(0.79)));
        QVERIFY(!plausible(p, gives(0.81)));
        const QString forgets = said(p, gives(0.9));
        QVERIFY2(forgets.contains("takes the drive for 90 % efficient, and it is 78 %"), qPrintable(forgets));
        QVERIFY(said(p, gives(1.1)).contains("No gear gives more"));
        VERIFY_NEAR(findings(p, gives(1.0).c_str()).at(0).ratio, 0.78, 1e-6);
        // More than the motor gives, at a speed, is said of the output: at 12 turns a minute the motor makes
        // 300.
        const double fast = evaluateAxis(p, p.axes[0]).model.available(300 * 2 * pi / 60);
        QVERIFY(plausible(p, number(0.78 * 25 * fast) + " N·m at 12 rpm"));
        QVERIFY(!plausible(p, number(1.06 * 0.78 * 25 * fast) + " N·m at 12 rpm"));
        // Steps a turn are those of the motor where they are just its own, else those of the axis.
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const auto steps = [&](const char* text) {
            return stepsSaid(e, one(text, AxisKind::Rotary)).value_or(0.0);
        };
        const double turn = 4.0 * std::get<Stepper>(p.axes[0].motor).rotorTeeth * p.axes[0].driver.microsteps;
        VERIFY_NEAR(steps((number(turn) + " steps a turn").c_str()), 25 * turn / 360, 1e-9);
        VERIFY_NEAR(steps((number(0.5 * turn) + " steps/rev").c_str()), 12.5 * turn / 360, 1e-9);
        VERIFY_NEAR(steps((number(24 * turn) + " steps a turn").c_str()), 24 * turn / 360, 1e-9);
        VERIFY_NEAR(steps("2400 steps per turn of the motor"), 25 * 2400.0 / 360, 1e-9);
        QVERIFY(plausible(p, "motor torque " + number(motor) + " N·m"));
        QVERIFY(!plausible(p, "motor torque " + number(1.1 * motor) + " N·m"));
        // The label of a gearhead is round.
        QVERIFY(plausible(p, "1:26"));
        QVERIFY(said(p, "1:26").contains("as labels round it"));
        QVERIFY(!plausible(p, "1:27"));
        QVERIFY(!plausible(p, "30:1"));
    }
    /// 2.2 N·m at 1500 turns a minute are 345.6 W, whatever the motor; the supply gives 36 V times 5 A.
    void torqueAndSpeedTogether() {
        Project p = demoProject();
        p.supply.voltage.value = 36.0;
        p.supply.ratedCurrent = 5.0;
        const std::vector<Finding> all = findings(p, "2.2 N·m at 1500 rpm");
        QCOMPARE(all.size(), std::size_t(2));
        QCOMPARE(all[0].against, Against::Supply);
        VERIFY_NEAR(all[0].ratio, 180.0 / (2.2 * 1500 * 2 * pi / 60), 1e-9);
        QVERIFY(!all[0].plausible);
        QCOMPARE(all[1].against, Against::Drive);
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        VERIFY_NEAR(all[1].ratio, e.model.available(1500 * 2 * pi / 60) / 2.2, 1e-9);
        QVERIFY(!all[1].plausible);
        // What it holds at rest is named as that; half of what it gives at that speed is plausible.
        const double rest = e.model.available(0.0), there = e.model.available(1500 * 2 * pi / 60);
        QVERIFY(said(p, number(rest) + " N·m at 1500 rpm").contains("is what it holds at rest"));
        QVERIFY(!said(p, number(0.85 * rest) + " N·m at 1500 rpm").contains("at rest"));
        QVERIFY(plausible(p, number(0.5 * there) + " N·m at 1500 rpm"));
        QVERIFY(!plausible(p, number(1.06 * there) + " N·m at 1500 rpm"));
        p.supply.ratedCurrent = 0.0; // not said: nothing to hold it against
        QCOMPARE(findings(p, "2.2 N·m at 1500 rpm").size(), std::size_t(1));
        p.supply.ratedCurrent = 1.0;
        QCOMPARE(findings(p, "power 37 W").size(), std::size_t(2));
        QVERIFY(!plausible(p, "power 37 W"));
    }
    /// Eight kilograms straight up at 0.3 m/s: gravity and friction over the belt's efficiency, at the
    /// pulley.
    void massAtASpeed() {
        Project p = hand::slider();
        auto& m = std::get<LinearMechanism>(p.axes[0].mechanism);
        m.slope.value = pi / 2;
        m.runningFriction.value = 3.0;
        m.cableDrag.value = m.disturbance.value = 0.0;
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const auto& belt = std::get<BeltOutput>(m.output);
        const double radius = belt.teeth * belt.pitch.value / (2 * pi),
                     needed = (8.0 * units::standardGravity + 3.0) * radius / belt.efficiency.value;
        const Finding f = findings(p, "lifts 8 kg at 0.3 m/s").at(0);
        VERIFY_NEAR(f.arguments[2].value.value(), needed, 1e-6);
        VERIFY_NEAR(f.ratio, e.model.available(0.3 / radius) / needed, 1e-6);
        p.supply.voltage.value = 24.0;
        p.supply.ratedCurrent = 0.5;
        QCOMPARE(findings(p, "lifts 8 kg at 0.3 m/s").at(0).against, Against::Supply); // 23.5 W of 12
        VERIFY_NEAR(findings(p, "lifts 8 kg at 0.3 m/s").at(0).ratio,
                    12.0 / (8.0 * units::standardGravity * 0.3), 1e-6);
    }
    /// One wrong part at a time: typed steps that are right for it name it, with the move that would show it.
    void whatExplainsTypedSteps_data() {
        QTest::addColumn<QString>("rig");
        QTest::addColumn<double>("factor");
        QTest::addColumn<QString>("names");
        QTest::newRow("half the microsteps") << "belt-slider" << 0.5 << "1/8 microsteps instead of 1/16";
        QTest::newRow("a 0.9° motor") << "belt-slider" << 2.0 << "0.9° a step";
        QTest::newRow("a pulley of 16")
            << "belt-slider" << 20.0 / 16 << "a pulley with 16 teeth instead of 20";
        QTest::newRow("a 3 mm belt") << "belt-slider" << 2.0 / 3 << "belt pitch of 3 mm";
        QTest::newRow("a doubled belt") << "belt-slider" << 2.0 << "belt that is doubled";
        for (const double lead : {1.0, 1.5, 2.0, 3.0, 4.0, 5.0, 10.0, 12.0, 16.0})
            QTest::addRow("a lead of %g", lead)
                << "screw-slider" << 8.0 / lead << QString("a lead of %1 mm").arg(lead);
    }
    void whatExplainsTypedSteps() {
        QFETCH(QString, rig);
        QFETCH(double, factor);
        QFETCH(QString, names);
        const Project p = rigNamed(rig);
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const double steps = e.steps.stepsPerUnit.value();
        const StepsFinding f = explainSteps(p.axes[0], e, steps * factor);
        VERIFY_NEAR(f.movesForOne, factor, 1e-9);
        QString all;
        bool found = false;
        for (const Suspect& s : f.suspects) {
            all += QString::fromStdString(s.what) + "; ";
            // Whatever is suspected explains the number within half a per cent.
            QVERIFY(s.error < 0.005);
            VERIFY_NEAR(s.stepsPerUnit / (steps * factor), 1.0, 5e-3);
            VERIFY_NEAR(s.testMove, 100.0 * steps * factor / s.stepsPerUnit, 1e-9);
            found = found || QString::fromStdString(s.what).contains(names);
        }
        QVERIFY2(found, qPrintable(all));
        QVERIFY(f.suspects.size() <= 8);
        QVERIFY(explainSteps(p.axes[0], e, steps).suspects.empty());
        // Nothing explains a number that is off by a little more than that.
        for (const Suspect& s : explainSteps(p.axes[0], e, steps * factor * 1.0061).suspects)
            QVERIFY(!QString::fromStdString(s.what).contains(names));
    }
    /// Gearheads by their labels: a whole number for a train that was counted, and any number near that of a
    /// box.
    /// Pitches and leads that are sold, in metric and in parts of an inch: 0.08" and 1/5" of a belt.
    void pitchesAndLeadsThatAreSold() {
        Project p = rigs::make(rigs::RigKind::BeltSlider);
        auto& belt = std::get<BeltOutput>(std::get<LinearMechanism>(p.axes[0].mechanism).output);
        belt.pitch.value = 0.0041; // that none has
        const auto named = [&](double there, double told, const char* what) {
            const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
            const StepsFinding f = explainSteps(p.axes[0], e, e.steps.stepsPerUnit.value() * there / told);
            const QString wanted = QStringLiteral("%1 of %2 mm").arg(what).arg(told * 1e3, 0, 'g', 4);
            return std::any_of(f.suspects.begin(), f.suspects.end(), [&](const Suspect& s) {
                return QString::fromStdString(s.what).contains(wanted);
            });
        };
        for (const double pitch : {0.002, 0.08 * 0.0254, 0.0025, 0.003, 0.005, 0.0254 / 5.0})
            QVERIFY2(named(0.0041, pitch, "a belt pitch"), qPrintable(QString::number(pitch)));
        QVERIFY(!named(0.0041, 0.0044, "a belt pitch"));
        ScrewOutput screw;
        screw.lead.value = 0.0071;
        std::get<LinearMechanism>(p.axes[0].mechanism).output = screw;
        for (const double lead : {1.0, 1.5, 2.0, 3.0, 4.0, 5.0, 8.0, 10.0, 12.0, 16.0})
            QVERIFY2(named(0.0071, lead * 1e-3, "a lead"), qPrintable(QString::number(lead)));
        QVERIFY(!named(0.0071, 0.0065, "a lead"));
    }
    void labelsOfGearheads() {
        Project p = rigs::make(rigs::RigKind::SubjectTurntable);
        p.axes[0].links.clear();
        for (const auto& [a, b] : {std::pair{9, 26}, {10, 25}, {10, 27}, {11, 28}}) {
            GearStage g;
            g.id = "g" + std::to_string(a) + std::to_string(b);
            g.motorTeeth = a;
            g.loadTeeth = b;
            p.axes[0].links.emplace_back(g);
        }
        std::get<RotaryMechanism>(p.axes[0].mechanism).output = DirectOutput{};
        AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        VERIFY_NEAR(e.totalRatio.value(), 546.0 / 11.0, 1e-9);
        const double right = e.steps.stepsPerUnit.value();
        QVERIFY(QString::fromStdString(bestSuspect(p.axes[0], e, right * 50.0 / (546.0 / 11.0)))
                    .contains("gears of 50:1, as a label rounds them, instead of 49.6364:1"));
        ReducerStage box;
        box.id = "box";
        box.numerator = 5;
        p.axes[0].links = {box};
        e = evaluateAxis(p, p.axes[0]);
        const double five = e.steps.stepsPerUnit.value();
        const StepsFinding f = explainSteps(p.axes[0], e, five * 5.18 / 5.0);
        QVERIFY(
            QString::fromStdString(f.suspects.back().what).contains("a gearhead of 5.18:1 instead of 5:1"));
        // Ten per cent are no label any more.
        for (const Suspect& s : explainSteps(p.axes[0], e, five * 1.1).suspects)
            QVERIFY(!QString::fromStdString(s.what).contains("labels are rounded"));
    }
    void finerThanThePlay() {
        AxisEvaluation e = evaluateAxis(demoProject(), demoProject().axes[0]);
        e.step = Figure::of(1e-5);
        e.model.backlash = 0.99e-4;
        QVERIFY(uselessFineness(e).empty());
        e.model.backlash = 1.5e-4;
        QVERIFY(uselessFineness(e).find("15 times finer") != std::string::npos);
        e.model.backlash = 0.0;
        QVERIFY(uselessFineness(e).empty());
    }
    /// Lines as people write them.
    void unitsOfClaims() {
        const auto linear = AxisKind::Linear, rotary = AxisKind::Rotary;
        VERIFY_NEAR(one("acceleration = 800").acceleration.value(), 0.8, 1e-12);
        VERIFY_NEAR(one("acceleration = 0.8 m/s2").acceleration.value(), 0.8, 1e-12);
        VERIFY_NEAR(one("max speed = 0.25 m/s").speed.value(), 0.25, 1e-12);
        VERIFY_NEAR(one("feed 1500 mm/min").speed.value(), 0.025, 1e-12);
        VERIFY_NEAR(one("speed = 90", rotary).speed.value(), pi / 2, 1e-12);
        VERIFY_NEAR(one("30 °/s", rotary).speed.value(), pi / 6, 1e-12);
        VERIFY_NEAR(one("power = 30 W").power.value(), 30.0, 1e-12);
        VERIFY_NEAR(one("steps/mm = 80.032").stepsPerUnit.value(), 80032.0, 1e-9);
        VERIFY_NEAR(one("2.041 A").current.value(), 2.041, 1e-12);
        VERIFY_NEAR(one("current: 1,7 A").current.value(), 1.7, 1e-12);
        VERIFY_NEAR(one("current 2.4 A peak").current.value(), 2.4 / std::numbers::sqrt2, 1e-12);
        VERIFY_NEAR(one("1700 mA").current.value(), 1.7, 1e-12);
        VERIFY_NEAR(one("59 N·cm", rotary).torque.value(), 0.59, 1e-12);
        VERIFY_NEAR(one("torque 2,2 N m").torque.value(), 2.2, 1e-12);
        VERIFY_NEAR(one("holds 12 kg").mass.value(), 12.0, 1e-12);
        VERIFY_NEAR(one("gearbox 50:1").ratio.value(), 50.0, 1e-12);
        VERIFY_NEAR(one("label 1:50").ratio.value(), 50.0, 1e-12);
        const Claim both = one("0,8 N·m at 3000 rpm");
        VERIFY_NEAR(both.torque.value(), 0.8, 1e-12);
        VERIFY_NEAR(both.motorSpeed.value(), 100 * pi, 1e-9);
        QVERIFY(!both.speed && !both.mass);
        // Steps, however they are counted.
        for (const char* text : {"steps/mm = 200", "200 steps = 1 mm", "200 steps/mm", "200 steps per mm",
                                 "steps per mm: 200", "400 pulses = 2 mm", "steps = 200", "5080 steps/in"})
            VERIFY_NEAR(one(text, linear).stepsPerUnit.value_or(0.0), 200e3, 1e-6);
        for (const char* text :
             {"2400 steps a turn", "2400 steps/rev", "steps per turn = 2400", "2400 steps per 360 °"})
            VERIFY_NEAR(one(text, rotary)
                            .stepsPerTurn.value_or(one(text, rotary).stepsPerUnit.value_or(0.0) * 2 * pi),
                        2400.0, 1e-9);
        VERIFY_NEAR(one("steps/° = 17.5", rotary).stepsPerUnit.value_or(0.0), 17.5 * 180 / pi, 1e-9);
        VERIFY_NEAR(one("3200 steps/rev").stepsPerTurn.value_or(0.0), 3200.0, 1e-9);
        VERIFY_NEAR(one("3200 steps per turn of the motor", rotary).stepsPerTurn.value_or(0.0), 3200.0, 1e-9);
        // A number beside others that nothing names is said to be left, and so is one that says the same
        // twice.
        QVERIFY(!both.partly);
        QVERIFY(one("size 17 with 0.4 N·m").partly);
        QVERIFY(one("1 A or 2 A").partly);
        VERIFY_NEAR(one("1 A or 2 A").current.value(), 1.0, 1e-12);
        // Several in one line; commas within numbers do not part them.
        const std::vector<std::string> lines{"2,2 N·m at 1500 rpm, lifts 8 kg at 1.5 m/s; 3 A",
                                             "made in spring"};
        const std::vector<Claim> three = readClaims(lines, linear);
        QCOMPARE(three.size(), std::size_t(3));
        VERIFY_NEAR(three[1].mass.value(), 8.0, 1e-12);
        VERIFY_NEAR(three[1].speed.value(), 1.5, 1e-12);
        VERIFY_NEAR(three[2].current.value(), 3.0, 1e-12);
        const std::vector<std::string> pasted =
            linesOf("steps/mm = 160\n\ncurrent: 2.4 A\nTop speed 15000\nacceleration=800 mm/s2\nholding "
                    "torque: 57 oz in\nfoo 3\nno number\n");
        QCOMPARE(pasted.size(), std::size_t(7));
        const std::vector<Claim> claims = readClaims(pasted, linear);
        QCOMPARE(claims.size(), std::size_t(6));
        VERIFY_NEAR(claims[2].speed.value(), 15.0, 1e-12);
        VERIFY_NEAR(claims[4].torque.value(), 0.4025, 1e-3);
        QVERIFY(claims[4].atMotor && !claims[5].understood());
        // Not understood: of nothing that is known, or of two things.
        for (const char* text : {"full steps 200", "steps/mm = 80,032", "1/16 microsteps", "version 4",
                                 "top speed 1,100", "steps/° = 12"})
            QVERIFY2(!one(text, linear).understood(), text);
        QVERIFY(readClaims(std::vector<std::string>{"no numbers here"}, linear).empty());
    }
    /// What is kept with an axis raises a verdict unasked; the parts' own number mends it.
    void keptClaimsAreJudged() {
        Project p = hand::slider();
        const double steps = evaluateAxis(p, p.axes[0]).steps.stepsPerUnit.value();
        const auto state = [&](const char* rule) {
            const auto v = hand::verdict(p, rule);
            return v ? std::optional(v->state) : std::nullopt;
        };
        QVERIFY(!state("claim") && !state("claim_power") && !state("steps_set"));
        p.axes[0].told = {"steps/mm = " + number(steps)};
        QVERIFY(!state("steps_set")); // nothing to say
        p.axes[0].told = {"steps/mm = " + number(1.00001 * steps)};
        QCOMPARE(*state("steps_set"), State::Fine);
        // Two in a thousand: over by the rule, whatever the picture says.
        p.axes[0].told = {"1 A", "steps/mm = " + number(1.002 * steps)};
        p.shots.resize(1);
        p.shots[0].limits.repeat = 1e4;
        QCOMPARE(*state("steps_set"), State::Over);
        VERIFY_NEAR(hand::verdict(p, "steps_set")->ratio.value(), 0.5, 0.01);
        const Assessment now = assess(p);
        const std::vector<Fix> fixes = findFixes(p, now, *hand::verdict(p, "steps_set"), {});
        QCOMPARE(fixes.size(), std::size_t(1));
        QCOMPARE(fixes[0].cost, FixCost::SettingOnly);
        QCOMPARE(fixes[0].result.axes[0].told[0], std::string("1 A"));
        QCOMPARE(fixes[0].stateAfter, State::Fine);
        // What else stands in the line stays.
        Project together = p;
        together.axes[0].told = {"1 A, steps/mm = " + number(1.002 * steps) + "; 2 kg"};
        QCOMPARE(findFixes(together, assess(together), *hand::verdict(together, "steps_set"), {})
                     .at(0)
                     .result.axes[0]
                     .told[0],
                 "1 A, steps/mm = " + number(steps) + "; 2 kg");
        // The last number counts; a long move in a long lens shows less than a tenth of a per cent.
        p.axes[0].told.push_back("steps/mm = " + number(1.0004 * steps));
        p.shots[0].limits.repeat = 1.0;
        p.shots[0].focalLength = 0.4;
        p.shots[0].subjectDistance = 3.0;
        const auto shown = hand::verdict(p, "steps_set");
        const ShotEvaluation s = evaluateAxis(p, p.axes[0]).shots.at(0);
        VERIFY_NEAR(shown->ratio.value(),
                    p.shots[0].limits.repeat / (0.0004 * s.distance.value() * s.pixelsPerUnit), 1e-3);
        // A drive that does what was told is no news; one that cannot is.
        p.axes[0].told = {"0.1 N"};
        QVERIFY(!state("claim"));
        p.axes[0].told = {"0.1 N", "90000 N", "800 W"};
        QCOMPARE(*state("claim"), State::Over);
        VERIFY_NEAR(hand::verdict(p, "claim")->ratio.value(), findings(p, "90000 N").at(0).ratio, 1e-9);
        QVERIFY(!state("claim_power"));
        p.supply.ratedCurrent = 2.0;
        QCOMPARE(*state("claim_power"), State::Over);
        p.axes[0].told = {"version 4"};
        QCOMPARE(*state("claim"), State::Unknown);
        QCOMPARE(hand::verdict(p, "claim")->ratio.reason(), Reason::NotUnderstood);
    }
};

QTEST_APPLESS_MAIN(CrosscheckTest)
#include "crosscheck_test.moc"
