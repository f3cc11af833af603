// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/criteria/criteria.h"
#include "core/evaluate/evaluate.h"
#include "core/tools/limits.h"
#include "support/bare_rigs.h"
#include "support/every_rig.h"
#include "support/hand_rigs.h"
#include "support/near.h"

#include <QTest>
#include <algorithm>

using namespace gantry;
using namespace hand;

/// What is checked beside the torque: pulls, warmth, guides, stops; and the speeds and bands that follow.
class ChecksByHandTest : public QObject {
    Q_OBJECT
    static AxisEvaluation of(const Project& p, std::size_t axis = 0) { return evaluate(p).axes[axis]; }
    static double largest(const AxisEvaluation& e, const std::function<Figure(const ShotEvaluation&)>& of) {
        double out = 0.0;
        for (const ShotEvaluation& s : e.shots) out = std::max(out, of(s).valueOr(0.0));
        return out;
    }
    static Project on(const LinearOutput& output) {
        Project p = slider();
        p.axes[0].links.clear();
        rail(p).output = output;
        return p;
    }

private slots:
    /// What the belt, the cord and the teeth right on the motor pull at its shaft is what they carry.
    void pullAtTheShaft() {
        BeltOutput belt;
        belt.preload.value = 0.01;
        for (const int motors : {1, 2})
            for (const bool doubled : {false, true}) {
                belt.motors = motors;
                belt.doubled = doubled;
                Project p = on(belt);
                rail(p).slope.value = 0.3;
                const AxisEvaluation e = of(p);
                const double force = 5 * g * std::sin(0.3);
                QVERIFY(e.checks.parts.back().load.value() * motors * (doubled ? 2 : 1) > force);
                VERIFY_NEAR(e.checks.shaftRadial.value(), e.checks.parts.back().load.value(), 1e-9);
            }
        Project p = on(RackOutput{});
        AxisEvaluation e = of(p);
        VERIFY_NEAR(e.checks.shaftRadial.value(),
                    e.checks.parts.back().load.value() / std::cos(20 * pi / 180), 1e-9);
        QCOMPARE(e.checks.shaftAxial.value(), 0.0);
        p = on(ScrewOutput{});
        e = of(p);
        QCOMPARE(e.checks.shaftRadial.value(), 0.0);
        VERIFY_NEAR(e.checks.shaftAxial.value(), e.checks.parts.back().load.value(), 1e-9);
        WinchOutput winch;
        winch.breakingLoad.value = 700.0;
        p = on(winch);
        e = of(p);
        VERIFY_NEAR(e.checks.shaftRadial.value(), e.checks.parts.back().load.value(), 1e-9);
        VERIFY_NEAR(e.checks.cordRatio.value(), 700.0 / e.checks.parts.back().load.value(), 1e-9);
    }
    /// A cord as long as the rail in series with what holds the motor.
    void cordsGive() {
        WinchOutput winch;
        winch.tensileStiffness.value = 9e3;
        Project p = on(winch);
        rail(p).railLength = 1.6;
        rail(p).frameStiffness.value = 2e4;
        VERIFY_NEAR(of(p).model.outputStiffness, 1 / (1.6 / 9e3 + 1 / 2e4), 1e-9);
        rail(p).frameStiffness.value = 0.0; // left out
        VERIFY_NEAR(of(p).model.outputStiffness, 9e3 / 1.6, 1e-9);
    }
    /// A servo warms by its square share of the rated torque; two share the work.
    void servoWarmth() {
        BeltOutput belt;
        belt.motors = 2;
        Project p = on(belt);
        rail(p).slope.value = 0.4;
        ServoMotor servo;
        servo.ratedTorque.value = 0.5;
        servo.ratedSpeed.value = 300.0;
        servo.topSpeed.value = 420.0;
        p.axes[0].motor = servo;
        p.conditions.ambient = 31.0;
        const AxisEvaluation e = of(p);
        const double rms =
            largest(e, [](const ShotEvaluation& s) -> Figure { return s.torque.rms; }) / 2 / 0.5;
        QVERIFY(rms > 0.0);
        VERIFY_NEAR(e.checks.caseTemperature.value(), 31.0 + criteria::servoRise.value * rms * rms, 1e-9);
        // Its top speed goes with the bus, and is never more than it is built for.
        const double bus = p.supply.voltage.value, share = std::min(1.0, bus / servo.ratedVoltage.value);
        VERIFY_NEAR(e.checks.motorTopSpeed.value(), 420.0 * share * e.model.outputPerRad, 1e-6);
    }
    /// A brushed motor warms by the current that its torque takes, through its winding's resistance.
    void brushedWarmth() {
        Project p = on(BeltOutput{});
        rail(p).slope.value = 0.2;
        DcServo motor;
        motor.body.thermalResistance.value = 7.0;
        p.axes[0].motor = motor;
        const AxisEvaluation e = of(p);
        const motor::DcParams& dc = *e.model.dc();
        const double rms = largest(e, [](const ShotEvaluation& s) -> Figure { return s.torque.rms; });
        // No-load current, and by the straight line from there to stall the current of the torque.
        const double current = dc.noLoadCurrent + rms / dc.stallTorque * (dc.stallCurrent - dc.noLoadCurrent);
        const double watts = current * current * dc.nominalVoltage / dc.stallCurrent;
        VERIFY_NEAR(e.checks.caseTemperature.value(), p.conditions.ambient + 7.0 * watts, 1e-9);
    }
    /// Weight, pushing above the rail and a drive beside its middle load the wheels.
    void wheels() {
        Project p = slider();
        LinearMechanism& m = rail(p);
        p.payload.clear();
        m.slope.value = 0.25;
        m.guide.massHeight = 0.15;
        m.guide.pushOffset = -0.03;
        m.guide.wheelbase = 0.2;
        m.guide.track = 0.08;
        m.items = {{"x", "Monitor", estimate(1.0, Source::Measured), -0.3, 0.2},
                   {"y", "Battery", estimate(0.5, Source::Measured), 0.2, 0.0}};
        for (const double slope : {0.25, -0.25}) {
            m.slope.value = slope;
            const AxisEvaluation e = of(p);
            const double mass = 6.5, a = largest(e, [](const ShotEvaluation&s) -> Figure {
                                         return s.motion.acceleration;
                                     });
            const double along = mass * a * 0.15 + mass * g * std::sin(0.25) * 0.15 + g * (0.3 + 0.5 * 0.2);
            const double across = e.checks.parts.back().load.value() * 0.03;
            VERIFY_NEAR(e.checks.bearingLoad.value(),
                        mass * g * std::cos(0.25) / 4 + along / (2 * 0.2) + across / (2 * 0.08), 1e-6);
            QVERIFY(!e.checks.bindingRatio); // wheels do not bind
        }
        m.guide.kind = GuideKind::PlainRods;
        m.guide.friction.value = 0.2;
        VERIFY_NEAR(of(p).checks.bindingRatio.value(), 0.2 / (2 * 0.2 * 0.03), 1e-9);
    }
    /// A pan bar: the arm from the pivot to a bar that lies askew beside the rail, worked with points.
    void panBar() {
        Project p = slider();
        LinearMechanism& m = rail(p);
        m.panBar = {true, 0.45, -0.06, -0.2};
        const AxisEvaluation e = of(p);
        const double half = e.model.travel / 2;
        // The bar's direction and its normal; the pivot at x along the rail, the bar `offset` beside it.
        const auto pan = [&](double x) {
            const double distance = (-0.06 + x * std::tan(-0.2)) * std::cos(-0.2);
            return -0.2 + std::asin(distance / 0.45);
        };
        VERIFY_NEAR(e.checks.panBarTurn.value(), std::abs(pan(half) - pan(-half)), 1e-9);
        const double farthest = (0.06 + half * std::tan(0.2)) * std::cos(0.2);
        VERIFY_NEAR(e.checks.panBarReach.value(), 0.45 / farthest, 1e-9);
        m.panBar.armLength = 0.05; // does not reach
        QVERIFY(!of(p).checks.panBarTurn);
        QVERIFY(of(p).checks.panBarReach.value() < 1.0);
    }
    /// A pan that stands on a slope turns what hangs out uphill and down again; a tilt starts the steeper.
    void gravityOnASlope() {
        Project p = bareRig(rigs::RigKind::MultiAxis);
        p.payload.clear();
        std::get<LinearMechanism>(p.axes[0].mechanism).slope.value = -0.2;
        p.axes.resize(1);
        p.axes.push_back(bareRig(rigs::RigKind::SubjectTurntable).axes[0]);
        p.axes[1].id = "pan";
        p.shots.clear();
        Axis& pan = p.axes[1];
        pan.carriesPayload = false;
        auto& r = std::get<RotaryMechanism>(pan.mechanism);
        r.items = {{"x", "Camera", estimate(2.0, Source::Measured), 0.1, 0.3}};
        r.unbalance.value = 0.05;
        pan.role = Role::Pan;
        DriveModel m = of(p, 1).model;
        VERIFY_NEAR(m.gravityHigh, 2 * g * 0.1 * std::sin(0.2) + 0.05, 1e-9);
        VERIFY_NEAR(m.gravityLow, -m.gravityHigh, 1e-12);
        VERIFY_NEAR(m.chain.load.steady, m.gravityHigh, 1e-12);
        pan.role = Role::Roll; // turns with gravity, whatever way it lies
        r.lowAngle = 0.5;
        r.range = 0.4;
        m = of(p, 1).model;
        const auto torque = [](double at) { return 2 * g * (0.1 * std::cos(at) - 0.3 * std::sin(at)); };
        VERIFY_NEAR(m.gravityHigh, torque(0.3) + 0.05, 1e-9);
        VERIFY_NEAR(m.gravityLow, torque(1.1) - 0.05, 1e-9);
        VERIFY_NEAR(m.chain.load.steady, std::max(std::abs(m.gravityLow), std::abs(m.gravityHigh)), 1e-12);
        // A spring alone pulls too, straight with the angle.
        r.items.clear();
        r.unbalance.value = 0.0;
        r.spring.torqueAtLow.value = 0.2;
        r.spring.rate.value = 0.5;
        m = of(p, 1).model;
        VERIFY_NEAR(m.gravityHigh, -0.2 + 0.5 * 0.2, 1e-9); // 0.2 rad below its low end, by the slope
        VERIFY_NEAR(m.gravityLow, -0.2 - 0.5 * 0.6, 1e-9);
        r.spring.torqueAtLow.value = 0.0;
        VERIFY_NEAR(of(p, 1).model.gravityLow, -0.5 * 0.6, 1e-9);
    }
    /// A brake that holds exactly what pulls is held to stay; a hair less lets it fall.
    void stopsAtTheEdge() {
        Project p = slider();
        rail(p).slope.value = 0.5;
        Axis& axis = p.axes[0];
        axis.onStop = OnStop::CutsCurrent;
        axis.brake.fitted = true;
        axis.brake.holdingTorque.value = of(p).model.gravityAtMotor();
        QCOMPARE(of(p).powerOff.brakeRatio.value(), 1.0);
        QCOMPARE(of(p).stop.outcome, StopOutcome::Stays);
        axis.brake.holdingTorque.value *= 0.99;
        QCOMPARE(of(p).stop.outcome, StopOutcome::Falls);
        axis.brake.fitted = false;
        QCOMPARE(of(p).stop.outcome, StopOutcome::Falls);
        // Held by the motor: needs at least what gravity takes.
        axis.onStop = OnStop::KeepsHolding;
        const AxisEvaluation e = of(p);
        VERIFY_NEAR(e.stop.ratio.value(), (e.holdAvailable / e.holdNeeded).value(), 1e-12);
        QCOMPARE(e.stop.outcome, e.stop.ratio.value() >= 1.0 ? StopOutcome::Stays : StopOutcome::Falls);
        axis.onStop = OnStop::NotAsked;
        QCOMPARE(of(p).stop.outcome, StopOutcome::Unknown);
    }
    /// The torque that a shot leaves is asked at its speed and acceleration at the output.
    void worstTorqueAtTheOutput() {
        const AxisEvaluation e = of(slider());
        const DriveModel& m = e.model;
        const double v = 0.2, a = 0.7;
        VERIFY_NEAR(m.rampTorque(v, a),
                    drivetrain::worstTorque(m.chain, v / m.outputPerRad, a / m.outputPerRad), 1e-12);
        // Where friction alone binds, speed matters by drag only: one with drag needs more when fast.
        Project p = slider();
        rail(p).cableDrag.value = 3.0;
        QVERIFY(of(p).model.rampTorque(v, a) > m.rampTorque(v, a));
    }
};

QTEST_APPLESS_MAIN(ChecksByHandTest)
#include "checks_by_hand_test.moc"
