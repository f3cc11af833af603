// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/criteria/criteria.h"
#include "core/evaluate/evaluate.h"
#include "core/verdicts/completeness.h"
#include "core/verdicts/later.h"
#include "core/verdicts/rules.h"
#include "support/bare_rigs.h"
#include "support/every_rig.h"
#include "support/hand_rigs.h"
#include "support/near.h"

#include <QTest>
#include <algorithm>

using namespace gantry;
using namespace hand;

/// What verdicts say: which shot or part, with which numbers. A right state with a wrong number in its
/// sentence sends a builder the wrong way.
class SentencesByHandTest : public QObject {
    Q_OBJECT
    static Verdict of(const Project& p, std::string_view rule, int axis = 0) {
        for (const Verdict& v : judge(p, evaluate(p)))
            if (ruleKey(v) == rule && v.axis == axis) return v;
        return {};
    }
    static bool silent(const Project& p, std::string_view rule, int axis = 0) {
        const auto all = judge(p, evaluate(p));
        return std::none_of(all.begin(), all.end(),
                            [&](const Verdict& v) { return ruleKey(v) == rule && v.axis == axis; });
    }
    static double said(const Verdict& v, std::size_t i) { return v.arguments[i].value.valueOr(-1e9); }
    static std::string words(const Verdict& v, const Project& p) {
        return sentence(v, p, units::System::Metric);
    }
    static bool has(const std::string& text, std::string_view piece) {
        return text.find(piece) != std::string::npos;
    }

private slots:
    /// On every rig that ships: where a sentence names what is there and what is allowed in one unit, the
    /// verdict's ratio is the one over the other.
    void ratioIsWhatTheSentenceSays() {
        // Rule, argument that is there or needed, argument that is allowed.
        struct Said {
            const char* rule;
            std::size_t needed, allowed;
        };
        static const Said all[]{
            {"shaft_load", 0, 1},     {"following", 0, 1}, {"binding", 0, 1},      {"buckling", 0, 1},
            {"tooth_strength", 0, 1}, {"balance", 0, 2},   {"bearing_load", 0, 1}, {"grip", 0, 1}};
        std::map<std::string, int> seen;
        const EveryRig rigs;
        for (const Project& p : rigs.projects)
            for (const Verdict& v : judge(p, evaluate(p)))
                for (const Said& s : all) {
                    if (ruleKey(v) != s.rule || !v.ratio || v.arguments[s.allowed].value.valueOr(0.0) <= 0.0)
                        continue;
                    if (v.arguments[s.needed].kind != v.arguments[s.allowed].kind) continue;
                    const double needed = said(v, s.needed), allowed = said(v, s.allowed);
                    if (needed <= 0.0) continue;
                    ++seen[s.rule];
                    QVERIFY2(isNear(v.ratio.value(), allowed / needed, 1e-6),
                             qPrintable(QString::fromStdString(words(v, p)) + " " +
                                        QString::number(v.ratio.value())));
                }
        QVERIFY(seen["shaft_load"] >= 3 && seen["tooth_strength"] >= 3);
    }
    void shaftLoad() {
        Project p = slider();
        p.axes[0].links.clear();
        Stepper& m = std::get<Stepper>(p.axes[0].motor);
        m.body.radialRating.value = 30.0;
        m.body.axialRating.value = 8.0;
        ScrewOutput screw;
        rail(p).output = screw;
        rail(p).slope.value = 0.4;
        const AxisEvaluation e = evaluate(p).axes[0];
        Verdict v = of(p, "shaft_load");
        VERIFY_NEAR(v.ratio.value(), 8.0 / e.checks.shaftAxial.value(), 1e-9);
        VERIFY_NEAR(said(v, 0), e.checks.shaftAxial.value(), 1e-9);
        QCOMPARE(said(v, 1), 8.0);
        QVERIFY(has(words(v, p), "thrusts"));
        BeltOutput belt;
        belt.preload.value = 20.0;
        rail(p).output = belt;
        v = of(p, "shaft_load");
        VERIFY_NEAR(v.ratio.value(), 30.0 / 40.0, 1e-9);
        QCOMPARE(said(v, 0), 40.0);
        QVERIFY(has(words(v, p), "sideways"));
        // What sits on a shaft of its own pulls at none: nothing to say.
        p.axes[0].links = {PlanetaryStage{}};
        QVERIFY(silent(p, "shaft_load"));
    }
    /// Which of two gears is worse, and what it lacks.
    void toothForm() {
        Project p = slider();
        GearStage good;
        good.motorTeeth = 30;
        good.loadTeeth = 90;
        good.module = 1e-3;
        GearStage bad = good;
        bad.motorTeeth = 9;
        bad.loadTeeth = 45;
        p.axes[0].links = {good, bad};
        const Verdict v = of(p, "gear_form");
        const PartCheck part = evaluate(p).axes[0].checks.parts[1];
        QCOMPARE(v.part, std::string("9:45 gear pair")); // the second part
        const double contact = part.contactRatio.value() / criteria::contactRatio;
        VERIFY_NEAR(v.ratio.value(), std::min(part.undercut.value(), contact), 1e-12);
        QVERIFY(v.ratio.value() < 1.0);
        QCOMPARE(v.state, State::Over);
        QVERIFY(part.undercut.value() < contact);
        VERIFY_NEAR(said(v, 0), 1 / part.undercut.value(), 1e-12);
        QVERIFY(has(words(v, p), "escape undercut"));
        p.axes[0].links = {good};
        const Verdict fine = of(p, "gear_form");
        QVERIFY(fine.ratio.value() >= 1.0);
        VERIFY_NEAR(said(fine, 0), fine.ratio.value(), 1e-12);
        QVERIFY(has(words(fine, p), "no undercut"));
    }
    void bindingAndFriction() {
        Project p = slider();
        Guide& guide = rail(p).guide;
        guide.kind = GuideKind::PlainRods;
        guide.wheelbase = 0.1;
        guide.pushOffset = -0.2;
        guide.friction.value = 0.2;
        Verdict v = of(p, "binding");
        QCOMPARE(said(v, 0), 0.2);
        VERIFY_NEAR(said(v, 1), 0.1 / (2 * 0.2), 1e-12);
        VERIFY_NEAR(v.ratio.value(), 0.25 / 0.2, 1e-9);
        // Entered friction that is less than what the guides alone cost is said, and never worse than tight.
        rail(p).runningFriction.value = 5 * g * 0.2 * 0.5;
        v = of(p, "friction_sources");
        QCOMPARE(v.state, State::Tight);
        VERIFY_NEAR(said(v, 1), 5 * g * 0.2, 1e-9);
        VERIFY_NEAR(said(v, 0), 5 * g * 0.1, 1e-9);
        rail(p).runningFriction.value = 5 * g * 0.2 * 1.01;
        QVERIFY(silent(p, "friction_sources"));
    }
    void motorSpeeds() {
        Project p = slider();
        p.axes[0].motor = GearedDc{};
        p.shots.resize(1);
        p.shots[0].keepFramed = false;
        const auto at = [&](double speed) {
            p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{0.4, speed, 0.5}}};
            return evaluate(p).axes[0];
        };
        const double top = at(0.1).checks.motorTopSpeed.value();
        const DriveModel m = at(0.1).model;
        const double lowest = m.lowestSpeed * m.outputPerRad;
        QVERIFY(lowest > 0.0 && lowest < top);
        // Near what still turns evenly its slowness decides; near the top its speed.
        for (const double speed : {1.2 * lowest, 0.8 * lowest, 0.9 * top}) {
            (void)at(speed);
            const Verdict v = of(p, "motor_speed");
            const double up = top / speed, down = speed / lowest;
            VERIFY_NEAR(v.ratio.value(), std::min(up, down), 1e-6);
            VERIFY_NEAR(said(v, 0), speed, 1e-9);
            VERIFY_NEAR(said(v, 1), down < up ? lowest : top, 1e-9);
            QCOMPARE(has(words(v, p), "stutters"), down < up);
        }
        // A servo has no lowest speed; only its top counts.
        p.axes[0].motor = ServoMotor{};
        const AxisEvaluation s = at(0.01);
        VERIFY_NEAR(of(p, "motor_speed").ratio.value(), s.checks.motorTopSpeed.value() / 0.01, 1e-6);
    }
    void followingIsWatchedByAnEncoder() {
        Project p = slider();
        Stepper& m = std::get<Stepper>(p.axes[0].motor);
        m.encoder.fitted = false;
        m.encoder.followingLimit = 0.02;
        QVERIFY(silent(p, "following"));
        m.encoder.fitted = true;
        const Verdict v = of(p, "following");
        QCOMPARE(said(v, 1), 0.02);
        VERIFY_NEAR(v.ratio.value(), 0.02 / said(v, 0), 1e-9);
        m.encoder.corrects = false;
        QVERIFY(has(words(of(p, "following"), p), "stops the axis"));
        m.encoder.corrects = true;
        QVERIFY(has(words(of(p, "following"), p), "makes them up"));
    }
    void lockedByAWorm() {
        Project p = slider();
        rail(p).slope.value = 0.5;
        ScrewOutput screw;
        screw.lead.value = 0.002;
        screw.pitchDiameter.value = 0.011;
        screw.friction.value = 0.3;
        rail(p).output = screw;
        p.axes[0].brake.fitted = false;
        const Verdict v = of(p, "power_off");
        QVERIFY(evaluate(p).axes[0].checks.locks);
        QCOMPARE(v.state, State::Tight);
        QVERIFY(v.hazard && has(words(v, p), "self-locking"));
        VERIFY_NEAR(said(v, 0), 5 * g * std::sin(0.5), 1e-9);
        QCOMPARE(v.ratio.value(), 1.0); // by the thread; friction alone would not
        QVERIFY(!has(words(v, p), "second hold"));
        // Over somebody's head, or with people near, the thread alone is not enough.
        Project over = p;
        over.conditions.speedNearPeople = 0.2;
        QVERIFY(has(words(of(over, "power_off"), over), "second hold"));
        QCOMPARE(of(over, "power_off").state, State::Tight);
        over.conditions.speedNearPeople = 0.0;
        over.conditions.energyNearPeople = 3.0;
        QVERIFY(has(words(of(over, "power_off"), over), "second hold"));
        over = p;
        over.base.kind = BaseKind::Overhead;
        QVERIFY(has(words(of(over, "power_off"), over), "second hold"));
        // Held by its friction as entered, but not by the least that it may be: at risk, and it says by what.
        Project unsure = p;
        auto& thread = std::get<ScrewOutput>(rail(unsure).output);
        thread.lead = estimate(0.004, Source::Counted);
        thread.friction = estimate(0.15, Source::Assumed);
        thread.friction.tolerance = 0.4;
        thread.pitchDiameter = estimate(0.011, Source::Measured);
        const double lead = std::atan(0.004 / (pi * 0.011));
        QVERIFY(std::tan(lead) < 0.15 && std::tan(lead) > 0.09);
        const Assessment a = assess(unsure);
        const auto risk = std::find_if(a.verdicts.begin(), a.verdicts.end(),
                                       [](const Verdict& x) { return ruleKey(x) == "power_off"; });
        QCOMPARE(risk->state, State::AtRisk);
        QVERIFY(has(words(*risk, unsure), "friction"));
        // Where friction holds more than once, the ratio is that.
        rail(p).runningFriction.value = 60.0;
        const double friction = evaluate(p).axes[0].powerOff.friction.value();
        QVERIFY(friction >= 60.0);
        VERIFY_NEAR(of(p, "power_off").ratio.value(), friction / (5 * g * std::sin(0.5)), 1e-9);
    }
    /// A carriage that is said to weigh less than the head on it.
    void movingMassBelowWhatIsListed() {
        Project p = slider(); // 5 kg
        QVERIFY(silent(p, "moving_mass"));
        Axis pan = bareRig(rigs::RigKind::PanTiltHead).axes[0];
        pan.carriesPayload = false;
        pan.id = "head";
        auto& r = std::get<RotaryMechanism>(pan.mechanism);
        r.items.clear();
        r.boom.counterweight.mass.value = 0.0;
        MassItem camera;
        camera.id = "camera";
        camera.along = 0.02;
        camera.mass.value = 4.9;
        r.items.push_back(camera);
        p.axes.push_back(pan);
        QVERIFY(silent(p, "moving_mass"));
        auto& mass = std::get<RotaryMechanism>(p.axes[1].mechanism).items[0].mass.value;
        mass = 8.0;
        const Verdict v = of(p, "moving_mass");
        QCOMPARE(v.state, State::Over);
        const double moving = evaluate(p).axes[0].model.chain.load.inertia;
        VERIFY_NEAR(v.ratio.value(), moving / 8.0, 1e-9);
        VERIFY_NEAR(said(v, 0), moving, 1e-9);
        VERIFY_NEAR(said(v, 1), 8.0, 1e-9);
        // A head may list the same camera again: the heaviest counts, not the sum.
        Axis tilt = p.axes[1];
        tilt.id = "tilt";
        p.axes.push_back(tilt);
        VERIFY_NEAR(of(p, "moving_mass").ratio.value(), moving / 8.0, 1e-9);
        // A slide across it carries its own mass too.
        Project crossed = slider();
        Axis across = crossed.axes[0];
        across.id = "across";
        std::get<LinearMechanism>(across.mechanism).movingMass.value = 9.0;
        crossed.axes.push_back(across);
        VERIFY_NEAR(said(of(crossed, "moving_mass"), 1), 9.0, 1e-9);
        QVERIFY(silent(crossed, "moving_mass", 1));
        // What stands beside it says nothing.
        for (std::size_t a : {1, 2}) p.axes[a].role = Role::Turntable;
        QVERIFY(silent(p, "moving_mass"));
    }
    /// A motor on a knob whose shots lie too far apart, and how much slower its drive ought to be.
    void speedsForOneRatio() {
        Project p = slider();
        GearedDc motor;
        motor.control = SpeedControl::Knob;
        motor.lowestSteady.value = 0.2;
        p.axes[0].motor = motor;
        p.axes[0].driver.maxCurrent = 10.0;
        p.shots.resize(1);
        p.shots[0].keepFramed = false;
        const double top = evaluate(p).axes[0].checks.motorTopSpeed.value();
        p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{0.3, 0.6 * top, 1.0}}};
        QVERIFY(silent(p, "speed_span")); // one speed
        p.shots.push_back(p.shots[0]);
        p.shots[1].id = "creep";
        auto& slow = std::get<BySpeed<AxisKind::Linear>>(p.shots[1].moves[0].movement).speed;
        slow = 0.01 * top;
        const Verdict v = of(p, "speed_span");
        VERIFY_NEAR(said(v, 0), 60.0, 1e-6);
        VERIFY_NEAR(said(v, 1), 5.0, 1e-6);
        VERIFY_NEAR(v.ratio.value(), 5.0 / 60.0, 1e-6);
        QCOMPARE(v.state, State::Over);
        QVERIFY(has(words(v, p), "No single ratio"));
        const Verdict stutters = of(p, "motor_speed");
        VERIFY_NEAR(said(stutters, 2), 1.2 * 0.2 / 0.01, 1e-6);
        QVERIFY(has(words(stutters, p), "24 times slower"));
        slow = 0.3 * top; // steady, and within one ratio
        QVERIFY(of(p, "speed_span").ratio.value() > 2.0);
        QVERIFY(!has(words(of(p, "speed_span"), p), "No single ratio"));
        QVERIFY(!evaluate(p).axes[0].checks.ratioFactor);
    }
    void heightOffTheLine() {
        Project p = jib();
        p.payload.clear();
        boom(p).items[0].above = -0.5;
        boom(p).lowAngle = -0.6;
        boom(p).range = 1.2;
        boom(p).boom.counterweight.mass.value = 6.0;
        boom(p).boom.counterweight.behind = 0.7;
        boom(p).boom.counterweight.above = 0.0;
        boom(p).boom.counterweight.mass.value = evaluate(p).axes[1].structure.balancingMass.value();
        const AxisStructure s = evaluate(p).axes[1].structure;
        QVERIFY(s.offLine.value() < 0.0 && s.unbalanceable.value() > 0.5 * s.gravityWorst.value());
        const Verdict v = of(p, "balance", 1);
        VERIFY_NEAR(said(v, 3), -s.offLine.value(), 1e-12);
        VERIFY_NEAR(said(v, 2), 0.1 * s.frontMoment.value(), 1e-9);
        VERIFY_NEAR(said(v, 0), s.gravityWorst.value(), 1e-12);
        QVERIFY(has(words(v, p), "off the arm line"));
        boom(p).items[0].above = 0.0;
        boom(p).boom.counterweight.mass.value = 6.0;
        const Verdict level = of(p, "balance", 1);
        VERIFY_NEAR(said(level, 3), evaluate(p).axes[1].structure.balancingMass.value(), 1e-12);
        QVERIFY(has(words(level, p), "would balance"));
    }
    /// Focus is lost where the distance to the subject changes by more than half the depth of field, on
    /// whichever side of its middle the slide ends farther out.
    void focusAlongASlide() {
        const auto needed = [](const Project& p) {
            for (const CompletenessLine& l : completeness(p, evaluate(p)))
                if (l.what.text == std::string_view("Follow focus"))
                    return l.state != Completeness::NotNeeded;
            return false;
        };
        Project p = slider();
        p.shots.resize(1);
        Shot& s = p.shots[0];
        s.kind = ShotKind::Live;
        s.keepFramed = true;
        s.subjectDistance = 2.0;
        s.focalLength = 0.05;
        s.moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{0.8, 0.1, 0.5}}};
        for (const double place : {0.0, 0.25, 0.5, 0.75, 1.0, 1.5}) {
            s.subjectPlace = place;
            const double aside = 0.8 * std::max(std::abs(place), std::abs(1 - place));
            const double change = std::sqrt(4 + aside * aside) - 2;
            // 2 N c s²/f² with a circle of a 1500th of the sensor: the f-number at which it just holds.
            const double just = change / 0.5 / (2 * p.camera.sensorWidth / 1500 * 4 / 0.0025);
            s.fNumber = just * 0.98;
            QVERIFY2(needed(p), qPrintable(QString::number(place)));
            s.fNumber = just * 1.02;
            QVERIFY2(!needed(p), qPrintable(QString::number(place)));
        }
        s.fNumber = 0.1;
        s.keepFramed = false;
        QVERIFY(!needed(p));
    }
    /// What counts as a counterweight: a weight, a spring, or something hung behind; each alone.
    void counterweights() {
        const auto there = [](const Project& p) {
            for (const CompletenessLine& l : completeness(p, evaluate(p)))
                if (l.what.text == std::string_view("Counterweight")) return l.state == Completeness::There;
            return false;
        };
        Project p = jib();
        boom(p).boom.counterweight.mass.value = 0.0;
        boom(p).spring.torqueAtLow.value = 0.0;
        QVERIFY(!there(p));
        boom(p).boom.counterweight.mass.value = 0.5;
        QVERIFY(there(p));
        boom(p).boom.counterweight.mass.value = 0.0;
        boom(p).spring.torqueAtLow.value = 0.5;
        QVERIFY(there(p));
        boom(p).spring.torqueAtLow.value = 0.0;
        boom(p).items[0].along = -0.3;
        QVERIFY(there(p));
    }
    /// A later addition rides where the payload rides; without one on every carriage and at each arm's end.
    void laterAdditionGoesWhereThePayloadGoes() {
        Project p = slider();
        for (Axis& a : p.axes) a.carriesPayload = false;
        LaterAxis later;
        later.mass.value = 40.0;
        const Assessment now = assess(p);
        const auto changes = whatChanges(p, now, later);
        Project with = p;
        MassItem item;
        item.id = "x";
        item.mass.value = 40.0;
        rail(with).items.push_back(item);
        const Assessment then = assess(with);
        std::size_t differ = 0;
        for (const Verdict& v : then.verdicts)
            for (const Verdict& b : now.verdicts)
                differ += v.rule == b.rule && v.axis == b.axis && v.state != b.state;
        QVERIFY(differ > 0);
        QCOMPARE(changes.size(), differ);
        p.axes[0].carriesPayload = true; // now it rides as payload, with the same effect on a carriage
        QCOMPARE(whatChanges(p, assess(p), later).size(), differ);
    }
    /// Printed gears are told from bought ones.
    void printedParts() {
        Project p = slider();
        for (const auto& [material, printed] : {std::pair{GearMaterial::PrintedPla, true},
                                                {GearMaterial::PrintedPetg, true},
                                                {GearMaterial::Steel, false}}) {
            GearStage gear;
            gear.material = material;
            p.axes[0].links = {gear};
            const AxisEvaluation e = evaluate(p).axes[0];
            const rules::AxisView view{p, p.axes[0], e};
            QCOMPARE(view.printed(e.checks.parts[0]), printed);
            QVERIFY(!view.printed(e.checks.parts.back())); // the output
        }
    }
};

QTEST_APPLESS_MAIN(SentencesByHandTest)
#include "sentences_by_hand_test.moc"
