// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/belt.h"
#include "core/drivetrain/gears.h"
#include "core/evaluate/evaluate.h"
#include "core/evidence/fingerprint.h"
#include "core/kinematics/follow.h"
#include "core/motor/dc_torque.h"
#include "core/optics/picture.h"
#include "core/rigs/rigs.h"
#include "core/sampling/confidence.h"
#include "core/tools/curves.h"
#include "core/units/text.h"
#include "core/verdicts/ranges.h"
#include "core/verdicts/rules.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <cmath>

using namespace gantry;

/// Laws that formulas keep whatever their numbers: inverses, continuity, differences instead of derivatives,
/// tables against a handbook's.
class LawsTest : public QObject {
    Q_OBJECT
    static constexpr double pi = 3.14159265358979323846;

private slots:
    /// The Lewis form factor of full-depth teeth at 20°, as handbooks print it.
    void lewisTable() {
        const std::pair<int, double> printed[] = {
            {12, 0.245}, {13, 0.261}, {14, 0.277}, {15, 0.290}, {16, 0.296}, {17, 0.303}, {18, 0.309},
            {19, 0.314}, {20, 0.322}, {21, 0.328}, {22, 0.331}, {24, 0.337}, {26, 0.346}, {28, 0.353},
            {30, 0.359}, {34, 0.371}, {38, 0.384}, {43, 0.397}, {50, 0.409}, {60, 0.422}};
        for (const auto& [teeth, y] : printed) VERIFY_NEAR(drivetrain::lewisFormFactor(teeth), y, 1e-9);
        for (int t = 12; t < 400; ++t)
            QVERIFY(drivetrain::lewisFormFactor(t + 1) >= drivetrain::lewisFormFactor(t));
    }
    /// A 6 mm belt of 2 mm pitch pulls 42 N with six teeth or more in mesh, in proportion below and by width.
    void beltPull() {
        VERIFY_NEAR(drivetrain::allowedBeltPull(0.002, 0.006, 6), 42.0, 1e-9);
        VERIFY_NEAR(drivetrain::allowedBeltPull(0.002, 0.006, 40), 42.0, 1e-9);
        VERIFY_NEAR(drivetrain::allowedBeltPull(0.002, 0.006, 3), 21.0, 1e-9);
        VERIFY_NEAR(drivetrain::allowedBeltPull(0.002, 0.012, 6), 84.0, 1e-9);
        VERIFY_NEAR(drivetrain::allowedBeltPull(0.005, 0.006, 6), 42.0 * std::pow(2.5, 1.47), 1e-9);
    }
    /// Rates and accelerations of pan and tilt by differences of the angles themselves.
    void followingByDifferences() {
        const struct {
            double travel, speed, acceleration, passAt, distance, height;
        } cases[] = {
            {1.0, 0.3, 0.4, 0.5, 0.8, 0.6}, {2.0, 0.5, 0.3, 0.2, 1.5, -0.9}, {0.6, 2.0, 1.0, 0.9, 0.5, 0.3}};
        for (const auto& c : cases) {
            const double v = std::min(c.speed, std::sqrt(c.acceleration * c.travel)),
                         ramp = v / c.acceleration;
            const double time = c.travel / v + ramp;
            const auto place = [&](double t) {
                if (t < ramp) return 0.5 * c.acceleration * t * t;
                if (t > time - ramp) return c.travel - 0.5 * c.acceleration * (time - t) * (time - t);
                return 0.5 * v * ramp + v * (t - ramp);
            };
            const auto pan = [&](double t) { return std::atan2(place(t) - c.passAt, c.distance); };
            const auto tilt = [&](double t) {
                return std::atan2(c.height, std::hypot(place(t) - c.passAt, c.distance));
            };
            double panRate = 0, panAcceleration = 0, tiltRate = 0, tiltAcceleration = 0, low = 9, high = -9;
            constexpr int n = 20000;
            const double h = time / n;
            for (int i = 0; i <= n; ++i) {
                const double t = i * h;
                low = std::min(low, tilt(t));
                high = std::max(high, tilt(t));
                if (i == 0 || i == n) continue;
                panRate = std::max(panRate, std::abs(pan(t + h) - pan(t - h)) / (2 * h));
                tiltRate = std::max(tiltRate, std::abs(tilt(t + h) - tilt(t - h)) / (2 * h));
                // Not across the corners of the ramps, where the acceleration jumps.
                if (std::abs(t - ramp) < 2 * h || std::abs(t - (time - ramp)) < 2 * h) continue;
                panAcceleration =
                    std::max(panAcceleration, std::abs(pan(t + h) - 2 * pan(t) + pan(t - h)) / (h * h));
                tiltAcceleration =
                    std::max(tiltAcceleration, std::abs(tilt(t + h) - 2 * tilt(t) + tilt(t - h)) / (h * h));
            }
            const kinematics::Follow f =
                kinematics::followSubject(c.travel, c.speed, c.acceleration, c.passAt, c.distance, c.height);
            VERIFY_NEAR(f.panRate, panRate, 1e-4);
            VERIFY_NEAR(f.panAcceleration, panAcceleration, 3e-3);
            VERIFY_NEAR(f.tiltRate, tiltRate, 1e-4);
            VERIFY_NEAR(f.tiltAcceleration, tiltAcceleration, 3e-3);
            VERIFY_NEAR(f.panAngle, pan(time) - pan(0), 1e-9);
            VERIFY_NEAR(f.tiltAngle, high - low, 1e-6);
        }
    }
    /// What is left of steps after an exposure is one curve: no jump where half a step falls into it, all of
    /// the step when nothing moves, always less with more steps.
    void steppingIsOneCurve() {
        VERIFY_NEAR(optics::steppingJitter(2.0, 0.0, 0.02), 2.0, 1e-12);
        VERIFY_NEAR(optics::steppingJitter(2.0, 25.0 * (1 - 1e-9), 0.02),
                    optics::steppingJitter(2.0, 25.0 * (1 + 1e-9), 0.02), 1e-6);
        VERIFY_NEAR(optics::steppingJitter(2.0, 25.0, 0.02), 1.0, 1e-6);
        VERIFY_NEAR(optics::steppingJitter(2.0, 500.0, 0.02), 2.0 / 4 / 10, 1e-9); // a quarter over the steps
        double before = 3.0;
        for (double rate = 1.0; rate < 1e4; rate *= 1.3) {
            const double now = optics::steppingJitter(2.0, rate, 0.02);
            QVERIFY(now < before);
            before = now;
        }
    }
    /// The duty that gives a speed under a load gives just that.
    void dutyIsTheInverse() {
        motor::DcParams p;
        p.nominalVoltage = 12.0;
        p.noLoadSpeed = 60.0;
        p.noLoadCurrent = 0.15;
        p.stallCurrent = 3.0;
        p.voltage = 14.0;
        p.sourceResistance = 0.4;
        for (const double speed : {10.0, 25.0, 40.0})
            for (const double torque : {0.0, 0.05, 0.15}) {
                motor::DcParams q = p;
                q.duty = motor::dutyFor(p, speed, torque);
                QVERIFY(q.duty > 0.0 && q.duty < 1.0);
                VERIFY_NEAR(motor::speedUnder(q, torque), speed, 1e-6);
            }
        // Reversed at full speed the supply and what the motor makes add up over the windings: R = 12/3 ohm,
        // and the back-EMF of 60 rad/s is what 0.15 A leave of 12 V.
        const double winding = 4.0, emf = 12.0 - 0.15 * winding;
        VERIFY_NEAR(motor::reversalCurrent(p, 60.0), (14.0 + emf) / (winding + 0.4), 1e-9);
        VERIFY_NEAR(motor::reversalCurrent(p, 0.0), 14.0 / 4.4, 1e-9);
    }
    /// Springs of a rack and its frame in series; its play as it is.
    void rackSprings() {
        Project p = rigs::make(rigs::RigKind::BeltSlider);
        auto& m = std::get<LinearMechanism>(p.axes[0].mechanism);
        RackOutput rack;
        rack.stiffness.value = 2e6;
        rack.backlash.value = 8e-5;
        rack.module.value = 0.001;
        rack.teeth = 20;
        m.output = rack;
        m.frameStiffness.value = 1e6;
        p.axes[0].links.clear();
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        VERIFY_NEAR(e.model.outputStiffness, 1 / (1 / 2e6 + 1 / 1e6), 1e-9);
        VERIFY_NEAR(e.model.backlash, 8e-5, 1e-12);
        VERIFY_NEAR(e.travelPerMotorRev.value(), pi * 0.02, 1e-12);
        // Teeth that meet, by the second: eighty for each turn of the motor.
        GearStage stage;
        stage.id = "pair";
        stage.motorTeeth = 80;
        stage.loadTeeth = 160;
        stage.material = GearMaterial::Steel;
        p.axes[0].links = {stage};
        p.axes[0].motor = ServoMotor{}; // quieter than steel teeth
        const AxisEvaluation geared = evaluateAxis(p, p.axes[0]);
        const ShotEvaluation& s = geared.shots.at(0);
        QCOMPARE(s.noise.reason, motor::NoiseReason::GearWhine);
        VERIFY_NEAR(s.noise.frequency, s.motion.motorSpeed.value() / (2 * pi) * 80, 1e-9);
    }
    /// A boom carried up a slope points so much farther up and down.
    void slopeUnderAnArm() {
        Project p = rigs::make(rigs::RigKind::MultiAxis);
        const auto tilt =
            std::find_if(p.axes.begin(), p.axes.end(), [](const Axis& a) { return a.role == Role::Tilt; });
        QVERIFY(tilt != p.axes.end());
        auto& r = std::get<RotaryMechanism>(tilt->mechanism);
        r.items.clear();
        tilt->carriesPayload = false;
        MassItem camera;
        camera.id = "camera";
        camera.mass.value = 2.0;
        camera.along = 0.1;
        r.items.push_back(camera);
        r.unbalance.value = 0.0;
        r.lowAngle = 0.3;
        r.range = 0.4;
        r.spring.torqueAtLow.value = r.spring.rate.value = 0.0;
        auto& rail = std::get<LinearMechanism>(p.axes[0].mechanism);
        const double full = 2.0 * 9.80665 * 0.1;
        for (const double slope : {0.0, 0.2}) {
            rail.slope.value = slope;
            const AxisEvaluation e = evaluateAxis(p, *tilt);
            VERIFY_NEAR(e.model.gravityHigh, full * std::cos(0.3 - slope), 1e-3);
            VERIFY_NEAR(e.model.gravityLow, full * std::cos(0.7 + slope), 1e-3);
        }
    }
    /// What every drawn rig is short of is short in all of them, and what none is in none. A part that is
    /// weaker than all else decides, whichever it is.
    void confidenceAtItsEnds() {
        const auto of = [](const Project& p) {
            return sampling::confidenceOf(p, 0, sampling::sampleAxis(p, 0, 5, 0, 200));
        };
        Project p = demoProject();
        auto& belt = std::get<BeltOutput>(std::get<LinearMechanism>(p.axes[0].mechanism).output);
        p.controller.pulseCeiling = 100.0;
        VERIFY_NEAR(of(p).exceeds, 1.0, 1e-12);
        p.controller.pulseCeiling = 1e7;
        belt.tensileStiffness.value = 1e9;
        VERIFY_NEAR(of(p).exceeds, 0.0, 1e-12);
        VERIFY_NEAR(of(p).stalls, 0.0, 1e-12);
        belt.tensileStiffness.value = 100.0;
        VERIFY_NEAR(of(p).exceeds, 1.0, 1e-12);
        p.axes[0].driver.runCurrent = 0.01;
        VERIFY_NEAR(of(p).stalls, 1.0, 1e-12);
        double shares = 0.0;
        for (const sampling::Influence& i : of(demoProject()).influences) shares += i.share;
        VERIFY_NEAR(shares, 1.0, 1e-9);
    }
    /// Everything that a test in the workshop hangs on makes it stale, each by its own word; other things do
    /// not.
    void whatMakesATestStale() {
        const Project p = demoProject("kettle-jib");
        TestRecord test;
        test.path = "axes/boom/vibration/frequency_hz";
        test.fingerprint = evidence::fingerprint(p, test.path);
        QVERIFY(evidence::changedSince(p, test).empty());
        const auto boom = [](Project& q) -> Boom& {
            const auto it =
                std::find_if(q.axes.begin(), q.axes.end(), [](const Axis& a) { return a.id == "boom"; });
            return std::get<RotaryMechanism>(it->mechanism).boom;
        };
        const auto says = [&](auto change) {
            Project q = p;
            change(q);
            std::string all;
            for (const std::string& word : evidence::changedSince(q, test)) all += word + ' ';
            return all;
        };
        QCOMPARE(says([&](Project& q) { boom(q).counterweight.mass.value += 1.0; }), "mass ");
        QCOMPARE(says([&](Project& q) { boom(q).counterweight.behind += 0.1; }), "supports ");
        QCOMPARE(says([&](Project& q) { boom(q).reach += 0.1; }), "supports ");
        QCOMPARE(says([&](Project& q) { boom(q).section.onEdge = !boom(q).section.onEdge; }), "supports ");
        QCOMPARE(says([](Project& q) { q.base.padStiffness.value = 0.5 + 2 * q.base.padStiffness.value; }),
                 "supports ");
        QCOMPARE(says([](Project& q) { q.base.ballastLeg += 1; }), "supports ");
        QCOMPARE(says([](Project& q) { q.base.ballast.value += 2.0; }), "supports ");
        QCOMPARE(says([](Project& q) { q.base.height += 0.1; }), "height ");
        QCOMPARE(says([](Project& q) { q.shots[0].focalLength *= 2; }), "lens ");
        QCOMPARE(says([](Project& q) { q.supply.voltage.value += 1.0; }), "");
        // A name with the marks that the text is cut at stays one name.
        Project named = p;
        const auto it =
            std::find_if(named.axes.begin(), named.axes.end(), [](const Axis& a) { return a.id == "boom"; });
        std::visit(
            [](auto& m) {
                if constexpr (requires { m.name; }) m.name = "a=b;mass=3";
            },
            it->motor);
        test.fingerprint = evidence::fingerprint(named, test.path);
        QVERIFY(evidence::changedSince(named, test).empty());
    }
    /// Signs, fractions and lengths in two units.
    void readingNumbers() {
        const auto read = [](const char* text, units::Kind kind) {
            const auto r = units::parse(text, kind, units::System::Metric);
            return std::holds_alternative<double>(r) ? std::get<double>(r) : std::nan("");
        };
        VERIFY_NEAR(read("-2 ft 6 in", units::Kind::Length), -2.5 * 0.3048, 1e-12);
        VERIFY_NEAR(read("2 ft 6 in", units::Kind::Length), 2.5 * 0.3048, 1e-12);
        VERIFY_NEAR(read("-0 ft 6 in", units::Kind::Length), -0.1524, 1e-12);
        VERIFY_NEAR(read("1 1/2 in", units::Kind::Length), 0.0381, 1e-12);
        VERIFY_NEAR(read("3/8 in", units::Kind::Length), 0.009525, 1e-12);
        VERIFY_NEAR(read("12 mm / s", units::Kind::Speed), 0.012, 1e-12);
        VERIFY_NEAR(read("12 W", units::Kind::Power), 12.0, 1e-12);
    }
    /// Curves want a speed and two points.
    void curvesNeedARange() {
        const Project p = demoProject();
        const DriveModel m = evaluateAxis(p, p.axes[0]).model;
        QVERIFY(torqueCurves(m, 100.0, 1).nominal.empty());
        QVERIFY(torqueCurves(m, 0.0, 10).nominal.empty());
        const auto curves = torqueCurves(m, 100.0, 3);
        QCOMPARE(curves.nominal.size(), std::size_t(3));
        VERIFY_NEAR(curves.nominal[1].speed, 50.0, 1e-9);
        VERIFY_NEAR(curves.nominal[2].torque, m.available(100.0), 1e-9);
        VERIFY_NEAR(curves.lowVoltage[2].torque, m.availableAtLowVoltage(100.0), 1e-9);
    }
    /// A range that turns what binds is marked: ramp and break-away near each other change places within the
    /// tolerance of the friction, far from each other they do not.
    void rangesThatSwitch() {
        const auto switches = [](double still) {
            Project p = demoProject();
            p.shots.resize(1);
            auto& m = std::get<LinearMechanism>(p.axes[0].mechanism);
            m.staticFriction = estimate(still, Source::Guess);
            for (const Verdict& v : assess(p).verdicts)
                if (ruleKey(v) == "torque" && v.axis == 0) return std::pair{v.switches, v.sentence};
            return std::pair{false, words::unknownText};
        };
        QCOMPARE(switches(3.0).second, rules::torque.sentences[1]);
        QCOMPARE(switches(30.0).second, rules::torque.sentences[0]);
        QVERIFY(!switches(30.0).first);
        // Where they meet, one of the two sentences gives way to the other.
        double low = 3.0, high = 30.0;
        for (int i = 0; i < 40; ++i) {
            const double middle = 0.5 * (low + high);
            (switches(middle).second == rules::torque.sentences[1] ? low : high) = middle;
        }
        QVERIFY(switches(low * 0.99).first);
        QVERIFY(!switches(low * 0.3).first);
    }
};

QTEST_APPLESS_MAIN(LawsTest)
#include "laws_test.moc"
