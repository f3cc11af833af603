// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/model/fields.h"
#include "core/tools/capability.h"
#include "core/tools/chain_table.h"
#include "core/tools/curves.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <numbers>

using namespace gantry;
constexpr double deg = std::numbers::pi / 180, rpm = 2 * std::numbers::pi / 60;

/// The demo's slide is the belt slider worked by hand, so its numbers stand here as worked on paper.
class EvaluateTest : public QObject {
    Q_OBJECT
    Project demo_;
    Evaluation eval_;
    const AxisEvaluation& slide() const { return eval_.axes[0]; }
    const ShotEvaluation& reveal() const { return eval_.axes[0].shots[0]; }
private slots:
    void initTestCase() {
        demo_ = demoProject();
        eval_ = evaluate(demo_);
    }
    void stepsAndTravel() {
        QCOMPARE(slide().model.exactStepsPerUnit->text(), std::string("80/1"));
        VERIFY_NEAR(slide().travelPerMotorRev.value(), 0.04, 1e-9);
        VERIFY_NEAR(slide().step.value(), 12.5e-6, 1e-9);
        QCOMPARE(eval_.axes[1].model.exactStepsPerUnit->text(), std::string("416/9"));
        VERIFY_NEAR(eval_.axes[1].steps.stepsPerUnitKept.value(), 46.222, 1e-12);
        VERIFY_NEAR(eval_.axes[1].steps.roundingShare.value(), 46.222 * 9 / 416 - 1, 1e-6);
        VERIFY_NEAR(slide().usableTravel.value(), 1.1 - 0.14 - 0.02, 1e-12);
    }
    void speedsAndPulses() {
        VERIFY_NEAR(reveal().motion.motorSpeed.value() / rpm, 375.0, 1e-6);
        VERIFY_NEAR(reveal().pulseRate.value(), 20000.0, 1e-9);
        VERIFY_NEAR(slide().pulseLimitSpeed.value(), 0.5, 1e-9);
        VERIFY_NEAR(slide().maxSpeed.value(), 0.5, 1e-6);
    }
    void forcesAndTorques() {
        VERIFY_NEAR(reveal().torque.force.value(), 14.64, 1e-3);
        VERIFY_NEAR(reveal().torque.lastShaft.value(), 0.0981, 1e-3);
        VERIFY_NEAR(reveal().torque.needed.value(), 0.0988, 1e-3);
        VERIFY_NEAR(reveal().torque.available.value(), 0.3106, 1e-3);
        VERIFY_NEAR(reveal().torque.margin.value(), 3.14, 2e-3);
        // 714 rpm with cold copper; after hours at 1.2 A it is a hundredth less.
        VERIFY_NEAR(slide().cornerSpeed.value() / rpm, 714.0 * 0.99, 5e-3);
    }
    void inertias() {
        VERIFY_NEAR(slide().loadInertia.value(), 1.66e-4, 2e-3);
        VERIFY_NEAR(slide().rotorInertia.value(), 5.7e-6, 1e-12);
        VERIFY_NEAR(slide().inertiaRatio.value(), 29.0, 0.01);
        // Behind a rigid drive all of it would swing at 47.8 Hz; the belt of 36.36 kN/m (1.474 N·m/rad at the
        // motor) and the field of 50 · 0.3106 N·m/rad in series carry the load at nearly √(1.346/1.66e-4)/2π.
        VERIFY_NEAR(slide().resonance.frequency.value(), 14.33, 2e-3);
        VERIFY_NEAR(slide().resonance.speed.value(), 14.33 * 0.2e-3, 5e-3);
        VERIFY_NEAR(slide().resonance.second.value(), std::sqrt((50 * 0.3106 + 1.474) / 5.7e-6) / 6.2832,
                    2e-3);
    }
    void picture() {
        VERIFY_NEAR(reveal().pixelsPerUnit, 4148.0, 1e-4);
        VERIFY_NEAR(reveal().place.step.value(), 0.052, 5e-3);
        VERIFY_NEAR(reveal().lag.angle.value() / deg, 0.37, 5e-3);
        VERIFY_NEAR(reveal().lag.travel.value(), 0.041e-3, 0.01);
        VERIFY_NEAR(reveal().place.lag.value(), 0.17, 0.01);
        VERIFY_NEAR(reveal().picture.speed.value(), 1037.0, 1e-3);
        VERIFY_NEAR(reveal().picture.perFrame.value(), 41.48, 1e-3);
        VERIFY_NEAR(reveal().picture.blur.value(), 20.74, 1e-3);
        VERIFY_NEAR(reveal().picture.crossingTime.value(), 3.703, 1e-3);
    }
    /// 2·4.1 kg·0.8 m/s² on a belt of 10 kN over 0.55 m each way.
    void stretch() {
        VERIFY_NEAR(reveal().stretchTravel.value(), 6.56 / (10e3 * (1 / 0.55 + 1 / 0.55)), 1e-9);
    }
    void profileTimes() {
        // d/v + v/a + a/j
        VERIFY_NEAR(reveal().motion.time.value(), 0.86 / 0.25 + 0.25 / 0.8 + 0.8 / 4, 1e-9);
        VERIFY_NEAR(reveal().motion.stoppingDistance.value(), 0.25 * (0.25 / 0.8 + 0.8 / 4) / 2, 1e-9);
        VERIFY_NEAR(slide().shots[1].motion.time.value(), 8.0, 1e-9);
        VERIFY_NEAR(slide().shots[1].motion.topSpeed.value(), 0.5 / 6.5, 1e-9);
    }
    void powerOff() {
        const PowerOff& off = slide().powerOff;
        QVERIFY(off.loaded && off.falls);
        VERIFY_NEAR(off.gravity.value(), 8.36, 1e-3);
        VERIFY_NEAR(off.energy.value(), (8.36 - 3) * 0.94, 1e-3);
        VERIFY_NEAR(off.speed.value(),
                    std::sqrt(2 * 5.36 * 0.94 /
                              (4.1 + 5.7e-6 / (0.04 * 0.04 / (4 * std::numbers::pi * std::numbers::pi)))),
                    1e-3);
        QVERIFY(!eval_.axes[1].powerOff.loaded);
    }
    /// Energy at the end of the fall equals the kinetic energy of everything that moves.
    void fallConservesEnergy() {
        const PowerOff& off = slide().powerOff;
        const double motorSpeed = off.speed.value() / slide().model.outputPerRad;
        VERIFY_NEAR(0.5 * slide().inertiaAtMotor.value() * motorSpeed * motorSpeed, off.energy.value(), 1e-9);
    }
    void gravityKeepsBacklashOnOneSide() {
        for (const ShotEvaluation& s : slide().shots) QVERIFY(!s.loadReverses);
        Project level = demo_;
        QVERIFY(setNumberAt(level, "axes/slide/mechanism/slope_rad", 0));
        // On the level, braking at 0.8 m/s² (3.28 N) beats 3 N of friction; a creep's 0.05 m/s² does not.
        const Evaluation e = evaluate(level);
        QVERIFY(e.axes[0].shots[0].loadReverses);
        QVERIFY(!e.axes[0].shots[2].loadReverses);
    }
    void capabilityOfTheSlide() {
        const Capability c = capability(demo_.axes[0], slide());
        // Standing still is what binds: half of the hold torque against weight on the slope, 20 teeth of 2
        // mm.
        const double held = slide().holdAvailable.value() / 2.0 / (0.04 / (2.0 * std::numbers::pi));
        VERIFY_NEAR(c.load.value.value(), held / (9.80665 * std::sin(12.0 * deg)), 1e-6);
        QCOMPARE(c.load.binding, Binding::Standing);
        VERIFY_NEAR(std::sin(c.slope.value.value()), held / (4.1 * 9.80665), 1e-6);
        QCOMPARE(c.slope.binding, Binding::Standing);
        // With all the current kept it is moving that binds, at what the ramp asks.
        Project kept = demo_;
        kept.axes[0].driver.holdCurrent = kept.axes[0].driver.runCurrent;
        const Capability moving = capability(kept.axes[0], evaluate(kept).axes[0]);
        VERIFY_NEAR(moving.load.value.value(), 7.07, 2e-3);
        VERIFY_NEAR(moving.slope.value.value() / deg, 24.7, 2e-3);
        QCOMPARE(moving.load.binding, Binding::Torque);
        VERIFY_NEAR(c.acceleration.value.value(), 2.8, 5e-3);
        VERIFY_NEAR(c.speed.value.value(), 0.5, 1e-6);
        QCOMPARE(c.speed.binding, Binding::PulseRate);
    }
    /// At each capability the margin is the wanted one: put it into the project and evaluate afresh.
    void capabilityIsWhereTheMarginIsMet() {
        const Capability c = capability(demo_.axes[0], slide());
        for (const auto& [path, value] :
             {std::pair{"axes/slide/mechanism/moving_mass_kg", c.load.value.value()},
              std::pair{"axes/slide/mechanism/slope_rad", c.slope.value.value()},
              std::pair{"shots/reveal/moves/slide/movement/acceleration_m_s2",
                        c.acceleration.value.value()}}) {
            Project p = demo_;
            // Without a jerk limit the ramp really reaches the acceleration.
            QVERIFY(setNumberAt(p, "axes/slide/mechanism/motion/jerk_m_s3", 0));
            QVERIFY(setNumberAt(p, path, value));
            const AxisEvaluation e = evaluate(p).axes[0];
            const double still = e.holdAvailable.value() / e.holdNeeded.value(),
                         ramp = e.shots[0].torque.margin.value();
            QVERIFY2(std::abs(std::min(still, ramp) - 2.0) < 2e-4, path);
        }
    }
    /// What fails even without load says so, and is no number.
    void failsUnloaded() {
        Project p = demo_;
        QVERIFY(setNumberAt(p, "axes/slide/mechanism/running_friction_N", 200));
        const Capability c = capability(p.axes[0], evaluate(p).axes[0]);
        QCOMPARE(c.load.value.reason(), Reason::FailsUnloaded);
        QCOMPARE(c.acceleration.value.reason(), Reason::FailsUnloaded);
        QCOMPARE(c.speed.value.reason(), Reason::FailsUnloaded);
    }
    void whatIsMissingIsSaid() {
        Project p = demo_;
        QVERIFY(setNumberAt(p, "axes/slide/motor/inductance_H", 0));
        const AxisEvaluation e = evaluate(p).axes[0];
        QVERIFY(!e.shots[0].torque.available);
        QCOMPARE(e.shots[0].torque.available.reason(), Reason::NeedsInductance);
        QVERIFY(e.shots[0].torque.needed);
        QVERIFY(e.steps.stepsPerUnit);
        QCOMPARE(capability(p.axes[0], e).load.value.reason(), Reason::NeedsInductance);
    }
    void impossibleTimesAreSaid() {
        Project p = demo_;
        QVERIFY(setNumberAt(p, "shots/rise/moves/slide/movement/time_s", 1));
        const ShotEvaluation s = evaluate(p).axes[0].shots[1];
        QCOMPARE(s.problem, Reason::TimeTooShort);
        QVERIFY(!s.torque.margin);
    }
    /// The jerk setting counts only with a controller that limits jerk; without any ramp it starts at once.
    void rampsAreTheControllers() {
        Project p = demo_;
        p.controller.ramps = RampKind::Trapezoid;
        const AxisEvaluation e = evaluate(p).axes[0];
        VERIFY_NEAR(e.shots[0].motion.time.value(), 0.86 / 0.25 + 0.25 / 0.8, 1e-9);
        VERIFY_NEAR(e.shots[0].motion.stoppingDistance.value(), 0.25 * 0.25 / 1.6, 1e-9);
        p.controller.ramps = RampKind::None;
        const ShotEvaluation s = evaluate(p).axes[0].shots[0];
        VERIFY_NEAR(s.motion.time.value(), 0.86 / 0.25, 1e-9);
        QVERIFY(s.torque.margin.value() > e.shots[0].torque.margin.value());
        QCOMPARE(s.motion.jerk.reason(), Reason::NoRamp);
        // A loop of its own needs one.
        p.axes[0].motor = ServoMotor{};
        QCOMPARE(evaluate(p).axes[0].shots[0].torque.margin.reason(), Reason::NoRamp);
    }
    /// Dividing the delivered width by two halves every pixel figure and changes no mechanical one.
    void pixelsScaleWithDelivery() {
        Project p = demo_;
        p.camera.deliveredWidth /= 2;
        const ShotEvaluation s = evaluate(p).axes[0].shots[0];
        VERIFY_NEAR(s.place.step.value(), reveal().place.step.value() / 2, 1e-12);
        VERIFY_NEAR(s.picture.crossingTime.value(), reveal().picture.crossingTime.value(), 1e-12);
        VERIFY_NEAR(s.torque.needed.value(), reveal().torque.needed.value(), 1e-12);
    }
    /// The pan: 24 g·m² of head and 0.45 kg at 120 mm behind 20:104 teeth.
    void panByHand() {
        const AxisEvaluation& pan = eval_.axes[1];
        const double n = 5.2, load = 0.024 + 0.45 * 0.12 * 0.12;
        VERIFY_NEAR(pan.inertiaAtMotor.value(), load / (n * n) + 2e-7 + 1.1e-6, 1e-9);
        const double amplitude = 0.14 * 0.6 / 0.7; // torque goes with current
        const double field = 50 * amplitude, drive = pan.model.outputStiffness / (n * n),
                     swinging = load / (n * n);
        VERIFY_NEAR(pan.resonance.frequency.value(),
                    std::sqrt(1 / (1 / field + 1 / drive) / swinging) / (2 * std::numbers::pi), 2e-3);
        const ShotEvaluation& rise = pan.shots[0];
        VERIFY_NEAR(rise.motion.topSpeed.value() / deg, 40 / 6.5, 1e-9);
        VERIFY_NEAR(rise.pixelsPerUnit, 35.0 / 36.0 * 3840, 1e-9);
        // Belt stage and head in series, both seen at the axis.
        const double stiffness = 1 / (1 / 60.0 + 1 / 400.0);
        VERIFY_NEAR(rise.stretchTravel.value(), 2 * load * rise.motion.acceleration.value() / stiffness,
                    1e-9);
        // Friction of 0.03 N·m keeps the play on one side of a pan that brakes this gently, one way …
        QCOMPARE(rise.errors.backlash.value(), 0.0);
        const double braking = pan.model.chain.load.inertia * rise.motion.acceleration.value();
        VERIFY_NEAR(rise.flank.ratio.value(), 0.03 / (braking + rise.carried.value()), 1e-6);
        // … but not where it turns round in the picture.
        Project turns = demo_;
        for (Shot& s : turns.shots) s.thereAndBack = true;
        const Evaluation turned = evaluate(turns);
        for (const ShotEvaluation& s : turned.axes[1].shots)
            if (s.shot == rise.shot)
                VERIFY_NEAR(s.errors.backlash.value(), 0.0002 * 35.0 / 36.0 * 3840, 1e-9);
        QVERIFY(!pan.powerOff.loaded);
    }
    /// A ring behind the belt: five times the steps, its own play in full and the belt's through the ring.
    void ringOutput() {
        Project p = demo_;
        RingOutput ring;
        ring.pinionTeeth = 20;
        ring.ringTeeth = 100;
        ring.backlash = assumed(0.001);
        ring.stiffness = assumed(0); // not given: left out of the series
        std::get<RotaryMechanism>(p.axes[1].mechanism).output = ring;
        const AxisEvaluation e = evaluate(p).axes[1];
        QCOMPARE(e.model.exactStepsPerUnit->text(), std::string("2080/9"));
        VERIFY_NEAR(e.model.backlash, 0.001 + 0.0002 / 5, 1e-12);
        VERIFY_NEAR(e.model.outputStiffness, 60.0 * 25, 1e-9);
        VERIFY_NEAR(e.totalRatio.value(), 26.0, 1e-12);
    }
    /// An unbalanced turning axis: gravity torque at the motor, and at most two radians of it as energy.
    void unbalancedAxis() {
        Project p = demo_;
        QVERIFY(setNumberAt(p, "axes/pan/mechanism/unbalance_Nm", 0.8));
        const AxisEvaluation e = evaluate(p).axes[1];
        VERIFY_NEAR(e.holdNeeded.value(), 0.8 / 5.2, 1e-9);
        QVERIFY(e.powerOff.falls);
        VERIFY_NEAR(e.powerOff.energy.value(), (0.8 - 0.03) * 2, 1e-9);
        for (const ShotEvaluation& s : e.shots) QVERIFY(s.loadReverses); // it may stand on either side
    }
    /// A spring on the motor's shaft reaches the carriage through the square of the pulley's radius.
    void stageStiffnessReachesTheCarriage() {
        Project p = demo_;
        Coupling soft;
        soft.id = "soft";
        soft.stiffness = assumed(2.0);
        p.axes[0].links.push_back(soft);
        const double r = 0.04 / (2 * std::numbers::pi), belt = 4 * 10e3 / 1.1;
        VERIFY_NEAR(evaluate(p).axes[0].model.outputStiffness, 1 / (1 / belt + r * r / 2.0), 1e-9);
    }
    /// Low voltage and resistance only ever lower what is available, and supply resistance counts.
    void supplyResistanceCounts() {
        Project p = demo_;
        QVERIFY(setNumberAt(p, "supply/source_resistance_ohm", 1.05)); // one ohm more in each phase
        const AxisEvaluation e = evaluate(p).axes[0];
        QVERIFY(e.cornerSpeed.value() < slide().cornerSpeed.value());
        // Two windings of 1.2 ohm at 1.2 A rms heat the copper through the motor's way to the air.
        const double toAir = std::get<Stepper>(p.axes[0].motor).body.thermalResistance.value,
                     cold = 2 * 1.2 * 1.2 * 1.2 * toAir,
                     hot = (p.conditions.ambient + cold * (1 - 0.00393 * 20)) / (1 - 0.00393 * cold);
        motor::StepperParams byHand{
            50, 0.44, 1.7, 1.3 + 1.2 * (1 + 0.00393 * (hot - 20)), 0.0028, 24, 1.2 * std::numbers::sqrt2};
        VERIFY_NEAR(e.cornerSpeed.value(), motor::cornerSpeed(byHand), 1e-9);
    }
    /// The drive-train table, part by part, as worked on paper.
    void chainTable() {
        const auto columns = chainColumns(demo_.axes[0], slide(), reveal());
        QCOMPARE(columns.size(), std::size_t(6));
        QCOMPARE(columns[2].part, ChainPart::Output);
        VERIFY_NEAR(columns[2].needed.figure.value(), 0.0981, 1e-3);
        VERIFY_NEAR(columns[2].available.figure.value(), 0.3106 - 0.0007, 1e-3);
        VERIFY_NEAR(columns[3].needed.figure.value(), 14.64, 1e-3);
        VERIFY_NEAR(columns[3].available.figure.value(), 46.2, 2e-3);
        VERIFY_NEAR(columns[0].needed.figure.value(), 1.2 * 2 / 3.143,
                    1e-3); // current-limited: torque goes with current
        VERIFY_NEAR(columns[5].inertia.figure.value(), 29.0, 0.01);
        const auto pan = chainColumns(demo_.axes[1], eval_.axes[1], eval_.axes[1].shots[0]);
        QCOMPARE(pan[2].part, ChainPart::Link);
        VERIFY_NEAR(pan[2].speed.figure.value() * 5.2, pan[1].speed.figure.value(), 1e-9);
    }
    /// The path's largest torque and speed are those of the table; going down, the motor holds back.
    void shotPathEndsWhereTheTableSays() {
        const auto up = shotPath(slide().model, reveal().profile, 1, 200);
        double most = 0, fastest = 0;
        for (const TorquePoint& p : up) {
            most = std::max(most, p.torque);
            fastest = std::max(fastest, p.speed);
        }
        VERIFY_NEAR(most, reveal().torque.needed.value(), 1e-6);
        VERIFY_NEAR(fastest, reveal().motion.motorSpeed.value(), 1e-9);
        // Down the slope gravity drives: the motor holds back while cruising.
        QVERIFY(shotPath(slide().model, reveal().profile, -1, 50)[49].torque < 0);
        const TorqueCurves c = torqueCurves(slide().model, 200, 100);
        VERIFY_NEAR(c.nominal.front().torque, 0.3106, 1e-3);
        QVERIFY(c.lowVoltage.back().torque < c.nominal.back().torque &&
                c.nominal.back().torque < c.atBest.back().torque);
    }
    /// A belt stage in front multiplies steps and divides the load's share of inertia by its square.
    void reductionReflects() {
        Project p = demo_;
        BeltStage stage;
        stage.id = "third";
        stage.motorTeeth = 20;
        stage.loadTeeth = 60;
        stage.figures.inertia = assumed(0);
        p.axes[0].links.push_back(stage);
        const AxisEvaluation e = evaluate(p).axes[0];
        QCOMPARE(e.model.exactStepsPerUnit->text(), std::string("240/1"));
        VERIFY_NEAR(e.loadInertia.value(), slide().loadInertia.value() / 9, 1e-9);
        VERIFY_NEAR(e.totalRatio.value(), 3.0, 1e-12);
    }
};

QTEST_APPLESS_MAIN(EvaluateTest)
#include "evaluate_test.moc"
