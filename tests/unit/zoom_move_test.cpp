// SPDX-License-Identifier: GPL-3.0-or-later
// A zoom along a move: the ring by its marks, the picture by a pinhole of the lens as it is then.
#include "core/evaluate/evaluate.h"
#include "core/evaluate/move/move_frames.h"
#include "core/evaluate/move/move_picture.h"
#include "core/evaluate/move/move_search.h"
#include "core/optics/picture.h"
#include "core/verdicts/fix.h"
#include "io/report/move_table.h"
#include "support/dice.h"
#include "support/moves.h"
#include "support/near.h"

#include <QTest>
#include <cmath>

using namespace gantry;
using namespace rigmoves;
using optics::ZoomMark;
using optics::ZoomRing;

namespace {

constexpr double marked[][2] = {{0.0, 0.024}, {0.5, 0.031}, {1.1, 0.044}, {1.6, 0.07}};

std::vector<ZoomMark> marks() {
    std::vector<ZoomMark> out;
    for (const auto& m : marked) out.push_back({m[0], m[1]});
    return out;
}

/// A slide past a target with a zoom on the lens, from 24 mm to 70 mm.
struct Zooming {
    Project project = dolly();
    std::size_t zoom = 0;

    Zooming() {
        addAxis(project, Role::Zoom);
        zoom = axisOf(project, Role::Zoom);
        auto& rotary = std::get<RotaryMechanism>(project.axes[zoom].mechanism);
        LensRingOutput ring;
        ring.marks.clear();
        for (const ZoomMark& m : marks())
            ring.marks.push_back({"z" + std::to_string(ring.marks.size()), m.angle, m.focalLength});
        rotary.output = ring;
        rotary.range = 1.7;
        rotary.motion.softLimitMargin = 0.0;
        addTarget(project, 0, 0.6, 1.4, 1.2);
        auto places = half(project);
        places[0] = 0.2;
        pose(project, places);
        places[0] = 0.7;
        pose(project, places, 6.0);
        project.moves[0].poses[0].focal = 0.024;
        project.moves[0].poses[1].focal = 0.07;
    }
    AimTarget& target() { return project.moves[0].targets[0]; }
    MoveSegment& way() { return project.moves[0].poses[1].arrive; }
    void aim(double right, double up) {
        way().kind = SegmentKind::Aimed;
        way().target = target().id;
        way().placeRight = right;
        way().placeUp = up;
    }
};

} // namespace

