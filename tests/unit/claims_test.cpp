// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "support/hand_rigs.h"
#include "support/near.h"
#include "support/told.h"

#include <QTest>
#include <algorithm>
#include <functional>

using namespace gantry;
using namespace hand;

/// What people were told, at the very edge of what is believed; and which exchanged part explains a number of
/// steps.
class ClaimsTest : public QObject {
    Q_OBJECT
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
        const auto amps = [&](double a) { return told::said(p, "current " + told::number(a) + " A"); };
        const auto holds = [&](double a) { return told::plausible(p, "current " + told::number(a) + " A"); };
        QVERIFY(holds(2.0) && holds(2.039) && !holds(2.041));
        QVERIFY(amps(2.041).contains("would run too hot") && !amps(2.039).contains("would run too hot"));
        QVERIFY(amps(2.0).contains("rated 2 A rms, 2.83 A peak"));
        // The peak, give or take 4 %: 2.72 to 2.94.
        QVERIFY(amps(2.73).contains("is its peak") && amps(2.93).contains("is its peak"));
        QVERIFY(!amps(2.70).contains("is its peak") && !amps(2.95).contains("is its peak"));
        p.axes[0].motor = ServoMotor{};
        QVERIFY(told::findings(p, "current 1 A").empty()); // no rms current to compare with
    }
    void speedAtItsEdge() {
        const Project p = slide();
        const auto holds = [&](double mm) { return told::plausible(p, "top speed " + told::number(mm)); };
        const auto says = [&](double mm) { return told::said(p, "top speed " + told::number(mm)); };
        QVERIFY(holds(200) && holds(199.9) && !holds(199.0));
        QVERIFY(says(199.0).contains("too slow: the shots need 200 mm/s") && !says(200).contains("too slow"));
        QVERIFY(says(12000).contains("per minute")); // 60 times what the shots need
        QVERIFY(says(200.0 / 60).contains("a speed per second where one per minute is meant"));
        QVERIFY(!says(200.0 / 30).contains("per minute"));
    }
    void accelerationAtItsEdge() {
        const Project p = slide();
        const double most = evaluateAxis(p, p.axes[0]).shots[0].torque.maxAcceleration.value() * 1e3;
        const auto holds = [&](double mm) { return told::plausible(p, "acceleration " + told::number(mm)); };
        QVERIFY(most > 600);
        QVERIFY(holds(500) && holds(499.6) && !holds(499.0));
        QVERIFY(holds(most * 0.999) && !holds(most * 1.002));
        QVERIFY(told::said(p, "acceleration 500").contains("the shots need 500 mm/s², and the motor gives"));
    }
    void forceAndPowerAtTheirEdges() {
        const Project p = slide();
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        double lossy = e.model.available(0.0) / e.model.outputPerRad;
        for (const auto& s : e.model.chain.stages) lossy *= s.efficiency;
        QVERIFY(told::plausible(p, told::number(lossy * 1.019) + " N"));
        QVERIFY(!told::plausible(p, told::number(lossy * 1.021) + " N"));
        // The most that torque times speed reaches, walked finely.
        double most = 0.0;
        for (double w = 0.0; w < 1000.0; w += 0.5) most = std::max(most, w * e.model.available(w));
        QVERIFY(told::plausible(p, told::number(most * 1.04) + " W"));
        QVERIFY(!told::plausible(p, told::number(most * 1.06) + " W"));
    }
    void stepsAtTheirEdge() {
        const Project p = slide();
        const double parts = evaluate(p).axes[0].steps.stepsPerUnit.value();
        const auto line = [&](double share) { return "steps/mm = " + told::number(parts * share); };
        QVERIFY(told::plausible(p, line(1.00009)) && !told::plausible(p, line(1.00011)));
        QVERIFY(told::said(p, line(2)).contains("It would fit"));
        QVERIFY(told::said(p, line(1.25)).contains("A commanded 100 mm goes 125 mm"));
        Project knob = p;
        knob.axes[0].motor = GearedDc{};
        QVERIFY(told::findings(knob, "steps/mm = 80").empty()); // takes no steps
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
            const auto f = told::explained(p, parts * r.factor);
            const crosscheck::Suspect* s = named(f, r.named);
            QVERIFY2(s != nullptr, r.name);
            QVERIFY2(isNear(s->stepsPerUnit, parts * r.factor, 1e-9) && s->error < 1e-9, r.name);
            QVERIFY2(isNear(s->testMove, 100.0, 1e-9), r.name); // what is commanded is what moves
            QVERIFY2(f.suspects.size() <= 8, r.name);
            // Half a per cent off it still explains the number, more does not.
            QVERIFY2(named(told::explained(p, parts * r.factor * 1.0045), r.named) != nullptr, r.name);
            const auto beyond = told::explained(p, parts * r.factor * 1.0055);
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
            return named(told::explained(ring, parts * factor), what) != nullptr;
        };
        QVERIFY(explained(20.0 / 16, "a pinion with 16 teeth instead of 20"));
        QVERIFY(explained(60.0 / 180, "a ring with 60 teeth instead of 180"));
        QVERIFY(explained(300.0 / 180, "a ring with 300 teeth instead of 180"));
        QVERIFY(explained(pi / 180, "radians typed as degrees") &&
                explained(180 / pi, "degrees typed as radians"));
        QVERIFY(told::explained(ring, parts * 777.0).suspects.empty());
        QVERIFY(!told::said(ring, "steps/° = " + told::number(parts * 777.0)).contains("It would fit"));
        QVERIFY(explained(360.0, "degrees typed as turns") && explained(1.0 / 360, "turns typed as degrees"));
        // Agreed to a millionth there is nothing to explain; nor of nothing.
        QVERIFY(told::explained(ring, parts * (1 + 9e-7)).suspects.empty());
        QVERIFY(told::explained(ring, 0.0).suspects.empty());
    }
};

QTEST_APPLESS_MAIN(ClaimsTest)
#include "claims_test.moc"
