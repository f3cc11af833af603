// SPDX-License-Identifier: GPL-3.0-or-later
// How a move begins, keeps even, turns with its subject and ends in an emergency: each against what comes out
// on paper.
#include "core/evaluate/evaluate.h"
#include "core/evaluate/move/evaluate_move.h"
#include "core/tools/carry_lens.h"
#include "core/tools/target_from_views.h"
#include "core/verdicts/fix.h"
#include "support/dice.h"
#include "support/moves.h"
#include "support/near.h"

#include <QTest>
#include <numbers>

using namespace gantry;
using namespace rigmoves;
using trajectory::Order;

namespace {

constexpr double pi = std::numbers::pi;

/// A slide and a pan, with a turntable beside them on which a target stands 0.3 m from the middle.
Project turning() {
    Project p = demoProject();
    Axis table = p.axes[1];
    table.id = "table";
    table.name = "Table";
    table.role = Role::Turntable;
    table.carriesPayload = false;
    p.axes.push_back(table);
    p = rigWithMove(p);
    auto places = half(p);
    places[0] = 0.2;
    places[2] = 0.5;
    pose(p, places);
    places[0] = 0.7;
    places[2] = 2.5;
    pose(p, places, 8.0);
    addTarget(p, 0, 0.6, 2.0, 1.0);
    rideOn(p, 0, 0, "table");
    p.moves[0].targets[0].aboutX = 0.3;
    return p;
}

} // namespace

