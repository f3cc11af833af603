// SPDX-License-Identifier: GPL-3.0-or-later
// Moves of a whole rig: planned from poses, aimed, timed, and what is said of those that cannot be. Rigs that
// can be worked on paper, and laws that hold for any.
#include "core/evaluate/evaluate.h"
#include "core/evaluate/move/evaluate_move.h"
#include "core/evaluate/move/move_frames.h"
#include "core/evaluate/rig/rig_layout.h"
#include "core/tools/least_move_time.h"
#include "core/tools/parallax.h"
#include "core/tools/ready_moves.h"
#include "core/trajectory/through_keys.h"
#include "core/verdicts/fix.h"
#include "core/verdicts/moves/move_view.h"
#include "support/dice.h"
#include "support/files.h"
#include "support/hand_rigs.h"
#include "support/moves.h"
#include "support/near.h"
#include "support/stock.h"

#include <QTest>
#include <numbers>

using namespace gantry;
using namespace rigmoves;
using trajectory::Order;

namespace {

void pose(Project& p, double slide, double pan) {
    const double places[] = {slide, pan};
    storePose(p, 0, static_cast<int>(p.moves[0].poses.size()) - 1, places);
}
MoveSegment& segment(Project& p, std::size_t pose) {
    return p.moves[0].poses[pose].arrive;
}
struct Planned {
    MoveScene scene;
    MovePlan plan;
    MoveResults results;
};
Planned planned(const Project& p, std::size_t move = 0) {
    const RigSetup rig = setupOf(p, Courses::No);
    const PlannedMove m = plannedMove(rig, p.moves[move]);
    return {m.scene, m.plan, evaluateMove(rig, p.moves[move], m, {})};
}
kinematics::InPicture seen(const Planned& m, const AimTarget& target, double at) {
    return targetSeen(m.scene, target, m.plan.trajectory, at);
}

} // namespace

