// SPDX-License-Identifier: GPL-3.0-or-later
// What is done to a whole move: a time that is spread, the least time, blocks through reverse, mirror,
// retime.
#include "core/evaluate/move/planned_move.h"
#include "core/model/edit_moves.h"
#include "core/tools/fit_move.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>

using namespace gantry;

namespace {

/// The demo dolly with three segments of unlike need: long, short, long and a wait between.
Project threeSegments() {
    Project p = demoProject();
    p.controller.ramps = RampKind::SCurve;
    p.moves.clear();
    addMove(p);
    const double places[][2]{{0.05, 1.0}, {0.75, 1.4}, {0.7, 1.5}, {0.1, 1.0}};
    for (int i = 0; i < 4; ++i) {
        storePose(p, 0, i - 1, places[i]);
        p.moves[0].poses.back().arrive.time = 9.0;
    }
    p.moves[0].poses[1].wait = 1.5;
    return p;
}
PlannedMove planOf(const Project& p) {
    return plannedMove(setupOf(p, Courses::No), p.moves[0]);
}

} // namespace

class MoveToolsTest : public QObject {
    Q_OBJECT
private slots:
    void aTimeIsSpreadByNeed() {
        Project p = threeSegments();
        QVERIFY(!fitToTime(p, 0, 20.0));
        const MovePlan plan = planOf(p).plan;
        VERIFY_NEAR(plan.trajectory.duration(), 20.0, 1e-9);
        // Each is as near to its limits as the others.
        for (const SegmentPlan& s : plan.segments)
            VERIFY_NEAR(s.binds.stretch, plan.segments[0].binds.stretch, 1e-6);
        QVERIFY(plan.segments[0].binds.stretch < 1.0);
        QVERIFY(p.moves[0].poses[1].arrive.time > 2.0 * p.moves[0].poses[2].arrive.time);
        VERIFY_NEAR(p.moves[0].poses[1].wait, 1.5, 1e-12);
    }
    void aTimeTooShortIsRefused() {
        Project p = threeSegments();
        const Project before = p;
        const auto least = fitToTime(p, 0, 2.0);
        QVERIFY(least.has_value());
        QVERIFY(p == before);
        // What it says would do does, and a hundredth less does not.
        QVERIFY(!fitToTime(p, 0, *least * 1.0001));
        Project again = before;
        QVERIFY(fitToTime(again, 0, *least * 0.99).has_value());
        // Less than the waits alone.
        QVERIFY(fitToTime(again, 0, 1.0).has_value());
        QCOMPARE(fitToTime(again, 5, 10.0).value(), 0.0);
    }
    /// The way back takes its own time out of the whole.
    void theWayBackCounts() {
        Project p = threeSegments();
        p.moves[0].poses[3].places[0].place = AxisPlace<AxisKind::Linear>{0.5};
        p.moves[0].comesBack = true;
        QVERIFY(!fitToTime(p, 0, 24.0));
        VERIFY_NEAR(planOf(p).plan.trajectory.duration(), 24.0, 1e-9);
        QVERIFY(planOf(p).plan.segments.back().to < 23.0);
    }
    void throughPosesToo() {
        Project p = threeSegments();
        p.moves[0].poses[1].wait = 0.0;
        p.moves[0].poses[1].passes = p.moves[0].poses[2].passes = true;
        QVERIFY(!fitToTime(p, 0, 25.0));
        const MovePlan plan = planOf(p).plan;
        VERIFY_NEAR(plan.trajectory.duration(), 25.0, 1e-9);
        for (const SegmentPlan& s : plan.segments) QVERIFY(s.binds.stretch < 1.0);
    }
    void leastTimeIsLeast() {
        Project p = threeSegments();
        QVERIFY(runInLeastTime(p, 0));
        const MovePlan plan = planOf(p).plan;
        for (const SegmentPlan& s : plan.segments) {
            QVERIFY(s.binds.stretch <= 1.0);
            VERIFY_NEAR(s.binds.stretch, 1.0, 1e-4);
        }
        Project empty = demoProject();
        empty.moves.clear();
        addMove(empty);
        QVERIFY(!runInLeastTime(empty, 0));
        QVERIFY(!runInLeastTime(empty, -1));
    }
    /// Reversed, a move with a block shows the same places backwards in time.
    /// What begins half way does so in any time, and the least time has room for it.
    void blocksGoWithTheTime() {
        Project p = threeSegments();
        for (KeyPose& pose : p.moves[0].poses)
            std::get<AxisPlace<AxisKind::Rotary>>(pose.places[1].place).at = 1.2;
        const int block = addBlock(p, 0, 1, 3.0, 8.0);
        QVERIFY(block == 0);
        p.moves[0].blocks[0].length = 5.0;
        const double before = planOf(p).plan.trajectory.duration();
        QVERIFY(!fitToTime(p, 0, 2.0 * before));
        VERIFY_NEAR(p.moves[0].blocks[0].start, 6.0, 1e-9);
        VERIFY_NEAR(p.moves[0].blocks[0].length, 10.0, 1e-9);
        QVERIFY(planOf(p).plan.troubles.empty());
        QVERIFY(runInLeastTime(p, 0));
        const PlannedMove least = planOf(p);
        QVERIFY(least.plan.troubles.empty());
        const double now = least.plan.trajectory.duration();
        QVERIFY(now < before);
        VERIFY_NEAR(p.moves[0].blocks[0].start / now, 3.0 / before, 1e-3);
        const double used = trajectory::binding(least.plan.trajectory, least.scene.limits).stretch;
        QVERIFY2(used < 1.0 + 1e-5, qPrintable(QString::number(used)));
    }
    void blocksRunBack() {
        Project p = threeSegments();
        for (KeyPose& pose : p.moves[0].poses)
            std::get<AxisPlace<AxisKind::Rotary>>(pose.places[1].place).at = 1.2;
        QCOMPARE(addBlock(p, 0, 1, 3.0, 28.5), 0);
        AxisBlock& block = p.moves[0].blocks[0];
        block.byAngle = 0.7;
        block.easeIn = 0.1;
        block.easeOut = 0.4;
        const PlannedMove ahead = planOf(p);
        const double whole = ahead.plan.trajectory.duration();
        QVERIFY(ahead.plan.troubles.empty());
        reverseMove(p, 0, whole);
        const PlannedMove back = planOf(p);
        QVERIFY(back.plan.troubles.empty());
        VERIFY_NEAR(back.plan.trajectory.duration(), whole, 1e-9);
        for (int i = 0; i <= 60; ++i) {
            const double t = whole * i / 60.0;
            VERIFY_NEAR_ABS(back.plan.trajectory.at(1, t).place, ahead.plan.trajectory.at(1, whole - t).place,
                            1e-9);
        }
        // Retimed it runs in the same share of the move, mirrored the other way.
        retimeMove(p, 0, 2.0);
        VERIFY_NEAR_ABS(planOf(p).plan.trajectory.at(1, whole).place,
                        back.plan.trajectory.at(1, 0.5 * whole).place, 1e-9);
        const double before = p.moves[0].blocks[0].byAngle;
        mirrorMove(p, 0);
        VERIFY_NEAR(p.moves[0].blocks[0].byAngle, -before, 1e-12);
        removeBlock(p, 0, 0);
        QVERIFY(p.moves[0].blocks.empty());
        QCOMPARE(addBlock(p, 0, 7, 0.0, 1.0), -1);
        QCOMPARE(addBlock(p, 0, 0, 2.0, 2.0), -1);
    }
};

QTEST_APPLESS_MAIN(MoveToolsTest)
#include "move_tools_test.moc"
