// SPDX-License-Identifier: GPL-3.0-or-later
// Rigs that run at a few speeds or offer a few times, and ways through poses that go past them or do not:
// against what comes out on paper.
#include "core/evaluate/evaluate.h"
#include "core/evaluate/move/evaluate_move.h"
#include "core/verdicts/fix.h"
#include "support/moves.h"
#include "support/near.h"

#include <QTest>

using namespace gantry;
using namespace rigmoves;
using trajectory::Order;

namespace {

MoveResults resultsOf(const Project& p) {
    const RigSetup rig = setupOf(p, Courses::No);
    return evaluateMove(rig, p.moves[0], plannedMove(rig, p.moves[0]), {});
}
void fixedSpeedsOf(Project& p, std::size_t axis, std::initializer_list<double> speeds) {
    std::visit(
        [&](auto& m) {
            m.motion.speeds.clear();
            for (const double s : speeds) m.motion.speeds.push_back({std::to_string(s), s});
        },
        p.axes[axis].mechanism);
}
State stateNow(const Project& p) {
    const auto v = verdictOf(assess(p), "move_choices");
    return v ? v->state : State::Unknown;
}
void timesOf(Project& p, std::initializer_list<double> times) {
    p.controller.times.clear();
    for (const double t : times) p.controller.times.push_back({std::to_string(t), t});
}
/// The slide from 0.1 m to 0.9 m in 8 s: with ramps of 2 s at both ends its top speed is 0.8/6 m/s.
Project sliding() {
    Project p = dolly();
    auto places = half(p);
    places[0] = 0.1;
    pose(p, places);
    places[0] = 0.9;
    pose(p, places, 8.0);
    return p;
}
/// Places of the slide through which a spline swings past; the worked case of the least jerk, shrunk by 0.8
/// and moved by 0.1 m.
Project rising(bool overshoots) {
    Project p = dolly();
    p.moves[0].overshoots = overshoots;
    auto places = half(p);
    const double keys[]{0.0, 0.1, 0.55, 0.6, 1.0}, times[]{4.0, 2.5, 1.5, 3.5, 1.5};
    for (std::size_t i = 0; i < 5; ++i) {
        places[0] = 0.1 + 0.8 * keys[i];
        pose(p, places, times[i]);
        p.moves[0].poses.back().passes = true;
    }
    return p;
}

} // namespace