class MovesTest : public QObject, private Dice {
    Q_OBJECT
public:
    MovesTest() : Dice(20261203) {}

private slots:
    void letters() {
        QCOMPARE(poseLetter(0), std::string("A"));
        QCOMPARE(poseLetter(25), std::string("Z"));
        QCOMPARE(poseLetter(26), std::string("AA"));
        QCOMPARE(poseLetter(27), std::string("AB"));
        QCOMPARE(poseLetter(26 + 26 * 26), std::string("AAA"));
    }
    /// 0.8 m in 5 s with S-shaped ramps of 1 s: a cruise of 0.2 m/s, 0.4 m/s² and 0.8 m/s³.
    void oneSegmentByHand() {
        Project p = dolly();
        pose(p, 0.1, 1.0);
        pose(p, 0.9, 1.5);
        segment(p, 1).time = 5.0;
        segment(p, 1).easeIn = segment(p, 1).easeOut = 0.2;
        const Planned m = planned(p);
        QVERIFY(m.plan.troubles.empty());
        VERIFY_NEAR(m.results.time.value(), 5.0, 1e-12);
        VERIFY_NEAR(m.results.axes[0].topSpeed.value(), 0.2, 1e-9);
        VERIFY_NEAR(m.results.axes[0].acceleration.value(), 0.4, 1e-9);
        VERIFY_NEAR(m.results.axes[0].jerk.value(), 0.8, 1e-9);
        VERIFY_NEAR(m.results.axes[1].topSpeed.value(), 0.125, 1e-9);
        VERIFY_NEAR(m.results.axes[0].lowest.value(), 0.1, 1e-9);
        VERIFY_NEAR(m.results.axes[0].highest.value(), 0.9, 1e-9);
        // At best by the closed form: 0.8/0.25 + 0.25/0.5 + 0.5/2. Eased as it is, the acceleration binds:
        // 0.8 of it are used, and it falls with the square of the time.
        const MoveSegmentResults& r = m.results.segments[0];
        VERIFY_NEAR(r.quickest.value(), 3.95, 1e-9);
        VERIFY_NEAR(r.least.value(), 5.0 * std::sqrt(0.8), 1e-9);
        QCOMPARE(r.axis, 0);
        QCOMPARE(r.binds, MoveBinds::Acceleration);
        VERIFY_NEAR(r.room.value(), 1.25, 1e-9);
        VERIFY_NEAR(r.asked.value(), 0.4, 1e-9);
        QCOMPARE(r.limit.value(), 0.5);
    }
    void everyPace() {
        Project p = dolly();
        pose(p, 0.1, 1.0);
        pose(p, 0.9, 1.0);
        segment(p, 1).easeIn = segment(p, 1).easeOut = 0.2;
        segment(p, 1).pace = SegmentPace::Speed;
        segment(p, 1).speedOf = p.axes[0].id;
        segment(p, 1).speed = 0.1;
        Planned m = planned(p);
        VERIFY_NEAR(m.results.axes[0].topSpeed.value(), 0.1, 1e-9);
        VERIFY_NEAR(m.results.time.value(), 10.0, 1e-9);
        segment(p, 1).pace = SegmentPace::Fastest;
        m = planned(p);
        VERIFY_NEAR(m.results.time.value(), 3.95, 1e-9);
        VERIFY_NEAR(m.results.segments[0].room.value(), 1.0, 1e-9);
        // Of an axis that does not move there is no speed.
        segment(p, 1).pace = SegmentPace::Speed;
        segment(p, 1).speedOf = p.axes[1].id;
        QVERIFY(says(planned(p).plan, MoveTroubleKind::NoSpeedAxis));
        // Without a name it is the first that moves.
        segment(p, 1).speedOf.clear();
        VERIFY_NEAR(planned(p).results.time.value(), 10.0, 1e-9);
    }
    /// A time that was given stays, whatever the segment behind it asks for.
    void givenTimesStay() {
        Project p = dolly();
        for (const double x : {0.1, 0.3, 0.9}) pose(p, x, 1.0);
        p.moves[0].poses[1].passes = true;
        segment(p, 1).time = 6.0;
        segment(p, 2).pace = SegmentPace::Fastest;
        VERIFY_NEAR(planned(p).results.segments[0].time.value(), 6.0, 1e-9);
        segment(p, 1).pace = SegmentPace::Fastest;
        const MoveResults r = planned(p).results;
        VERIFY_NEAR(std::min(r.segments[0].time.value() / r.segments[0].least.value(),
                             r.segments[1].time.value() / r.segments[1].least.value()),
                    1.0, 1e-9);
    }
    /// Waits, the way back, what is recorded before and after.
    void timesAddUp() {
        Project p = dolly();
        pose(p, 0.1, 1.0);
        pose(p, 0.9, 1.0);
        segment(p, 1).time = 6.0;
        p.moves[0].poses[0].wait = 1.5;
        p.moves[0].poses[1].wait = 2.5;
        p.moves[0].comesBack = true;
        p.moves[0].preRoll = 1.0;
        p.moves[0].postRoll = 2.0;
        const Planned m = planned(p);
        const double whole = 1.5 + 6.0 + 2.5 + 3.95;
        VERIFY_NEAR(m.results.time.value(), whole, 1e-9);
        VERIFY_NEAR(m.plan.poseTimes[1], 7.5, 1e-12);
        VERIFY_NEAR(m.plan.segments[0].from, 1.5, 1e-12);
        QCOMPARE(m.plan.trajectory.at(0, 8.0).speed, 0.0);
        VERIFY_NEAR_ABS(m.plan.trajectory.at(0, whole).place, 0.1, 1e-9);
        const double rate = p.shots[0].frameRate;
        QCOMPARE(m.results.frames.value(), std::floor((whole + 3.0) * rate + 1e-6) + 1.0);
        const auto frames = framesOf(p.moves[0], m.scene, m.plan, rate);
        QCOMPARE(frames.size(), static_cast<std::size_t>(m.results.frames.value()));
        QCOMPARE(frames.front().time, -1.0);
        QCOMPARE(frames.front().axes[0].place, 0.1);
        QVERIFY(frames.back().time > whole + 2.0 - 1.5 / rate);
    }
    /// Places from the other end and from the pose before; a longer rail lengthens what goes from end to end.
    void placesAreCounted() {
        Project p = dolly();
        pose(p, 0.1, 1.0);
        pose(p, 0.05, 0.2);
        pose(p, -0.3, -0.5);
        const auto from = [&](std::size_t i, PlaceFrom how) {
            for (PosePlace& x : p.moves[0].poses[i].places)
                std::visit([&](auto& at) { at.from = how; }, x.place);
        };
        from(1, PlaceFrom::HighEnd);
        from(2, PlaceFrom::PoseBefore);
        Planned m = planned(p);
        const double range = usableTravel(p.axes[1]);
        VERIFY_NEAR_ABS(m.plan.poses[1][0], 0.95, 1e-12);
        VERIFY_NEAR_ABS(m.plan.poses[1][1], range - 0.2, 1e-12);
        VERIFY_NEAR_ABS(m.plan.poses[2][0], 0.65, 1e-12);
        VERIFY_NEAR_ABS(m.plan.poses[2][1], range - 0.7, 1e-12);
        std::get<LinearMechanism>(p.axes[0].mechanism).railLength += 0.5;
        m = planned(p);
        VERIFY_NEAR_ABS(m.plan.poses[1][0], 1.45, 1e-12);
        // An axis of which a pose says nothing stays.
        p.moves[0].poses[1].places.pop_back();
        VERIFY_NEAR_ABS(planned(p).plan.poses[1][1], 1.0, 1e-12);
    }
    /// The head holds the target where it is wanted at every moment, and turns as the camera's own place
    /// asks.
    void aimedHolds() {
        Project p = dolly();
        pose(p, 0.1, 1.0);
        pose(p, 0.9, 1.0);
        addTarget(p, 0, 0.2, 1.1, 0.8);
        segment(p, 1).kind = SegmentKind::Aimed;
        segment(p, 1).target = p.moves[0].targets[0].id;
        segment(p, 1).placeRight = 300.0;
        segment(p, 1).time = 8.0;
        const Planned m = planned(p);
        QVERIFY(m.plan.troubles.empty());
        for (double t = 0.0; t <= 8.0; t += 0.05)
            VERIFY_NEAR_ABS(seen(m, p.moves[0].targets[0], t).u, 300.0, 2e-3);
        // Speeds and accelerations of the head are what its place does.
        for (double t = 0.4; t < 7.7; t += 0.13) {
            constexpr double h = 1e-4;
            const auto at = [&](double x) { return m.plan.trajectory.at(1, x); };
            VERIFY_NEAR_ABS((at(t + h).place - at(t - h).place) / (2 * h), at(t).speed, 1e-6);
            VERIFY_NEAR_ABS((at(t + h).speed - at(t - h).speed) / (2 * h), at(t).acceleration, 1e-4);
        }
        // Straight from one of its ends to the other it drifts by what the results say.
        Project q = p;
        const std::vector<double> a = m.plan.poses[0], b = m.plan.poses[1];
        restorePose(q, 0, 0, a);
        restorePose(q, 0, 1, b);
        segment(q, 1).kind = SegmentKind::Straight;
        const Planned s = planned(q);
        // Off the line between where it begins and ends: from the nearest of many points of it.
        const auto drift = [&](const Planned& of) {
            const AimTarget& target =
                of.plan.segments[0].aimed ? p.moves[0].targets[0] : q.moves[0].targets[0];
            const auto from = seen(of, target, 0.0), to = seen(of, target, 8.0);
            double most = 0.0;
            for (double t = 0.0; t <= 8.0; t += 0.02) {
                const auto now = seen(of, target, t);
                double nearest = 1e9;
                for (double share = 0.0; share <= 1.0; share += 1e-3)
                    nearest = std::min(nearest, std::hypot(now.u - from.u - share * (to.u - from.u),
                                                           now.v - from.v - share * (to.v - from.v)));
                most = std::max(most, nearest);
            }
            return most;
        };
        VERIFY_NEAR(s.results.segments[0].drift.value(), drift(s), 0.02);
        QVERIFY(drift(s) > 5.0);
        // A head without tilt leaves what goes up and down in the picture.
        VERIFY_NEAR(m.results.segments[0].drift.value(), drift(m), 0.02);
    }
    /// Two aimed segments at two targets, and a straight one between: nothing jumps.
    void segmentsJoin() {
        Project p = dolly();
        for (const double x : {0.05, 0.3, 0.6, 0.95}) pose(p, x, 1.2);
        addTarget(p, 0, 0.1, 1.0, 0.8);
        addTarget(p, 0, 0.4, 0.8, 0.9);
        segment(p, 1).kind = segment(p, 3).kind = SegmentKind::Aimed;
        segment(p, 1).target = p.moves[0].targets[0].id;
        segment(p, 3).target = p.moves[0].targets[1].id;
        for (const bool passes : {false, true}) {
            for (KeyPose& each : p.moves[0].poses) each.passes = passes;
            const Planned m = planned(p);
            QVERIFY(m.plan.troubles.empty());
            const auto& t = m.plan.trajectory;
            for (std::size_t a = 0; a < 2; ++a)
                for (std::size_t i = 0; i + 1 < t.pieceCount(); ++i) {
                    const auto &q = t.pieces(a)[i], &next = t.pieces(a)[i + 1];
                    VERIFY_NEAR_ABS(q.at(q.duration()).place, next.at(0).place, 1e-9);
                    VERIFY_NEAR_ABS(q.at(q.duration()).speed, next.at(0).speed, 1e-8);
                    VERIFY_NEAR_ABS(q.at(q.duration()).acceleration, next.at(0).acceleration, 1e-6);
                }
            for (std::size_t i = 0; i < 4; ++i) {
                VERIFY_NEAR_ABS(t.at(0, m.plan.poseTimes[i]).place, m.plan.poses[i][0], 1e-9);
                VERIFY_NEAR_ABS(t.at(1, m.plan.poseTimes[i]).place, m.plan.poses[i][1], 1e-9);
                const bool stands = i == 0 || i == 3 || !passes;
                QCOMPARE(std::abs(t.at(0, m.plan.poseTimes[i]).speed) < 1e-9, stands);
            }
            for (double x = 0.0; x <= m.plan.poseTimes[1]; x += 0.05)
                VERIFY_NEAR_ABS(seen(m, p.moves[0].targets[0], x).u, 0.0, 0.01);
        }
    }
    /// Round and round: the pan goes on over its turn and is brought into its range as a whole.
    void pansGoOn() {
        Project p = dolly();
        auto& pan = std::get<RotaryMechanism>(p.axes[1].mechanism);
        pan.range = 4.0 * std::numbers::pi;
        pan.lowAngle = 0.0;
        pose(p, 0.1, 1.0);
        pose(p, 0.9, 1.0);
        // Passed very near, and behind the rail: from straight ahead to straight back, over the left.
        addTarget(p, 0, 0.0, 0.15, 0.8);
        segment(p, 1).kind = SegmentKind::Aimed;
        segment(p, 1).target = p.moves[0].targets[0].id;
        segment(p, 1).time = 30.0;
        const Planned m = planned(p);
        QVERIFY(m.plan.troubles.empty());
        const auto e = m.plan.trajectory.extremes(1, Order::Place);
        QVERIFY(e.greatest - e.least > 2.0 && e.greatest - e.least < std::numbers::pi);
        QVERIFY(e.least >= 0.0 && e.greatest <= pan.range);
        // Too narrow a range is said, with the axis.
        pan.range = 1.0;
        const Planned narrow = planned(p);
        QVERIFY(says(narrow.plan, MoveTroubleKind::LeavesRange));
        QCOMPARE(narrow.plan.troubles.front().axis, 1);
    }
    void troublesAreSaid() {
        Project p = dolly();
        QVERIFY(says(planned(p).plan, MoveTroubleKind::TooFewPoses));
        pose(p, 0.1, 1.0);
        QVERIFY(says(planned(p).plan, MoveTroubleKind::TooFewPoses));
        pose(p, 1.4, 1.0);
        const Planned outside = planned(p);
        QVERIFY(says(outside.plan, MoveTroubleKind::OutsideTravel));
        VERIFY_NEAR(outside.results.travelRoom.value(), 0.5 / 0.9, 1e-9);
        std::get<AxisPlace<AxisKind::Linear>>(p.moves[0].poses[1].places[0].place).at = 0.1;
        QVERIFY(says(planned(p).plan, MoveTroubleKind::NothingMoves));
        std::get<AxisPlace<AxisKind::Linear>>(p.moves[0].poses[1].places[0].place).at = 0.5;
        segment(p, 1).easeIn = segment(p, 1).easeOut = 0.8;
        QVERIFY(says(planned(p).plan, MoveTroubleKind::RampsTooLong));
        segment(p, 1).easeIn = segment(p, 1).easeOut = 0.5;
        QVERIFY(planned(p).plan.troubles.empty());
        segment(p, 1).kind = SegmentKind::Aimed;
        QVERIFY(says(planned(p).plan, MoveTroubleKind::NoTarget));
        addTarget(p, 0, 0.2, 1.0, 0.8);
        segment(p, 1).target = p.moves[0].targets[0].id;
        QVERIFY(planned(p).plan.troubles.empty());
        // Straight above the pan, which has no tilt; the lens stands a little beside the axis.
        p.head.lensLeft = estimate(0.05, Source::Measured);
        const Planned m = planned(p);
        const auto& pupil = m.plan.poses[0];
        const RigLayout laid = layRig(setupOf(p, Courses::No), pupil);
        p.moves[0].targets[0].x = laid.joints[1].x;
        p.moves[0].targets[0].y = laid.joints[1].y;
        QVERIFY(says(planned(p).plan, MoveTroubleKind::BlindTarget));
        p.axes[1].role = Role::Other;
        QVERIFY(says(planned(p).plan, MoveTroubleKind::NoHead));
    }
    /// Where the lens is in a move is where the drawing lays it, the pupil behind its front.
    void drawnAndMovedAlike() {
        for (const char* rig : {"fernhouse-dolly", "kettle-jib", "moss-orbit"}) {
            Project p = demoProject(rig);
            p.moves.clear();
            addMove(p);
            std::vector<double> low, high;
            for (const Axis& a : p.axes) {
                low.push_back(0.2 * usableTravel(a));
                high.push_back(0.7 * usableTravel(a));
            }
            storePose(p, 0, -1, low);
            storePose(p, 0, 0, high);
            const Planned m = planned(p);
            for (const double t : {0.0, 1.3, 2.2, 4.0}) {
                std::vector<double> places;
                for (std::size_t a = 0; a < p.axes.size(); ++a)
                    places.push_back(m.plan.trajectory.at(a, t).place);
                const RigLayout laid = layRig(setupOf(p, Courses::No), places);
                const kinematics::Moving camera = cameraAt(m.scene, m.plan.trajectory, t);
                const geometry::Place front =
                    geometry::plus(camera.frame.at, camera.frame.ahead, p.head.pupilBack.value);
                QVERIFY(lengthOf(minus(front, laid.camera)) < 1e-9);
            }
        }
    }
    /// Whatever is asked: no bound is passed unsaid, every pose is reached, and nothing jumps.
    void drawnMoves() {
        int planned_ = 0;
        for (int n = 0; n < 300; ++n) {
            Project p = dolly();
            const int count = static_cast<int>(within(2, 6.99));
            for (int i = 0; i < count; ++i) pose(p, within(0.0, 1.0), within(0.1, 4.0));
            for (KeyPose& each : p.moves[0].poses) {
                each.passes = within(0, 1) < 0.4;
                if (within(0, 1) < 0.2) each.wait = within(0, 2);
                each.arrive.time = within(0.5, 9.0);
                each.arrive.easeIn = within(0, 0.5);
                each.arrive.easeOut = within(0, 0.5);
                each.arrive.ease = static_cast<EaseKind>(static_cast<int>(within(0, 2.99)));
                if (within(0, 1) < 0.3) each.arrive.pace = SegmentPace::Fastest;
            }
            const Planned m = planned(p);
            QVERIFY(m.plan.troubles.empty());
            ++planned_;
            const auto& t = m.plan.trajectory;
            for (std::size_t i = 0; i < m.plan.poses.size(); ++i)
                for (std::size_t a = 0; a < 2; ++a)
                    VERIFY_NEAR_ABS(t.at(a, m.plan.poseTimes[i]).place, m.plan.poses[i][a], 1e-9);
            for (const MoveSegmentResults& s : m.results.segments) {
                QVERIFY(s.room);
                // Its least time is no longer than it where it keeps the limits, and longer where not.
                QCOMPARE(s.room.value() < 1.0 - 1e-9, s.least.value() > s.time.value() * (1.0 + 1e-9));
                if (p.moves[0].poses[s.pose].arrive.pace == SegmentPace::Fastest &&
                    !p.moves[0].poses[s.pose].passes && !p.moves[0].poses[s.pose - 1].passes)
                    QVERIFY(s.room.value() > 1.0 - 1e-9);
            }
            for (std::size_t a = 0; a < 2; ++a)
                for (std::size_t i = 0; i + 1 < t.pieceCount(); ++i) {
                    const auto &q = t.pieces(a)[i], &next = t.pieces(a)[i + 1];
                    VERIFY_NEAR_ABS(q.at(q.duration()).place, next.at(0).place, 1e-9);
                    VERIFY_NEAR_ABS(q.at(q.duration()).speed, next.at(0).speed, 1e-6);
                }
        }
        QCOMPARE(planned_, 300);
    }
    /// Verdicts about a move and what mends them.
    void refusedTimesAreMended() {
        Project p = dolly();
        pose(p, 0.1, 1.0);
        pose(p, 0.9, 1.0);
        segment(p, 1).time = 2.0;
        const auto verdictOf = [](const Assessment& a, std::string_view rule) -> const Verdict* {
            for (const Verdict& v : a.verdicts)
                if (ruleKey(v) == rule) return &v;
            return nullptr;
        };
        Assessment now = assess(p);
        const Verdict* v = verdictOf(now, "move_limits");
        QVERIFY(v != nullptr && v->state == State::Over);
        QCOMPARE(v->axis, 0);
        const auto fixes = findFixes(p, now, *v, {}, 30, stockInShops());
        QVERIFY(!fixes.empty());
        const auto inTime = std::find_if(fixes.begin(), fixes.end(), [](const Fix& f) {
            return f.result.moves[0].poses[1].arrive.pace == SegmentPace::Time;
        });
        QVERIFY(inTime != fixes.end());
        QCOMPARE(inTime->stateAfter, State::Fine);
        // 2 s stretched by 32/15, which the speed asks, and up to a tenth.
        VERIFY_NEAR(inTime->result.moves[0].poses[1].arrive.time, 4.3, 1e-12);
        // Time enough, and ramps that are too short for it: longer ramps.
        segment(p, 1).time = 5.0;
        segment(p, 1).easeIn = segment(p, 1).easeOut = 0.05;
        now = assess(p);
        v = verdictOf(now, "move_limits");
        QVERIFY(v != nullptr && v->state == State::Over);
        const auto longer = findFixes(p, now, *v, {}, 30, stockInShops());
        QVERIFY(!longer.empty());
        QVERIFY(std::any_of(longer.begin(), longer.end(), [](const Fix& f) {
            return f.result.moves[0].poses[1].arrive.easeIn > 0.1 &&
                   f.result.moves[0].poses[1].arrive.time == 5.0;
        }));
        // Out of the travel, and back.
        std::get<AxisPlace<AxisKind::Linear>>(p.moves[0].poses[1].places[0].place).at = 1.2;
        segment(p, 1).time = 20.0;
        now = assess(p);
        v = verdictOf(now, "move_travel");
        QVERIFY(v != nullptr && v->state == State::Over);
        const auto back = findFixes(p, now, *v, {}, 30, stockInShops());
        QVERIFY(!back.empty());
        VERIFY_NEAR_ABS(
            std::get<AxisPlace<AxisKind::Linear>>(back.front().result.moves[0].poses[1].places[0].place).at,
            1.0, 1e-12);
        // A target that drifts is aimed at.
        Project q = dolly();
        pose(q, 0.05, 0.6);
        pose(q, 0.95, 2.5);
        // At the height of the lens, since this head has no tilt.
        addTarget(q, 0, 0.0, 0.4, layRig(setupOf(q, Courses::No), {}).camera.z);
        segment(q, 1).time = 20.0;
        // Both poses show it in the middle, as somebody stores them who looks through the camera.
        segment(q, 1).kind = SegmentKind::Aimed;
        segment(q, 1).target = q.moves[0].targets[0].id;
        const MovePlan shown = planned(q).plan;
        restorePose(q, 0, 0, shown.poses[0]);
        restorePose(q, 0, 1, shown.poses[1]);
        segment(q, 1) = MoveSegment();
        segment(q, 1).time = 20.0;
        now = assess(q);
        v = verdictOf(now, "move_framing");
        QVERIFY2(v != nullptr && v->state == State::Over,
                 v != nullptr ? sentence(*v, q, units::System::Metric).c_str() : "none");
        const auto aimed = findFixes(q, now, *v, {}, 30, stockInShops());
        QVERIFY(!aimed.empty());
        QCOMPARE(aimed.front().result.moves[0].poses[1].arrive.kind, SegmentKind::Aimed);
        // One that cannot run as it is meant says so.
        segment(q, 1).kind = SegmentKind::Aimed;
        now = assess(q);
        v = verdictOf(now, "move_plan");
        QVERIFY(v != nullptr && v->state == State::Over);
        QVERIFY(sentence(*v, q, units::System::Metric).find("A to B is aimed, but at no target") !=
                std::string::npos);
    }
    /// At best no slower than the plan stretched to its limits, the closed form where there is one, and a
    /// search that is stopped says nothing.
    void leastTimes() {
        for (int n = 0; n < 20; ++n) {
            Project p = dolly();
            const int count = static_cast<int>(within(2, 5.99));
            for (int i = 0; i < count; ++i) pose(p, within(0.05, 0.95), within(0.4, 3.0));
            addTarget(p, 0, 0.0, 1.5, 1.0);
            const bool passes = n % 2 == 1;
            for (KeyPose& each : p.moves[0].poses) {
                each.passes = passes;
                each.wait = !passes && n % 4 == 0 ? 0.7 : 0.0;
            }
            if (n % 3 == 0) {
                segment(p, 1).kind = SegmentKind::Aimed;
                segment(p, 1).target = p.moves[0].targets[0].id;
            }
            const Planned m = planned(p);
            QVERIFY(m.plan.troubles.empty());
            const auto least = leastMoveTime(p.moves[0], m.scene, m.plan);
            QVERIFY(least);
            QCOMPARE(least->runs.size(), passes ? std::size_t(1) : m.plan.segments.size());
            double saved = 0.0;
            std::size_t s = 0;
            for (const LeastRun& r : least->runs) {
                double stretched = 0.0, most = 0.0;
                for (; s < m.plan.segments.size() && m.plan.segments[s].pose <= r.toPose; ++s) {
                    stretched += m.plan.segments[s].to - m.plan.segments[s].from;
                    most = std::max(most, m.plan.segments[s].binds.stretch);
                }
                QVERIFY(r.least <= stretched * most * 1.002);
                if (!passes && !m.plan.segments[s - 1].aimed) {
                    const double exact =
                        trajectory::straight(m.plan.poses[r.fromPose], m.plan.poses[r.toPose], m.scene.limits)
                            .duration();
                    VERIFY_NEAR(r.least, exact, 0.006);
                }
                saved += r.planned - r.least;
            }
            VERIFY_NEAR_ABS(least->time, m.results.time.value() - saved, 1e-9);
            std::stop_source stop;
            stop.request_stop();
            QVERIFY(!leastMoveTime(p.moves[0], m.scene, m.plan, stop.get_token()));
        }
    }
    /// Ready-made moves fit the rig they are made for, and keep its limits with room to spare.
    void readyMade() {
        for (const char* rig : {"fernhouse-dolly", "kettle-jib", "moss-orbit"}) {
            int made = 0;
            for (const ReadyMoveInfo& info : readyMoves()) {
                Project p = demoProject(rig);
                p.moves.clear();
                const int index = addReadyMove(p, info.kind);
                QVERIFY(index < 0 || suits(p, info.kind));
                if (p.moves.empty()) continue;
                ++made;
                const Planned m = planned(p);
                QVERIFY2(m.plan.troubles.empty(), std::string(info.name).c_str());
                for (const MoveSegmentResults& s : m.results.segments)
                    QVERIFY(s.time.value() >= 5.0 && s.time.value() >= 1.4 * s.least.value());
            }
            // The overhead orbit has no pan to aim with.
            QVERIFY2(made >= 2 || std::string(rig) == "moss-orbit", rig);
        }
        // A metre sideways before something at 1 m, the background at 4 m, through 2000 px: 1500 px.
        VERIFY_NEAR(parallax(2000.0, 1.0, 1.0, 4.0), 1500.0, 1e-12);
        VERIFY_NEAR(travelForParallax(2000.0, 1500.0, 1.0, 4.0), 1.0, 1e-12);
    }
    void editsOfMoves() {
        Project p = dolly();
        pose(p, 0.1, 1.0);
        pose(p, 0.5, 1.5);
        pose(p, 0.9, 2.0);
        segment(p, 1).time = 3.0;
        segment(p, 2).time = 7.0;
        segment(p, 2).easeIn = 0.1;
        Project back = p;
        reverseMove(back, 0);
        const Planned there = planned(p), returned = planned(back);
        for (double t = 0.0; t <= 10.0; t += 0.25)
            VERIFY_NEAR_ABS(returned.plan.trajectory.at(0, 10.0 - t).place,
                            there.plan.trajectory.at(0, t).place, 1e-9);
        reverseMove(back, 0);
        QVERIFY(back.moves[0].poses[2].arrive == p.moves[0].poses[2].arrive);
        Project mirrored = p;
        mirrorMove(mirrored, 0, 0);
        const Planned other = planned(mirrored);
        for (double t = 0.0; t <= 10.0; t += 0.25) {
            VERIFY_NEAR_ABS(other.plan.trajectory.at(0, t).place, 1.0 - there.plan.trajectory.at(0, t).place,
                            1e-9);
            VERIFY_NEAR_ABS(other.plan.trajectory.at(1, t).place, there.plan.trajectory.at(1, t).place, 1e-9);
        }
        retimeMove(p, 0, 2.0);
        VERIFY_NEAR(planned(p).results.time.value(), 20.0, 1e-12);
        QCOMPARE(movePose(p, 0, 0, 1), 1);
        VERIFY_NEAR_ABS(planned(p).plan.poses[0][0], 0.5, 1e-12);
        const std::string id = p.moves[0].poses[1].id;
        removePose(p, 0, 1);
        QCOMPARE(p.moves[0].poses.size(), std::size_t(2));
        QVERIFY(id != p.moves[0].poses[1].id);
        QCOMPARE(copyMove(p, 0), 1);
        QCOMPARE(p.moves.size(), std::size_t(2));
        QVERIFY(p.moves[0].id != p.moves[1].id);
        removeMove(p, 0);
        QCOMPARE(p.moves.size(), std::size_t(1));
        // What is not there changes nothing.
        const Project same = p;
        removeMove(p, 7);
        removePose(p, 0, 9);
        reverseMove(p, -1);
        retimeMove(p, 0, 0.0);
        QCOMPARE(storePose(p, 5, 0, {}), -1);
        QCOMPARE(addTarget(p, -1, 0, 0, 0), -1);
        QVERIFY(p == same);
    }
};

QTEST_APPLESS_MAIN(MovesTest)
#include "moves_test.moc"
