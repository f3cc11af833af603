// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/model/fields.h"
#include "core/motor/at_once.h"
#include "core/sampling/confidence.h"
#include "core/tools/limits.h"
#include "core/tools/simulation_view.h"
#include "core/tools/stall_ladder.h"
#include "core/verdicts/ranges.h"
#include "core/verdicts/rules.h"
#include "support/bare_rigs.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <thread>

using namespace gantry;

class LimitsTest : public QObject {
    Q_OBJECT
    static const Limit* find(const std::vector<Limit>& all, LimitReason reason) {
        for (const Limit& l : all)
            if (l.reason == reason) return &l;
        return nullptr;
    }
private slots:
    /// The worked slider: 500 mm/s by 40 kHz at 80 steps/mm, 2.8 m/s² at margin 2 by hand, 714 rpm corner.
    void workedSlider() {
        const Project p = demoProject();
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const AxisLimits l = axisLimits(p, p.axes[0], e);
        QCOMPARE(l.problem, Reason::None);
        VERIFY_NEAR(find(l.speed, LimitReason::PulseRate)->value, 0.5, 1e-9);
        QVERIFY(std::is_sorted(l.speed.begin(), l.speed.end(),
                               [](const Limit& a, const Limit& b) { return a.value < b.value; }));
        VERIFY_NEAR(find(l.acceleration, LimitReason::Torque)->value, 2.8, 0.02);
        QVERIFY(find(l.acceleration, LimitReason::LowBattery)->value <=
                find(l.acceleration, LimitReason::Torque)->value);
        // At every point of the envelope the drive gives just its margin there, not at a tenth more.
        for (const EnvelopePoint& q : l.envelope) {
            if (q.atWanted <= 0.0) continue;
            QVERIFY(q.atOne >= q.atWanted);
            VERIFY_NEAR(e.model.margin(q.speed, q.atWanted), 2.0, 1e-6);
        }
        QVERIFY(l.recommended.speed <= l.largest.speed);
        QVERIFY(l.recommended.acceleration <= l.largest.acceleration);
        // 8.36 N down and 3 N of drag: with all the torque it stops in v²/2a at most.
        QVERIFY(l.stoppingEmergency.value() < l.stoppingOrdinary.value());
    }
    void measuredRockingTunesTheRamp() {
        Project p = demoProject();
        p.axes[0].vibration.frequency = estimate(4.0, Source::Measured);
        p.axes[0].vibration.damping = estimate(0.0, Source::Measured);
        p.controller.ramps = RampKind::SCurve;
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        AxisLimits l = axisLimits(p, p.axes[0], e);
        QCOMPARE(l.ramps, RampAdvice::TunedSCurve);
        VERIFY_NEAR(l.recommended.jerk, l.recommended.acceleration * 4.0, 1e-9);
        const auto tuned =
            motion::plan(0.5, {l.recommended.speed, l.recommended.acceleration, l.recommended.jerk});
        const double steady = l.recommended.acceleration / std::pow(2 * M_PI * 4, 2);
        VERIFY_NEAR(tuned.in.jerkTime, 0.25, 1e-9);
        QVERIFY(motion::rockingAfter(tuned, {4.0, 0.0}) < 1e-6 * steady);
        // Also where the speed is reached before the allowed acceleration would need two periods.
        p.axes[0].vibration.frequency.value = 0.9;
        Project free = p;
        free.shots.clear();
        l = axisLimits(free, free.axes[0], evaluateAxis(free, free.axes[0]));
        const auto slow =
            motion::plan(20.0, {l.recommended.speed, l.recommended.acceleration, l.recommended.jerk});
        VERIFY_NEAR(slow.in.jerkTime, 1 / 0.9, 1e-9);
        QVERIFY(motion::rockingAfter(slow, {0.9, 0.0}) <
                1e-6 * l.recommended.acceleration / std::pow(2 * M_PI * 0.9, 2));
        // Shots that ramp harder than that keep their ramps.
        l = axisLimits(p, p.axes[0], evaluateAxis(p, p.axes[0]));
        for (const StripShot& s : l.shots) QCOMPARE(s.tooHard, s.acceleration > l.largest.acceleration);
        p.axes[0].vibration.frequency.value = 4.0;
        p.controller.ramps = RampKind::Trapezoid;
        l = axisLimits(p, p.axes[0], evaluateAxis(p, p.axes[0]));
        QCOMPARE(l.ramps, RampAdvice::TunedTrapezoid);
        QCOMPARE(l.recommended.jerk, 0.0);
        const auto trapezoid = motion::plan(0.6, {l.recommended.speed, l.recommended.acceleration, 0});
        QVERIFY(motion::rockingAfter(trapezoid, {4.0, 0.0}) < 1e-6 * steady);
        p.controller.ramps = RampKind::None;
        QCOMPARE(axisLimits(p, p.axes[0], evaluateAxis(p, p.axes[0])).ramps, RampAdvice::NoRamps);
    } /// Teeth of a printed pair at 5 m/s on the pitch circle, worked through the ratio by hand.
    void partsLimitTheSpeed() {
        Project p = bareRig(rigs::RigKind::BeltSlider);
        GearStage gear;
        gear.id = "pair";
        gear.motorTeeth = 20;
        gear.loadTeeth = 60;
        gear.module = 0.001;
        gear.material = GearMaterial::PrintedPla;
        p.axes[0].links = {gear};
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const AxisLimits l = axisLimits(p, p.axes[0], e);
        const Limit* part = find(l.speed, LimitReason::PartSpeed);
        QVERIFY(part != nullptr);
        // 5 m/s on a 10 mm radius turns the motor at 500 rad/s, the belt's pulley at a third of it.
        const auto& belt = std::get<BeltOutput>(std::get<LinearMechanism>(p.axes[0].mechanism).output);
        VERIFY_NEAR(part->value, 500.0 / 3 * belt.teeth * belt.pitch.value / (2 * M_PI), 1e-9);
    }
    void instantStepsKeepThePictureStill() {
        Project p = demoProject();
        p.controller.ramps = RampKind::SCurve;
        QVERIFY(!axisLimits(p, p.axes[0], evaluateAxis(p, p.axes[0])).instantStep);
        p.controller.ramps = RampKind::Trapezoid;
        p.axes[0].vibration.frequency = estimate(2.0, Source::Measured);
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const AxisLimits l = axisLimits(p, p.axes[0], e);
        double px = 0;
        for (const ShotEvaluation& s : e.shots) px = std::max(px, s.pixelsPerUnit);
        // A jump in speed of Δv leaves 2 Δv/ω peak to peak.
        QVERIFY(2 * l.instantStep.value() / (2 * M_PI * 2.0) * px <= 0.25 * (1 + 1e-9) + 1e-12);
        QVERIFY(l.instantStep.value() <= 0.5 * l.startStop.value() * (1 + 1e-12));
    }
    /// A belt stage too weak for the steady pull alone leaves no acceleration at all.
    void partsTooWeakLeaveNothing() {
        Project p = demoProject();
        auto& m = std::get<LinearMechanism>(p.axes[0].mechanism);
        const double before = axisLimits(p, p.axes[0], evaluateAxis(p, p.axes[0])).largest.acceleration;
        // 0.4 % of EA is 40 N, a third of it counted, less 4.1 kg on 12° and 3 N of friction.
        VERIFY_NEAR(before, (40.0 / 3.0 - 4.1 * 9.80665 * std::sin(12.0 * M_PI / 180.0) - 3.0) / 4.1, 1e-6);
        // 1.3 N against the 11 N of gravity and friction.
        std::get<BeltOutput>(m.output).tensileStiffness.value = 1000;
        QCOMPARE(axisLimits(p, p.axes[0], evaluateAxis(p, p.axes[0])).largest.acceleration, 0.0);
    }
    /// A cap on speed holds a boom that tells nothing of its length.
    void unknownBoomIsStillCapped() {
        Project p = bareRig(rigs::RigKind::OrbitBoom);
        p.axes.resize(1);
        RotaryMechanism& boom = std::get<RotaryMechanism>(p.axes[0].mechanism);
        boom.items.clear();
        boom.pointMass.value = 0.0;
        p.axes[0].role = Role::Swing;
        p.conditions.speedNearPeople = 0.05;
        QVERIFY(axisLimits(p, p.axes[0], evaluateAxis(p, p.axes[0])).largest.speed <= 0.05 + 1e-12);
        boom.pointMass.value = 2.0;
        boom.pointRadius = 2.0;
        QVERIFY(axisLimits(p, p.axes[0], evaluateAxis(p, p.axes[0])).largest.speed <= 0.025 + 1e-12);
    }
    /// 4 N lets go to 3 N: a newton on the belt's spring and on the field's, there and beyond.
    void stickSlipByHand() {
        Project p = demoProject();
        auto& m = std::get<LinearMechanism>(p.axes[0].mechanism);
        m.runningFriction.value = 3.0;
        m.staticFriction.value = 4.0;
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const double r = 0.04 / (2 * M_PI), ta = 0.3106;
        const double field = (std::asin(4 * r / ta) - std::asin(3 * r / ta)) / 50 * r;
        double px = 0;
        for (const ShotEvaluation& s : e.shots) px = std::max(px, s.pixelsPerUnit);
        VERIFY_NEAR(axisLimits(p, p.axes[0], e).stickSlipPixels.value(),
                    2 * (1.0 / e.model.outputStiffness + field) * px, 2e-3);
        m.staticFriction.value = 3.0;
        VERIFY_NEAR(axisLimits(p, p.axes[0], evaluateAxis(p, p.axes[0])).stickSlipPixels.value() + 1.0, 1.0,
                    1e-9);
    }
    /// A field that jumps to the start-stop speed is caught by a rotor without a load, and not at twice that.
    void startStopByIntegration() {
        const double ta = 0.3, inertia = 2e-5;
        const double v = motor::catchSpeed(50, ta, 0.0, inertia);
        const auto caught = [&](double speed) {
            double angle = 0, omega = 0;
            for (int i = 0; i < 400000; ++i) {
                const double h = 1e-6, lag = speed * i * h - angle;
                if (50 * std::abs(lag) > 2 * M_PI) return false;
                omega += h * ta * std::sin(50 * lag) / inertia;
                angle += h * omega;
            }
            return true;
        };
        QVERIFY(caught(0.97 * v));
        QVERIFY(!caught(1.05 * v));
        QCOMPARE(motor::catchSpeed(50, 0.1, 0.2, inertia), 0.0);
    }
    void bandsAndBetterSpeeds() {
        Project p = demoProject();
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        auto& move = std::get<BySpeed<AxisKind::Linear>>(
            std::find_if(p.shots[0].moves.begin(), p.shots[0].moves.end(), [&](const ShotMove& m) {
                return m.axis == p.axes[0].id;
            })->movement = BySpeed<AxisKind::Linear>{0.2, e.resonance.speed.value(), 0.1});
        const AxisLimits l = axisLimits(p, p.axes[0], evaluateAxis(p, p.axes[0]));
        const auto shot = std::find_if(l.shots.begin(), l.shots.end(),
                                       [](const StripShot& s) { return s.shot == ShotIndex(0); });
        QVERIFY(shot != l.shots.end() && shot->better.has_value());
        QVERIFY(*shot->better > e.resonance.high.value() || *shot->better < e.resonance.low.value());
        QVERIFY(std::abs(shot->speed - move.speed) < 1e-12);
    } /// A motor that really has 0.8 of its torque passes what the model foresees above 1.25 and fails below;
      /// the ladder
    /// must find that.
    void stallLadderFindsTheTorque() {
        Project p = demoProject();
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const auto ladder = stallLadder(e);
        QVERIFY(ladder.size() >= 8);
        std::vector<Outcome> outcomes;
        for (const Rung& r : ladder) {
            VERIFY_NEAR(e.model.margin(r.speed, r.acceleration), r.margin, 1e-9);
            QVERIFY(r.distance <= e.model.travel);
            outcomes.push_back(r.margin * 0.8 >= 1.0 ? Outcome::Passed : Outcome::LostSteps);
        }
        QVERIFY(ladder.front().margin > 2.5 && ladder.front().acceleration < ladder[1].acceleration);
        const TorqueFactor f = torqueFactor(ladder, outcomes);
        QVERIFY(f.known() && f.low <= 0.8 && f.high > 0.8 && f.high / f.low < 1.25);
        const double before = std::get<Stepper>(p.axes[0].motor).holdingTorque.value;
        QVERIFY(applyTorqueFactor(p.axes[0], f));
        const Estimate& now = std::get<Stepper>(p.axes[0].motor).holdingTorque;
        QVERIFY(std::abs(now.value / before / 0.8 - 1) < 0.13 && now.source == Source::Measured);
        QVERIFY(now.value * (1 + now.tolerance) >= 0.8 * before &&
                now.value * (1 - now.tolerance) <= 0.8 * before);
        // A pass harder than a loss cannot both be torque.
        outcomes.assign(ladder.size(), Outcome::NotRun);
        outcomes[0] = Outcome::LostSteps;
        outcomes[4] = Outcome::Passed;
        QVERIFY(torqueFactor(ladder, outcomes).contradictory);
        QVERIFY(!applyTorqueFactor(p.axes[0], torqueFactor(ladder, outcomes)));
        // Nothing failed yet: only the lower bound counts.
        outcomes.assign(ladder.size(), Outcome::NotRun);
        outcomes[2] = Outcome::Passed;
        const TorqueFactor open = torqueFactor(ladder, outcomes);
        QVERIFY(open.known() && std::isinf(open.high));
        VERIFY_NEAR(open.low, 1 / ladder[2].margin, 1e-12);
    }
    void peopleCapTheBoom() {
        Project p = bareRig(rigs::RigKind::OrbitBoom);
        for (std::size_t i = 0; i < p.axes.size(); ++i)
            if (p.axes[i].role == Role::Swing) {
                const double before = axisLimits(p, p.axes[i], evaluateAxis(p, p.axes[i])).largest.speed;
                p.conditions.speedNearPeople = 0.05;
                const AxisEvaluation e = evaluateAxis(p, p.axes[i]);
                const AxisLimits l = axisLimits(p, p.axes[i], e);
                const Limit* cap = find(l.speed, LimitReason::PeopleSpeed);
                QVERIFY(cap != nullptr && l.largest.speed < before);
                VERIFY_NEAR(cap->value * e.model.farthestItem, 0.05, 1e-9);
                return;
            }
        QFAIL("no boom in the rig");
    }
    void alikeAxesRampInOneTime() {
        const Project p = bareRig(rigs::RigKind::MultiAxis);
        std::vector<AxisLimits> all;
        for (const Axis& a : p.axes) all.push_back(axisLimits(p, a, evaluateAxis(p, a)));
        const auto t = alike(all);
        const double time = t[0].speed / t[0].acceleration;
        for (std::size_t i = 0; i < t.size(); ++i) {
            VERIFY_NEAR(t[i].speed / t[i].acceleration, time, 1e-9);
            QVERIFY(t[i].acceleration <= all[i].recommended.acceleration * (1 + 1e-9));
        }
    }
    /// Each rig's shots run in time as the closed model says: no step lost where the margin is comfortable.
    void rigsRunInTime() {
        int run = 0;
        for (const rigs::RigInfo& info : rigs::all()) {
            const Project p = bareRig(info.kind);
            for (const Axis& axis : p.axes) {
                const AxisEvaluation e = evaluateAxis(p, axis);
                for (const ShotEvaluation& s : e.shots) {
                    auto in = simulationOf(axis, e, s);
                    if (!in || in->profile.time() > 25.0) continue;
                    in->step = 1e-5;
                    in->tail = 0.3;
                    const auto r = simulation::simulate(*in);
                    const std::string name = std::string(info.key) + " " + axis.id;
                    QVERIFY2(r.finished, name.c_str());
                    for (const simulation::Sample& x : r.trace)
                        QVERIFY2(std::isfinite(x.position) && std::isfinite(x.picture), name.c_str());
                    if (e.model.stepper() && s.torque.margin.value() > 2.5)
                        QVERIFY2(r.lostFullSteps == 0, name.c_str());
                    ++run;
                }
            }
        }
        QVERIFY2(run >= 5, QByteArray::number(run).constData());
    }
    void samplesAreTheSameHoweverTheyAreSplit() {
        const Project p = demoProject();
        const auto whole = sampling::sampleAxis(p, 0, 42, 0, 2000);
        std::vector<sampling::Row> a, b;
        std::thread first([&] { a = sampling::sampleAxis(p, 0, 42, 0, 900); });
        std::thread second([&] { b = sampling::sampleAxis(p, 0, 42, 900, 1100); });
        first.join();
        second.join();
        a.insert(a.end(), b.begin(), b.end());
        QCOMPARE(a.size(), whole.size());
        for (std::size_t i = 0; i < a.size(); ++i) {
            QCOMPARE(a[i].margin, whole[i].margin);
            QVERIFY(a[i].inputs == whole[i].inputs);
        }
        const auto other = sampling::sampleAxis(p, 0, 43, 0, 10);
        QVERIFY(other[0].margin != whole[0].margin);
    }
    /// With a single uncertain input that the margin goes with, all of the variance is its own, and the
    /// chance is the normal distribution's.
    void confidenceByHand() {
        Project p = demoProject();
        for (Axis& axis : p.axes)
            for (Estimate* e : estimatesOf(axis)) e->tolerance = 0.0;
        p.supply.voltage.tolerance = p.supply.sourceResistance.tolerance = 0.0;
        auto& stepper = std::get<Stepper>(p.axes[0].motor);
        // Torque amplitude and margin go straight with the holding torque below the corner speed.
        stepper.holdingTorque.tolerance = 0.3;
        const double margin = evaluateAxis(p, p.axes[0]).shots[0].torque.margin.value();
        std::get<LinearMechanism>(p.axes[0].mechanism).movingMass.value *= 1.0;
        stepper.holdingTorque.value /= margin; // nominal margin 1: half of them stall
        const auto rows = sampling::sampleAxis(p, 0, 7, 0, 20000);
        const auto c = sampling::confidenceOf(p, 0, rows);
        VERIFY_NEAR(c.stalls, 0.5, 0.03);
        QCOMPARE(c.influences.size(), std::size_t(1));
        QVERIFY(c.influences[0].path.ends_with("holding_torque_Nm"));
        VERIFY_NEAR(c.influences[0].share, 1.0, 1e-12);
        // Two standard deviations are the tolerance: a margin of 1.15 fails at one of them, in 15.9 %.
        stepper.holdingTorque.value *= 1.0 / 0.85;
        VERIFY_NEAR(sampling::confidenceOf(p, 0, sampling::sampleAxis(p, 0, 7, 0, 20000)).stalls, 0.1587,
                    0.06);
    }
    void inputNamesStandForTheirInputs() {
        Project p = demoProject();
        const auto names = sampling::inputsOf(p, 0);
        QCOMPARE(names.size(), estimatesOf(p.axes[0]).size() + 2);
        for (std::size_t i = 0; i + 2 < names.size(); ++i) {
            const double before = *numberAt(p, names[i]);
            Estimate* e = estimatesOf(p.axes[0])[i];
            QCOMPARE(e->value, before);
        }
    }
    void vibrationIsJudgedWhenMeasured() {
        Project p = demoProject();
        const auto judged = [&] {
            for (const Verdict& v : assess(p).verdicts)
                if (v.axis == 0 && ruleKey(v) == "vibration") return std::optional<double>(v.ratio.value());
            return std::optional<double>();
        };
        p.axes[0].vibration.frequency = estimate(4.2, Source::Measured);
        const auto ratio = judged();
        QVERIFY(ratio.has_value());
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        double worst = 1e9;
        for (const ShotEvaluation& s : e.shots)
            worst =
                std::min(worst, p.shots[s.shot.at()].limits.jitter /
                                    (2 * motion::rockingAfter(s.profile, *e.model.mode) * s.pixelsPerUnit));
        VERIFY_NEAR(*ratio, worst, 1e-9);
        p.axes[0].vibration.frequency.value = 0.0;
        QVERIFY(!judged().has_value());
    }
};

QTEST_APPLESS_MAIN(LimitsTest)
#include "limits_test.moc"
