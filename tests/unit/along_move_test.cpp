// SPDX-License-Identifier: GPL-3.0-or-later
// What drives, base, picture and surroundings meet along a move: against Drives' own figures, by hand, and by
// counting.
#include "core/criteria/criteria.h"
#include "core/evaluate/evaluate.h"
#include "core/evaluate/move/axis_move.h"
#include "core/evaluate/move/evaluate_move.h"
#include "core/evaluate/move/move_search.h"
#include "core/evaluate/rig/rig_layout.h"
#include "core/evaluate/rig/rig_sweep.h"
#include "core/optics/picture.h"
#include "core/verdicts/ranges.h"
#include "support/dice.h"
#include "support/moves.h"
#include "support/near.h"

#include <QTest>
#include <numbers>

using namespace gantry;
using namespace rigmoves;
using trajectory::Order;

namespace {

constexpr double pi = std::numbers::pi, g = units::standardGravity;

MoveSearchResults searchOf(const Project& p) {
    const RigSetup rig = setupWithMoves(p);
    return searchMove(rig, p.moves[0], (*rig.planned)[0]);
}
const AxisMoment& hardest(const PlannedMove& m, std::size_t axis) {
    return *std::max_element(m.axes[axis].begin(), m.axes[axis].end(), [](const auto& a, const auto& b) {
        return std::abs(a.carried) < std::abs(b.carried);
    });
}
} // namespace

