// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/evaluate/shot/shot_steps.h"
#include "core/evidence/fingerprint.h"
#include "core/tools/demands.h"
#include "core/tools/error_budget.h"
#include "core/verdicts/completeness.h"
#include "core/verdicts/later.h"
#include "support/bare_rigs.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>

using namespace gantry;

/// Brief: kinds of shots, what they ask, what is missing, what a later addition changes; tests that go stale.
class BriefTest : public QObject {
    Q_OBJECT
    static Completeness stateOf(const Project& p, std::string_view what) {
        for (const CompletenessLine& l : completeness(p, evaluate(p)))
            if (l.what.text == what) return l.state;
        return Completeness::NotNeeded;
    }
private slots:
    void intervalsMoveStepByStep() {
        Project p = bareRig(rigs::RigKind::BeltSlider);
        Shot& shot = p.shots[0];
        const double distance = std::abs(distanceOf(shot.moves[0].movement));
        shot.kind = ShotKind::Interval;
        shot.frames = 201;
        shot.interval = 10.0;
        shot.stepTime = 0.5;
        QCOMPARE(picturesOf(shot), 201);
        VERIFY_NEAR(shootingTime(shot), 2000.0 + shot.exposure, 1e-12);
        VERIFY_NEAR(shownTime(shot), 201 / shot.frameRate, 1e-12);
        const ShotEvaluation e = evaluate(p).axes[0].shots[0];
        VERIFY_NEAR(e.profile.distance, distance / 200, 1e-12);
        VERIFY_NEAR(e.profile.time(), 0.5, 1e-9);
        VERIFY_NEAR(e.distance.value(), distance, 1e-12);
        QCOMPARE(e.picture.blur.value(), 0.0);
        VERIFY_NEAR(e.picture.perFrame.value(), distance / 200 * e.pixelsPerUnit, 1e-9);
        shot.kind = ShotKind::StopMotion;
        shot.clipTime = 4.0;
        QCOMPARE(picturesOf(shot), static_cast<int>(std::lround(4 * shot.frameRate)));
        shot.kind = ShotKind::Live;
        QVERIFY(evaluate(p).axes[0].shots[0].picture.blur.value() > 0.0);
    }
    void demandsNameTheirShot() {
        const Project p = demoProject();
        const Evaluation e = evaluate(p);
        const AxisDemands d = demandsOf(p, e.axes[0]);
        // Reveal 250 mm/s is the fastest, creep 19 mm/s the slowest and, at 25 frames, 0.76 mm the finest.
        QCOMPARE(p.shots[d.fastest.shot.at()].id, std::string("reveal"));
        QCOMPARE(p.shots[d.slowest.shot.at()].id, std::string("creep"));
        QCOMPARE(d.finest.shot, d.slowest.shot);
        VERIFY_NEAR(d.finest.value.value(), d.slowest.value.value() / p.shots[d.finest.shot.at()].frameRate,
                    1e-12);
        for (const ShotEvaluation& s : e.axes[0].shots) {
            QVERIFY(s.motion.topSpeed.value() <= d.fastest.value.value());
            QVERIFY(s.motion.acceleration.value() <= d.steepest.value.value());
        }
        QCOMPARE(demandsOf(p, AxisEvaluation{}).fastest.shot, ShotIndex());
    }
    void completenessFollowsTheProject() {
        Project slider = bareRig(rigs::RigKind::BeltSlider);
        QCOMPARE(stateOf(slider, "End switches"), Completeness::Missing);
        slider.equipment.endStops = true;
        QCOMPARE(stateOf(slider, "End switches"), Completeness::There);
        QCOMPARE(stateOf(slider, "Counterweight"), Completeness::NotNeeded);
        QCOMPARE(stateOf(slider, "Slip ring"), Completeness::NotNeeded);
        Project orbit = bareRig(rigs::RigKind::OrbitBoom); // turns twice
        QCOMPARE(stateOf(orbit, "Slip ring"), Completeness::Missing);
        Project jib = bareRig(rigs::RigKind::JibCrane);
        QCOMPARE(stateOf(jib, "Counterweight"), Completeness::There);
        std::get<RotaryMechanism>(jib.axes[1].mechanism).items.pop_back();
        QCOMPARE(stateOf(jib, "Counterweight"), Completeness::Missing);
        QCOMPARE(stateOf(jib, "Tie-down"), Completeness::Missing);
        // An emergency stop counts as tried only where each loaded axis says what it does.
        jib.equipment.emergencyStop = true;
        for (Axis& a : jib.axes) a.onStop = OnStop::NotAsked;
        QCOMPARE(stateOf(jib, "Emergency stop, tried"), Completeness::Missing);
        for (Axis& a : jib.axes) a.onStop = OnStop::KeepsHolding;
        QCOMPARE(stateOf(jib, "Emergency stop, tried"), Completeness::There);
        // A long lens wide open past a near subject needs a focus axis; there it is, or it is taken away.
        Project multi = bareRig(rigs::RigKind::MultiAxis);
        multi.shots[0].focalLength = 0.1;
        multi.shots[0].fNumber = 2.0;
        QCOMPARE(stateOf(multi, "Follow focus"), Completeness::There);
        multi.axes.pop_back();
        QCOMPARE(stateOf(multi, "Follow focus"), Completeness::Missing);
        multi.shots[0].focalLength = 0.01;
        multi.shots[0].fNumber = 22.0;
        QCOMPARE(stateOf(multi, "Follow focus"), Completeness::NotNeeded);
    }
    void everyTickCounts_data() {
        QTest::addColumn<QString>("line");
        QTest::addColumn<int>("tick");
        const std::pair<const char*, bool Equipment::*> ticks[]{
            {"End switches", &Equipment::endStops},  {"Blocks behind the switches", &Equipment::hardBlocks},
            {"Homing place", &Equipment::homing},    {"Cable path", &Equipment::cablePath},
            {"Slip ring", &Equipment::slipRing},     {"Tie-down", &Equipment::tieDown},
            {"Catch strap", &Equipment::catchStrap}, {"Spare parts", &Equipment::spareParts}};
        for (int i = 0; i < 8; ++i) QTest::newRow(ticks[i].first) << QString(ticks[i].first) << i;
    }
    /// On a jib that turns more than once each of them is needed, and there when it is ticked, and nothing
    /// else changes.
    void everyTickCounts() {
        QFETCH(QString, line);
        QFETCH(int, tick);
        bool Equipment::*const members[]{&Equipment::endStops,   &Equipment::hardBlocks, &Equipment::homing,
                                         &Equipment::cablePath,  &Equipment::slipRing,   &Equipment::tieDown,
                                         &Equipment::catchStrap, &Equipment::spareParts};
        Project p = bareRig(rigs::RigKind::JibCrane);
        std::get<RotaryMechanism>(p.axes[0].mechanism).range = 9.0;
        p.equipment = {};
        const auto before = completeness(p, evaluate(p));
        QCOMPARE(stateOf(p, line.toStdString()), Completeness::Missing);
        p.equipment.*members[tick] = true;
        const auto after = completeness(p, evaluate(p));
        QCOMPARE(before.size(), after.size());
        for (std::size_t i = 0; i < after.size(); ++i)
            QCOMPARE(after[i].state,
                     after[i].what.text == line.toStdString() ? Completeness::There : before[i].state);
    }
    /// An empty project needs nothing; what hangs overhead a strap, or its second tether.
    void needsFollowTheRig() {
        for (const CompletenessLine& l : completeness({}, evaluate({})))
            QCOMPARE(l.state, Completeness::NotNeeded);
        Project slider = bareRig(rigs::RigKind::BeltSlider);
        slider.equipment = {};
        std::get<LinearMechanism>(slider.axes[0].mechanism).slope.value = 0.0;
        QCOMPARE(stateOf(slider, "Catch strap"), Completeness::NotNeeded);
        QCOMPARE(stateOf(slider, "Tie-down"), Completeness::NotNeeded);
        QCOMPARE(stateOf(slider, "Homing place"), Completeness::Missing);
        slider.base.kind = BaseKind::Overhead;
        QCOMPARE(stateOf(slider, "Catch strap"), Completeness::Missing);
        slider.base.tethered = true;
        QCOMPARE(stateOf(slider, "Catch strap"), Completeness::There);
        slider.base.kind = BaseKind::Legs;
        QCOMPARE(stateOf(slider, "Catch strap"), Completeness::NotNeeded);
        slider.axes[0].motor = GearedDc{};
        QCOMPARE(stateOf(slider, "Homing place"), Completeness::NotNeeded); // it counts nothing
    }
    /// Each cause takes its own figure, and the causes of a kind together what the shot is judged by.
    void budgetLineByLine() {
        Project p = demoProject();
        const Evaluation e = evaluate(p);
        const ErrorBudget b = errorBudget(p, e, ShotIndex(0));
        QCOMPARE(b.allowed[static_cast<std::size_t>(ErrorKind::Framing)],
                 p.shots[0].limits.framing * p.camera.deliveredWidth);
        for (int axis = 0; axis < static_cast<int>(e.axes.size()); ++axis)
            for (const ShotEvaluation& s : e.axes[static_cast<std::size_t>(axis)].shots) {
                if (s.shot != ShotIndex(0)) continue;
                const auto amount = [&](ErrorKind kind, ErrorCause cause) {
                    double sum = 0.0;
                    for (const BudgetLine& l : b.lines)
                        if (l.kind == kind && l.cause == cause && l.axis == axis) sum += l.amount;
                    return sum;
                };
                const auto of = [](const Figure& f) { return std::abs(f.valueOr(0.0)); };
                const double letGo = s.loadReverses ? of(s.errors.backlash) : 0.0;
                QCOMPARE(amount(ErrorKind::Drift, ErrorCause::Stretch), of(s.errors.drift));
                QCOMPARE(amount(ErrorKind::Drift, ErrorCause::Sag), of(s.sag.drift));
                QCOMPARE(amount(ErrorKind::Jitter, ErrorCause::Stepping), of(s.place.stepping));
                QCOMPARE(amount(ErrorKind::Jitter, ErrorCause::Rocking), of(s.rocking.pixels));
                QCOMPARE(amount(ErrorKind::Jitter, ErrorCause::GuidePlay), of(s.guidePixels));
                QCOMPARE(amount(ErrorKind::Jitter, ErrorCause::Backlash), letGo);
                QCOMPARE(amount(ErrorKind::Repeat, ErrorCause::Backlash), letGo);
                QCOMPARE(amount(ErrorKind::Repeat, ErrorCause::FrictionBand), of(s.place.frictionBand));
                QCOMPARE(amount(ErrorKind::Repeat, ErrorCause::IdleShift), of(s.place.idleShift));
                QCOMPARE(amount(ErrorKind::Framing, ErrorCause::Lag), of(s.place.lag));
                QCOMPARE(amount(ErrorKind::Framing, ErrorCause::StepAccuracy), of(s.place.accuracy));
                QCOMPARE(amount(ErrorKind::Framing, ErrorCause::Rounding), of(s.roundingPixels));
                QCOMPARE(amount(ErrorKind::Framing, ErrorCause::Sag), of(s.sag.pixels));
            }
        for (std::size_t i = 1; i < b.lines.size(); ++i)
            QVERIFY(b.share(b.lines[i - 1]) >= b.share(b.lines[i]));
    }
    void laterAdditionIsReallyAdded() {
        const Project p = demoProject();
        const Assessment now = assess(p);
        LaterAxis nothing;
        nothing.mass.value = 0.0;
        QVERIFY(whatChanges(p, now, nothing).empty());
        LaterAxis heavy;
        heavy.mass = estimate(6.0, Source::Guess);
        bool torque = false;
        for (const LaterChange& c : whatChanges(p, now, heavy)) {
            QVERIFY(c.before.state != c.after.state);
            torque = torque || ruleKey(c.after) == "torque";
        }
        QVERIFY(torque); // 10.1 kg where 7.07 kg is what moves at margin 2
    }
    /// A microphone three times as far hears one rank less; 0 is taken as a metre.
    void noiseFollowsTheMicrophone() {
        Project p = bareRig(rigs::RigKind::BeltSlider);
        p.conditions.silence = Silence::Quiet;
        const auto ratio = [&](double metres) {
            p.conditions.microphoneDistance = metres;
            for (const Verdict& v : assess(p).verdicts)
                if (ruleKey(v) == "noise") return v.ratio.value();
            return -1.0;
        };
        const double near = ratio(1.0);
        QVERIFY(near > 0.0);
        QCOMPARE(ratio(0.0), near);
        VERIFY_NEAR(ratio(3.3) / near, 1.5, 1e-9); // allowed rank 3 for 2
        VERIFY_NEAR(ratio(0.2) / near, 0.5, 1e-9);
        VERIFY_NEAR(ratio(1000.0) / near, 2.0, 1e-9);
    }
    void budgetAddsUp() {
        const Project p = demoProject();
        const Evaluation e = evaluate(p);
        const ErrorBudget b = errorBudget(p, e, ShotIndex(0));
        QVERIFY(!b.lines.empty());
        std::array<double, 4> sums{};
        for (std::size_t i = 0; i < b.lines.size(); ++i) {
            sums[static_cast<std::size_t>(b.lines[i].kind)] += b.lines[i].amount;
            if (i > 0) QVERIFY(b.share(b.lines[i]) <= b.share(b.lines[i - 1]));
        }
        for (std::size_t k = 0; k < 4; ++k) VERIFY_NEAR(sums[k], b.sums[k], 1e-12);
        QCOMPARE(b.allowed[1], p.shots[0].limits.jitter);
        // The slide's friction band and fall to hold current make its repeat error.
        double repeat = 0;
        for (const BudgetLine& l : b.lines)
            if (l.axis == 0 && l.kind == ErrorKind::Repeat) repeat += l.amount;
        for (const ShotEvaluation& s : e.axes[0].shots)
            if (s.shot == ShotIndex(0)) VERIFY_NEAR(repeat, s.errors.repeat.value(), 1e-9);
        QVERIFY(errorBudget(p, e, ShotIndex(99)).lines.empty());
    }
    void testsGoStale() {
        Project p = demoProject();
        TestRecord test;
        test.id = "ring";
        test.path = "axes/slide/vibration/frequency_hz";
        test.fingerprint = evidence::fingerprint(p, test.path);
        QVERIFY(evidence::changedSince(p, test).empty());
        p.shots[0].exposure *= 2; // has nothing to do with it
        QVERIFY(evidence::changedSince(p, test).empty());
        Project heavier = p;
        std::get<LinearMechanism>(heavier.axes[0].mechanism).movingMass.value += 0.5;
        QCOMPARE(evidence::changedSince(heavier, test), std::vector<std::string>{"mass"});
        Project lens = p;
        lens.shots[0].focalLength = 0.085;
        QCOMPARE(evidence::changedSince(lens, test), std::vector<std::string>{"lens"});
        Project thicker = p;
        std::get<LinearMechanism>(thicker.axes[0].mechanism).rail.section.height *= 1.5;
        QCOMPARE(evidence::changedSince(thicker, test), std::vector<std::string>{"supports"});
        Project pads = p;
        pads.base.padStiffness.value = 5e4;
        QCOMPARE(evidence::changedSince(pads, test), std::vector<std::string>{"supports"});
        Project other = p; // another axis' mass is no matter for this one
        std::get<RotaryMechanism>(other.axes[1].mechanism)
            .items.push_back({"x", "X", estimate(1, Source::Guess), 0, 0});
        QVERIFY(evidence::changedSince(other, test).empty());
        test.path = "base/mass_kg";
        test.fingerprint = evidence::fingerprint(p, test.path);
        QCOMPARE(evidence::changedSince(other, test), std::vector<std::string>{"mass"});
    }
};

QTEST_APPLESS_MAIN(BriefTest)
#include "brief_test.moc"
