// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/move/planned_move.h"
#include "core/model/edit_moves.h"
#include "core/rigs/rigs.h"
#include "support/dice.h"
#include "support/near.h"

#include <QTest>
#include <iostream>

using namespace gantry;
using trajectory::Order;

/// Moves drawn over all rigs to start from, with drawn settings: what is to run as fast as it may never
/// passes a limit, every pose is reached, and nothing jumps.
///
/// GANTRY_MOVES says how many (20,000 unless told).
class RandomMovesTest : public QObject, Dice {
    Q_OBJECT

    bool chance(double share) { return within(0.0, 1.0) < share; }

    Project anyRig() {
        const auto all = rigs::all();
        Project p = rigs::make(all[random_() % all.size()].kind);
        p.controller.ramps = RampKind::SCurve;
        for (Axis& axis : p.axes)
            std::visit(
                [&](auto& m) {
                    m.motion.maxSpeed *= std::exp(within(-1.0, 1.0));
                    m.motion.maxAcceleration *= std::exp(within(-1.0, 1.0));
                    m.motion.jerk = m.motion.maxAcceleration * std::exp(within(0.0, 3.0));
                },
                axis.mechanism);
        return p;
    }
    void drawMove(Project& p, bool aims) {
        p.moves.clear();
        addMove(p);
        RigMove& m = p.moves[0];
        if (aims) addTarget(p, 0, within(-1.0, 3.0), within(1.5, 4.0), within(0.3, 2.0));
        const int poses = 2 + static_cast<int>(random_() % 5);
        for (int i = 0; i < poses; ++i) {
            std::vector<double> places;
            for (const Axis& a : p.axes) places.push_back(within(0.0, 1.0) * usableTravel(a));
            storePose(p, 0, i - 1, places);
            KeyPose& pose = m.poses.back();
            pose.passes = chance(0.4);
            if (chance(0.2)) pose.wait = within(0.0, 2.0);
            pose.arrive.pace = SegmentPace::Fastest;
            pose.arrive.time = within(0.5, 20.0);
            if (aims && chance(0.3)) {
                pose.arrive.kind = SegmentKind::Aimed;
                pose.arrive.target = m.targets[0].id;
            }
        }
    }
    static QString placeOf(const Project& p, std::size_t axis, long n) {
        return QStringLiteral("%1 of move %2").arg(QString::fromStdString(p.axes[axis].name)).arg(n);
    }

public:
    RandomMovesTest() : Dice(2026) {}

private slots:
    void limitsHoldAndPosesAreReached() {
        const int wanted = qEnvironmentVariableIntValue("GANTRY_MOVES");
        const long moves = wanted > 0 ? wanted : 20000;
        long planned = 0, aimed = 0;
        double worst = 0.0;
        Project p = anyRig();
        for (long n = 0; n < moves; ++n) {
            if (n % 25 == 0) p = anyRig();
            const bool aims = chance(0.05);
            drawMove(p, aims);
            const RigSetup rig = setupOf(p, Courses::No);
            const MoveScene scene = sceneOf(rig, p.moves[0]);
            const MovePlan plan = planMove(p.moves[0], scene);
            const trajectory::Trajectory& t = plan.trajectory;
            if (t.empty()) continue;
            ++planned;
            aimed += aims;
            // An aimed segment that cannot be aimed is told of, and then holds nothing.
            const bool whole = plan.troubles.empty();
            for (std::size_t a = 0; a < p.axes.size(); ++a) {
                const motion::Limits& l = scene.limits[a];
                for (const auto& [order, limit] : {std::pair{Order::Speed, l.speed},
                                                   {Order::Acceleration, l.acceleration},
                                                   {Order::Jerk, l.jerk}}) {
                    const double asked = t.extremes(a, order).largest();
                    if (!(limit > 0.0) || !whole) continue;
                    worst = std::max(worst, asked / limit - 1.0);
                    QVERIFY2(asked <= limit * (1.0 + 1e-9), qPrintable(placeOf(p, a, n)));
                }
                for (std::size_t i = 0; i < plan.poses.size() && i < plan.poseTimes.size(); ++i)
                    QVERIFY2(std::abs(t.at(a, plan.poseTimes[i]).place - plan.poses[i][a]) < 1e-9 || !whole,
                             qPrintable(placeOf(p, a, n)));
                const double scale = 1.0 + scene.travels[a];
                for (std::size_t i = 0; i + 1 < t.pieceCount(); ++i) {
                    const trajectory::Quintic& q = t.pieces(a)[i];
                    const trajectory::State end = q.at(q.duration()), next = t.pieces(a)[i + 1].at(0.0);
                    QVERIFY2(std::abs(end.place - next.place) < 1e-9 * scale, qPrintable(placeOf(p, a, n)));
                    QVERIFY2(std::abs(end.speed - next.speed) < 1e-6 * (1.0 + std::abs(end.speed)),
                             qPrintable(placeOf(p, a, n)));
                }
            }
        }
        std::cout << planned << " planned, " << aimed << " of them aimed, past a limit by at most " << worst
                  << std::endl;
        QVERIFY(planned > moves * 9 / 10);
        QVERIFY(aimed > moves / 100);
    }
};

QTEST_APPLESS_MAIN(RandomMovesTest)
#include "random_moves_test.moc"