class MoveChoicesTest : public QObject {
    Q_OBJECT
private slots:
    void nearestSpeed() {
        Project p = sliding();
        QCOMPARE(resultsOf(p).axes[0].choiceSpeed.reason(), Reason::NotApplicable);
        // 0.1333 is 1.33 times 0.1, and 0.2 is 1.5 times that.
        fixedSpeedsOf(p, 0, {0.2, 0.05, 0.1});
        const MoveAxisResults late = resultsOf(p).axes[0];
        QCOMPARE(late.choicePose, std::size_t{1});
        VERIFY_NEAR(late.choiceWanted.value(), 0.8 / 6.0, 1e-9);
        QCOMPARE(late.choiceSpeed.value(), 0.1);
        VERIFY_NEAR(late.choiceTime.value(), 32.0 / 3.0, 1e-9);
        VERIFY_NEAR(late.choiceLate.value(), 8.0 / 3.0, 1e-9);
        // In 8 s with ramps of 2 s it gets 0.1·6 m far.
        VERIFY_NEAR(late.choiceShort.value(), 0.2, 1e-9);
        // Run at that speed it takes that time: planned, not scaled.
        Project run = p;
        run.moves[0].poses[1].arrive.pace = SegmentPace::Speed;
        run.moves[0].poses[1].arrive.speed = 0.1;
        VERIFY_NEAR(resultsOf(run).time.value(), late.choiceTime.value(), 1e-9);
        VERIFY_NEAR_ABS(resultsOf(run).axes[0].choiceLate.value(), 0.0, 1e-9);

        fixedSpeedsOf(p, 0, {0.05, 0.16});
        const MoveAxisResults early = resultsOf(p).axes[0];
        QCOMPARE(early.choiceSpeed.value(), 0.16);
        VERIFY_NEAR(early.choiceLate.value(), 8.0 * (0.8 / 6.0 / 0.16) - 8.0, 1e-9);
        VERIFY_NEAR(early.choiceShort.value(), 0.8 - 0.16 * 6.0, 1e-9);
        // An axis that stands chooses nothing.
        fixedSpeedsOf(p, 1, {0.1});
        QCOMPARE(resultsOf(p).axes[1].choiceSpeed.reason(), Reason::NotApplicable);
    }
    /// Of several segments the one that is missed by most.
    void worstSegment() {
        Project p = sliding();
        auto places = half(p);
        places[0] = 0.5;
        pose(p, places, 5.0); // 0.4 m back: top 0.4/3.75
        fixedSpeedsOf(p, 0, {0.1});
        const MoveAxisResults a = resultsOf(p).axes[0];
        QCOMPARE(a.choicePose, std::size_t{1});
        p.moves[0].poses[1].arrive.time = 7.9;
        p.moves[0].poses[2].arrive.time = 2.0;
        const MoveAxisResults b = resultsOf(p).axes[0];
        QCOMPARE(b.choicePose, std::size_t{2});
        VERIFY_NEAR(b.choiceTime.value(), 0.4 / 0.1 / 0.75, 1e-9);
    }
    void speedsAreSaid() {
        Project p = sliding();
        fixedSpeedsOf(p, 0, {0.1});
        const auto v = verdictOf(assess(p), "move_choices");
        QVERIFY(v);
        QCOMPARE(v->state, State::Tight);
        QCOMPARE(v->axis, 0);
        const std::string said = sentence(*v, p, units::System::Metric);
        QVERIFY2(said.find("133 mm/s") != std::string::npos && said.find("100 mm/s") != std::string::npos &&
                     said.find("2.67 s late") != std::string::npos &&
                     said.find("200 mm short") != std::string::npos,
                 said.c_str());
        fixedSpeedsOf(p, 0, {0.16});
        const std::string early = sentence(*verdictOf(assess(p), "move_choices"), p, units::System::Metric);
        QVERIFY2(early.find("1.33 s early") != std::string::npos &&
                     early.find("160 mm too far") != std::string::npos,
                 early.c_str());
        // What its fix says holds.
        const Assessment now = assess(p);
        const auto fixes = findFixes(p, now, *verdictOf(now, "move_choices"), {});
        QVERIFY(!fixes.empty());
        VERIFY_NEAR_ABS(fixes.front().result.moves[0].poses[1].arrive.time, 6.67, 0.011);
        // A fiftieth of the time may be missed.
        fixedSpeedsOf(p, 0, {0.8 / 6.0 / 1.021});
        QCOMPARE(stateNow(p), State::Tight);
        fixedSpeedsOf(p, 0, {0.8 / 6.0 / 1.019});
        QCOMPARE(stateNow(p), State::Fine);
        // Of a speed that is just the one nothing is said.
        fixedSpeedsOf(p, 0, {0.8 / 6.0});
        QVERIFY(!verdictOf(assess(p), "move_choices"));
    }
    /// Times that a controller offers are for a run from stop to stop; its segments share in what is missed.
    void nearestTime() {
        Project p = sliding();
        timesOf(p, {5.0, 12.0, 60.0});
        const MoveSegmentResults one = resultsOf(p).segments[0];
        QCOMPARE(one.choice.value(), 12.0); // 8/5 is more than 12/8
        QCOMPARE(one.choiceLate.value(), 4.0);
        auto places = half(p);
        places[0] = 0.5;
        pose(p, places, 2.0);
        p.moves[0].poses[1].passes = true; // 8 s and 2 s in one run
        const MoveResults run = resultsOf(p);
        VERIFY_NEAR(run.segments[0].choice.value(), 9.6, 1e-12);
        VERIFY_NEAR(run.segments[1].choice.value(), 2.4, 1e-12);
        VERIFY_NEAR(run.segments[0].choiceLate.value() + run.segments[1].choiceLate.value(), 2.0, 1e-12);
        p.moves[0].poses[1].wait = 1.0; // so that it stops there
        const MoveResults two = resultsOf(p);
        QCOMPARE(two.segments[0].choice.value(), 12.0);
        QCOMPARE(two.segments[1].choice.value(), 5.0);
        QCOMPARE(two.segments[1].choiceLate.value(), 3.0);
        const auto v = verdictOf(assess(p), "move_choices");
        QVERIFY(v);
        const std::string said = sentence(*v, p, units::System::Metric);
        QVERIFY2(said.find("takes 2 s") != std::string::npos && said.find("3 s late") != std::string::npos,
                 said.c_str());
    }
    /// The worse of speeds and times is the one that is said.
    void worseOfBoth() {
        Project p = sliding();
        fixedSpeedsOf(p, 0, {0.13}); // 2.6 % late
        timesOf(p, {9.0});           // 12.5 % late
        QVERIFY(sentence(*verdictOf(assess(p), "move_choices"), p, units::System::Metric)
                    .find("controller offers") != std::string::npos);
        timesOf(p, {8.1});
        QVERIFY(
            sentence(*verdictOf(assess(p), "move_choices"), p, units::System::Metric).find("nearest speed") !=
            std::string::npos);
    }
    /// What runs at fixed speeds is timed from stop to stop alone, and there even where it is switched.
    void cannotFollow() {
        Project p = sliding();
        fixedSpeedsOf(p, 0, {0.1});
        QVERIFY(planOf(p).plan.troubles.empty());
        auto places = half(p);
        places[0] = 0.5;
        pose(p, places);
        p.moves[0].poses[1].passes = true;
        QVERIFY(says(planOf(p).plan, MoveTroubleKind::CannotFollow));
        p.moves[0].poses[1].passes = false;
        p.moves[0].poses[2].arrive.even = EvenSpeed::Lens;
        QVERIFY(says(planOf(p).plan, MoveTroubleKind::CannotFollow));
        p.moves[0].poses[2].arrive.even = EvenSpeed::Axes;
        QVERIFY(!says(planOf(p).plan, MoveTroubleKind::CannotFollow));
        // The pan that an aim leads.
        addTarget(p, 0, 0.5, 2.0, 1.0);
        p.moves[0].poses[1].arrive.kind = SegmentKind::Aimed;
        p.moves[0].poses[1].arrive.target = p.moves[0].targets[0].id;
        QVERIFY(!says(planOf(p).plan, MoveTroubleKind::CannotFollow));
        fixedSpeedsOf(p, 1, {0.1});
        QVERIFY(says(planOf(p).plan, MoveTroubleKind::CannotFollow));
        const auto v = verdictOf(assess(p), "move_plan");
        QVERIFY(v && sentence(*v, p, units::System::Metric).find("fixed speeds only") != std::string::npos);

        Project switched = sliding();
        switched.controller.ramps = RampKind::None;
        QVERIFY(says(planOf(switched).plan, MoveTroubleKind::NotSteered));
        fixedSpeedsOf(switched, 0, {0.1});
        QVERIFY(planOf(switched).plan.troubles.empty());
    }
    /// Past its poses only where that is allowed, and then by as much as the worked case says.
    void overshoots() {
        const MoveResults past = resultsOf(rising(true)), kept = resultsOf(rising(false));
        for (const auto& c : referenceCases("t20_moves", "spline")) {
            if (c["name"] != "rising") continue;
            const double low = c["expected"]["minjerk"]["range"][0];
            VERIFY_NEAR_ABS(past.axes[0].lowest.value(), 0.1 + 0.8 * low, 1e-8);
            VERIFY_NEAR(kept.axes[0].topSpeed.value(), 0.8 * c["expected"]["local"]["peak_v"].get<double>(),
                        1e-7);
        }
        // Looked for: from C to D it swings back below C.
        const PlannedMove m = planOf(rising(true));
        double most = 0.0, at = 0.0;
        for (double t = 4.0; t <= 7.5; t += 1e-3) {
            const double below = 0.1 + 0.8 * 0.55 - m.plan.trajectory.at(0, t).place;
            if (below > most) {
                most = below;
                at = t;
            }
        }
        QVERIFY(most > 0.1);
        VERIFY_NEAR_ABS(past.axes[0].overshoot.value(), most, 1e-6);
        VERIFY_NEAR_ABS(past.axes[0].overshootAt.value(), at, 2e-3);
        QCOMPARE(kept.axes[0].overshoot.value(), 0.0);
        QCOMPARE(kept.axes[0].overshootAt.reason(), Reason::NotApplicable);
        VERIFY_NEAR_ABS(kept.axes[0].lowest.value(), 0.1, 1e-9);
        VERIFY_NEAR_ABS(kept.axes[0].highest.value(), 0.9, 1e-9);
        // The times are those that were given, either way.
        VERIFY_NEAR(kept.time.value(), 9.0, 1e-12);
        VERIFY_NEAR(past.time.value(), 9.0, 1e-12);
    }
    /// What does not go past its poses is as smooth as it can be, allowed or not; each axis by itself.
    void onlyWhatHasToIsKept() {
        const auto both = [](bool overshoots) {
            Project p = rising(overshoots);
            for (std::size_t i = 0; i < 5; ++i)
                for (PosePlace& place : p.moves[0].poses[i].places)
                    if (auto* r = std::get_if<AxisPlace<AxisKind::Rotary>>(&place.place))
                        r->at = 0.2 + 0.1 * p.moves[0].poses[i].arrive.time * static_cast<double>(i);
            return planOf(p).plan.trajectory;
        };
        const trajectory::Trajectory a = both(true), b = both(false);
        QVERIFY(std::abs(a.at(0, 1.2).place - b.at(0, 1.2).place) > 1e-3);
        double apart = 0.0;
        for (double t = 0.0; t < a.duration(); t += 0.1)
            apart = std::max(apart, std::abs(a.at(1, t).jerk - b.at(1, t).jerk));
        QVERIFY2(apart < 1e-12 || b.extremes(1, Order::Place).least >= 0.2 - 1e-9, "the pan kept smooth");
        Project even = dolly();
        auto places = half(even);
        for (const double at : {0.1, 0.35, 0.6, 0.85}) {
            places[0] = at;
            pose(even, places);
            even.moves[0].poses.back().passes = true;
        }
        Project free = even;
        free.moves[0].overshoots = true;
        QCOMPARE(resultsOf(free).axes[0].overshoot.value(), 0.0);
        for (double t = 0.0; t < 12.0; t += 0.17)
            QCOMPARE(planOf(even).plan.trajectory.at(0, t).place,
                     planOf(free).plan.trajectory.at(0, t).place);
    }
    /// A block out and back goes past the poses because it is told to: that is no overshoot.
    void blocksDoNotOvershoot() {
        Project p = sliding();
        for (const double by : {0.4, -0.4}) {
            addBlock(p, 0, 1, by > 0.0 ? 1.0 : 4.0, 8.0);
            AxisBlock& block = p.moves[0].blocks.back();
            block.start = by > 0.0 ? 1.0 : 4.0;
            block.length = 2.0;
            block.byAngle = by;
        }
        const MoveResults r = resultsOf(p);
        QVERIFY(r.troubles.empty());
        VERIFY_NEAR(r.axes[1].highest.value() - r.axes[1].lowest.value(), 0.4, 1e-9);
        QCOMPARE(r.axes[1].overshoot.reason(), Reason::NotApplicable);
        // Nor is a fixed speed held to the time of a segment that it does not run in.
        fixedSpeedsOf(p, 1, {0.1});
        QCOMPARE(resultsOf(p).axes[1].choiceSpeed.reason(), Reason::NotApplicable);
        QCOMPARE(r.axes[0].overshoot.value(), 0.0);
    }
    /// Out of its travel because it swings past a pose: kept between, it stays inside.
    void overshootIsMended() {
        Project p = rising(true);
        for (KeyPose& k : p.moves[0].poses)
            for (PosePlace& place : k.places)
                if (auto* l = std::get_if<AxisPlace<AxisKind::Linear>>(&place.place)) l->at -= 0.095;
        // Kept between its poses it brakes harder, which play and springs answer: not the matter here.
        for (Shot& s : p.shots) s.limits.jitter = s.limits.drift = 50.0;
        const Assessment now = assess(p);
        const auto v = verdictOf(now, "move_travel");
        QVERIFY(v);
        QCOMPARE(v->state, State::Over);
        bool mended = false;
        for (const Fix& f : findFixes(p, now, *v, {})) mended = mended || !f.result.moves[0].overshoots;
        QVERIFY(mended);
    }
};

QTEST_APPLESS_MAIN(MoveChoicesTest)
#include "move_choices_test.moc"
