// SPDX-License-Identifier: GPL-3.0-or-later
// What steps, play and springs do to the picture along a move: against projected points, by hand, and against
// the same figures of a shot.
#include "core/criteria/criteria.h"
#include "core/drivetrain/wind_up.h"
#include "core/evaluate/evaluate.h"
#include "core/evaluate/move/axis_picture.h"
#include "core/kinematics/link_motion.h"
#include "core/optics/picture.h"
#include "support/dice.h"
#include "support/moves.h"
#include "support/near.h"

#include <QTest>
#include <numbers>

using namespace gantry;
using namespace rigmoves;

namespace {

/// A move of the slide alone from one place to another.
Project sliding(double from, double to, double time) {
    Project p = dolly();
    p.moves[0].targets.clear();
    auto places = half(p);
    places[0] = from;
    pose(p, places);
    places[0] = to;
    pose(p, places, time);
    return p;
}
LinearMechanism& slideOf(Project& p) {
    return std::get<LinearMechanism>(p.axes[0].mechanism);
}
AxisEvaluation slideEvaluation(const Project& p) {
    return evaluateAxis(setupWithMoves(p), 0);
}
/// [px/m] against the subject, by hand: both of a camera with square pixels.
double perMetre(const Project& p) {
    const Shot& s = p.shots[0];
    return s.focalLength * p.camera.deliveredWidth / p.camera.sensorWidth / s.subjectDistance;
}
double riseOf(const Project& p) {
    return planOf(p).plan.trajectory.extremes(0, trajectory::Order::Acceleration).largest();
}
/// One that only friction and ramps act on, with play.
Project withPlay(double from, double to, double time, double friction) {
    Project p = sliding(from, to, time);
    LinearMechanism& s = slideOf(p);
    s.runningFriction = s.staticFriction = estimate(0.0, Source::Measured);
    s.cableDrag = estimate(friction, Source::Measured);
    return p;
}

} // namespace

class MovePictureTest : public QObject, Dice {
    Q_OBJECT
public:
    MovePictureTest() : Dice(77) {}

private slots:
    /// The closed form against points carried through a pinhole camera that has moved a little.
    void shiftIsThatOfProjectedPoints() {
        for (int round = 0; round < 2000; ++round) {
            const double focal = within(500.0, 5000.0), width = 3840.0, depth = within(0.3, 20.0),
                         tiny = 1e-6;
            optics::CameraShift s;
            const int kind = round % 3;
            if (kind == 0)
                s = {within(-1.0, 1.0), within(-1.0, 1.0), 0.0, within(-1.0, 1.0), within(-1.0, 1.0), 0.0};
            if (kind == 1) s.ahead = within(-1.0, 1.0);
            if (kind == 2) s.roll = within(-1.0, 1.0);
            // The middle of the picture; its right edge as the camera comes nearer; its corner as it rolls.
            const double u = kind == 0 ? 0.0 : 0.5 * width, v = kind == 2 ? 0.5 * width * 9.0 / 16.0 : 0.0;
            double right = u / focal * depth, up = v / focal * depth, ahead = depth;
            right -= tiny * s.right;
            up -= tiny * s.up;
            ahead -= tiny * s.ahead;
            // Seen from a camera turned right by the pan, up by the tilt, clockwise by the roll.
            const double pan = tiny * s.pan, tilt = tiny * s.tilt, roll = tiny * s.roll;
            const double r1 = right * std::cos(pan) - ahead * std::sin(pan),
                         a1 = right * std::sin(pan) + ahead * std::cos(pan);
            const double u2 = up * std::cos(tilt) - a1 * std::sin(tilt),
                         a2 = up * std::sin(tilt) + a1 * std::cos(tilt);
            const double r3 = r1 * std::cos(roll) - u2 * std::sin(roll),
                         u3 = r1 * std::sin(roll) + u2 * std::cos(roll);
            const double moved = std::hypot(focal * r3 / a2 - u, focal * u3 / a2 - v) / tiny;
            VERIFY_NEAR(optics::pictureShift(focal, width, depth, s), moved, 1e-4);
        }
    }
    /// What a moment says of an axis, by nudging that axis and looking again.
    void momentsSayWhatTheLensDoes() {
        Project p = rigWithMove(demoProject("kettle-jib"));
        p.moves[0].targets.clear();
        auto places = half(p);
        for (std::size_t a = 0; a < p.axes.size(); ++a) places[a] = 0.2 * usableTravel(p.axes[a]);
        pose(p, places);
        for (std::size_t a = 0; a < p.axes.size(); ++a) places[a] = 0.7 * usableTravel(p.axes[a]);
        pose(p, places, 30.0);
        const PlannedMove m = planOf(p);
        const double depth = p.shots[0].subjectDistance, tiny = 1e-6;
        int looked = 0;
        for (std::size_t a = 0; a < p.axes.size(); ++a) {
            if (!m.moves(a) || m.scene.linkOf[a] < 0) continue;
            for (std::size_t i = 0; i < m.axes[a].size(); i += 7) {
                AxisStates at = statesAt(m.scene, m.plan.trajectory, m.axes[a][i].time);
                const geometry::Frame was = cameraAt(m.scene, at.motion()).frame;
                at.places[a] += tiny;
                const geometry::Frame is = cameraAt(m.scene, at.motion()).frame;
                // The point in the middle of the picture, and how the lens came nearer or rolled.
                const geometry::Place seen = is.seen(was.to({depth, 0.0, 0.0}));
                const double middle = m.scene.focal(at.places) * std::hypot(seen.y, seen.z) / seen.x / tiny,
                             came = std::abs(was.seen(is.at).x) / tiny,
                             rolled = std::abs(geometry::dot(is.left, was.up)) / tiny,
                             halfWide = 0.5 * p.camera.deliveredWidth;
                VERIFY_NEAR_ABS(m.axes[a][i].shift,
                                std::max({middle, halfWide * came / depth,
                                          halfWide * std::hypot(1.0, 9.0 / 16.0) * rolled}),
                                1e-3 * m.scene.focal(at.places));
                ++looked;
            }
        }
        QVERIFY(looked > 20);
    }
    /// A rail along its subject moves the picture by F over the distance, as in a shot; so does a pan by F.
    void shiftIsThatOfShots() {
        Project p = sliding(0.2, 0.6, 8.0);
        const AxisEvaluation e = slideEvaluation(p);
        // The camera looks across the rail with its pan there.
        auto& pan = std::get<RotaryMechanism>(p.axes[1].mechanism);
        for (KeyPose& k : p.moves[0].poses)
            std::get<AxisPlace<AxisKind::Rotary>>(k.places[1].place).at =
                std::numbers::pi / 2.0 - pan.lowAngle;
        const PlannedMove m = planOf(p);
        for (const AxisMoment& at : m.axes[0]) VERIFY_NEAR(at.shift, perMetre(p), 1e-9);
        VERIFY_NEAR(e.shots[0].pixelsPerUnit, perMetre(p), 1e-9);
    }