class ZoomMoveTest : public QObject, Dice {
    Q_OBJECT
public:
    ZoomMoveTest() : Dice(71) {}

private slots:
    void ringsThatTellNoScale() {
        QVERIFY(!ZoomRing::of(std::vector<ZoomMark>{}));
        QVERIFY(!ZoomRing::of(std::vector<ZoomMark>{{0.0, 0.05}}));
        QVERIFY(!ZoomRing::of(std::vector<ZoomMark>{{0.0, 0.05}, {1.0, 0.05}}));
        QVERIFY(!ZoomRing::of(std::vector<ZoomMark>{{0.0, 0.05}, {0.0, 0.07}}));
        QVERIFY(!ZoomRing::of(std::vector<ZoomMark>{{0.0, 0.05}, {1.0, 0.0}}));
        QVERIFY(!ZoomRing::of(std::vector<ZoomMark>{{0.0, 0.05}, {1.0, 0.08}, {2.0, 0.06}}));
        // In any order, and either way round.
        const auto ring = ZoomRing::of(std::vector<ZoomMark>{{2.0, 0.024}, {0.0, 0.07}, {1.0, 0.035}});
        QVERIFY(ring.has_value());
        VERIFY_NEAR(ring->focalAt(1.0), 0.035, 1e-12);
        VERIFY_NEAR(ring->angleAt(0.035), 1.0, 1e-9);
        // A lens has no more than its marks.
        VERIFY_NEAR(ring->focalAt(-5.0), 0.07, 1e-12);
        VERIFY_NEAR(ring->focalAt(9.0), 0.024, 1e-12);
        QCOMPARE(ring->angleAt(0.3), 0.0);
        QCOMPARE(ring->at({9.0, 1.0, 1.0}).rate, 0.0);
    }
    void focalLengthsChangeAsTheRingTurns() {
        const ZoomRing ring = ZoomRing::of(marks()).value();
        for (const double angle : {0.2, 0.7, 1.3}) {
            const double rate = within(-1.0, 1.0), rises = within(-1.0, 1.0), h = 1e-5;
            const auto at = [&](double t) { return ring.focalAt(angle + rate * t + 0.5 * rises * t * t); };
            const optics::FocalMotion m = ring.at({angle, rate, rises});
            VERIFY_NEAR_ABS(m.rate, (at(h) - at(-h)) / (2 * h), 1e-9);
            VERIFY_NEAR_ABS(m.rises, (at(h) - 2 * at(0.0) + at(-h)) / (h * h), 1e-5);
        }
    }
    /// Place, speed and acceleration of a target that does not stand in the middle, by a pinhole that is
    /// longer at every moment, and by differences.
    void pictureGrows() {
        Zooming z;
        const PlannedMove m = planOf(z.project);
        QVERIFY(m.plan.troubles.empty());
        const trajectory::Trajectory& t = m.plan.trajectory;
        VERIFY_NEAR(t.at(z.zoom, 0.0).place, 0.0, 1e-9);
        VERIFY_NEAR(t.at(z.zoom, t.duration()).place, 1.6, 1e-9);
        const ZoomRing ring = ZoomRing::of(marks()).value();
        const auto seen = [&](double at) { return targetSeen(m.scene, z.target(), t, at); };
        const double perMetre = z.project.camera.deliveredWidth / z.project.camera.sensorWidth, h = 1e-4;
        for (const double at : {1.0, 2.2, 3.0, 4.7}) {
            const kinematics::InPicture now = seen(at);
            QVERIFY(now.inFront);
            const geometry::Place way =
                cameraAt(m.scene, t, at).frame.seen({z.target().x, z.target().y, z.target().z});
            const double focal = perMetre * ring.focalAt(t.at(z.zoom, at).place);
            VERIFY_NEAR(now.u, -focal * way.y / way.x, 1e-9);
            VERIFY_NEAR(now.v, focal * way.z / way.x, 1e-9);
            VERIFY_NEAR_ABS(now.uSpeed, (seen(at + h).u - seen(at - h).u) / (2 * h), 1e-3);
            VERIFY_NEAR_ABS(now.vSpeed, (seen(at + h).v - seen(at - h).v) / (2 * h), 1e-3);
            VERIFY_NEAR_ABS(now.uRises, (seen(at + h).u - 2 * now.u + seen(at - h).u) / (h * h), 0.5);
            QVERIFY(std::abs(now.uSpeed) > 10.0);
            VERIFY_NEAR(frameAt(m.scene, t, at).focalLength * perMetre, focal, 1e-12);
        }
    }
    /// Beside the middle the head has to turn on while the picture grows, and is told so.
    void aimHoldsItsPlace() {
        Zooming z;
        z.aim(400.0, -220.0);
        z.project.moves[0].poses[0].arrive = z.way();
        addAxis(z.project, Role::Tilt);
        // The first pose is aimed for as well, since the segment sets off there.
        const PlannedMove m = planOf(z.project);
        QVERIFY(m.plan.troubles.empty());
        QVERIFY(m.scene.head.tilt >= 0);
        const trajectory::Trajectory& t = m.plan.trajectory;
        const std::size_t pan = axisOf(z.project, Role::Pan);
        const double h = 1e-4;
        for (int i = 0; i <= 300; ++i) {
            const double at = t.duration() * i / 300.0;
            const kinematics::InPicture now = targetSeen(m.scene, z.target(), t, at);
            VERIFY_NEAR_ABS(now.u, 400.0, 0.02);
            VERIFY_NEAR_ABS(now.v, -220.0, 0.02);
            if (i == 0 || i == 300) continue;
            const double step = (t.at(pan, at + h).place - t.at(pan, at - h).place) / (2 * h);
            VERIFY_NEAR_ABS(t.at(pan, at).speed, step, 1e-5);
        }
        // Without the zoom it turns otherwise.
        Zooming still;
        still.aim(400.0, -220.0);
        addAxis(still.project, Role::Tilt);
        still.project.moves[0].poses[1].focal = 0.024;
        const PlannedMove other = planOf(still.project);
        QVERIFY(std::abs(other.plan.trajectory.at(pan, t.duration()).place - t.at(pan, t.duration()).place) >
                0.05);
    }
    /// What an axis does to the picture, what blurs, and what is seen of the rig go by the lens as it is.
    void everyFigureGoesByIt() {
        Zooming z;
        const RigSetup rig = setupWithMoves(z.project);
        const PlannedMove& m = (*rig.planned)[0];
        const trajectory::Trajectory& t = m.plan.trajectory;
        Zooming wide;
        wide.project.moves[0].poses[1].focal = 0.024;
        const PlannedMove w = planOf(wide.project);
        const std::size_t pan = axisOf(z.project, Role::Pan);
        QCOMPARE(m.axes[0].back().time, w.axes[0].back().time);
        VERIFY_NEAR(m.axes[0].back().shift / w.axes[0].back().shift, 0.07 / 0.024, 1e-6);
        VERIFY_NEAR(m.axes[0].front().shift, w.axes[0].front().shift, 1e-6);
        QVERIFY(!m.moves(pan)); // the pan is left where it is

        // Thin lens: the disk of what is out of focus grows with the square of the lens, by its opening.
        const double end = t.duration();
        const MovePicture picture(rig, z.project.moves[0], m);
        const PictureMoment now = picture.at(end).value();
        VERIFY_NEAR(now.focusBlur.value(),
                    optics::defocusPixels(0.07, z.project.shots[0].fNumber, now.focusedAt,
                                          std::abs(1.0 / now.targetAt - 1.0 / now.focusedAt),
                                          z.project.camera.deliveredWidth / z.project.camera.sensorWidth),
                    1e-9);
        // The table says it.
        const std::string csv = io::moveCsv(z.project, z.project.moves[0], 1.0);
        QVERIFY(csv.find(",lens_mm\r\n") != std::string::npos);
        QVERIFY(csv.find(",24.000000000\r\n") != std::string::npos);
        QVERIFY(csv.find(",70.000000000\r\n") != std::string::npos);
    }
    /// A focal length that cannot be had is said, with the fix that the lens has.
    void whatCannotBeZoomed() {
        Zooming z;
        z.project.moves[0].poses[1].focal = 0.2;
        const PlannedMove past = planOf(z.project);
        QVERIFY(says(past.plan, MoveTroubleKind::NoSuchZoom));
        VERIFY_NEAR(past.plan.troubles[0].limit, 0.07, 1e-9);
        const Assessment a = assess(z.project);
        const auto v = verdictOf(a, "move_plan");
        QVERIFY(v.has_value());
        const auto fixes = findFixes(z.project, a, *v, {}, 5, {});
        QVERIFY(!fixes.empty());
        VERIFY_NEAR(fixes[0].result.moves[0].poses[1].focal, 0.07, 1e-9);
        QVERIFY(!says(planOf(fixes[0].result).plan, MoveTroubleKind::NoSuchZoom));

        auto& rotary = std::get<RotaryMechanism>(z.project.axes[z.zoom].mechanism);
        std::get<LensRingOutput>(rotary.output).steadyElectronics = false;
        QVERIFY(says(planOf(z.project).plan, MoveTroubleKind::NoZoomScale));
        z.project.moves[0].poses[0].focal = z.project.moves[0].poses[1].focal = 0.0;
        const PlannedMove left = planOf(z.project);
        QVERIFY(!says(left.plan, MoveTroubleKind::NoZoomScale));
        QCOMPARE(left.scene.focalLength(left.plan.poses[0]), z.project.shots[0].focalLength);
    }
};

QTEST_APPLESS_MAIN(ZoomMoveTest)
#include "zoom_move_test.moc"
