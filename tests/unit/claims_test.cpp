// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/crosscheck/crosscheck.h"
#include "core/evaluate/evaluate.h"
#include "support/hand_rigs.h"
#include "support/near.h"

#include <QTest>
#include <algorithm>
#include <functional>

using namespace gantry;
using namespace hand;
using crosscheck::Subject;

/// What people were told, at the very edge of what is believed; and which exchanged part explains a number of
/// steps.
class ClaimsTest : public QObject {
    Q_OBJECT
    static bool says(const crosscheck::Finding& f, const char* text) {
        return f.sentence.find(text) != std::string::npos;
    }
    /// A slide of which one shot asks 0.2 m/s and 0.5 m/s².
    static Project slide() {
        Project p = slider();
        p.shots.resize(1);
        p.shots[0].kind = ShotKind::Live;
        p.shots[0].keepFramed = false;
        p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{0.6, 0.2, 0.5}}};
        return p;
    }
    static const crosscheck::Suspect* named(const crosscheck::StepsFinding& f, const std::string& what) {
        const auto it = std::find_if(f.suspects.begin(), f.suspects.end(),
                                     [&](const auto& s) { return s.what.find(what) != std::string::npos; });
        return it == f.suspects.end() ? nullptr : &*it;
    }

private slots:
    void currentAtItsEdge() {
        Project p = slide();
        std::get<Stepper>(p.axes[0].motor).ratedCurrent.value = 2.0;
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const auto of = [&](double amps) {
            return crosscheck::judge(p, p.axes[0], e, {Subject::Current, amps, ""});
        };
        QVERIFY(of(2.0).plausible && of(2.039).plausible && !of(2.041).plausible);
        QVERIFY(says(of(2.041), "It would run too hot.") && !says(of(2.039), "It would run too hot."));
        QVERIFY(says(of(2.0), "rated 2 A rms, 2.83 A peak"));
        // The peak, give or take 4 %: 2.72 to 2.94.
        QVERIFY(says(of(2.73), "That is the peak") && says(of(2.93), "That is the peak"));
        QVERIFY(!says(of(2.70), "That is the peak") && !says(of(2.95), "That is the peak"));
        p.axes[0].motor = ServoMotor{};
        QVERIFY(says(crosscheck::judge(p, p.axes[0], evaluateAxis(p, p.axes[0]), {Subject::Current, 1.0, ""}),
                     "no rms current"));
    }
    void speedAtItsEdge() {
        const Project p = slide();
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const double limit =
            e.checks.motorTopSpeed ? e.checks.motorTopSpeed.value() : e.pulseLimitSpeed.value();
        const auto of = [&](double mm) {
            return crosscheck::judge(p, p.axes[0], e, {Subject::TopSpeed, mm, ""});
        };
        QVERIFY(limit > 0.3);
        QVERIFY(of(200).plausible && of(199.9).plausible && !of(199.0).plausible);
        QVERIFY(says(of(199.0), "too slow for the shots") && !says(of(200), "too slow"));
        QVERIFY(of(limit * 1e3 * 1.0009).plausible && !of(limit * 1e3 * 1.002).plausible);
        QVERIFY(says(of(limit * 1e3 * 1.002), "more than the drive can do"));
        QVERIFY(says(of(12000), "per minute")); // 60 times what the shots need
        QVERIFY(says(of(200.0 / 60), "a speed per second where one per minute is meant"));
        QVERIFY(!says(of(200.0 / 30), "per minute"));
        // Without a shot the setting counts.
        Project none = p;
        none.shots.clear();
        rail(none).motion.maxSpeed = 0.25;
        const AxisEvaluation still = evaluateAxis(none, none.axes[0]);
        QVERIFY(!crosscheck::judge(none, none.axes[0], still, {Subject::TopSpeed, 240, ""}).plausible);
        QVERIFY(crosscheck::judge(none, none.axes[0], still, {Subject::TopSpeed, 251, ""}).plausible);
    }
    void accelerationAtItsEdge() {
        const Project p = slide();
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const double most = e.shots[0].torque.maxAcceleration.value() * 1e3;
        const auto of = [&](double mm) {
            return crosscheck::judge(p, p.axes[0], e, {Subject::Acceleration, mm, ""});
        };
        QVERIFY(most > 600);
        QVERIFY(of(500).plausible && of(499.6).plausible && !of(499.0).plausible);
        QVERIFY(of(most * 0.999).plausible && !of(most * 1.001).plausible);
        QVERIFY(says(of(500), "the shots need 500,") && says(of(500), "the motor gives"));
    }
    void torqueAndPowerAtTheirEdges() {
        const Project p = slide();
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const auto of = [&](Subject s, double v) { return crosscheck::judge(p, p.axes[0], e, {s, v, ""}); };
        const double free = e.model.available(0.0) / e.model.outputPerRad;
        double efficiency = 1.0;
        for (const auto& s : e.model.chain.stages) efficiency *= s.efficiency;
        QVERIFY(efficiency < 0.97);
        QVERIFY(of(Subject::OutputTorque, free * efficiency * 1.019).plausible);
        QVERIFY(says(of(Subject::OutputTorque, free * efficiency * 1.021), "forgets the efficiency"));
        QVERIFY(says(of(Subject::OutputTorque, free * 1.009), "forgets the efficiency"));
        QVERIFY(says(of(Subject::OutputTorque, free * 1.011), "No gear gives more"));
        // The most that torque times speed reaches, walked finely.
        double most = 0.0;
        for (double w = 0.0; w < 1000.0; w += 0.5) most = std::max(most, w * e.model.available(w));
        QVERIFY(of(Subject::Power, most * 1.04).plausible && !of(Subject::Power, most * 1.06).plausible);
    }
    void stepsAtTheirEdge() {
        const Project p = slide();
        const double parts = evaluate(p).axes[0].steps.stepsPerUnit.value();
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const auto of = [&](double v) {
            return crosscheck::judge(p, p.axes[0], e, {Subject::StepsPerUnit, v, ""});
        };
        QVERIFY(of(parts * 1.00009).plausible && !of(parts * 1.00011).plausible);
        QVERIFY(says(of(parts * 2), "It would fit"));
        QVERIFY(says(crosscheck::judge(p, p.axes[0], e, {Subject::Unknown, 1.0, ""}), "Not understood"));
        Project knob = p;
        knob.axes[0].motor = GearedDc{};
        QVERIFY(says(crosscheck::judge(knob, knob.axes[0], evaluateAxis(knob, knob.axes[0]),
                                       {Subject::StepsPerUnit, 80.0, ""}),
                     "takes no steps"));
    }
    /// Each exchanged part by the factor that it makes in the steps, and how far the next one is off.
    void everyExchangeIsNamed() {
        struct Row {
            const char* name;
            std::function<void(Project&)> build;
            double factor;
            const char* named;
        };
        const auto links = [](Link link) { return [link](Project& p) { p.axes[0].links = {link}; }; };
        BeltStage belt;
        belt.id = "b";
        belt.motorTeeth = 20;
        belt.loadTeeth = 50;
        GearStage gear;
        gear.id = "g";
        gear.motorTeeth = 18;
        gear.loadTeeth = 54;
        const auto output = [](LinearOutput o) { return [o](Project& p) { rail(p).output = o; }; };
        RackOutput rack;
        rack.teeth = 20;
        BeltOutput pulley;
        pulley.teeth = 20;
        pulley.pitch.value = 0.002;
        ScrewOutput screw;
        screw.lead.value = 0.008;
        const std::vector<Row> rows{
            {"pinion of a rack", output(rack), 20.0 / 25, "a pinion with 25 teeth instead of 20"},
            {"pulley", output(pulley), 20.0 / 120, "a pulley with 120 teeth instead of 20"},
            {"smallest pulley", output(pulley), 20.0 / 8, "a pulley with 8 teeth instead of 20"},
            {"pitch", output(pulley), 2.0 / 2.032, "a belt pitch of 2.032 mm instead of 2 mm"},
            {"doubled belt", output(pulley), 2.0, "a belt that is doubled"},
            {"lead", output(screw), 8.0 / 1.5, "a lead of 1.5 mm instead of 8 mm"},
            {"motor pulley", links(belt), 20.0 / 23, "a motor pulley with 23 teeth instead of 20"},
            {"load pulley", links(belt), 61.0 / 50, "a load pulley with 61 teeth instead of 50"},
            {"motor gear", links(gear), 18.0 / 19, "a motor gear with 19 teeth instead of 18"},
            {"load gear", links(gear), 53.0 / 54, "a load gear with 53 teeth instead of 54"},
            {"microsteps", [](Project& p) { p.axes[0].driver.microsteps = 16; }, 1.0 / 16,
             "1/1 microsteps instead of 1/16"},
            {"fine microsteps", [](Project& p) { p.axes[0].driver.microsteps = 16; }, 16.0,
             "1/256 microsteps instead of 1/16"},
            {"motor of 0.9°", [](Project&) {}, 2.0, "a motor with 0.9° a step instead of 1.8°"},
            {"motor of 3.6°", [](Project&) {}, 0.5, "a motor with 3.6° a step instead of 1.8°"},
            {"inches", [](Project&) {}, 25.4, "inches typed as millimetres"},
            {"centimetres", [](Project&) {}, 0.1, "centimetres and millimetres"},
        };
        for (const Row& r : rows) {
            Project p = slider();
            p.axes[0].links.clear();
            r.build(p);
            const double parts = evaluate(p).axes[0].steps.stepsPerUnit.value();
            const auto f = crosscheck::explainSteps(p, p.axes[0], parts * r.factor);
            const crosscheck::Suspect* s = named(f, r.named);
            QVERIFY2(s != nullptr, r.name);
            QVERIFY2(isNear(s->stepsPerUnit, parts * r.factor, 1e-9) && s->error < 1e-9, r.name);
            QVERIFY2(isNear(s->testMove, 100.0, 1e-9), r.name); // what is commanded is what moves
            QVERIFY2(f.suspects.size() <= 8, r.name);
            // Half a per cent off it still explains the number, more does not.
            QVERIFY2(named(crosscheck::explainSteps(p, p.axes[0], parts * r.factor * 1.0045), r.named) !=
                         nullptr,
                     r.name);
            const auto beyond = crosscheck::explainSteps(p, p.axes[0], parts * r.factor * 1.0055);
            QVERIFY2(named(beyond, r.named) == nullptr, r.name);
        }
        Project ring = rigs::make(rigs::RigKind::SubjectTurntable);
        RingOutput o;
        o.pinionTeeth = 20;
        o.ringTeeth = 180;
        std::get<RotaryMechanism>(ring.axes[0].mechanism).output = o;
        ring.axes[0].links.clear();
        const double parts = evaluate(ring).axes[0].steps.stepsPerUnit.value();
        const auto explained = [&](double factor, const char* what) {
            return named(crosscheck::explainSteps(ring, ring.axes[0], parts * factor), what) != nullptr;
        };
        QVERIFY(explained(20.0 / 16, "a pinion with 16 teeth instead of 20"));
        QVERIFY(explained(60.0 / 180, "a ring with 60 teeth instead of 180"));
        QVERIFY(explained(300.0 / 180, "a ring with 300 teeth instead of 180"));
        QVERIFY(explained(pi / 180, "radians typed as degrees") &&
                explained(180 / pi, "degrees typed as radians"));
        QVERIFY(crosscheck::explainSteps(ring, ring.axes[0], parts * 777.0).suspects.empty());
        QVERIFY(says(crosscheck::judge(ring, ring.axes[0], evaluateAxis(ring, ring.axes[0]),
                                       {Subject::StepsPerUnit, parts * 777.0, ""}),
                     "No single part explains it"));
        QVERIFY(explained(360.0, "degrees typed as turns") && explained(1.0 / 360, "turns typed as degrees"));
        // Agreed to a millionth there is nothing to explain; nor of nothing.
        QVERIFY(crosscheck::explainSteps(ring, ring.axes[0], parts * (1 + 9e-7)).suspects.empty());
        QVERIFY(crosscheck::explainSteps(ring, ring.axes[0], 0.0).suspects.empty());
    }
    void claimsInOtherUnits() {
        const auto read = [](const char* text, AxisKind kind) {
            return crosscheck::readClaims(text, kind).at(0).value;
        };
        VERIFY_NEAR(read("acceleration 2 m/s²", AxisKind::Linear), 2000.0, 1e-9);
        VERIFY_NEAR(read("top speed 0.3 m/s", AxisKind::Linear), 300.0, 1e-9);
        VERIFY_NEAR(read("top speed 30 °/s", AxisKind::Rotary), 30.0, 1e-9);
        VERIFY_NEAR(read("acceleration 0.5 rad/s²", AxisKind::Rotary), 0.5 * 180 / pi, 1e-9);
        VERIFY_NEAR(read("torque .5 Nm;", AxisKind::Rotary), 0.5, 1e-9);
        VERIFY_NEAR(read("speed: -20", AxisKind::Linear), -20.0, 1e-9);
        VERIFY_NEAR(read("current 800 mA,", AxisKind::Linear), 0.8, 1e-9);
        QCOMPARE(crosscheck::readClaims("power 60 W", AxisKind::Linear)[0].subject, Subject::Power);
        QCOMPARE(crosscheck::readClaims("something 60", AxisKind::Linear)[0].subject, Subject::Unknown);
    }
    void finenessThatBuysNothing() {
        Project p = slide();
        AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        e.model.backlash = 10.1 * e.step.value();
        QVERIFY(crosscheck::uselessFineness(e).find("10 times finer") != std::string::npos);
        e.model.backlash = 9.9 * e.step.value();
        QVERIFY(crosscheck::uselessFineness(e).empty());
        e.model.backlash = 0.0;
        QVERIFY(crosscheck::uselessFineness(e).empty());
    }
};

QTEST_APPLESS_MAIN(ClaimsTest)
#include "claims_test.moc"