class AlongMoveTest : public QObject, Dice {
    Q_OBJECT
public:
    AlongMoveTest() : Dice(31) {}

private slots:
    /// The margin is the least of all moments, each looked at by itself, with motors that are short of volts
    /// too.
    void marginIsTheLeastOfAll() {
        int looked = 0, falling = 0;
        for (const char* demo : {"fernhouse-dolly", "kettle-jib", "long-bench"}) {
            const Project entered = demoProject(demo);
            for (const double volts : {1.0, 0.7, 0.5, 0.35, 0.2, 0.1}) {
                Project p = entered;
                p.supply.voltage.value *= volts;
                for (RigMove& move : p.moves)
                    for (KeyPose& pose : move.poses) pose.arrive.time *= 0.5;
                const RigSetup rig = setupWithMoves(p);
                for (std::size_t axis = 0; axis < p.axes.size(); ++axis) {
                    const AxisEvaluation e = evaluateAxis(rig, axis);
                    for (const AxisMoveResults& r : e.moves) {
                        const PlannedMove& m = (*rig.planned)[r.move];
                        if (!r.margin || !m.moves(axis) || r.starts || e.model.layerSpread() > 1.0) continue;
                        double least = 1e6, first = 0.0;
                        for (const AxisMoment& moment : m.axes[axis]) {
                            if (stands(moment, m.topSpeeds[axis])) continue;
                            const double margin =
                                e.model.available(std::abs(moment.speed) / e.model.outputPerRad) /
                                torqueAt(e.model, moment);
                            if (first == 0.0) first = margin;
                            least = std::min(least, margin);
                        }
                        ++looked;
                        falling += least < 0.95 * first;
                        VERIFY_NEAR(r.margin.value(), least, 1e-12 * least);
                    }
                }
            }
        }
        QVERIFY(looked > 15);
        QVERIFY(falling > 5); // otherwise the first moment alone would do
    }
    /// A slide that runs alone asks of its motor what Drives says of the same speed and acceleration.
    void torqueIsThatOfDrives() {
        Project p = rigWithMove(demoProject());
        std::get<LinearMechanism>(p.axes[0].mechanism).slope = estimate(0.12, Source::Measured);
        auto places = half(p);
        places[0] = 0.1;
        pose(p, places);
        places[0] = 0.8;
        pose(p, places, 5.0);
        const RigSetup rig = setupWithMoves(p);
        const PlannedMove& m = (*rig.planned)[0];
        const AxisEvaluation e = evaluateAxis(rig, 0);
        QCOMPARE(e.moves.size(), std::size_t(1));
        const double speed = m.plan.trajectory.extremes(0, Order::Speed).largest(),
                     rise = m.plan.trajectory.extremes(0, Order::Acceleration).largest();
        QVERIFY(speed > 0.1 && rise > 0.1);
        // Uphill, speeding up at the end of the ramp: the moment that Drives looks at, at both its ends.
        double most = 0.0;
        for (const AxisMoment& moment : m.axes[0]) {
            VERIFY_NEAR_ABS(moment.carried, 0.0, 1e-9);
            most = std::max(most, torqueAt(e.model, moment));
            VERIFY_NEAR(
                torqueAt(e.model, {0, 0, moment.speed, moment.acceleration}),
                std::abs(drivetrain::motorTorque(e.model.chain, moment.speed / e.model.outputPerRad,
                                                 moment.acceleration / e.model.outputPerRad,
                                                 moment.speed > 0.0 || moment.acceleration >= 0.0 ? 1 : -1)),
                1e-12);
        }
        QVERIFY(most <= e.model.rampTorque(speed, rise) * (1.0 + 1e-12));
        QVERIFY(most > 0.9 * e.model.rampTorque(0.5 * speed, rise));
        // Least of all moments is what is told, and low-end judgement moves it.
        const AxisMoveResults& r = e.moves[0];
        QVERIFY(r.margin.value() <= e.model.available(speed / e.model.outputPerRad) / most * 1.001 ||
                r.starts);
        VERIFY_NEAR(r.margin.value(), r.available.value() / r.needed.value(), 1e-12);
        VERIFY_NEAR(r.pulseRate.value(), speed / e.model.microstep(), 1e-12);
        const Assessment now = assess(p);
        const std::optional<Verdict> v = verdictOf(now, "move_torque", 0);
        QVERIFY(v);
        QVERIFY(v->low < v->ratio.value());
    }
    /// An arm on a jib is held against the weight of the angle where it is, not against the worst of its
    /// range.
    void weightIsThatOfThePlace() {
        Project p = rigWithMove(demoProject("kettle-jib"));
        const std::size_t boom = axisOf(p, Role::BoomTilt);
        auto places = half(p);
        places[boom] = 0.1 * usableTravel(p.axes[boom]);
        pose(p, places);
        places[boom] = 0.9 * usableTravel(p.axes[boom]);
        pose(p, places, 60.0);
        const RigSetup rig = setupWithMoves(p);
        const DriveModel& model = evaluateAxis(rig, boom).model;
        const auto& r = std::get<RotaryMechanism>(p.axes[boom].mechanism);
        int looked = 0;
        for (const AxisMoment& moment : (*rig.planned)[0].axes[boom]) {
            if (std::abs(moment.acceleration) > 1e-12 || moment.speed == 0.0) continue;
            ++looked;
            // Σ m g x cos φ − Σ m g h sin φ of what the arm lists, its friction, all over its ratio.
            const double angle = r.lowAngle + moment.place;
            drivetrain::Chain chain = model.chain;
            chain.load.steady = structure::gravityTorque(rig.masses[boom].own, angle) + r.unbalance.value -
                                (r.spring.torqueAtLow.value + r.spring.rate.value * (angle - r.lowAngle));
            VERIFY_NEAR(torqueAt(model, moment),
                        std::abs(drivetrain::motorTorque(chain, moment.speed / model.outputPerRad, 0.0, 1)),
                        1e-9);
        }
        QVERIFY(looked > 10);
    }
    /// A swing that turns under an arm pulls it level, and what the arm does while it turns is felt below.
    void axesFeelEachOther() {
        Project p = rigWithMove(demoProject("kettle-jib"));
        const std::size_t swing = axisOf(p, Role::Swing), boom = axisOf(p, Role::BoomTilt);
        auto& arm = std::get<RotaryMechanism>(p.axes[boom].mechanism);
        arm.boom.arm = ArmKind::Plain;
        for (std::size_t a = 0; a < p.axes.size(); ++a)
            if (a != swing && a != boom) std::get<RotaryMechanism>(p.axes[a].mechanism).items.clear();
        auto places = half(p);
        places[swing] = 0.2;
        places[boom] = 0.2 * usableTravel(p.axes[boom]);
        pose(p, places);
        places[swing] = 2.2;
        places[boom] += 0.3;
        pose(p, places, 6.0);
        const RigSetup rig = setupWithMoves(p);
        const PlannedMove& m = (*rig.planned)[0];
        // By hand, of the arm's own list: Σ m ρ² sin φ cos φ with each mass at its own angle above the arm.
        double checked = 0.0;
        for (std::size_t i = 0; i < m.axes[boom].size(); ++i) {
            const AxisMoment &now = m.axes[boom][i], &turns = m.axes[swing][i];
            double pull = 0.0, round = 0.0, twist = 0.0;
            for (const structure::ArmMass& mass : rig.masses[boom].own) {
                const double phi = arm.lowAngle + now.place,
                             out = mass.along * std::cos(phi) - mass.above * std::sin(phi),
                             up = mass.along * std::sin(phi) + mass.above * std::cos(phi);
                pull += mass.mass * out * up + mass.own * std::sin(phi) * std::cos(phi);
                // Along the arm's circle a mass moves out by −up · φ', while it goes round.
                twist += mass.mass * 2.0 * out * -up - 2.0 * mass.own * std::sin(phi) * std::cos(phi);
                round += mass.mass * out * out;
            }
            VERIFY_NEAR_ABS(now.carried, pull * turns.speed * turns.speed, 1e-6);
            VERIFY_NEAR_ABS(turns.carried, twist * turns.speed * now.speed, 1e-6);
            checked = std::max(checked, std::abs(now.carried));
            QVERIFY(round > 0.0);
        }
        QVERIFY(checked > 0.01);
    }
    /// A carriage that speeds up under a tilt whose camera stands above its axis.
    void rampsReachTheHead() {
        Project p = rigWithMove(demoProject());
        // The pan of the dolly as a tilt with its weight 8 cm above.
        p.axes[1].role = Role::Tilt;
        auto& tilt = std::get<RotaryMechanism>(p.axes[1].mechanism);
        tilt.lowAngle = 0.0;
        MassItem camera;
        camera.id = "camera";
        camera.mass = assumed(2.0, 0.1);
        camera.above = 0.08;
        tilt.items = {camera};
        p.axes[1].carriesPayload = false;
        std::get<LinearMechanism>(p.axes[0].mechanism).slope = estimate(0.0, Source::Measured);
        pose(p, {0.1, 0.0});
        pose(p, {0.8, 0.4}, 4.0);
        const RigSetup rig = setupWithMoves(p);
        const PlannedMove& m = (*rig.planned)[0];
        double most = 0.0;
        for (std::size_t i = 0; i < m.axes[1].size(); ++i) {
            const AxisMoment &head = m.axes[1][i], &slide = m.axes[0][i];
            // The mass at (−h sin φ, h cos φ): pushed back by m a, it turns the head down behind its axis.
            VERIFY_NEAR_ABS(head.carried, -2.0 * 0.08 * std::cos(head.place) * slide.acceleration, 1e-9);
            // And the head's own turning pushes the carriage: m h (−cos φ φ" + sin φ φ'²).
            VERIFY_NEAR_ABS(slide.carried,
                            2.0 * 0.08 *
                                (-std::cos(head.place) * head.acceleration +
                                 std::sin(head.place) * head.speed * head.speed),
                            1e-9);
            most = std::max(most, std::abs(head.carried));
        }
        QVERIFY(most > 0.01);
        QVERIFY(std::abs(hardest(m, 1).carried) == most);
    }
    /// The base of a rig whose whole weight moves as one: m g b against m a h.
    void tippingByHand() {
        using namespace structure;
        const Footprint feet{{{0.3, 0.2}, {-0.3, 0.2}, {-0.3, -0.2}, {0.3, -0.2}}, 0.0, 0.0};
        const Weight one[]{{10.0, {0.05, 0.0}, 1.1}};
        const InSpace forwards[]{{1.5, 0.0, 0.0}};
        // Speeding up to the front it goes over the back edge, 0.35 m from the weight.
        const auto t = tippingMoving(feet, one, forwards, {});
        VERIFY_NEAR(t->ratio, g * 0.35 / (1.5 * 1.1), 1e-12);
        // Upwards it weighs more; what would tip is nothing then.
        const InSpace upwards[]{{0.0, 0.0, 2.0}};
        VERIFY_NEAR(tippingMoving(feet, one, upwards, {})->ratio, 1e6, 1e-12);
        // Downwards at an edge that it stands outside of by nothing: less weight to hold it.
        const InSpace downwards[]{{0.0, 0.0, -2.0}};
        VERIFY_NEAR(tippingMoving(feet, one, downwards, {})->ratio, g / 2.0, 1e-12);
        // Two masses that hold each other back push nobody.
        const Weight two[]{{5.0, {0.0, 0.0}, 1.0}, {5.0, {0.0, 0.0}, 1.0}};
        const InSpace apart[]{{2.0, 0.0, 0.0}, {-2.0, 0.0, 0.0}};
        VERIFY_NEAR(tippingMoving(feet, two, apart, {})->ratio, 1e6, 1e-12);
    }
    /// A slide's ramp against the same forces put together by hand from the bodies of the rig.
    void baseMeetsTheRamp() {
        Project p = rigWithMove(demoProject());
        p.conditions.windSpeed = 0.0;
        p.base.sidePush = estimate(0.0, Source::Measured);
        p.base.groundSlope = estimate(0.0, Source::Measured);
        std::get<LinearMechanism>(p.axes[0].mechanism).slope = estimate(0.0, Source::Measured);
        pose(p, {0.1, 1.5});
        pose(p, {0.8, 1.5}, 2.5);
        const Evaluation e = evaluate(p);
        const RigSetup rig = setupWithMoves(p);
        const PlannedMove& m = (*rig.planned)[0];
        double least = 1e6;
        for (const AxisMoment& moment : m.axes[0]) {
            const RigLayout laid = layRig(rig, std::vector<double>{moment.place, 1.5});
            double xLow = 1e6, xHigh = -1e6, push = 0.0;
            for (const structure::Plan& foot : laid.feet) {
                xLow = std::min(xLow, foot.x);
                xHigh = std::max(xHigh, foot.x);
            }
            for (const RigBody& b : laid.bodies)
                if (b.link >= 0) push += b.mass * moment.acceleration * b.centre.z;
            if (moment.acceleration == 0.0) continue;
            // Speeding up forwards it goes over the back edge: what stands beyond that edge helps to.
            double holds = 0.0, tips = std::abs(push);
            for (const RigBody& b : laid.bodies) {
                const double inside = push > 0.0 ? b.centre.x - xLow : xHigh - b.centre.x;
                (inside >= 0.0 ? holds : tips) += b.mass * g * std::abs(inside);
            }
            least = std::min(least, holds / tips);
        }
        QVERIFY(least < 100.0);
        VERIFY_NEAR(e.moves[0].tipping.value(), least, 1e-6);
    }
    /// Something thin across the way is found, though no frame stands in it.
    void nothingThinIsMissed() {
        Project p = rigWithMove(demoProject());
        pose(p, {0.1, 1.5});
        pose(p, {0.85, 1.5}, 1.5);
        const RigLayout laid = layRig(setupOf(p, Courses::No), std::vector<double>{0.5, 1.5});
        KeepOut wire;
        wire.id = "wire";
        wire.name = "Wire";
        wire.x = laid.camera.x;
        wire.y = laid.camera.y + 0.005;
        wire.z = laid.camera.z;
        wire.length = 0.001;
        wire.width = 0.4;
        wire.height = 0.4;
        p.keepOut = {wire};
        const MoveSearchResults found = searchOf(p);
        QVERIFY(found.clearance.value() <= 0.0);
        QCOMPARE(found.with, std::string("“Wire”"));
        // Beside the way it is as far as the closest of many looks says, and no nearer.
        p.keepOut[0].y += 0.55;
        const RigSetup rig = setupWithMoves(p);
        const PlannedMove& m = (*rig.planned)[0];
        const MoveSearchResults beside = searchOf(p);
        double nearest = 1e6;
        for (int i = 0; i <= 4000; ++i) {
            const double t = m.plan.trajectory.duration() * i / 4000.0;
            nearest =
                std::min(nearest, clearanceAt(rig, std::vector<double>{m.plan.trajectory.at(0, t).place,
                                                                       m.plan.trajectory.at(1, t).place})
                                      .distance);
        }
        QVERIFY(nearest > 0.0);
        QVERIFY2(beside.clearance.value() >= nearest - 1e-9 &&
                     beside.clearance.value() <= nearest + 0.1 * beside.wanted.value() + 1e-9,
                 qPrintable(QString("%1 %2").arg(beside.clearance.value()).arg(nearest)));
        const Assessment now = assess(p);
        const std::optional<Verdict> v = verdictOf(now, "move_clearance");
        QVERIFY(v);
        VERIFY_NEAR(v->ratio.value(), beside.clearance.value() / beside.wanted.value(), 1e-9);
    }
    /// A camera that looks down at its own rail sees it, and one that looks up sees nothing of the rig.
    void ownPartsAreSeen() {
        Project p = rigWithMove(demoProject());
        p.axes[1].role = Role::Tilt;
        auto& tilt = std::get<RotaryMechanism>(p.axes[1].mechanism);
        tilt.lowAngle = -1.2;
        tilt.range = 2.0;
        pose(p, {0.2, 0.1});
        pose(p, {0.7, 1.7}, 6.0);
        const MoveSearchResults found = searchOf(p);
        QVERIFY(found.view.value() > 0.02);
        VERIFY_NEAR_ABS(found.viewFrom.value(), 0.0, 1e-9);
        QVERIFY(found.viewTo.value() < 6.0);
        QVERIFY(!found.inView.empty());
        // The last frame in which it is seen, counted in steps of a frame.
        const double frames = found.viewTo.value() * p.shots[0].frameRate;
        VERIFY_NEAR_ABS(frames, std::round(frames), 1e-6);
        p.moves[0].poses.clear();
        pose(p, {0.2, 1.8});
        pose(p, {0.7, 1.95}, 6.0);
        QCOMPARE(searchOf(p).view.value(), 0.0);
        QVERIFY(!verdictOf(assess(p), "move_own_parts"));
    }
    /// A move that gives a shot its figures: Drives judges what the move does, not what Brief says.
    void movesRealiseShots() {
        Project p = rigWithMove(demoProject());
        pose(p, {0.1, 1.0});
        pose(p, {0.7, 1.8}, 3.0);
        const Evaluation before = evaluate(p);
        p.moves[0].realises = true;
        const Evaluation after = evaluate(p);
        const trajectory::Trajectory& t = (*after.planned)[0].plan.trajectory;
        for (std::size_t a : {std::size_t(0), std::size_t(1)}) {
            const auto shot = std::find_if(
                after.axes[a].shots.begin(), after.axes[a].shots.end(),
                [&](const ShotEvaluation& s) { return p.shots[s.shot.at()].id == p.moves[0].shot; });
            QVERIFY(shot != after.axes[a].shots.end());
            QVERIFY(shot->fromMove);
            VERIFY_NEAR(shot->motion.topSpeed.value(), t.extremes(a, Order::Speed).largest(), 1e-12);
            VERIFY_NEAR(shot->motion.acceleration.value(), t.extremes(a, Order::Acceleration).largest(),
                        1e-12);
            VERIFY_NEAR(shot->motion.time.value(), 3.0, 1e-12);
            VERIFY_NEAR(shot->distance.value(), a == 0 ? 0.6 : 0.8, 1e-9);
            // Along the move it never asks more than the shot with all its worst together.
            QVERIFY(after.axes[a].moves[0].margin.value() >= shot->torque.margin.value() * (1.0 - 1e-9));
        }
        QVERIFY(before.axes[0].shots[0].motion.topSpeed.value() !=
                after.axes[0].shots[0].motion.topSpeed.value());
        QVERIFY(!before.axes[0].shots[0].fromMove);
        // A longer time of the move makes Drives' figure smaller.
        p.moves[0].poses[1].arrive.time = 6.0;
        QVERIFY(evaluate(p).axes[0].shots[0].motion.topSpeed.value() <
                after.axes[0].shots[0].motion.topSpeed.value());
    }
    /// A pan that begins and ends within a longer slide.
    void blocksByHand() {
        Project p = rigWithMove(demoProject());
        pose(p, {0.1, 1.0});
        pose(p, {0.7, 1.0}, 8.0);
        AxisBlock block;
        block.id = "turn";
        block.axis = p.axes[1].id;
        block.start = 2.0;
        block.length = 3.0;
        block.byAngle = 0.6;
        p.moves[0].blocks = {block};
        const PlannedMove planned = planOf(p);
        const trajectory::Trajectory& t = planned.plan.trajectory;
        QVERIFY(planned.plan.troubles.empty());
        VERIFY_NEAR(t.at(1, 1.99).place, 1.0, 1e-12);
        VERIFY_NEAR(t.at(1, 3.5).place, 1.3, 1e-9); // its middle
        VERIFY_NEAR(t.at(1, 3.5).speed, 0.6 / (3.0 * 0.75), 1e-9);
        VERIFY_NEAR(t.at(1, 5.01).place, 1.6, 1e-9);
        VERIFY_NEAR(t.at(1, 8.0).place, 1.6, 1e-9);
        VERIFY_NEAR(planned.plan.poses[1][1], 1.6, 1e-9);
        // The slide is as it was without.
        Project without = p;
        without.moves[0].blocks.clear();
        const PlannedMove plain = planOf(without);
        for (int i = 0; i <= 80; ++i) {
            const auto a = t.at(0, 0.1 * i), b = plain.plan.trajectory.at(0, 0.1 * i);
            VERIFY_NEAR_ABS(a.place, b.place, 1e-12);
            VERIFY_NEAR_ABS(a.speed, b.speed, 1e-9);
            VERIFY_NEAR_ABS(a.acceleration, b.acceleration, 1e-7);
        }
        // Its limits are judged with the segment that it runs in.
        p.moves[0].blocks[0].length = 0.2;
        const PlannedMove quick = planOf(p);
        QCOMPARE(quick.plan.segments[0].binds.axis, std::size_t(1));
        QVERIFY(quick.plan.segments[0].binds.stretch > 1.0);
        // On its way back the move undoes what the block did.
        p.moves[0].blocks[0].length = 3.0;
        p.moves[0].comesBack = true;
        const PlannedMove round = planOf(p);
        const trajectory::Trajectory& back = round.plan.trajectory;
        VERIFY_NEAR(back.at(1, back.duration()).place, 1.0, 1e-9);
        VERIFY_NEAR(back.at(0, back.duration()).place, 0.1, 1e-9);
    }
    void blocksThatCannotRun() {
        Project p = rigWithMove(demoProject());
        pose(p, {0.1, 1.0});
        pose(p, {0.7, 1.0}, 8.0);
        AxisBlock block;
        block.axis = p.axes[1].id;
        const auto says = [&](std::vector<AxisBlock> blocks, MoveTroubleKind kind) {
            p.moves[0].blocks = std::move(blocks);
            const auto troubles = planOf(p).plan.troubles;
            return troubles.size() == 1 && troubles[0].kind == kind;
        };
        block.id = "a";
        block.start = 7.0;
        QVERIFY(says({block}, MoveTroubleKind::BlockPastEnd));
        AxisBlock second = block;
        block.start = 1.0;
        second.id = "b";
        second.start = 2.5;
        QVERIFY(says({block, second}, MoveTroubleKind::BlocksOverlap));
        block.axis = p.axes[0].id;
        QVERIFY(says({block}, MoveTroubleKind::BlockOnMoved));
        // What is wrong is said in words, by name and time.
        QVERIFY(
            sentence(*verdictOf(assess(p), "move_plan"), p, units::System::Metric).find("block of Slide") !=
            std::string::npos);
        removeAxis(p, 0);
        QVERIFY(p.moves[0].blocks.empty());
    }