    /// Slow enough that whole steps are seen: (1 − W) steps with W steps an exposure, and the steps' own
    /// error.
    void crawlShowsItsSteps() {
        Project p = sliding(0.3, 0.3004, 40.0);
        for (KeyPose& k : p.moves[0].poses)
            std::get<AxisPlace<AxisKind::Rotary>>(k.places[1].place).at =
                std::numbers::pi / 2.0 - std::get<RotaryMechanism>(p.axes[1].mechanism).lowAngle;
        const AxisEvaluation e = slideEvaluation(p);
        const AxisMoveResults& r = e.moves.at(0);
        const double speed = r.steppingSpeed.value(), jump = e.model.jump(), t = p.shots[0].exposure,
                     px = perMetre(p), steps = speed / jump * t;
        QVERIFY(steps < 0.5);
        // What lasts half a second is seen, wherever it is slowest: where it sets off.
        QVERIFY(speed <= planOf(p).plan.trajectory.extremes(0, trajectory::Order::Speed).largest());
        const double perFullStep = speed / e.model.fullStep(), fps = p.shots[0].frameRate,
                     ripple = 2.0 * e.model.angleError * e.model.outputPerRad * px *
                              std::min(1.0, std::numbers::pi * perFullStep / fps) *
                              std::min(1.0, 1.0 / (std::numbers::pi * perFullStep * t));
        VERIFY_NEAR(r.stepping.value(), (1.0 - steps) * jump * px + ripple, 1e-6);
        QVERIFY(r.jitter.value() >= r.stepping.value());
        const std::optional<Verdict> v = verdictOf(assess(p), "move_stepping", 0);
        QVERIFY(v);
        VERIFY_NEAR(v->ratio.value(), p.shots[0].limits.jitter / r.stepping.value(), 1e-9);
        QCOMPARE(v->move, 0);
        VERIFY_NEAR_ABS(v->moment.value(), r.steppingAt.value(), 0.0);
    }
    /// The first steps of a ramp pass unseen: what counts is the pace half a second later.
    void rampsPassUnseen() {
        Project p = sliding(0.1, 0.9, 8.0);
        const PlannedMove m = planOf(p);
        const AxisEvaluation e = slideEvaluation(p);
        const AxisMoveResults& r = e.moves.at(0);
        const double later = m.plan.trajectory.at(0, criteria::creepTime.value).speed;
        VERIFY_NEAR(r.steppingSpeed.value(), later, 0.02);
        QVERIFY(r.steppingAt.value() == 0.0 || r.steppingAt.value() > 7.0);
        const Assessment now = assess(p);
        const std::optional<Verdict> v = verdictOf(now, "move_stepping", 0);
        QVERIFY(!v || v->ratio.value() > 5.0);
    }
    /// While it stands between two segments, nothing crawls.
    void standingIsNoCrawl() {
        Project p = sliding(0.1, 0.9, 8.0);
        const double without = slideEvaluation(p).moves.at(0).stepping.value();
        p.moves[0].poses[1].wait = 20.0;
        auto places = half(p);
        places[0] = 0.1;
        pose(p, places, 8.0);
        VERIFY_NEAR(slideEvaluation(p).moves.at(0).stepping.value(), without, 1e-6);
    }

