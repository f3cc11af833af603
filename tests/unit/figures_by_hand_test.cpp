// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/criteria/criteria.h"
#include "core/drivetrain/carriage.h"
#include "core/evaluate/evaluate.h"
#include "core/evaluate/rig_setup.h"
#include "core/motor/at_once.h"
#include "core/motor/noise.h"
#include "core/structure/pads.h"
#include "core/structure/section.h"
#include "core/tools/limits.h"
#include "core/units/text.h"
#include "core/verdicts/completeness.h"
#include "core/verdicts/rules.h"
#include "support/bare_rigs.h"
#include "support/hand_rigs.h"
#include "support/near.h"

#include <QTest>
#include <algorithm>

using namespace gantry;
using namespace hand;

/// Figures where nothing is zero, level, alike on both sides or single: there a wrong sign, factor or side
/// shows.
class FiguresByHandTest : public QObject {
    Q_OBJECT
    static AxisEvaluation of(const Project& p, std::size_t axis = 0) { return evaluate(p).axes[axis]; }
    static Project brushed(int motors) {
        Project p = slider();
        p.axes[0].links.clear();
        BeltOutput belt;
        belt.motors = motors;
        rail(p).output = belt;
        rail(p).slope.value = 0.2;
        GearedDc m;
        m.control = SpeedControl::Knob;
        p.axes[0].motor = m;
        return p;
    }

private slots:
    /// Three feet and two weights anywhere: the spread of the feet in a direction, summed foot by foot.
    void padsAskew() {
        const std::vector<structure::Plan> feet{{0.1, 0.2}, {0.9, -0.3}, {-0.4, -0.5}};
        const std::vector<structure::Weight> weights{{7.0, {0.3, 0.4}, 0.8}, {3.0, {-0.5, 0.1}, 1.4}};
        const structure::PadsView view{feet, weights, 4e4};
        const double mx = 0.2, my = -0.2, mass = 10.0;
        const double helps = g * (7 * 0.8 + 3 * 1.4), inertia = 7 * 0.64 + 3 * 1.96;
        for (const double direction : {0.0, 0.7, 2.0}) {
            double spread = 0.0;
            for (const auto& f : feet)
                spread += std::pow((f.x - mx) * std::cos(direction) + (f.y - my) * std::sin(direction), 2);
            const double rocks = std::sqrt((4e4 * spread - helps) / inertia) / (2 * pi),
                         shears = std::sqrt(3 * 4e4 / 3 / mass) / (2 * pi);
            VERIFY_NEAR(structure::swayOnPads(view, direction), 1 / std::hypot(1 / rocks, 1 / shears), 1e-9);
        }
        double softest = 1e9;
        for (int i = 0; i < 3600; ++i)
            softest = std::min(softest, structure::swayOnPads(view, pi * i / 3600));
        VERIFY_NEAR(structure::swayOnPads(view), softest, 1e-5);
        VERIFY_NEAR(structure::bounceOnPads(view), std::sqrt(3 * 4e4 / mass) / (2 * pi), 1e-9);
        double turns = 0.0;
        for (const auto& f : feet) turns += std::pow(f.x - mx, 2) + std::pow(f.y - my, 2);
        const double about = 7 * (0.01 + 0.36) + 3 * (0.49 + 0.09);
        VERIFY_NEAR(structure::turnOnPads(view), std::sqrt(4e4 / 3 * turns / about) / (2 * pi), 1e-9);
    }
    /// Rods and tubes by their radii.
    void roundSections() {
        const auto rods = structure::rodPair(0.02, 0.07);
        const double one = pi * std::pow(0.01, 4) / 4;
        VERIFY_NEAR(rods.area, 2 * pi * 1e-4, 1e-12);
        VERIFY_NEAR(rods.upright, 2 * one, 1e-12);
        VERIFY_NEAR(rods.sideways, 2 * one, 1e-12);
        VERIFY_NEAR(rods.torsion, 4 * one, 1e-12);
        VERIFY_NEAR(rods.uprightEdge, 0.01, 1e-12);
        VERIFY_NEAR(rods.sidewaysEdge, 0.045, 1e-12);
        const auto tube = structure::roundTube(0.05, 0.003);
        const double i = pi / 4 * (std::pow(0.025, 4) - std::pow(0.022, 4));
        VERIFY_NEAR(tube.area, pi * (0.025 * 0.025 - 0.022 * 0.022), 1e-12);
        VERIFY_NEAR(tube.upright, i, 1e-12);
        VERIFY_NEAR(tube.torsion, 2 * i, 1e-12);
        VERIFY_NEAR(structure::roundTube(0.05, 1.0).upright, pi / 4 * std::pow(0.025, 4), 1e-12); // solid
    }
    void bearingsWithoutSign() {
        for (const double along : {3.0, -3.0})
            for (const double across : {2.0, -2.0})
                VERIFY_NEAR(drivetrain::bearingLoad(40.0, along, across, 0.2, 0.1),
                            10.0 + 3.0 / 0.4 + 2.0 / 0.2, 1e-12);
    }
    void noiseTurnsWhereItIsSaid() {
        using motor::NoiseRank;
        QCOMPARE(motor::brushNoise(301.0).rank, NoiseRank::Audible);
        QCOMPARE(motor::brushNoise(300.0).rank, NoiseRank::Quiet);
        VERIFY_NEAR(motor::brushNoise(100.0).frequency, 6 * 100 / (2 * pi), 1e-12);
        QCOMPARE(motor::servoNoise(201.0).rank, NoiseRank::Audible);
        QCOMPARE(motor::servoNoise(200.0).rank, NoiseRank::Quiet);
        VERIFY_NEAR(motor::servoNoise(100.0).frequency, 100 / (2 * pi), 1e-12);
    }
    /// Two motors on one belt: each bears half, and the supply feeds both.
    void twoBrushedMotors() {
        for (const int motors : {1, 2}) {
            const AxisEvaluation e = of(brushed(motors));
            const motor::DcParams& dc = *e.model.dc();
            bool any = false;
            for (const ShotEvaluation& s : e.shots) {
                if (!s.torque.needed) continue;
                any = true;
                const double each = s.torque.needed.value() / motors;
                VERIFY_NEAR(s.sourceCurrent.value(), motors * motor::sourceCurrent(dc, each), 1e-9);
                VERIFY_NEAR(s.knob.setting.value(), motor::dutyFor(dc, s.motion.motorSpeed.value(), each),
                            1e-9);
                VERIFY_NEAR(s.knob.slowest.value(), e.model.lowestSpeed / s.motion.motorSpeed.value(), 1e-9);
            }
            QVERIFY(any);
        }
    }
    void regulatorOfTwo() {
        Project p = brushed(2);
        auto& m = std::get<GearedDc>(p.axes[0].motor);
        m.control = SpeedControl::LinearRegulator;
        m.appliedVoltage = 6.0;
        m.regulatorResistance.value = 12.0;
        const AxisEvaluation e = of(p);
        QVERIFY(e.model.regulated);
        QVERIFY(!e.shots.empty() && e.shots[0].torque.rms);
        for (const ShotEvaluation& s : e.shots)
            if (s.torque.rms) {
                const double current = 2 * motor::motorCurrent(*e.model.dc(), s.torque.rms.value() / 2);
                VERIFY_NEAR(s.regulator.heat.value(),
                            (p.supply.voltage.value - e.model.dc()->voltage) * current, 1e-6);
                VERIFY_NEAR(s.regulator.temperature.value(),
                            p.conditions.ambient + 12 * s.regulator.heat.value(), 1e-9);
            }
    }
    /// A cart on one cord: pulled up it must not outrun what slows it, let down gravity must pull harder than
    /// friction.
    void slackCord() {
        Project p = slider();
        WinchOutput winch;
        winch.closedLoop = false;
        rail(p).output = winch;
        rail(p).slope.value = 0.3;
        rail(p).runningFriction.value = 4.0;
        p.shots.resize(1);
        p.shots[0].keepFramed = false;
        for (const double distance : {0.5, -0.5})
            for (const double slope : {0.3, -0.3}) {
                rail(p).slope.value = slope;
                p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{distance, 0.1, 0.3}}};
                const AxisEvaluation e = of(p);
                const double gravity = 5 * g * std::sin(0.3);
                const double pulls =
                    distance * slope >= 0.0 ? gravity + e.model.friction : gravity - e.model.friction;
                VERIFY_NEAR(e.shots[0].slackDeceleration.value(), pulls / e.model.chain.load.inertia, 1e-9);
            }
        rail(p).runningFriction.value = 500.0; // nothing pulls the cord tight
        p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{0.5, 0.1, 0.3}}};
        QCOMPARE(of(p).shots[0].slackDeceleration.value(), 0.0);
    }
    /// What hangs on nothing weighs nothing; an arm that only swings keeps its bend.
    void levelAndEmpty() {
        Project p = jib();
        p.payload.clear();
        RotaryMechanism& r = boom(p);
        r.items.clear();
        r.boom.section.shape = SectionShape::NotGiven;
        r.unbalance.value = 0.0;
        for (Axis& a : p.axes) a.carriesPayload = false;
        QCOMPARE(of(p, 1).model.gravityLow, 0.0);
        QCOMPARE(of(p, 1).model.gravityHigh, 0.0);
        Project swing = jib();
        swing.axes[1].role = Role::Pan;
        const AxisStructure s = of(swing, 1).structure;
        QVERIFY(s.sag.value() > 0.0);
        QCOMPARE(s.sagShift.value(), 0.0);
        QCOMPARE(s.slopeShift.value(), 0.0);
        QCOMPARE(s.twistShift.value(), 0.0);
        QCOMPARE(s.sagRate.value(), 0.0);
    }
    /// A straight axis on top turns no moment into what carries it; the harder of two ramps is what it feels.
    void whatStandsOnTop() {
        Project p = slider();
        Axis top = p.axes[0];
        top.id = "top";
        p.axes.push_back(top);
        const RigSetup rig = setupOf(p);
        QCOMPARE(rig.masses[0].momentAbove, 0.0);
        p.shots.resize(1);
        p.shots[0].keepFramed = false;
        p.shots[0].moves = {{p.axes[0].id, ByTime<AxisKind::Linear>{0.5, 4.0, 0.5, 1.0}},
                            {"top", BySpeed<AxisKind::Linear>{0.3, 0.1, 0.2}}};
        for (const bool swapped : {false, true}) {
            auto& m = std::get<ByTime<AxisKind::Linear>>(p.shots[0].moves[0].movement);
            if (swapped) m = {0.5, 4.0, 1.0, 0.5};
            const RigSetup moved = setupOf(p);
            const motion::Profile& below = moved.courses[0].at(0).plan.profile;
            QVERIFY(std::abs(below.in.acceleration - below.out.acceleration) > 0.01);
            VERIFY_NEAR(moved.courses[1].at(0).accelerationBelow,
                        std::max(below.in.acceleration, below.out.acceleration), 1e-12);
        }
    }
    /// A balanced boom on a swing is pulled level by its own inertia: the slope of the energy of its
    /// rotation.
    void balancedBoomsAreLevelledBySwinging() {
        Project p = hand::jib();
        RotaryMechanism& r = hand::boom(p);
        r.boom.section.shape = SectionShape::NotGiven;
        r.boom.counterweight.mass.value = 0.0;
        MassItem back = r.items[0];
        r.items[0].along = 1.5;
        r.items[0].mass.value = 4.0;
        back.id = "back";
        back.along = -1.0;
        back.mass.value = 6.0;
        r.items.push_back(back);
        p.payload.clear();
        p.shots.resize(1);
        p.shots[0].keepFramed = false;
        for (const auto& [low, range] : {std::pair{-0.2, 0.5}, {-0.3, 1.4}, {0.9, 0.4}})
            for (const double asked : {0.5, 1.5}) {
                r.lowAngle = low;
                r.range = range;
                p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Rotary>{1.5, asked, 4.0}},
                                    {p.axes[1].id, BySpeed<AxisKind::Rotary>{0.2, 0.05, 0.1}}};
                const Evaluation all = evaluate(p);
                const AxisEvaluation& e = all.axes[1];
                const double rate = all.axes[0].shots.at(0).motion.topSpeed.value();
                const DriveModel& m = e.model;
                QVERIFY(m.carriedMass * m.carriedReach < 1e-9);
                double most = 0.0;
                const double from = m.lowPlace, to = m.lowPlace + m.travel, d = 1e-4;
                for (int i = 0; i <= 400; ++i) {
                    const double at = from + (to - from) * i / 400;
                    const auto energy = [&](double angle) {
                        double sum = 0.0;
                        for (const auto& [mass, place] : {std::pair{4.0, 1.5}, {6.0, -1.0}})
                            sum += 0.5 * mass * std::pow(place * std::cos(angle) * rate, 2);
                        return sum;
                    };
                    most = std::max(most, std::abs(energy(at + d) - energy(at - d)) / (2 * d));
                }
                VERIFY_NEAR(e.shots.at(0).carried.value(), most, 1e-3);
            }
        // Told where it begins, it is looked at there only.
        r.lowAngle = -0.5;
        r.range = 2.0;
        auto& m = std::get<BySpeed<AxisKind::Rotary>>(p.shots[0].moves[1].movement);
        m.placed = true;
        m.start = 0.5;
        const double rate = evaluate(p).axes[0].shots.at(0).motion.topSpeed.value(),
                     inertia = 4.0 * 2.25 + 6.0, angle = 0.2;
        VERIFY_NEAR(evaluate(p).axes[1].shots.at(0).carried.value(),
                    inertia * rate * rate * std::sin(angle) * std::cos(angle), 1e-6);
    }
    /// Between two pictures a hobby servo is off by its dead band and one pulse step, each once.
    void hobbyServosBetweenPictures() {
        Project p = bareRig(rigs::RigKind::PanTiltHead);
        p.axes.resize(1);
        p.axes[0].links.clear();
        HobbyServo servo;
        servo.range = 2.0;
        servo.pulseSpan = 1e-3;
        servo.pulseStep = 1e-5;
        servo.deadBand.value = 4e-6;
        p.axes[0].motor = servo;
        auto& r = std::get<RotaryMechanism>(p.axes[0].mechanism);
        r.output = DirectOutput{assumed(0.0, 0.0)};
        p.shots.resize(1);
        p.shots[0].kind = ShotKind::Interval;
        p.shots[0].frames = 50;
        p.shots[0].keepFramed = false;
        p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Rotary>{0.5, 0.1, 0.1}}};
        for (const double band : {4e-6, 3e-5}) {
            std::get<HobbyServo>(p.axes[0].motor).deadBand.value = band;
            const AxisEvaluation e = evaluate(p).axes[0];
            const ShotEvaluation& s = e.shots.at(0);
            VERIFY_NEAR(s.place.stepping.value(), (band + 1e-5) / 1e-3 * 2.0 * s.pixelsPerUnit, 1e-9);
            VERIFY_NEAR(e.checks.placeError.value(), 0.5 * (band + 1e-5) / 1e-3 * 2.0, 1e-9);
            // Filmed live it moves on by the larger of both, with blur between.
            Project live = p;
            live.shots[0].kind = ShotKind::Live;
            const ShotEvaluation l = evaluate(live).axes[0].shots.at(0);
            QVERIFY(l.place.stepping.value() <= std::max(band, 1e-5) / 1e-3 * 2.0 * l.pixelsPerUnit);
        }
    }
    /// A slide along the lens: how much the subject blurs, and how far a ring has to turn.
    void pushesAlongTheLens() {
        Project p = slider();
        p.shots.resize(1);
        Shot& s = p.shots[0];
        s.keepFramed = false;
        s.subjectDistance = 2.0;
        s.focalLength = 0.05;
        s.fNumber = 2.8;
        s.moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{0.6, 0.1, 0.5}}};
        QVERIFY(!evaluate(p).axes[0].shots[0].focus.blur); // past the subject it has no meaning
        QVERIFY(!hand::verdict(p, "focus_pull"));
        s.towards = true;
        const ShotEvaluation e = evaluate(p).axes[0].shots[0];
        VERIFY_NEAR(e.focus.nearest.value(), 1.4, 1e-12);
        // Thin lens: image distances of both, and the cone of light where the sensor stands.
        const double f = 0.05, at = f * 2.0 / (2.0 - f), to = f * 1.4 / (1.4 - f);
        const double cone =
            (f / 2.8) * std::abs(to - at) / to * p.camera.deliveredWidth / p.camera.sensorWidth;
        VERIFY_NEAR(e.focus.blur.value(), cone, 1e-9);
        QVERIFY(cone > 10.0);
        // Half the picture away from its middle, things run outwards by so much a metre at the near end.
        VERIFY_NEAR(e.pixelsPerUnit, p.camera.deliveredWidth / 2 / 1.4, 1e-12);
        // Nobody has said that nobody pulls it: tight.
        QCOMPARE(hand::verdict(p, "focus_pull")->state, State::Tight);
        const auto told = [&] { return sentence(*hand::verdict(p, "focus_pull"), p, units::System::Metric); };
        QVERIFY(told().find("Pull focus") != std::string::npos);
        s.focalLength = 0.01; // so wide that all of it is sharp: nothing is asked
        s.fNumber = 16.0;
        QVERIFY(told().find("Pull focus") == std::string::npos);
        s.focalLength = 0.05;
        s.fNumber = 2.8;
        // With a focus axis that does not turn it is over; with the right turn it is sharp.
        Axis ring = bareRig(rigs::RigKind::PanTiltHead).axes[0];
        ring.id = "focus";
        ring.role = Role::Focus;
        LensRingOutput marks;
        marks.marks = {{"a", 0.0, 0.5}, {"b", 2.0, 1.0}, {"c", 3.0, 2.5}};
        std::get<RotaryMechanism>(ring.mechanism).output = marks;
        p.axes.push_back(ring);
        // Over 1/distance the marks' chords are −5/3 and −2; Fritsch and Butland's slopes at 1/2.5, 1 and 2
        // are −1.542, −1.805 and −2.208, and the cubic between the first two gives 2.844 and 2.496.
        const double needed = -0.348023507200947;
        const ShotEvaluation still = evaluate(p).axes[0].shots[0];
        VERIFY_NEAR(still.focus.turn.value(), needed, 1e-9);
        VERIFY_NEAR(still.focus.left.value(), cone, 1e-9);
        QCOMPARE(hand::verdict(p, "focus_pull")->state, State::Over);
        s.moves.push_back({"focus", ByTime<AxisKind::Rotary>{needed, 6.0}});
        QVERIFY(evaluate(p).axes[0].shots[0].focus.left.value() < 1e-6);
        // The other way it gets worse.
        std::get<ByTime<AxisKind::Rotary>>(s.moves[1].movement).distance = -needed;
        QVERIFY(evaluate(p).axes[0].shots[0].focus.left.value() > 1.5 * cone);
        // Going back, the nearer end is the beginning.
        s.moves.resize(1);
        std::get<BySpeed<AxisKind::Linear>>(s.moves[0].movement).distance = -0.6;
        VERIFY_NEAR(evaluate(p).axes[0].shots[0].focus.nearest.value(), 2.0, 1e-12);
        VERIFY_NEAR(evaluate(p).axes[0].shots[0].focus.turn.value(),
                    3.0 + 1.5416666666666667 * (0.4 - 1.0 / 2.6) - 2.843928397382345, 1e-9);
        // Into the subject: nothing is claimed.
        s.subjectDistance = 0.5;
        std::get<BySpeed<AxisKind::Linear>>(s.moves[0].movement).distance = 0.6;
        QCOMPARE(evaluate(p).axes[0].shots[0].focus.blur.reason(), Reason::OutOfRange);
        QCOMPARE(hand::verdict(p, "focus_pull")->state, State::Unknown);
    }
    /// Sound by distance: ten decibels, one rank, for each 3.2 times the distance.
    void ranksByDistance() {
        const auto ratio = [](double metres, Silence silence) {
            Project p = slider();
            p.conditions.silence = silence;
            p.conditions.microphoneDistance = metres;
            for (const Verdict& v : judge(p, evaluate(p)))
                if (ruleKey(v) == "noise") return v.ratio.value();
            return 0.0;
        };
        const double one = ratio(1.0, Silence::Silent);
        QVERIFY(one > 0.0);
        for (const auto& [metres, ranks] : {std::pair{0.0, 1.0},
                                            {0.1, 1.0},
                                            {1.0, 1.0},
                                            {3.1, 1.0},
                                            {3.2, 2.0},
                                            {10.0, 3.0},
                                            {32.0, 4.0},
                                            {1000.0, 4.0}}) {
            VERIFY_NEAR(ratio(metres, Silence::Silent), one * ranks, 1e-9);
            VERIFY_NEAR(ratio(metres, Silence::Quiet),
                        one * (metres == 0.1 ? 1.0 : std::min(4.0, ranks + 1.0)), 1e-9);
        }
    }
    /// Only axes that gravity pulls have to say what an emergency stop does.
    void emergencyStopIsAskedOfLoadedAxes() {
        const auto there = [](const Project& p) {
            for (const CompletenessLine& l : completeness(p, evaluate(p)))
                if (l.what.text == std::string_view("Emergency stop, tried"))
                    return l.state == Completeness::There;
            return false;
        };
        Project p = slider();
        Axis level = p.axes[0];
        level.id = "level";
        p.axes.push_back(level);
        rail(p).slope.value = 0.4;
        p.equipment.emergencyStop = true;
        p.axes[0].onStop = OnStop::KeepsHolding;
        p.axes[1].onStop = OnStop::NotAsked;
        QVERIFY(there(p));
        p.axes[0].onStop = OnStop::NotAsked;
        p.axes[1].onStop = OnStop::KeepsHolding;
        QVERIFY(!there(p));
    }
    void numbersWithoutUnit() {
        using namespace units;
        QCOMPARE(formatNumber(0.25, Kind::Length, System::Metric, 3), std::string("250"));
        QCOMPARE(formatNumber(0.0254, Kind::Length, System::Inch, 3), std::string("1"));
    }
    /// A rotor that jumps: from the well of its field against the load that leans on it, by summing the work.
    void jumpOfARotor() {
        for (const double load : {0.0, 0.1, 0.25}) {
            const double amplitude = 0.4, inertia = 5e-5;
            const int teeth = 50;
            // From the balanced place to the one where it would fall over, both at |sin| = load/amplitude.
            const double from = std::asin(load / amplitude), to = pi - from;
            double work = 0.0;
            for (int i = 0; i < 100000; ++i) {
                const double phi = from + (to - from) * (i + 0.5) / 100000;
                work += (amplitude * std::sin(phi) - load) * (to - from) / 100000 / teeth;
            }
            VERIFY_NEAR(motor::catchSpeed(teeth, amplitude, load, inertia), std::sqrt(2 * work / inertia),
                        1e-6);
        }
    }
};

QTEST_APPLESS_MAIN(FiguresByHandTest)
#include "figures_by_hand_test.moc"
