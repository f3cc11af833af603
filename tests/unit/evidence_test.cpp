// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/evidence/fingerprint.h"
#include "core/rigs/rigs.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <functional>

using namespace gantry;

namespace {

struct Change {
    const char* name;
    const char* demo;
    const char* path; ///< of the field that was tested
    std::function<void(Project&)> change;
    std::vector<std::string> stale; ///< what the test then no longer tells of
};

LinearMechanism& slide(Project& p) {
    return std::get<LinearMechanism>(p.axes[0].mechanism);
}
RotaryMechanism& boom(Project& p) {
    return std::get<RotaryMechanism>(p.axes[1].mechanism);
}

constexpr const char *dolly = "slide-and-pan", *jib = "kettle-jib";
constexpr const char *ofSlide = "axes/slide/vibration/frequency_Hz",
                     *ofBoom = "axes/boom/vibration/frequency_Hz";

const std::vector<Change> changes{
    {"nothing", dolly, ofSlide, [](Project&) {}, {}},
    {"a name", dolly, ofSlide, [](Project& p) { p.name = "another"; }, {}},
    {"an item on the carriage",
     dolly,
     ofSlide,
     [](Project& p) {
         slide(p).items.push_back({"lamp", "Lamp", estimate(0.4, Source::Guess)});
     },
     {"mass"}},
    {"mass", dolly, ofSlide, [](Project& p) { slide(p).movingMass.value += 0.1; }, {"mass"}},
    {"mass of another axis",
     dolly,
     "axes/pan/vibration/frequency_Hz",
     [](Project& p) { slide(p).movingMass.value += 0.1; },
     {}},
    {"mass, for a field of no axis",
     dolly,
     "base/mass_kg",
     [](Project& p) { slide(p).movingMass.value += 0.1; },
     {"mass"}},
    {"first stand", dolly, ofSlide, [](Project& p) { slide(p).rail.firstStand += 0.01; }, {"supports"}},
    {"second stand", dolly, ofSlide, [](Project& p) { slide(p).rail.secondStand -= 0.01; }, {"supports"}},
    {"place of the head", dolly, ofSlide, [](Project& p) { slide(p).rail.headAt += 0.01; }, {"supports"}},
    {"kind of support",
     dolly,
     ofSlide,
     [](Project& p) { slide(p).rail.support = RailSupport::OneHead; },
     {"supports"}},
    {"another profile",
     dolly,
     ofSlide,
     [](Project& p) { slide(p).rail.section.height += 0.01; },
     {"supports"}},
    {"the profile turned",
     dolly,
     ofSlide,
     [](Project& p) { slide(p).rail.section.onEdge = !slide(p).rail.section.onEdge; },
     {"supports"}},
    {"height of the mass", dolly, ofSlide, [](Project& p) { slide(p).guide.massHeight += 0.05; }, {"height"}},
    {"column", dolly, ofSlide, [](Project& p) { p.base.height += 0.1; }, {"height"}},
    {"legs", dolly, ofSlide, [](Project& p) { p.base.legRadius += 0.1; }, {"supports"}},
    {"ballast", dolly, ofSlide, [](Project& p) { p.base.ballast.value += 1.0; }, {"supports"}},
    {"ballast on a leg", dolly, ofSlide, [](Project& p) { p.base.ballastLeg = 2; }, {"supports"}},
    {"pads", dolly, ofSlide, [](Project& p) { p.base.padStiffness.value += 1e5; }, {"supports"}},
    {"motor",
     dolly,
     ofSlide,
     [](Project& p) { std::get<Stepper>(p.axes[0].motor).name = "another"; },
     {"motor"}},
    {"lens", dolly, ofSlide, [](Project& p) { p.shots[0].focalLength *= 2.0; }, {"lens"}},
    {"reach of the arm", jib, ofBoom, [](Project& p) { boom(p).boom.reach += 0.1; }, {"supports"}},
    {"place of the counterweight",
     jib,
     ofBoom,
     [](Project& p) { boom(p).boom.counterweight.behind += 0.05; },
     {"supports"}},
    {"mass of the counterweight",
     jib,
     ofBoom,
     [](Project& p) { boom(p).boom.counterweight.mass.value += 0.5; },
     {"mass"}},
    {"an item on the arm",
     jib,
     ofBoom,
     [](Project& p) {
         boom(p).items.push_back({"tray", "Tray", estimate(0.4, Source::Guess)});
     },
     {"mass", "places"}},
    {"the camera's place above the arm",
     jib,
     ofBoom,
     [](Project& p) { boom(p).boom.tipAbove += 0.05; },
     {"height"}},
};

} // namespace

