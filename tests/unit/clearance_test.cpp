// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/evaluate/pose_search.h"
#include "core/evaluate/rig/beam_view.h"
#include "core/evaluate/setup_of.h"
#include "core/model/fields.h"
#include "core/verdicts/rules.h"
#include "support/bare_rigs.h"
#include "support/hand_rigs.h"
#include "support/near.h"

#include <QTest>
#include <random>

using namespace gantry;

/// What may touch what, on rigs whose angles can be worked on paper.
class ClearanceTest : public QObject {
    Q_OBJECT

    static constexpr double degree = hand::pi / 180;

    static Axis turning(Role role, double low, double high) {
        Project heads = bareRig(rigs::RigKind::PanTiltHead);
        Axis out = heads.axes[0];
        out.id = out.name = role == Role::Pan ? "Pan" : role == Role::Tilt ? "Tilt" : "Roll";
        out.role = role;
        out.carriesPayload = false;
        auto& r = std::get<RotaryMechanism>(out.mechanism);
        r.lowAngle = low;
        r.range = high - low;
        return out;
    }
    /// A long lens over a carriage of 0.6 m: the tilt's axis is 0.18 m above the rail's middle, the
    /// carriage's top 0.03 m, the front of the lens 0.2 m before the axis and 0.08 m across.
    static Project longLens() {
        Project p = hand::slider();
        hand::rail(p).carriageLength = 0.6;
        hand::rail(p).railLength = 1.4;
        p.shots.clear();
        p.axes.push_back(turning(Role::Tilt, -90 * degree, 45 * degree));
        p.head.lensFront.value = 0.2;
        return p;
    }
    static Clearance swept(const Project& p) { return sweepRig(setupOf(p, Courses::No)); }
    static std::string body(const Project& p) {
        const RigSetup rig = setupOf(p, Courses::No);
        return nearestBodyName(rig, sweepRig(rig));
    }
    static std::string with(const Project& p) {
        const RigSetup rig = setupOf(p, Courses::No);
        return obstacleName(rig, sweepRig(rig));
    }
    /// Where a falling function reaches zero.
    template <class F>
    static double zeroOf(F f, double low, double high) {
        for (int i = 0; i < 60; ++i) (f(0.5 * (low + high)) > 0.0 ? low : high) = 0.5 * (low + high);
        return low;
    }

private slots:
    void aLensMeetsItsOwnCarriage() {
        const Project p = longLens();
        const Clearance c = swept(p);
        QVERIFY(c.distance <= 0.0);
        QCOMPARE(c.pair.wanted, 0.01);
        QCOMPARE(body(p), std::string("the lens"));
        // It goes on into the rail, but the carriage is met first.
        QCOMPARE(evaluate(p).rig.clearance.with, std::string("the carriage"));
        QCOMPARE(evaluate(p).rig.clearance.body, std::string("the lens"));
        const RigSetup rig = setupOf(p, Courses::No);
        QCOMPARE(axesBetween(rig, c).front(), 1);
        // The lower edge of its front: 0.18 − 0.2 sin θ − 0.04 cos θ over the rail, 0.04 where it is clear.
        const double clear =
            zeroOf([](double t) { return 0.14 - 0.2 * std::sin(t) - 0.04 * std::cos(t); }, 0.0, 1.0);
        const auto range = clearRange(rig, c, 1);
        QVERIFY(range);
        VERIFY_NEAR(range->low, 90 * degree - clear, 1e-4);
        VERIFY_NEAR(range->high, 135 * degree, 1e-12);
        const auto v = hand::verdict(p, "clearance");
        QVERIFY(v && v->state == State::Over && v->axis == 1);
        const std::string said = sentence(*v, p, units::System::Metric);
        QVERIFY2(said.find("the lens runs into the carriage, Tilt at -") != std::string::npos, said.c_str());
        QVERIFY2(said.find("Tilt has 10 mm of room from -32° to 45°") != std::string::npos, said.c_str());
    }
    void whatIsOfferedClearsIt() {
        const Project p = longLens();
        const Assessment now = assess(p);
        const auto over = std::find_if(now.verdicts.begin(), now.verdicts.end(),
                                       [](const Verdict& v) { return ruleKey(v) == "clearance"; });
        const auto fixes = findFixes(p, now, *over, {}, 9);
        QStringList words;
        for (const Fix& f : fixes) words << QString::fromStdString(describe(f, p, units::System::Metric));
        QVERIFY2(words.contains("Tilt only from -32° to 45°"), qPrintable(words.join("; ")));
        // The edge swings on a circle of √(0.2² + 0.04²) = 0.204 m: 0.064 m are missing, 0.08 m is the next
        // size.
        QVERIFY2(words.contains("a spacer of 80 mm under the head"), qPrintable(words.join("; ")));
        for (const Fix& f : fixes) QVERIFY(f.ratioAfter >= 1.0);
        // The same spacer is not offered once more by another name.
        QCOMPARE(words.filter("80 mm").size(), 1);
    }
    void aTiltThatStopsInTimeIsFine() {
        Project p = longLens();
        auto& r = std::get<RotaryMechanism>(p.axes[1].mechanism);
        r.lowAngle = -31 * degree;
        QVERIFY(swept(p).ratio() >= 1.0);
        r.lowAngle = -33 * degree;
        QVERIFY(swept(p).ratio() < 1.0 && swept(p).ratio() > 0.5);
        QCOMPARE(hand::verdict(p, "clearance")->state, State::Over);
        // Without the tilt nothing can come nearer to what it rides on.
        p.axes.pop_back();
        QCOMPARE(swept(p).pair.obstacle, Obstacle::None);
        QVERIFY(!hand::verdict(p, "clearance"));
    }
    /// Beyond a short carriage the lens goes down beside the rail or onto it.
    void aLensMeetsItsOwnRail() {
        Project p = longLens();
        hand::rail(p).carriageLength = 0.1;
        p.head.lensFront.value = 0.25;
        QCOMPARE(with(p), std::string("the rail"));
        const RigSetup rig = setupOf(p, Courses::No);
        // Profile 0.04 m high: its top is 0.02 m above its middle.
        const double clear =
            zeroOf([](double t) { return 0.15 - 0.25 * std::sin(t) - 0.04 * std::cos(t); }, 0.0, 1.0);
        VERIFY_NEAR(clearRange(rig, sweepRig(rig), 1)->low, 90 * degree - clear, 1e-3);
        // A pan that looks across the rail has nothing under it there.
        p.axes[1] = turning(Role::Tilt, -60 * degree, 0.0);
        p.axes.insert(p.axes.begin() + 1, turning(Role::Pan, 85 * degree, 95 * degree));
        QVERIFY2(swept(p).ratio() > 1.0, qPrintable(QString::number(swept(p).distance)));
    }
    /// A motor under the boom, 0.45 to 0.55 m before the column and 0.25 m below its top.
    void aMotorMeetsTheBoom() {
        Project p = hand::jib();
        PlacedBody motor;
        motor.id = "motor";
        motor.name = "Lift motor";
        motor.along = 0.5;
        motor.above = -0.3;
        motor.length = motor.height = 0.1;
        p.base.bodies = {motor};
        p.base.height = 3.0; // everything else is far below
        auto& r = hand::boom(p);
        r.lowAngle = -40 * degree;
        r.range = 80 * degree;
        auto& swing = std::get<RotaryMechanism>(p.axes[0].mechanism);
        swing.lowAngle = 0.0;
        swing.range = 0.0;
        QCOMPARE(body(p), std::string("the arm"));
        QCOMPARE(with(p), std::string("“Lift motor”"));
        // Its far upper edge from the line of the arm's middle, half of 0.05 m, and 0.01 m of room.
        const double clear =
            zeroOf([](double t) { return 0.25 * std::cos(t) - 0.55 * std::sin(t) - 0.025 - 0.01; }, 0.0, 1.0);
        const RigSetup rig = setupOf(p, Courses::No);
        const Clearance c = sweepRig(rig);
        VERIFY_NEAR(clearRange(rig, c, 1)->low, 40 * degree - clear, 1e-3);
        const std::string said = sentence(*hand::verdict(p, "clearance"), p, units::System::Metric);
        QVERIFY2(said.find("the arm runs into “Lift motor”") != std::string::npos, said.c_str());
        // On the arm itself it goes where the arm goes.
        p.base.bodies.clear();
        r.bodies = {motor};
        QVERIFY(with(p) != "“Lift motor”" && body(p) != "“Lift motor”");
        r.bodies[0].above = -2.8; // a long drop
        QCOMPARE(body(p), std::string("“Lift motor”"));
    }
    void aWeightMeetsTheLegs() {
        Project p = hand::jib();
        auto& r = hand::boom(p);
        r.boom.counterweight.mass.value = 10.0;
        r.boom.counterweight.behind = 0.7;
        r.lowAngle = -20 * degree;
        r.range = 40 * degree;
        p.base.massHeight = 0.5;
        QVERIFY(swept(p).ratio() >= 1.0);
        r.range = 85 * degree;
        const Clearance c = swept(p);
        QVERIFY(c.ratio() < 1.0);
        QCOMPARE(body(p), std::string("the counterweight"));
        // Smaller discs pass.
        r.boom.counterweight.size = 0.02;
        r.boom.rear = 0.1;
        QVERIFY(c.distance < 0.0 && swept(p).distance > 0.0);
    }
    /// A tail of 0.1 m before a wall 0.18 m behind the pivot keeps 0.08 m; nothing of the bracket counts.
    void wallsAndCeilings() {
        Project p = hand::jib();
        p.axes.erase(p.axes.begin() + 1);
        auto& r = std::get<RotaryMechanism>(p.axes[0].mechanism);
        r.boom.section.shape = SectionShape::RoundTube;
        r.boom.section.width = 0.03;
        r.boom.reach = 1.1;
        r.boom.rear = 0.1;
        r.lowAngle = -70 * degree;
        r.range = 140 * degree;
        while (p.axes.size() > 1) p.axes.pop_back();
        p.shots.clear();
        p.base.kind = BaseKind::WallBracket;
        p.base.mount = 0.18;
        QCOMPARE(body(p), std::string("the arm"));
        QCOMPARE(with(p), std::string("the wall"));
        // Turned, a corner of its tail comes a little nearer.
        VERIFY_NEAR(swept(p).distance, 0.18 - std::hypot(0.1, 0.015), 1e-2);
        p.base.mount = 0.12;
        QVERIFY(swept(p).ratio() < 1.0);
        // Under a ceiling it hangs: an arm that rises meets it.
        Project over = hand::jib();
        over.base.kind = BaseKind::Overhead;
        over.base.mount = 0.3;
        hand::boom(over).boom.hangs = true;
        hand::boom(over).lowAngle = 0.0;
        hand::boom(over).range = 20 * degree;
        QCOMPARE(with(over), std::string("the ceiling"));
        QVERIFY(swept(over).distance <= 0.0);
    }
    /// Up a track that lies on the ground all along the ground rises with it.
    void theGroundUnderATrack() {
        Project p = longLens();
        hand::rail(p).rail.support = RailSupport::Bedded;
        hand::rail(p).railLength = 12.0;
        hand::rail(p).slope.value = 6 * degree;
        std::get<RotaryMechanism>(p.axes[1].mechanism).lowAngle = -20 * degree;
        p.base.kind = BaseKind::Rectangle;
        p.base.height = 0.08;
        const Clearance c = swept(p);
        QVERIFY2(c.ratio() >= 1.0, qPrintable(QString::number(c.distance)));
        // The same on stands over level ground lies 0.6 m below it at the low end.
        hand::rail(p).rail.support = RailSupport::OneHead;
        hand::rail(p).rail.headAt = 6.0;
        QCOMPARE(with(p), std::string("the ground"));
        QVERIFY(swept(p).distance < -0.3);
    }
    /// A mast on a carriage is as high as it is said to be, not as a head would stand.
    void assumedMastsRaiseNoAlarm() {
        Project p = hand::jib();
        Axis slide = hand::slider().axes[0];
        p.axes.insert(p.axes.begin(), slide);
        p.base.kind = BaseKind::NotGiven;
        const auto met = [&] { return with(p) == "the rail" || with(p) == "the carriage"; };
        QVERIFY(!met());
        p.head.stand = estimate(0.3, Source::Measured);
        QVERIFY(met() && swept(p).distance <= 0.0);
        p.head.stand = estimate(2.5, Source::Measured);
        QVERIFY(!met());
    }
    void anArmIsNotComparedWithItsColumn() {
        Project p = hand::jib();
        p.base.height = 4.0;
        p.base.massHeight = 0.1;
        hand::boom(p).lowAngle = -88 * degree;
        hand::boom(p).range = 100 * degree;
        const RigSetup rig = setupOf(p, Courses::No);
        const Clearance c = clearanceAt(rig, std::vector<double>{0.0, 0.0});
        QVERIFY2(obstacleName(rig, c) != "the column" || nearestBodyName(rig, c) != "the arm",
                 nearestBodyName(rig, c).c_str());
    }
    /// Legs that begin at the pivot are beside the arm there and no danger to it.
    void legsBesideThePivot() {
        Project p = hand::jib();
        p.base.legRadius = 0.9;
        p.base.height = p.base.massHeight = 1.6;
        hand::boom(p).lowAngle = -8 * degree;
        hand::boom(p).range = 16 * degree;
        QVERIFY2(swept(p).ratio() >= 1.0, (body(p) + " to " + with(p)).c_str());
    }
    /// The wall is behind the pivot, wherever that is; a head's own offsets move the lens.
    void offsetsCount() {
        Project p = hand::jib();
        p.axes.resize(1);
        p.shots.clear();
        auto& r = std::get<RotaryMechanism>(p.axes[0].mechanism);
        r.boom.section.shape = SectionShape::RoundTube;
        r.boom.rear = 0.1;
        p.base.kind = BaseKind::WallBracket;
        const double before = swept(p).distance;
        p.base.columnAhead = 0.3;
        VERIFY_NEAR(swept(p).distance, before, 1e-9);

        Project head = bareRig(rigs::RigKind::PanTiltHead);
        head.axes = {turning(Role::Pan, 0.0, 1.0), turning(Role::Tilt, 0.0, 1.0),
                     turning(Role::Roll, 0.0, 1.0)};
        head.shots.clear();
        head.base.height = 1.0;
        const auto lens = [&](std::vector<double> pose) { return layRig(setupOf(head), pose).camera; };
        head.head.tiltAhead.value = 0.05;
        head.head.rollHeight.value = 0.02;
        head.head.lensLeft.value = 0.03;
        // Pan 0.08 m, tilt 0.14 m, roll 0.02 m higher, the plate 0.06 m lower and the lens as much higher.
        Place at = lens({0.0, 0.0, 0.0});
        QVERIFY(lengthOf(minus(at, {0.05 + 0.09, 0.03, 1.0 + 0.08 + 0.14 + 0.02})) < 1e-12);
        // A quarter turn to the left carries it round the pan's axis.
        at = lens({1.0, 0.0, 0.0});
        QVERIFY(lengthOf(minus(at, {0.14 * std::cos(1.0) - 0.03 * std::sin(1.0),
                                    0.14 * std::sin(1.0) + 0.03 * std::cos(1.0), 1.24})) < 1e-12);
        // Rolled, its left side rises; tilted, it goes round the tilt's axis.
        at = lens({0.0, 0.0, 1.0});
        QVERIFY(lengthOf(minus(at, {0.14, 0.03 * std::cos(1.0), 1.24 + 0.03 * std::sin(1.0)})) < 1e-12);
        at = lens({0.0, 1.0, 0.0});
        QVERIFY(lengthOf(minus(at, {0.05 + 0.09 * std::cos(1.0) - 0.02 * std::sin(1.0), 0.03,
                                    1.22 + 0.09 * std::sin(1.0) + 0.02 * std::cos(1.0)})) < 1e-12);
    }
    /// What is assumed of head and camera decides: it holds as entered, not at the low end.
    void assumedSizesAreARisk() {
        Project p = longLens();
        auto& r = std::get<RotaryMechanism>(p.axes[1].mechanism);
        r.lowAngle = -28 * degree;
        const Assessment now = assess(p);
        const auto v = std::find_if(now.verdicts.begin(), now.verdicts.end(),
                                    [](const Verdict& x) { return ruleKey(x) == "clearance"; });
        QVERIFY2(v->ratio.value() > 1.0 && v->low < 1.0,
                 qPrintable(QString("%1, low %2").arg(v->ratio.value()).arg(v->low)));
        QCOMPARE(v->state, State::AtRisk);
        QVERIFY(!v->deciding.empty() && v->deciding[0].starts_with("head/"));
        for (const UncertainInput& input : uncertainInputsOf(p.head))
            *input.estimate = estimate(input.estimate->value, Source::Counted);
        QVERIFY(hand::verdict(p, "clearance")->state != State::AtRisk);
    }
    /// No random pose of a random rig comes nearer than the search has promised.
    void searchesKeepTheirPromise() {
        std::mt19937 random(20261130);
        const auto within = [&](double low, double high) {
            return std::uniform_real_distribution<double>(low, high)(random);
        };
        int near = 0;
        for (int i = 0; i < 14; ++i) {
            Project p = hand::jib();
            p.axes.resize(2);
            auto& boom = hand::boom(p);
            boom.boom.arm = i % 2 == 0 ? ArmKind::ParallelLinks : ArmKind::Plain;
            boom.boom.counterweight.mass.value = 10.0;
            boom.boom.counterweight.behind = within(0.3, 0.8);
            boom.boom.reach = within(0.6, 2.0);
            boom.lowAngle = -within(0.2, 0.9);
            boom.range = within(0.5, 1.6);
            p.axes.push_back(turning(Role::Pan, -2.0, 2.0));
            p.axes.push_back(turning(Role::Tilt, -within(0.3, 1.5), 0.6));
            p.base.height = within(1.0, 2.0);
            p.base.massHeight = within(0.2, 0.8);
            p.head.lensFront.value = within(0.06, 0.25);
            p.head.tiltAhead.value = within(-0.03, 0.05);
            if (i % 3 == 0) p.axes.insert(p.axes.begin(), hand::slider().axes[0]);
            if (i % 3 == 1)
                p.keepOut.assign(1, {"box", "Box", within(-2, 2), within(-2, 2), within(0, 2),
                                     within(0.1, 0.6), within(0.1, 0.6), within(0.1, 0.6)});
            PlacedBody body{"motor", "Motor", within(0.1, 0.5), within(0.05, 0.2), -within(0.2, 0.5)};
            p.base.bodies = {body};
            const RigSetup rig = setupOf(p, Courses::No);
            const Clearance c = sweepRig(rig);
            const double promised = c.atLeast / c.pair.wanted;
            near += c.ratio() < 3.0;
            double least = 1e9;
            std::vector<double> pose(p.axes.size());
            for (int k = 0; k < 4000; ++k) {
                for (std::size_t a = 0; a < pose.size(); ++a) pose[a] = within(0, usableTravel(p.axes[a]));
                least = std::min(least, clearanceAt(rig, pose).ratio());
            }
            QVERIFY2(c.distance <= 0.0 || least >= std::min(promised, 3.0) - 1e-9,
                     qPrintable(QString("%1: seen %2, promised %3").arg(i).arg(least).arg(promised)));
            if (least <= 0.0) QVERIFY(c.distance <= 0.0 || promised <= 0.0);
        }
        QVERIFY(near > 3);
    }
    /// A room of 2 cm where arm, weight or lens comes in some pose is never promised to be clear, however far
    /// off the poses are that are looked at first.
    void smallThingsAreFound() {
        std::mt19937 random(42);
        const auto within = [&](double low, double high) {
            return std::uniform_real_distribution<double>(low, high)(random);
        };
        for (int i = 0; i < 90; ++i) {
            Project p = hand::jib();
            p.axes.resize(2);
            auto& boom = hand::boom(p);
            boom.boom.arm = i % 2 == 0 ? ArmKind::ParallelLinks : ArmKind::Plain;
            boom.boom.counterweight.mass.value = 10.0;
            boom.boom.counterweight.behind = 0.8;
            boom.lowAngle = -0.2;
            boom.range = 1.0;
            // Every fourth has a long bare tail.
            const bool tail = i % 4 == 1;
            if (tail) {
                boom.boom.counterweight.mass.value = 0.0;
                boom.boom.reach = 0.5;
                boom.boom.rear = 2.0;
            }
            p.base.height = 6.0; // nothing else is near
            p.axes.push_back(turning(Role::Pan, -2.0, 2.0));
            p.axes.push_back(turning(Role::Tilt, -0.2, 0.2));
            p.head.lensFront.value = 0.4;
            std::vector<double> there(p.axes.size());
            for (std::size_t a = 0; a < there.size(); ++a)
                there[a] = within(0.05, 0.95) * usableTravel(p.axes[a]);
            const RigLayout l = layRig(setupOf(p, Courses::No), there);
            Place at = l.camera;
            for (const RigBody& b : l.bodies) {
                if (b.kind == BodyKind::Arm && tail) at = b.from;
                if (b.kind == BodyKind::Counterweight && i % 4 == 2) at = b.to;
            }
            QVERIFY2(swept(p).ratio() > 1.0, (std::to_string(i) + ": " + body(p) + " to " + with(p)).c_str());
            // In space, or as a part of what stands still.
            if (i % 3 == 0)
                p.base.bodies = {PlacedBody{"lamp", "Lamp", at.x, at.y, at.z - 6.0, 0.02, 0.02, 0.02}};
            else
                p.keepOut.assign(1, {"lamp", "Lamp", at.x, at.y, at.z, 0.02, 0.02, 0.02});
            const Clearance c = swept(p);
            QVERIFY2(c.atLeast / c.pair.wanted <= 0.0, qPrintable(QString("%1: %2").arg(i).arg(c.atLeast)));
        }
    }
    /// A search that may not look at everything promises nothing.
    void aSearchThatIsCutShortIsNotWhole() {
        Project p = hand::jib();
        p.axes.push_back(turning(Role::Pan, -2.0, 2.0));
        p.axes.push_back(turning(Role::Tilt, -1.0, 1.0));
        const RigSetup rig = setupOf(p, Courses::No);
        QVERIFY(sweepRig(rig).whole);
        QVERIFY(!sweepRig(rig, 4000, 200).whole);
        QVERIFY(!sweepRig(rig, 10).complete && sweepRig(rig, 10).whole);
    }
    void outlinesOfSections() {
        Section s;
        s.shape = SectionShape::RodPair;
        s.width = 0.012;
        s.spacing = 0.08;
        QCOMPARE(outlineOf(s).width, 0.092);
        QCOMPARE(outlineOf(s).height, 0.012);
        s.shape = SectionShape::RoundTube;
        QCOMPARE(outlineOf(s).height, 0.012);
        s.shape = SectionShape::SolidRectangle;
        s.height = 0.05;
        s.onEdge = true;
        QCOMPARE(outlineOf(s).width, 0.05);
        QCOMPARE(outlineOf(s).height, 0.012);
    }
    /// What a swing lists for its motor of the boom that stands on it is laid once: where the boom is.
    void anArmIsLaidOnce() {
        Project p = hand::jib();
        const RigLayout once = layRig(setupWithMoves(p), shownPose(p.axes));
        std::get<RotaryMechanism>(p.axes[0].mechanism).items = hand::boom(p).items;
        const RigLayout twice = layRig(setupWithMoves(p), shownPose(p.axes));
        VERIFY_NEAR(twice.mass, once.mass, 1e-12);
        VERIFY_NEAR(twice.camera.x, once.camera.x, 1e-12);
        VERIFY_NEAR(twice.centre.x, once.centre.x, 1e-12);
    }
    /// What sits on the rail weighs, tips, bends, and is in the way.
    void loadsOnTheRail() {
        Project p = hand::slider();
        auto& rail = hand::rail(p).rail;
        rail.firstStand = 0.2;
        rail.secondStand = 0.8;
        p.base.kind = BaseKind::Rectangle;
        const Evaluation before = evaluate(p);
        RailLoad battery;
        battery.id = "battery";
        battery.name = "Battery";
        battery.mass = estimate(4.0, Source::Measured);
        battery.at = 1.1;
        rail.loads = {battery};
        const Evaluation after = evaluate(p);
        const double mass = before.rig.mass.value();
        VERIFY_NEAR(after.rig.mass.value(), mass + 4.0, 1e-9);
        // The stands are the middle of the rig, the load 0.6 m from there.
        VERIFY_NEAR(after.rig.centreAlong.value(),
                    (before.rig.centreAlong.value() * mass + 4.0 * 0.6) / (mass + 4.0), 1e-9);
        // About the second stand, the carriage of 5 kg at its end: what is beyond over what is before it.
        const double beam = beamMass(p) / 1.0, out = 0.95 - hand::rail(p).bumperLength - 0.8;
        // Braking there pulls the carriage on, as high as its centre of gravity stands over the rail.
        double ramp = 0.0;
        for (const ShotEvaluation& s : after.axes[0].shots)
            ramp = std::max(ramp, s.motion.acceleration.value());
        const double height = hand::rail(p).guide.massHeight;
        const double over = 5 * out + 4 * 0.3 + beam * 0.2 * 0.1 + 5 * ramp * height / hand::g,
                     holds = beam * 0.8 * 0.4;
        VERIFY_NEAR(after.axes[0].structure.tippingRatio.value(), holds / over, 1e-3);
        QVERIFY(after.axes[0].structure.sag.value() > before.axes[0].structure.sag.value());
        // A load does not travel: what a stop shakes is as before.
        VERIFY_NEAR(after.axes[0].model.chain.load.inertia, before.axes[0].model.chain.load.inertia, 1e-12);
        // Beside the travel it is no obstacle; on the rail the carriage runs into it.
        QVERIFY(swept(p).pair.obstacle == Obstacle::None || swept(p).ratio() >= 1.0);
        rail.loads[0].at = 0.5;
        QCOMPARE(body(p), std::string("the carriage"));
        QCOMPARE(with(p), std::string("“Battery”"));
        const RigSetup rig = setupOf(p, Courses::No);
        // Carriage and load are 0.1 and 0.06 m long, 0.09 m between their middles: 0.41 m from the low end.
        VERIFY_NEAR(clearRange(rig, sweepRig(rig), 0)->high, 0.41 - 0.05 - hand::rail(p).bumperLength, 1e-4);
        rail.loads[0].above = -0.1;
        QVERIFY(swept(p).ratio() >= 1.0);
        rail.loads[0].above = 0.0;
        rail.loads[0].left = 0.2;
        QVERIFY(swept(p).ratio() >= 1.0);
        // Above the carriage it stands in the camera's way.
        rail.loads[0].left = 0.0;
        rail.loads[0].above = 0.12;
        QCOMPARE(body(p), std::string("the camera"));
        for (const RigBody& b : layRig(setupWithMoves(p), shownPose(p.axes)).bodies)
            if (b.kind == BodyKind::Load) QVERIFY(std::abs(b.centre.z - p.base.height - 0.12) < 1e-12);
    }
    /// Loads on a lift's column, and motors at the lens, are there too.
    void loadsOnALiftAndMotorsAtTheLens() {
        Project p = bareRig(rigs::RigKind::LiftColumn);
        p.base.height = 0.4;
        RailLoad motor;
        motor.id = "motor";
        motor.mass = estimate(2.0, Source::Measured);
        motor.at = 0.3;
        motor.above = 0.1;
        const double mass = layRig(setupWithMoves(p), shownPose(p.axes)).mass;
        std::get<LinearMechanism>(p.axes[0].mechanism).rail.loads = {motor};
        const RigLayout l = layRig(setupWithMoves(p), shownPose(p.axes));
        VERIFY_NEAR(l.mass, mass + 2.0, 1e-12);
        int found = 0;
        for (const RigBody& b : l.bodies)
            if (b.kind == BodyKind::Load) {
                ++found;
                QVERIFY(lengthOf(minus(b.centre, {0.1, 0.0, 0.7})) < 1e-12);
            }
        QCOMPARE(found, 1);

        Project head = bareRig(rigs::RigKind::PanTiltHead);
        head.axes = {turning(Role::Pan, 0.0, 3.0), turning(Role::Focus, 0.0, 4.0)};
        head.base.height = 1.0;
        std::get<RotaryMechanism>(head.axes[1].mechanism).bodies = {
            PlacedBody{"motor", "Focus motor", 0.2, 0.1}};
        int turned = 0;
        for (const RigBody& b : layRig(setupOf(head), std::vector<double>{1.0, 0.0}).bodies)
            if (b.kind == BodyKind::Placed) {
                ++turned;
                QVERIFY(lengthOf(minus(b.centre, {0.2 * std::cos(1.0) - 0.1 * std::sin(1.0),
                                                  0.2 * std::sin(1.0) + 0.1 * std::cos(1.0), 1.08})) < 1e-12);
            }
        QCOMPARE(turned, 1);
    }
    /// A search that takes long is left for later, and then nothing is said to be fine.
    void aLongSearchIsLeftForLater() {
        Project p = hand::jib();
        p.axes.push_back(turning(Role::Pan, -170 * degree, 170 * degree));
        p.axes.push_back(turning(Role::Tilt, -80 * degree, 40 * degree));
        p.base.height = 1.75;
        hand::boom(p).lowAngle = -30 * degree;
        hand::boom(p).range = 70 * degree;
        const Evaluation later = evaluate(p, Poses::Later);
        QVERIFY(later.poses == nullptr);
        QCOMPARE(later.rig.clearance.distance.reason(), Reason::NotSearched);
        const Assessment unknown = assess(p, {}, Poses::Later);
        int said = 0;
        for (const Verdict& v : unknown.verdicts)
            if (ruleKey(v) == "clearance") {
                QCOMPARE(v.state, State::Unknown);
                QVERIFY(sentence(v, p, units::System::Metric).find("poses") != std::string::npos);
                ++said;
            }
        QCOMPARE(said, 1);
        // What is known is used as long as nothing that it goes by has changed.
        const auto known = searchPoses(setupOf(p, Courses::No));
        QVERIFY(evaluate(p, Poses::Later, {known, nullptr}).poses == known);
        Project other = p;
        other.payload.clear();
        other.shots.clear();
        QVERIFY(evaluate(other, Poses::Later, {known, nullptr}).poses == known);
        std::vector<std::function<void(Project&)>> moves{
            [](Project& q) { q.head.lensFront.value += 0.001; },
            [](Project& q) { q.base.height += 0.001; },
            [](Project& q) { hand::boom(q).range += 0.001; },
            [](Project& q) { hand::boom(q).boom.reach += 0.001; },
            [](Project& q) { hand::boom(q).boom.arm = ArmKind::ParallelLinks; },
            [](Project& q) { q.keepOut.emplace_back(); },
            [](Project& q) { hand::boom(q).lowAngle += 0.001; },
            [](Project& q) {
                q.base.bodies = {PlacedBody{"motor", "Motor", 0.0, 0.5}};
            },
        };
        for (const auto& move : moves) {
            other = p;
            move(other);
            QVERIFY(evaluate(other, Poses::Later, {known, nullptr}).poses != known);
        }
        // Names too, since the sentence says them.
        p.base.bodies = {PlacedBody{"motor", "Motor", 0.0, 0.5}};
        const auto named = searchPoses(setupOf(p, Courses::No));
        p.base.bodies[0].name = "Other motor";
        QVERIFY(evaluate(p, Poses::Later, {named, nullptr}).poses != named);
        p.base.bodies.clear();
        // Waiting for it gives the same as searching by hand.
        QCOMPARE(evaluate(p).rig.clearance.distance.value(), known->clearance.distance);
    }

private:
    static double beamMass(const Project& p) {
        const RigLayout l = layRig(setupOf(p, Courses::No), shownPose(p.axes));
        for (const RigBody& b : l.bodies)
            if (b.kind == BodyKind::Rail) return b.mass;
        return 0.0;
    }
};

QTEST_APPLESS_MAIN(ClearanceTest)
#include "clearance_test.moc"