    /// A start breaks away once; a crawl that goes on for two such jumps sticks and slips, and only slower
    /// than the load would run evenly.
    void stickingTakesTwoJumps() {
        const auto slipIn = [](double way, double time, double still) {
            Project p = sliding(0.3, 0.3 + way, time);
            slideOf(p).runningFriction = estimate(3.0, Source::Measured);
            slideOf(p).staticFriction = estimate(still, Source::Measured);
            const AxisEvaluation e = slideEvaluation(p);
            const AxisMoveResults& r = e.moves.at(0);
            const double jump = drivetrain::breakawayJump(e.model.sprung());
            const double top = planOf(p).plan.trajectory.extremes(0, trajectory::Order::Speed).largest();
            return std::tuple{r.slip.value() / planOf(p).axes[0].front().shift, jump, top, e.smoothFrom};
        };
        const auto [slow, jump, top, smooth] = slipIn(0.02, 40.0, 9.0);
        QVERIFY(top < smooth && jump > 0.0);
        VERIFY_NEAR(slow, jump, 0.05);
        // Fast: only its ramps are slow, and not for two jumps.
        const auto [fast, sameJump, quick, sameSmooth] = slipIn(0.6, 2.2, 9.0);
        QVERIFY(quick > 2.0 * sameSmooth);
        VERIFY_NEAR_ABS(fast, 0.0, 0.0);
        // A way of one jump and a half.
        QCOMPARE(std::get<0>(slipIn(1.5 * jump, 20.0, 9.0)), 0.0);
        QVERIFY(std::get<0>(slipIn(2.5 * jump, 20.0, 9.0)) > 0.0);
        // Ramps of a second and a half that leave the slow speeds within a quarter of it.
        const auto [ramps, sameJump2, brisk, sameSmooth2] = slipIn(0.8, 6.0, 9.0);
        QVERIFY(brisk > 5.0 * sameSmooth2);
        QCOMPARE(ramps, 0.0);
        // Friction that is no higher at rest.
        QCOMPARE(std::get<0>(slipIn(0.02, 40.0, 3.0)), 0.0);
    }

