// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/rig/rig_sweep.h"
#include "core/geometry/apart.h"
#include "core/rigs/rigs.h"
#include "core/structure/nearest.h"
#include "core/verdicts/ranges.h"
#include "support/dice.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <numbers>
#include <random>
#include <tuple>

using namespace gantry;
using geometry::Place;
using geometry::Segment;

/// Nearest approaches against looking everywhere by hand.
class SweepTest : public QObject, private Dice {
    Q_OBJECT

    static double between(Place a, Place b) { return std::hypot(a.x - b.x, a.y - b.y, a.z - b.z); }
    static Place along(const Segment& s, double t) {
        return {s.from.x + t * (s.to.x - s.from.x), s.from.y + t * (s.to.y - s.from.y),
                s.from.z + t * (s.to.z - s.from.z)};
    }
    static double toBox(Place p, const geometry::Box& b) {
        return std::hypot(std::max(0.0, std::abs(p.x - b.middle.x) - b.length / 2),
                          std::max(0.0, std::abs(p.y - b.middle.y) - b.width / 2),
                          std::max(0.0, std::abs(p.z - b.middle.z) - b.height / 2));
    }
    /// A swing with a boom of 2 m on three legs, a camera at its end.
    static Project jib() {
        Project p = rigs::make(rigs::RigKind::JibCrane);
        auto& boom = std::get<RotaryMechanism>(p.axes[1].mechanism).boom;
        boom.section.shape = SectionShape::RoundTube;
        boom.section.width = 0.05;
        boom.reach = 2.0;
        boom.rear = 0.8;
        p.base.kind = BaseKind::Legs;
        p.base.legRadius = 0.6;
        p.base.massHeight = 0.3;
        p.base.height = 3.0;
        return p;
    }

public:
    SweepTest() : Dice(20260514) {}

private slots:
    void segmentsAgainstSampling() {
        for (int i = 0; i < 300; ++i) {
            Segment a{place(1), place(1)}, b{place(1), place(1)};
            if (i % 10 == 0) b.to = b.from; // a point
            if (i % 10 == 1)                // parallel
                b.to = {b.from.x + 2 * (a.to.x - a.from.x), b.from.y + 2 * (a.to.y - a.from.y),
                        b.from.z + 2 * (a.to.z - a.from.z)};
            double least = 1e9;
            constexpr int n = 200;
            for (int s = 0; s <= n; ++s)
                for (int t = 0; t <= n; ++t)
                    least = std::min(least, between(along(a, double(s) / n), along(b, double(t) / n)));
            const double found = geometry::apart(a, b);
            QVERIFY2(found <= least + 1e-12 && found > least - 0.03, qPrintable(QString::number(found)));
            VERIFY_NEAR(found, geometry::apart(b, a), 1e-9);
        }
    }
    void boxesAgainstSampling() {
        int inside = 0;
        for (int i = 0; i < 500; ++i) {
            const Segment a{place(1.5), place(1.5)};
            const geometry::Box box{place(0.5), within(0, 1), within(0, 1), within(0, 1)};
            double least = 1e9;
            constexpr int n = 2000;
            for (int s = 0; s <= n; ++s) least = std::min(least, toBox(along(a, double(s) / n), box));
            const double found = geometry::apart(a, box);
            if (found <= 0.0) {
                ++inside;
                QVERIFY(least < 1e-3);
            } else {
                QVERIFY2(std::abs(found - least) < 1e-3, qPrintable(QString("%1 %2").arg(found).arg(least)));
            }
        }
        QVERIFY(inside > 20 && inside < 480);
    }
    /// Valleys at random places, narrower than any grid: the search must never promise more than there is.
    void neverPromisesMoreThanThereIs() {
        for (int i = 0; i < 60; ++i) {
            const std::array ranges{within(0.2, 6), within(0.2, 3), within(0.0, 2)};
            const std::array dip{within(0, ranges[0]), within(0, ranges[1]), within(0, ranges[2])};
            const double depth = within(-0.02, 0.4);
            // A cone whose slope is that of the joints' weights: as sharp as the bound allows.
            const auto distance = [&](std::span<const double> at) {
                return depth + std::abs(at[0] - dip[0]) + 2 * std::abs(at[1] - dip[1]) +
                       std::abs(at[2] - dip[2]);
            };
            const auto look = [&](std::span<const double> at, std::span<const double> half) {
                const std::array part{half[0], 2 * half[1], half[2]};
                return structure::Approach{
                    distance(at), distance(at) - part[0] - part[1] - part[2],
                    std::size_t(std::max_element(part.begin(), part.end()) - part.begin())};
            };
            const structure::Nearest n = structure::nearestApproach(ranges, look);
            QVERIFY2(n.atLeast <= depth + 1e-12 || n.distance <= 0.0,
                     qPrintable(QString("%1 promised, %2 there").arg(n.atLeast).arg(depth)));
            QVERIFY(n.distance >= depth - 1e-12 && n.atLeast <= n.distance);
            VERIFY_NEAR(distance(n.pose), n.distance, 1e-12);
            // A sharp cone is also the easiest to run down: found to the tolerance, far below 400 poses.
            if (depth > 0.0 && depth < 0.14) QVERIFY(n.distance - depth < 0.011 && n.looks < 400);
        }
    }
    void farApartTakesFewLooks() {
        const std::array ranges{6.0, 2.0};
        const auto n =
            structure::nearestApproach(ranges, [](std::span<const double>, std::span<const double> half) {
                return structure::Approach{9.0, 9.0 - 2 * half[0] - 2 * half[1], 0};
            });
        QVERIFY(n.looks <= 16);
        QVERIFY(n.atLeast >= 0.15);
        // Nothing moves: one pose is all there is.
        const auto still =
            structure::nearestApproach({}, [](std::span<const double>, std::span<const double>) {
                return structure::Approach{0.1, 0.1, 0};
            });
        QCOMPARE(still.distance, 0.1);
        QCOMPARE(still.atLeast, 0.1);
    }
    /// A lamp of 4 cm somewhere on the sphere that the arm's end sweeps is run into wherever it hangs.
    void smallRoomsAreNotMissed() {
        Project p = jib();
        p.base.height = 2.6;
        auto& swing = std::get<RotaryMechanism>(p.axes[0].mechanism);
        auto& tilt = std::get<RotaryMechanism>(p.axes[1].mechanism);
        swing.lowAngle = 0.0;
        swing.range = 5.0;
        tilt.lowAngle = -0.5;
        tilt.range = 1.2;
        p.keepOut.emplace_back();
        p.keepOut[0].id = "lamp";
        p.keepOut[0].length = p.keepOut[0].width = p.keepOut[0].height = 0.04;
        std::vector<double> pose(p.axes.size());
        for (int i = 0; i < 40; ++i) {
            for (std::size_t a = 0; a < pose.size(); ++a) pose[a] = within(0, usableTravel(p.axes[a]));
            // On the boom's end in that pose.
            for (const RigBody& b : layRig(setupOf(p), pose).bodies)
                if (b.kind == BodyKind::Arm && b.axis == 1)
                    std::tie(p.keepOut[0].x, p.keepOut[0].y, p.keepOut[0].z) =
                        std::tie(b.to.x, b.to.y, b.to.z);
            QVERIFY(clearanceAt(setupOf(p), pose).distance <= 0.0);
            const Clearance c = sweepRig(setupOf(p));
            QVERIFY2(
                c.atLeast <= 0.0 && c.distance <= 0.06,
                qPrintable(QString("%1, certain %2 after %3").arg(c.distance).arg(c.atLeast).arg(c.looks)));
        }
        // Above what the boom reaches it is left alone.
        p.keepOut[0] = {"lamp", "Lamp", 0.0, 0.0, 6.0, 0.04, 0.04, 0.04};
        const Clearance c = sweepRig(setupOf(p));
        QVERIFY(c.pair.obstacle != Obstacle::KeepOut && c.atLeast >= 3.0 * c.pair.wanted - 1e-9);
    }
    void arcsOutsideABall() {
        Segment pieces[2];
        for (int i = 0; i < 300; ++i) {
            const Segment a{place(1), place(1)};
            const Place ball = place(1);
            const double radius = within(0.05, 1.0);
            const int count = geometry::cutOut(a, ball, radius, pieces);
            double kept = 0.0;
            for (int k = 0; k < count; ++k) kept += between(pieces[k].from, pieces[k].to);
            int outside = 0;
            for (int t = 0; t < 2000; ++t)
                outside += between(along(a, (t + 0.5) / 2000), ball) > radius ? 1 : 0;
            QVERIFY(std::abs(kept - between(a.from, a.to) * outside / 2000) < 0.005);
        }
    }
    /// The nearest of 30,000 random poses is never nearer than what the sweep promises.
    void noPoseComesNearerThanPromised() {
        Project p = jib();
        p.base.height = 1.9;
        for (int i = 0; i < 6; ++i) {
            p.keepOut.assign(1, {"subject", "Subject", within(-3, 3), within(-3, 3), within(0, 3),
                                 within(0.1, 1), within(0.1, 1), within(0.1, 1)});
            const Clearance c = sweepRig(setupOf(p));
            double least = 1e9;
            std::vector<double> pose(p.axes.size());
            for (int k = 0; k < 30000; ++k) {
                for (std::size_t a = 0; a < pose.size(); ++a) pose[a] = within(0, usableTravel(p.axes[a]));
                least = std::min(least, clearanceAt(setupOf(p), pose).ratio());
            }
            const double promised = c.atLeast / c.pair.wanted;
            QVERIFY2(c.distance <= 0.0 || least >= promised - 1e-9,
                     qPrintable(QString("seen %1, promised %2").arg(least).arg(promised)));
            if (least <= 0.0) QVERIFY(c.distance <= 0.0 || c.atLeast <= 0.0);
        }
    }
    /// The lens of a panned camera sticks out: past the arm's end it reaches a wall that it would clear
    /// ahead.
    void pansAndTiltsAreSwept() {
        Project p = rigs::make(rigs::RigKind::PanTiltHead);
        p.base.kind = BaseKind::Legs;
        p.base.height = 1.2;
        KeepOut wall;
        wall.id = "wall";
        wall.name = "Wall";
        wall.x = 0.0;
        wall.z = 1.5;
        wall.length = 2.0;
        wall.width = 0.02;
        wall.height = 1.0;
        // Straight ahead the camera's side is 0.035 m from the middle; turned, its lens is 0.09 m out.
        wall.y = 0.1;
        p.head.cameraWidth.value = 0.07;
        p.head.lensDiameter.value = 0.06;
        p.keepOut.push_back(wall);
        for (Axis& a : p.axes)
            if (a.role == Role::Pan) {
                auto& r = std::get<RotaryMechanism>(a.mechanism);
                r.lowAngle = -1.6;
                r.range = 3.2;
            }
        QVERIFY(clearanceAt(setupOf(p), shownPose(p.axes)).distance > 0.05);
        QVERIFY(sweepRig(setupOf(p)).distance <= 0.0);
    }
    /// What a search did not look into closely enough counts against the verdict.
    void theUnseenDecidesTheState() {
        const Project p = demoProject("kettle-jib");
        const Assessment a = assess(p);
        const RigStructure& rig = a.evaluation.rig;
        QVERIFY(rig.clearance.atLeast.value() > 0.0 &&
                rig.clearance.atLeast.value() < rig.clearance.distance.value());
        int judged = 0;
        for (const Verdict& v : a.verdicts)
            if (ruleKey(v) == "clearance") {
                VERIFY_NEAR(v.ratio.value(), rig.clearance.distance.value() / 0.05, 1e-12);
                QVERIFY(v.low <= rig.clearance.atLeast.value() / 0.05 + 1e-9 && v.low < v.ratio.value());
                ++judged;
            }
        QCOMPARE(judged, 1);
    }
};

QTEST_GUILESS_MAIN(SweepTest)
#include "sweep_test.moc"