    /// The worked cases of a focus that is pulled past a target: slide and aim planned as a move.
    void focusFollowsTheAim() {
        Project p = rigWithMove(demoProject());
        addAxis(p, Role::Focus);
        const std::size_t focus = axisOf(p, Role::Focus);
        QVERIFY(focus < p.axes.size());
        auto& rotary = std::get<RotaryMechanism>(p.axes[focus].mechanism);
        if (!std::holds_alternative<LensRingOutput>(rotary.output)) rotary.output = LensRingOutput();
        auto& ring = std::get<LensRingOutput>(rotary.output);
        ring.steadyElectronics = true;
        ring.marks.clear();
        const double distances[]{0.45, 0.5, 0.6, 0.8, 1.0, 1.5, 2.0, 3.0, 5.0, 10.0},
            angles[]{6.0, 5.3333, 4.3636, 3.2, 2.5263, 1.6552, 1.2308, 0.8136, 0.4848, 0.2412};
        for (int i = 0; i < 10; ++i) ring.marks.push_back({"m" + std::to_string(i), angles[i], distances[i]});
        ring.ringThrow = 6.1;
        rotary.range = 6.1;
        addTarget(p, 0, 0.0, 1.1, 1.0);
        auto places = half(p);
        places[0] = 0.1;
        pose(p, places);
        places[0] = 0.85;
        pose(p, places, 8.0);
        p.moves[0].poses[1].arrive.kind = SegmentKind::Aimed;
        p.moves[0].poses[1].arrive.target = p.moves[0].targets[0].id;
        const PlannedMove m = planOf(p);
        QVERIFY(m.scene.focus.has_value());
        QVERIFY(m.plan.troubles.empty());
        const trajectory::Trajectory& t = m.plan.trajectory;
        for (int i = 0; i <= 200; ++i) {
            const double at = t.duration() * i / 200.0;
            const kinematics::InPicture seen = targetSeen(m.scene, p.moves[0].targets[0], t, at);
            VERIFY_NEAR(m.scene.focus->ring.distanceAt(t.at(focus, at).place),
                        seen.depth + m.scene.pupilToSensor, 2e-4);
        }
        const Evaluation e = evaluate(p);
        QVERIFY(e.moves[0].focusBlur.value() < 0.05);
        // Left alone the lens stays where the first pose has it, and the blur is that of the thin lens.
        p.moves[0].poses[1].arrive.pullsFocus = false;
        const Evaluation left = evaluate(p);
        QVERIFY(left.moves[0].focusBlur.value() > 1.0);
        const MoveResults& r = left.moves[0];
        VERIFY_NEAR(r.focusBlur.value(),
                    optics::defocusPixels(p.shots[0].focalLength, p.shots[0].fNumber, r.focusedAt.value(),
                                          std::abs(1.0 / r.targetAt.value() - 1.0 / r.focusedAt.value()),
                                          p.camera.deliveredWidth / p.camera.sensorWidth),
                    1e-9);
        // A distance given in the poses is taken to the ring.
        p.moves[0].poses[1].arrive.kind = SegmentKind::Straight;
        p.moves[0].poses[0].focus = 2.0;
        p.moves[0].poses[1].focus = 0.8;
        const PlannedMove given = planOf(p);
        VERIFY_NEAR(given.plan.poses[0][focus], 1.2308, 1e-9);
        VERIFY_NEAR(given.plan.poses[1][focus], 3.2, 1e-9);
        ring.steadyElectronics = false;
        const PlannedMove without = planOf(p);
        QVERIFY(std::any_of(without.plan.troubles.begin(), without.plan.troubles.end(),
                            [](const MoveTrouble& x) { return x.kind == MoveTroubleKind::NoFocusScale; }));
    }
    /// Worked cases: depth along the lens and ring angle of a slide past a target.
    void pullsOfTheWorkedCases() {
        int cases = 0;
        for (const nlohmann::json& c : referenceCases("t23_lens", "pull")) {
            ++cases;
            const nlohmann::json &in = c["inputs"], &out = c["expected"];
            std::vector<optics::FocusMark> marks;
            for (std::size_t i = 0; i < in["marks"].size(); ++i)
                marks.push_back({in["angles"][i], in["marks"][i].is_null()
                                                      ? std::numeric_limits<double>::infinity()
                                                      : in["marks"][i].get<double>()});
            const optics::FocusRing ring = optics::FocusRing::of(marks).value();
            // A pan on a slide whose lens turns about its pupil.
            kinematics::Link slide, pan;
            slide.joint = kinematics::Joint::Along;
            slide.axis = 0;
            slide.direction = {1.0, 0.0, 0.0};
            pan.on = 0;
            pan.joint = kinematics::Joint::Yaw;
            pan.axis = 1;
            const std::vector<kinematics::Link> links{slide, pan};
            kinematics::Head head;
            head.pan = 1;
            head.lens = 1;
            double fastest = 0.0;
            const auto at = [&](double t) {
                const double T = in["T"], s = t / T;
                const double D = in["D"], x0 = in["x0"];
                const double x = x0 + D * s * s * s * (10 - 15 * s + 6 * s * s),
                             v = D / T * 30 * s * s * (1 - s) * (1 - s),
                             a = D / T / T * 60 * s * (1 - s) * (1 - 2 * s);
                const kinematics::Point point{{0.0, in["distance"].get<double>(), 0.0}, {}, {}};
                kinematics::Aim aim{{in["u"].get<double>(), 0.0}, in["focal_px"].get<double>(), false};
                std::vector<double> places{x, 0.0}, speeds{v, 0.0}, rises{a, 0.0};
                const auto aimed = kinematics::aimAt(links, head, places, point.at, aim);
                places[1] = aimed.pan;
                const auto by = kinematics::ratesToHold(links, head, {places, speeds, rises}, point, aim);
                speeds[1] = by->pan;
                rises[1] = by->panRises;
                std::vector<kinematics::Moving> moving(2);
                kinematics::forwardMotion(links, {places, speeds, rises}, moving);
                const auto seen = kinematics::pictureOf(moving[1], point, {aim.focal});
                const double far = seen.depth + in["entrance_to_sensor"].get<double>();
                const optics::RingMotion m = ring.at(far, seen.depthSpeed, seen.depthRises);
                fastest = std::max(fastest, std::abs(m.rate));
                return std::pair{far, m.angle};
            };
            for (std::size_t i = 0; i < in["at"].size(); ++i) {
                const auto [far, angle] = at(in["at"][i]);
                VERIFY_NEAR(far, out["focus_distance"][i].get<double>(), 1e-9);
                VERIFY_NEAR(angle, out["angle"][i].get<double>(), 1e-6);
            }
            for (int i = 1; i < 4000; ++i) at(in["T"].get<double>() * i / 4000.0);
            VERIFY_NEAR(fastest, out["peak_rate"].get<double>(), 1e-4);
        }
        QCOMPARE(cases > 0, true);
    }
    /// How long a band is stayed in: by a movement whose speed is known.
    void staysByHand() {
        Project p = rigWithMove(demoProject());
        pose(p, {0.1, 1.0});
        pose(p, {0.7, 1.0}, 6.0);
        const RigSetup rig = setupWithMoves(p);
        const PlannedMove& m = (*rig.planned)[0];
        const AxisEvaluation e = evaluateAxis(rig, 0);
        RotorResonance band;
        const double top = m.plan.trajectory.extremes(0, Order::Speed).largest();
        const auto stay = [&](double low, double high) {
            band.low = Figure::of(low);
            band.high = Figure::of(high);
            return evaluateAxisMove(e.model, band, m, 0, 0).stay.value();
        };
        const auto counted = [&](double low, double high) {
            double longest = 0.0, now = 0.0;
            constexpr int looks = 60000;
            for (int i = 0; i < looks; ++i) {
                const double v = std::abs(m.plan.trajectory.at(0, 6.0 * i / looks).speed);
                now = v >= low && v <= high ? now + 6.0 / looks : 0.0;
                longest = std::max(longest, now);
            }
            return longest;
        };
        for (const auto& [low, high] :
             {std::pair{0.5, 1.1}, {0.2, 0.3}, {0.05, 0.1}, {0.9, 0.95}, {1.2, 2.0}})
            VERIFY_NEAR_ABS(stay(low * top, high * top), counted(low * top, high * top), 0.02);
        QCOMPARE(stay(1.2 * top, 2.0 * top), 0.0);
    }
};

QTEST_APPLESS_MAIN(AlongMoveTest)
#include "along_move_test.moc"