class MoveWaysTest : public QObject, Dice {
    Q_OBJECT
public:
    MoveWaysTest() : Dice(47) {}

private slots:
    /// A target on a turntable goes round a circle; its speed and acceleration are those of the way.
    void targetsRide() {
        const Project p = turning();
        QVERIFY(inconsistencies(p).empty());
        const PlannedMove m = planOf(p);
        const AimTarget& target = p.moves[0].targets[0];
        const trajectory::Trajectory& t = m.plan.trajectory;
        const auto at = [&](double time) {
            return pointOf(m.scene, target, statesAt(m.scene, t, time).motion());
        };
        // By hand: half a radian on it is on its circle of 0.3 m.
        VERIFY_NEAR(at(0.0).at.x, 0.3 + 0.3 * std::cos(0.5), 1e-12);
        VERIFY_NEAR(at(0.0).at.y, 2.0 + 0.3 * std::sin(0.5), 1e-12);
        VERIFY_NEAR(at(8.0).at.y, 2.0 + 0.3 * std::sin(2.5), 1e-9);
        for (const double time : {1.3, 3.9, 6.1}) {
            constexpr double h = 1e-4;
            const auto b = at(time - h), n = at(time), a = at(time + h);
            VERIFY_NEAR_ABS(n.velocity.x, (a.at.x - b.at.x) / (2 * h), 1e-6);
            VERIFY_NEAR_ABS(n.velocity.y, (a.at.y - b.at.y) / (2 * h), 1e-6);
            VERIFY_NEAR_ABS(n.acceleration.x, (a.velocity.x - b.velocity.x) / (2 * h), 1e-5);
            VERIFY_NEAR_ABS(n.acceleration.y, (a.velocity.y - b.velocity.y) / (2 * h), 1e-5);
        }
        // Dragged to where it is, it stays where it was entered.
        const std::vector<double> places = statesAt(m.scene, t, 5.0).places;
        const geometry::Place back = ridingBack(m.scene, target, places, at(5.0).at);
        VERIFY_NEAR(back.x, target.x, 1e-9);
        VERIFY_NEAR(back.y, target.y, 1e-9);
    }
    /// Aimed at, it is held while the table turns under it; a block of the table would break that.
    void ridingTargetsAreHeld() {
        Project p = turning();
        p.moves[0].poses[1].arrive.kind = SegmentKind::Aimed;
        p.moves[0].poses[1].arrive.target = p.moves[0].targets[0].id;
        PlannedMove m = planOf(p);
        QVERIFY(m.plan.troubles.empty());
        // Without a tilt the pan alone holds it: across.
        for (int i = 0; i <= 200; ++i)
            VERIFY_NEAR_ABS(targetSeen(m.scene, p.moves[0].targets[0], m.plan.trajectory, 8.0 * i / 200).u,
                            0.0, 0.05);
        // It is the turning that is followed: with the table at rest the pan runs another way.
        Project still = p;
        for (KeyPose& each : still.moves[0].poses)
            std::get<AxisPlace<AxisKind::Rotary>>(each.places[2].place).at = 0.5;
        const double end = planOf(still).plan.trajectory.at(1, 8.0).place;
        QVERIFY(std::abs(end - m.plan.trajectory.at(1, 8.0).place) > 0.05);
        AxisBlock block;
        block.id = "b";
        block.axis = "table";
        block.length = 1.0;
        still.moves[0].blocks.push_back(block);
        QVERIFY(says(planOf(still).plan, MoveTroubleKind::BlockOnMoved));
        // A target that names no turntable is refused, and one whose turntable goes stands still.
        p.moves[0].targets[0].rides = "slide";
        QCOMPARE(inconsistencies(p).size(), std::size_t(1));
        p.moves[0].targets[0].rides = "table";
        removeAxis(p, 2);
        QVERIFY(p.moves[0].targets[0].rides.empty());
        QVERIFY(inconsistencies(p).empty());
    }
    /// The lens of a boom runs at one speed between its ramps, whatever the axes do; so does a target in the
    /// picture.
    void evenSpeeds() {
        Project p = rigWithMove(demoProject("kettle-jib"));
        const std::size_t boom = axisOf(p, Role::BoomTilt), swing = axisOf(p, Role::Swing);
        auto places = half(p);
        places[boom] *= 0.6;
        pose(p, places);
        places[boom] = 0.9 * usableTravel(p.axes[boom]);
        if (swing < p.axes.size()) places[swing] += 0.5;
        pose(p, places, 20.0);
        {
            // Near, and off to the side of where the camera looks.
            const MoveScene scene = sceneOf(setupOf(p, Courses::No), p.moves[0]);
            const geometry::Frame lens = cameraAt(scene, {half(p), {}, {}}).frame;
            const geometry::Place at = plus(plus(lens.at, lens.ahead, 1.6), lens.left, 0.4);
            addTarget(p, 0, at.x, at.y, at.z);
        }
        MoveSegment& s = p.moves[0].poses[1].arrive;
        s.ease = EaseKind::S;
        const auto speeds = [&](const PlannedMove& m, bool picture) {
            double least = 1e9, most = 0.0;
            for (int i = 0; i <= 60; ++i) {
                const double at = 20.0 * (0.27 + 0.46 * i / 60); // between the ramps
                const kinematics::InPicture seen =
                    targetSeen(m.scene, p.moves[0].targets[0], m.plan.trajectory, at);
                const double v = picture
                                     ? std::hypot(seen.uSpeed, seen.vSpeed)
                                     : geometry::lengthOf(cameraAt(m.scene, m.plan.trajectory, at).velocity);
                least = std::min(least, v);
                most = std::max(most, v);
            }
            return std::pair(least, most);
        };
        const auto [slow, fast] = speeds(planOf(p), true);
        QVERIFY(fast > 1.03 * slow); // as the axes run, the picture does not run evenly
        for (const EvenSpeed even : {EvenSpeed::Lens, EvenSpeed::Picture}) {
            s.even = even;
            const PlannedMove m = planOf(p);
            QVERIFY(m.plan.troubles.empty());
            VERIFY_NEAR(m.plan.trajectory.duration(), 20.0, 1e-12);
            for (std::size_t a = 0; a < p.axes.size(); ++a)
                VERIFY_NEAR_ABS(m.plan.trajectory.at(a, 20.0).place, m.plan.poses[1][a], 1e-9);
            const auto [least, most] = speeds(m, even == EvenSpeed::Picture);
            QVERIFY2(most < 1.002 * least, qPrintable(QStringLiteral("%1 to %2").arg(least).arg(most)));
        }
        // At a speed of one axis, that axis has it at most; and as fast as it may, some axis is at its limit.
        s.even = EvenSpeed::Lens;
        s.pace = SegmentPace::Speed;
        s.speedOf = p.axes[boom].id;
        s.angularSpeed = 0.03;
        VERIFY_NEAR(planOf(p).plan.trajectory.extremes(boom, Order::Speed).largest(), 0.03, 1e-9);
        s.pace = SegmentPace::Fastest;
        const PlannedMove m = planOf(p);
        VERIFY_NEAR(trajectory::binding(m.plan.trajectory, m.scene.limits).stretch, 1.0, 1e-9);
    }
    void whatCannotBeEven() {
        Project p = rigWithMove(demoProject());
        auto places = half(p);
        places[0] = 0.1;
        pose(p, places);
        places[0] = 0.5;
        pose(p, places);
        places[0] = 0.8;
        pose(p, places);
        MoveSegment& s = p.moves[0].poses[1].arrive;
        s.even = EvenSpeed::Picture;
        QVERIFY(says(planOf(p).plan, MoveTroubleKind::StandsInPicture)); // no target
        addTarget(p, 0, 0.4, 2.0, 1.0);
        QVERIFY(planOf(p).plan.troubles.empty());
        s.kind = SegmentKind::Aimed;
        s.target = p.moves[0].targets[0].id;
        QVERIFY(says(planOf(p).plan, MoveTroubleKind::StandsInPicture)); // held
        s.kind = SegmentKind::Straight;
        s.even = EvenSpeed::Lens;
        QVERIFY(planOf(p).plan.troubles.empty());
        p.moves[0].poses[1].passes = true;
        QVERIFY(says(planOf(p).plan, MoveTroubleKind::EvenPassing));
        // A roll about the lens carries it nowhere.
        Project rolling = demoProject();
        addAxis(rolling, Role::Roll);
        rolling = rigWithMove(rolling);
        auto turned = half(rolling);
        pose(rolling, turned);
        turned.back() += 0.4;
        pose(rolling, turned);
        QVERIFY(planOf(rolling).plan.troubles.empty());
        rolling.moves[0].poses[1].arrive.even = EvenSpeed::Lens;
        QVERIFY(says(planOf(rolling).plan, MoveTroubleKind::LensStands));
    }
    /// What starts at once asks for more than any axis has, and says so; nothing of its shot is without a
    /// number.
    void startsAtOnce() {
        Project p = rigWithMove(demoProject());
        auto places = half(p);
        places[0] = 0.1;
        pose(p, places);
        places[0] = 0.6;
        pose(p, places, 5.0);
        p.moves[0].realises = true;
        p.moves[0].poses[1].arrive.easeIn = p.moves[0].poses[1].arrive.easeOut = 0.0;
        const Assessment now = assess(p);
        const std::optional<Verdict> v = verdictOf(now, "move_limits");
        QVERIFY(v && v->state == State::Over);
        // 0.5 m at an even speed, reached in 5 ms by an S.
        VERIFY_NEAR(now.evaluation.moves[0].axes[0].acceleration.value(), 2.0 * (0.5 / 4.995) / 5e-3, 1e-6);
        for (const ShotEvaluation& s : now.evaluation.axes[0].shots)
            QVERIFY(s.motion.time && s.torque.needed && s.torque.rms && s.motion.topSpeed);
        QVERIFY(!findFixes(p, now, *v, {}).empty());
    }
    /// Room before the first pose, by hand.
    void backlashIsTakenUp() {
        Project p = rigWithMove(demoProject());
        auto places = half(p);
        places[0] = 0.1;
        pose(p, places);
        places[0] = 0.6;
        pose(p, places, 20.0);
        Assessment now = assess(p);
        const double backlash = now.evaluation.axes[0].model.backlash;
        QVERIFY(backlash > 0.0);
        VERIFY_NEAR(now.evaluation.moves[0].axes[0].approachFrom.value(), 0.1 - 2.0 * backlash, 1e-12);
        QCOMPARE(verdictOf(now, "move_approach")->state, State::Fine);
        // From the other side it comes from above, and a pan that stands has nothing to take up.
        std::swap(p.moves[0].poses[0].places, p.moves[0].poses[1].places);
        VERIFY_NEAR(evaluate(p).moves[0].axes[0].approachFrom.value(), 0.6 + 2.0 * backlash, 1e-12);
        QVERIFY(!evaluate(p).moves[0].axes[1].approachFrom);
        std::swap(p.moves[0].poses[0].places, p.moves[0].poses[1].places);
        // A quarter of it is room: said, no worse than tight, and mended by a start that is farther away.
        std::get<AxisPlace<AxisKind::Linear>>(p.moves[0].poses[0].places[0].place).at =
            0.005 + 0.25 * backlash;
        now = assess(p);
        const std::optional<Verdict> v = verdictOf(now, "move_approach");
        VERIFY_NEAR(now.evaluation.moves[0].axes[0].approachRoom.value(), 0.25, 1e-9);
        QCOMPARE(v->state, State::Tight);
        const std::vector<Fix> fixes = findFixes(p, now, *v, {});
        QVERIFY(!fixes.empty());
        const std::optional<Verdict> after = verdictOf(assess(fixes[0].result), "move_approach");
        QVERIFY(after && after->state == State::Fine);
        // The soft limits are what it may not pass: half the travel less their margin over the farthest.
        const MoveResults& r = now.evaluation.moves[0];
        VERIFY_NEAR(r.travelRoom.value(),
                    (0.5 * usableTravel(p.axes[0]) - 0.005) /
                        (0.5 * usableTravel(p.axes[0]) - 0.005 - 0.25 * backlash),
                    1e-9);
        Project beyond = p;
        std::get<AxisPlace<AxisKind::Linear>>(beyond.moves[0].poses[0].places[0].place).at = 0.004;
        QVERIFY(says(planOf(beyond).plan, MoveTroubleKind::OutsideTravel));
        QCOMPARE(verdictOf(assess(beyond), "move_travel")->state, State::Over);
        p.moves[0].takesUpBacklash = false;
        QVERIFY(!verdictOf(assess(p), "move_approach"));
    }
    /// v²/2a on to the end. With its current cut a carriage is slowed by friction alone.
    void runsOnByHand() {
        Project p = rigWithMove(demoProject());
        auto places = half(p);
        places[0] = 0.1;
        pose(p, places);
        places[0] = usableTravel(p.axes[0]);
        pose(p, places, 6.0);
        p.axes[0].onStop = OnStop::RampsDown;
        p.axes[0].brake.fitted = false;
        auto& slide = std::get<LinearMechanism>(p.axes[0].mechanism);
        slide.slope.value = slide.cableDrag.value = 0.0;
        slide.runningFriction.value = 0.5;
        Evaluation e = evaluate(p);
        const double a = e.axes[0].model.settings.acceleration;
        const auto byHand = [&](double brake) {
            double least = 1e9;
            for (const AxisMoment& m : (*e.planned)[0].axes[0])
                if (m.speed > 0.0)
                    least = std::min(least,
                                     (usableTravel(p.axes[0]) - m.place) / (m.speed * m.speed / 2.0 / brake));
            return least;
        };
        const auto told = [&] {
            const MoveAxisResults& r = e.moves[0].axes[0];
            return r.endAway.value() / r.runOn.value();
        };
        QVERIFY(a <= e.axes[0].model.hardestBraking(0.0));
        VERIFY_NEAR(told(), byHand(a), 1e-9);
        const double ramped = told();
        p.axes[0].onStop = OnStop::CutsCurrent;
        e = evaluate(p);
        // Energy: what moves, the rotor with it, against friction and what the drive loses on the way back.
        const double slows = byHand(1.0) / told();
        QVERIFY(told() < ramped);
        const DriveModel& m = e.axes[0].model;
        const double lossless =
            m.chain.load.coulomb /
            (m.chain.load.inertia + m.chain.motorInertia / (m.outputPerRad * m.outputPerRad));
        QVERIFY2(1.0 / slows > 0.5 * lossless && 1.0 / slows < 2.5 * lossless,
                 qPrintable(QStringLiteral("%1 against %2").arg(1.0 / slows).arg(lossless)));
        const Assessment now = assess(p);
        const std::optional<Verdict> v = verdictOf(now, "move_run_on");
        VERIFY_NEAR(v->ratio.value(), std::min(100.0, told()), 1e-9);
    }
    /// A head on a plain boom leans the horizon when it pans: sin ψ sin φ over cos φ.
    void horizonByHand() {
        Project p = rigWithMove(demoProject("kettle-jib"));
        const std::size_t boom = axisOf(p, Role::BoomTilt), pan = axisOf(p, Role::Pan);
        QVERIFY(pan < p.axes.size());
        auto& arm = std::get<RotaryMechanism>(p.axes[boom].mechanism);
        auto places = half(p);
        places[boom] = 0.3 - arm.lowAngle; // 0.3 rad up
        pose(p, places);
        places[pan] += 0.4;
        pose(p, places, 10.0);
        arm.boom.arm = ArmKind::Plain;
        const Evaluation e = evaluate(p);
        const kinematics::Moving camera =
            cameraAt((*e.planned)[0].scene, (*e.planned)[0].plan.trajectory, 10.0);
        const double ahead = std::atan2(camera.frame.left.z, camera.frame.up.z);
        QVERIFY(std::abs(ahead) > 0.02);
        QVERIFY(e.moves[0].horizon.value() >= std::abs(ahead) - 1e-9);
        // The head on the boom looks level with it: by hand, from the angle between it and the arm.
        const MoveScene& scene = (*e.planned)[0].scene;
        const double psi = scene.links[static_cast<std::size_t>(scene.linkOf[pan])].offset + places[pan];
        VERIFY_NEAR_ABS(std::abs(ahead), std::abs(std::atan2(std::sin(psi) * std::sin(0.3), std::cos(0.3))),
                        1e-9);
        const Assessment bad = assess(p);
        const std::optional<Verdict> v = verdictOf(bad, "move_horizon");
        QVERIFY(v && v->state == State::Over);
        const std::vector<Fix> fixes = findFixes(p, bad, *v, {});
        QVERIFY(!fixes.empty());
        arm.boom.arm = ArmKind::ParallelLinks;
        VERIFY_NEAR_ABS(evaluate(p).moves[0].horizon.value(), 0.0, 1e-9);
    }
    /// A pan that stands on a slide that speeds up is pushed by m a d.
    void whatStandsIsPushed() {
        Project p = rigWithMove(demoProject());
        std::get<LinearMechanism>(p.axes[0].mechanism).slope.value = 0.0;
        auto& pan = std::get<RotaryMechanism>(p.axes[1].mechanism);
        pan.leanKnown = true;
        pan.lean.value = pan.unbalance.value = pan.cableDrag.value = pan.disturbance.value = 0.0;
        pan.windArea = pan.pointMass.value = 0.0;
        pan.items.clear();
        MassItem item;
        item.id = "lens";
        item.mass = estimate(2.0, Source::Measured);
        item.along = 0.15;
        pan.items.push_back(item);
        p.axes[1].carriesPayload = false;
        auto places = half(p);
        places[0] = 0.1;
        pose(p, places);
        places[0] = 0.8;
        pose(p, places, 3.0);
        const Evaluation e = evaluate(p);
        const PlannedMove& m = (*e.planned)[0];
        QVERIFY(!m.moves(1) && m.isPushed(1));
        const MoveScene& scene = m.scene;
        std::vector<geometry::Frame> frames(scene.links.size());
        kinematics::forward(scene.links, places, frames);
        // Across the slide: how far the mass lies to its side.
        const double side = 0.15 * frames[static_cast<std::size_t>(scene.linkOf[1])].ahead.y;
        double most = 0.0;
        for (const AxisMoment& moment : m.axes[0])
            most = std::max(most, std::abs(2.0 * moment.acceleration * side));
        QVERIFY(most > 0.01);
        QCOMPARE(e.axes[1].moves.size(), std::size_t(1));
        const AxisMoveResults& r = e.axes[1].moves[0];
        VERIFY_NEAR(r.pushed.value(), most, 1e-6);
        VERIFY_NEAR(r.held.value(), r.holds.value() / r.pushed.value(), 1e-12);
        // What it holds: the hold torque of the motor through its gears, and friction besides.
        const DriveModel& d = e.axes[1].model;
        QVERIFY(r.holds.value() >= d.motors * d.holdAmplitude / d.outputPerRad * 0.5 + d.staticFriction);
        QVERIFY(!r.margin && !r.pulseRate);
        QVERIFY(verdictOf(assess(p), "move_held").has_value());
    }
    /// The lens goes where it is wanted by all axes that carry it, and along a rail as far as that reaches.
    void lensIsCarried() {
        const Project p = demoProject("kettle-jib");
        const MoveScene scene = sceneOf(setupOf(p, Courses::No), RigMove());
        const std::vector<double> from = half(p);
        const geometry::Place start = cameraAt(scene, {from, {}, {}}).frame.at;
        for (int i = 0; i < 40; ++i) {
            // Places that the rig can reach, since it was there.
            std::vector<double> there = from;
            for (const std::size_t a : carriers(p.axes, scene)) there[a] *= within(0.8, 1.2);
            const geometry::Place to = cameraAt(scene, {there, {}, {}}).frame.at;
            const std::vector<double> found = carryLens(p.axes, scene, from, to);
            const geometry::Place at = cameraAt(scene, {found, {}, {}}).frame.at;
            QVERIFY2(lengthOf(minus(at, to)) < 1e-5, qPrintable(QString::number(lengthOf(minus(at, to)))));
        }
        // With one axis at its limit the other still gets where it alone can.
        const std::size_t swing = axisOf(p, Role::Swing), boom = axisOf(p, Role::BoomTilt);
        std::vector<double> ended = from;
        ended[swing] = scene.ends[swing].high;
        std::vector<double> there = ended;
        there[boom] *= 1.15;
        const geometry::Place to = cameraAt(scene, {there, {}, {}}).frame.at;
        const std::vector<double> found = carryLens(p.axes, scene, ended, to);
        QVERIFY(lengthOf(minus(cameraAt(scene, {found, {}, {}}).frame.at, to)) < 1e-5);
        VERIFY_NEAR(found[boom], there[boom], 1e-5);
        const std::vector<double> far =
            carryLens(p.axes, scene, from, geometry::plus(start, {50.0, 0.0, 0.0}));
        for (std::size_t a = 0; a < far.size(); ++a) QVERIFY(far[a] >= 0.0 && far[a] <= scene.travels[a]);
    }
    /// A thing that two views have in their middle, and what is said of views that tell none.
    void targetsFromViews() {
        const Project p = demoProject();
        const Evaluation e = evaluate(p);
        const geometry::Place thing{2.0, 1.5, 1.1};
        const auto from = [&](geometry::Place at) {
            const geometry::Place way = minus(thing, at);
            return kinematics::View{at, geometry::times(way, 1.0 / lengthOf(way))};
        };
        const std::vector<kinematics::View> two{from({0.0, 0.0, 1.0}), from({1.0, 0.0, 1.0})};
        const TargetFromViews told = targetFromViews(p, e, two);
        QCOMPARE(told.why, std::string());
        VERIFY_NEAR_ABS(lengthOf(minus(told.at, thing)), 0.0, 1e-6);
        VERIFY_NEAR(told.range, lengthOf(minus(thing, {1.0, 0.0, 1.0})), 1e-6);
        // As two views at an angle γ tell it: along σ r/(√2 sin γ/2), with σ at least three pixels.
        const double gamma = std::acos(dot(two[0].towards, two[1].towards)),
                     sigma = 3.0 / deliveredFocal(p.camera, p.shots[0]);
        QVERIFY(told.deviation > 0.8 * sigma * told.range / std::sqrt(2.0) / std::sin(gamma / 2.0));
        QVERIFY(told.deviation < 0.1 * told.range);
        QVERIFY(targetFromViews(p, e, {two.data(), 1}).why.find("One view") == 0);
        const std::vector<kinematics::View> close{two[0], from({0.005, 0.0, 1.0})};
        QVERIFY(targetFromViews(p, e, close).why.find("almost the same way") != std::string::npos);
        const std::vector<kinematics::View> apart{two[0], {{1.0, 0.0, 1.0}, {0.0, 0.6, -0.8}}};
        QVERIFY(!targetFromViews(p, e, apart).why.empty());
    }
};

QTEST_APPLESS_MAIN(MoveWaysTest)
#include "move_ways_test.moc"