/// What makes a test in the workshop stale; what a battery gives, worked out on paper.
class EvidenceTest : public QObject {
    Q_OBJECT
private slots:
    void stale_data() {
        QTest::addColumn<int>("row");
        for (std::size_t i = 0; i < changes.size(); ++i)
            QTest::newRow(changes[i].name) << static_cast<int>(i);
    }
    void stale() {
        QFETCH(int, row);
        const Change& c = changes[static_cast<std::size_t>(row)];
        Project p = demoProject(c.demo);
        TestRecord test;
        test.path = c.path;
        test.fingerprint = evidence::fingerprint(p, test.path);
        QVERIFY(evidence::changedSince(p, test).empty());
        c.change(p);
        QCOMPARE(evidence::changedSince(p, test), c.stale);
    }
    /// The payload counts for the axis that carries it.
    void payload() {
        for (const bool carries : {true, false}) {
            Project p = demoProject(jib);
            for (Axis& a : p.axes) a.carriesPayload = false;
            p.axes[1].carriesPayload = carries;
            TestRecord test;
            test.path = ofBoom;
            test.fingerprint = evidence::fingerprint(p, test.path);
            p.payload.push_back({"box", "Box", estimate(0.7, Source::Guess)});
            QCOMPARE(evidence::changedSince(p, test).empty(), !carries);
        }
    }
    /// What it says is what stands in the project, so that notes can be read by eye.
    void fingerprintByHand() {
        Project p = demoProject(jib);
        p.shots.resize(2);
        p.shots[0].focalLength = 0.035;
        p.shots[1].focalLength = 0.05;
        p.payload = {{"camera", "Camera", estimate(2.5, Source::Measured)}};
        Axis& axis = p.axes[1];
        axis.carriesPayload = true;
        axis.motor = Stepper{};
        std::get<Stepper>(axis.motor).name = "Long one";
        RotaryMechanism& r = boom(p);
        r.items = {{"tray", "Tray", estimate(0.75, Source::Guess)},
                   {"head", "Head", estimate(1.25, Source::Guess)}};
        r.boom.counterweight.mass.value = 8.5;
        r.boom.counterweight.behind = 0.625;
        r.boom.reach = 1.75;
        r.boom.tipAbove = 0.125;
        r.boom.section = {};
        p.base.kind = BaseKind::Legs;
        p.base.height = 1.5;
        p.base.legRadius = 0.875;
        p.base.ballast.value = 6.0;
        p.base.padStiffness.value = 0.5; // any pad at all counts
        p.base.ballastLeg = 1;
        const std::string tripod = "1";
        QCOMPARE(evidence::fingerprint(p, ofBoom),
                 "height=0.125 1.5;lens=0.035 0.05 ;mass=13 ;motor=Long one ;places=0,0 0,0 0,0 "
                 ";supports=1.75,0.625 " +
                     tripod + ",0.875,6,pads 0.5,leg 1");
        p.base.padStiffness.value = 0.0;
        p.base.ballastLeg = 0;
        axis.carriesPayload = false;
        QCOMPARE(evidence::fingerprint(p, ofBoom),
                 "height=0.125 1.5;lens=0.035 0.05 ;mass=10.5 ;motor=Long one ;places=0,0 0,0 "
                 ";supports=1.75,0.625 " +
                     tripod + ",0.875,6");
        r.items[1].along = 1.5;
        QVERIFY(evidence::fingerprint(p, ofBoom).find("places=0,0 1.5,0 ;") != std::string::npos);
        std::get<Stepper>(axis.motor).name = "A=1;B";
        QVERIFY(evidence::fingerprint(p, ofBoom).find("motor=A_1_B ;") != std::string::npos);
    }
    /// Names may hold what a fingerprint is cut at, and a fingerprint that tells of nothing is stale
    /// throughout.
    void oddNames() {
        Project p = demoProject(dolly);
        std::get<Stepper>(p.axes[0].motor).name = "A=1;mass=99;B";
        TestRecord test;
        test.path = ofSlide;
        test.fingerprint = evidence::fingerprint(p, test.path);
        QCOMPARE(std::count(test.fingerprint.begin(), test.fingerprint.end(), ';'), 4);
        QVERIFY(evidence::changedSince(p, test).empty());
        test.fingerprint = {};
        QCOMPARE(evidence::changedSince(p, test),
                 (std::vector<std::string>{"height", "lens", "mass", "motor", "supports"}));
    }
    /// Whether a rig tips hangs on its feet; what an older note does not tell of does not make it stale.
    void tipTest() {
        const Project before = demoProject(jib);
        TestRecord test;
        test.path = std::string(evidence::tipAngle);
        test.value = 0.2;
        test.fingerprint = evidence::fingerprint(before, test.path);
        const auto changed = [&](auto change) {
            Project p = before;
            change(p.base);
            return evidence::changedSince(p, test);
        };
        const std::vector<std::string> feet{"feet"};
        QCOMPARE(changed([](Base& b) { b.legs += 1; }), feet);
        QCOMPARE(changed([](Base& b) { b.width *= 1.1; }), feet);
        QCOMPARE(changed([](Base& b) { b.length *= 1.1; }), feet);
        QCOMPARE(changed([](Base& b) { b.mass.value += 1.0; }), feet);
        QCOMPARE(changed([](Base& b) { b.massHeight += 0.1; }), feet);
        QCOMPARE(changed([](Base& b) { b.firstLeg += 0.1; }), feet);
        QCOMPARE(changed([](Base& b) { b.groundSlope.value += 0.1; }), feet);
        QCOMPARE(changed([](Base& b) { b.height += 0.1; }), std::vector<std::string>{"height"});
        QCOMPARE(changed([](Base& b) { b.legRadius += 0.1; }), std::vector<std::string>{"supports"});
        QVERIFY(changed([](Base& b) { b.anchorSpread += 0.1; }).empty());
        test.fingerprint = test.fingerprint.substr(test.fingerprint.find("height="));
        QVERIFY(changed([](Base& b) { b.legs += 1; }).empty());
        QCOMPARE(changed([](Base& b) { b.height += 0.1; }), std::vector<std::string>{"height"});
    }
    /// A battery without Peukert's loss gives its usable charge, at the sum of what each axis takes at most.
    void battery() {
        Project p = demoProject(dolly);
        p.supply.capacity = 18000.0;
        p.supply.usable = 0.8;
        for (const double exponent : {1.0, 0.8}) { // less than 1 means nothing and counts as 1
            p.supply.peukert.value = exponent;
            const Evaluation e = evaluate(p);
            double most = 0.0;
            for (const AxisEvaluation& axis : e.axes) {
                double one = 0.0;
                for (const ShotEvaluation& s : axis.shots)
                    one = std::max(one, s.torque.electricalPower.value());
                most += one;
            }
            VERIFY_NEAR(e.supply.power.value(), most, 1e-12);
            VERIFY_NEAR(e.supply.current.value() * e.supply.voltage.value(), most, 1e-9);
            VERIFY_NEAR(e.supply.runTime.value(), 0.8 * 18000.0 / e.supply.current.value(), 1e-9);
        }
        // Drawn faster than it is rated for, it gives less: (rated current over current) to the 0.2.
        p.supply.peukert.value = 1.2;
        const Evaluation e = evaluate(p);
        const double rated = p.supply.capacity / p.supply.ratedTime, drawn = e.supply.current.value();
        VERIFY_NEAR(e.supply.runTime.value(), 0.8 * 18000.0 / drawn * std::pow(rated / drawn, 0.2), 1e-9);
        p.supply.capacity = 0.0;
        QCOMPARE(evaluate(p).supply.runTime.reason(), Reason::NotApplicable);
    }
};

QTEST_APPLESS_MAIN(EvidenceTest)
#include "evidence_test.moc"