    /// Braking harder than friction alone does, the load runs on through its play; one way and gently it
    /// rests on its flank.
    void playLetsGoWhereItBrakesHarderThanFriction() {
        Project p = withPlay(0.1, 0.9, 8.0, 20.0);
        const AxisEvaluation gentle = slideEvaluation(p);
        QVERIFY(gentle.model.backlash > 0.0);
        const double inertia = gentle.model.chain.load.inertia, rise = riseOf(p);
        QVERIFY(inertia * rise < gentle.model.friction);
        VERIFY_NEAR_ABS(gentle.moves.at(0).letGo.value(), 0.0, 0.0);
        p = withPlay(0.1, 0.9, 4.2, 0.2);
        const AxisEvaluation hard = slideEvaluation(p);
        QVERIFY(hard.model.friction < 0.25 * inertia * riseOf(p));
        const AxisMoveResults& r = hard.moves.at(0);
        QVERIFY(r.letGo.value() > 0.0);
        QVERIFY(r.jitterAt.value() > 2.0); // while it brakes
        // It has far to run: all the play is gone through.
        VERIFY_NEAR(r.letGo.value(), hard.model.backlash * planOf(p).axes[0].front().shift, 0.05);
        const std::optional<Verdict> v = verdictOf(assess(p), "move_jitter", 0);
        QVERIFY(v);
        VERIFY_NEAR(v->ratio.value(), p.shots[0].limits.jitter / r.jitter.value(), 1e-9);
    }
    /// A load that only friction holds and that runs on in braking gets loose by v²/2 (J/T − 1/a) where the
    /// play is wider than that: until it is at rest itself, not only until the motor is.
    void playLetsGoAsFarAsTheLoadRunsOn() {
        Project p = withPlay(0.1, 0.9, 8.0, 0.4);
        MoveSegment& segment = p.moves[0].poses[1].arrive;
        segment.ease = EaseKind::Linear;
        segment.easeIn = segment.easeOut = 0.05;
        const RigSetup rig = setupWithMoves(p);
        const PlannedMove& m = (*rig.planned)[0];
        const double speed = m.plan.trajectory.extremes(0, trajectory::Order::Speed).largest(),
                     brake = riseOf(p);
        AxisEvaluation e = evaluateAxis(rig, 0);
        e.model.backlash = 10.0; // wider than all of it
        const double held = e.model.friction / e.model.chain.load.inertia;
        QVERIFY(brake > 1.2 * held);
        const auto letGo = [&] {
            AxisMoveResults r;
            fillAxisPicture(r, rig, p.moves[0], m, 0, e);
            return r.letGo.value() / m.axes[0].front().shift;
        };
        VERIFY_NEAR(letGo(), 0.5 * speed * speed * (1.0 / held - 1.0 / brake), 0.02);
        // What pulls on the other way for all that is known adds to what frees it and holds it back less.
        const double unknown = 0.3 * e.model.friction;
        e.model.lasting.unknown = unknown;
        const double less = (e.model.friction - unknown) / e.model.chain.load.inertia;
        VERIFY_NEAR(letGo(), 0.5 * speed * speed * (1.0 / less - 1.0 / brake), 0.02);
        // As much as friction, and it does not stop at all.
        e.model.lasting.unknown = 1.1 * e.model.friction;
        VERIFY_NEAR(letGo(), e.model.backlash, 1e-9);
    }
    /// Coming back, what friction holds changes its flank.
    void playLetsGoWhereItTurnsBack() {
        Project p = withPlay(0.1, 0.9, 8.0, 20.0);
        p.moves[0].poses[1].passes = false;
        auto places = half(p);
        places[0] = 0.1;
        pose(p, places, 8.0);
        const AxisEvaluation e = slideEvaluation(p);
        const PlannedMove m = planOf(p);
        VERIFY_NEAR(e.moves.at(0).letGo.value(), e.model.backlash * m.axes[0].front().shift, 0.05);
        VERIFY_NEAR_ABS(e.moves.at(0).jitterAt.value(), m.plan.poseTimes[1], 0.5);
    }

    /// What speeding up winds up, over the frames of the phase in which it does: as in the shot that the move
    /// realises.
    void driftIsThatOfTheShot() {
        Project p = sliding(0.1, 0.9, 6.0);
        p.moves[0].realises = true;
        MoveSegment& s = p.moves[0].poses[1].arrive;
        s.ease = EaseKind::S;
        s.easeIn = s.easeOut = 0.3;
        const AxisEvaluation e = slideEvaluation(p);
        const AxisMoveResults& r = e.moves.at(0);
        const PlannedMove m = planOf(p);
        const auto rises = m.plan.trajectory.extremes(0, trajectory::Order::Acceleration),
                   jerks = m.plan.trajectory.extremes(0, trajectory::Order::Jerk);
        const double wound = e.model.chain.load.inertia * rises.largest() / e.model.outputStiffness,
                     frames = rises.largest() / jerks.largest() * p.shots[0].frameRate;
        VERIFY_NEAR(r.drift.value(), wound / frames * m.axes[0].front().shift, 0.02);
        QVERIFY(e.shots[0].errors.drift);
        // The shot takes the worst of where its camera may look; along the move the camera looks where it
        // does.
        VERIFY_NEAR(r.drift.value() / m.axes[0].front().shift,
                    e.shots[0].errors.drift.value() / e.shots[0].pixelsPerUnit, 0.02);
    }
    /// A target that is blurred by its own pace: px/s times the exposure.
    void movementSmearsTheTarget() {
        Project p = sliding(0.1, 0.9, 5.0);
        addTarget(p, 0, 0.0, 1.5, 1.0);
        for (KeyPose& k : p.moves[0].poses)
            std::get<AxisPlace<AxisKind::Rotary>>(k.places[1].place).at =
                std::numbers::pi / 2.0 - std::get<RotaryMechanism>(p.axes[1].mechanism).lowAngle;
        const Evaluation e = evaluate(p);
        const MoveResults& r = e.moves.at(0);
        QVERIFY(r.crossing);
        VERIFY_NEAR(r.motionBlur.value(), p.camera.deliveredWidth / r.crossing.value() * p.shots[0].exposure,
                    1e-9);
    }
    /// Pictures taken standing still are not judged on the way between them.
    void singlePicturesAreNotFilmed() {
        Project p = sliding(0.3, 0.3004, 40.0);
        p.shots[0].kind = ShotKind::StopMotion;
        const AxisEvaluation e = slideEvaluation(p);
        QCOMPARE(e.moves.at(0).stepping.reason(), Reason::NotApplicable);
        QVERIFY(!verdictOf(assess(p), "move_stepping", 0));
    }
};

QTEST_APPLESS_MAIN(MovePictureTest)
#include "move_picture_test.moc"
