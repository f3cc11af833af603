// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/wind_up.h"
#include "core/evaluate/evaluate.h"
#include "core/motion/friction_settling.h"
#include "core/motor/at_once.h"
#include "core/verdicts/ranges.h"
#include "core/verdicts/rules.h"
#include "support/files.h"
#include "support/hand_rigs.h"
#include "support/near.h"

#include <QElapsedTimer>
#include <QTest>
#include <cmath>
#include <nlohmann/json.hpp>
#include <numbers>
#include <random>

using namespace gantry;
using nlohmann::json;

namespace {

constexpr double pi = std::numbers::pi;

Estimate measured(double value, double tolerance) {
    return {value, Source::Measured, tolerance};
}

const Verdict* find(const std::vector<Verdict>& all, std::string_view key) {
    for (const Verdict& v : all)
        if (ruleKey(v) == key) return &v;
    return nullptr;
}

/// A motor given by winding and constant, without losses.
motor::DcParams plain(const json& in) {
    motor::DcParams p;
    p.nominalVoltage = p.voltage = in["V"];
    p.stallCurrent = p.nominalVoltage / in["R"].get<double>();
    p.noLoadSpeed = p.nominalVoltage / in["kt"].get<double>();
    p.sourceResistance = in.value("source_R", 0.0);
    return p;
}

/// A lossless direct turntable of 0.02 kg·m² on a brushed motor behind 12 V: 20 rad/s free, 0.6 N·m stalled
/// at 2 A, with 0.1 N·m of friction, asked for 15 rad/s over three turns.
Project turntable(SpeedControl control) {
    Project p;
    Axis a;
    a.id = "turn";
    a.role = Role::Turntable;
    GearedDc m;
    m.figures = {measured(12.0, 0.0), measured(20.0, 0.0), measured(0.0, 0.0),
                 measured(2.0, 0.0),  measured(0.6, 0.0),  measured(0.3, 0.0)};
    m.gearNumerator = m.gearDenominator = 1;
    m.control = control;
    m.appliedVoltage = 12.0;
    m.rotorInertia = measured(1e-6, 0.0);
    m.gearboxBacklash = measured(0.0, 0.0);
    a.motor = m;
    RotaryMechanism r;
    r.output = DirectOutput{measured(0.0, 0.0)};
    r.inertia = measured(0.02, 0.0);
    r.friction = r.staticFriction = measured(0.1, 0.0);
    r.range = 30.0;
    a.mechanism = r;
    p.axes = {a};
    p.supply.sourceResistance = measured(0.0, 0.0);
    p.supply.voltage = p.supply.lowVoltage = measured(12.0, 0.0);
    Shot s;
    s.id = "spin";
    s.name = "spin";
    s.moves = {{"turn", BySpeed<AxisKind::Rotary>{6.0 * pi, 15.0, 3.0}}};
    p.shots = {s};
    return p;
}

GearedDc& motorOf(Project& p) {
    return std::get<GearedDc>(p.axes[0].motor);
}

} // namespace

/// Drives that start and stop at once, and drives that wind up.
class NoRampsTest : public QObject {
    Q_OBJECT
private slots:
    void switchedAsInTheReference() {
        for (const json& c : referenceCases("t56_no_ramps", "dc_switch")) {
            const json &in = c["inputs"], &out = c["expected"];
            QCOMPARE(in["switch"].get<std::string>(), std::string("on"));
            const double gear = in["gear"], inertia = in["J"].get<double>() +
                                                      in["load_J"].get<double>() /
                                                          (gear * gear * in["gear_efficiency"].get<double>());
            const motor::SwitchedOn s = motor::switchedOn(plain(in), inertia, in["friction"]);
            VERIFY_NEAR(s.timeConstant, out["tau"].get<double>(), 1e-9);
            VERIFY_NEAR(s.peakCurrent, out["peak_current"].get<double>(), 1e-9);
            VERIFY_NEAR(s.finalSpeed, out["final_speed"].get<double>(), 1e-9);
            VERIFY_NEAR(s.time95(), out["time_95"].get<double>(), 1e-9);
            VERIFY_NEAR(s.supplyDrop, out["supply_sag"].get<double>(), 1e-9);
            VERIFY_NEAR(s.angleLost(), out["angle_lost"].get<double>(), 1e-9);
        }
        for (const json& c : referenceCases("t56_no_ramps", "pull_in")) {
            const json& in = c["inputs"];
            const double speed = motor::catchSpeed(in["teeth"], in["torque"], in["friction"], in["J"]);
            VERIFY_NEAR(speed * 2.0 * in["teeth"].get<int>() / pi, c["expected"]["rate"].get<double>(), 1e-9);
        }
        for (const json& c : referenceCases("t56_no_ramps", "duty")) {
            const json& in = c["inputs"];
            const motor::DcParams p = plain(in);
            VERIFY_NEAR(motor::startDuty(p, in["friction_static"], in["L"], in["pwm"], in["diode"]),
                        c["expected"]["start_duty"].get<double>(), 1e-6);
            VERIFY_NEAR(motor::startDuty(p, in["friction_static"], 0.0, in["pwm"], in["diode"]),
                        c["expected"]["naive_duty"].get<double>(), 1e-9);
        }
    }
    /// Against the motor's own equation in small steps, with losses, a source and every way to stop.
    void switchedAgainstSteps() {
        motor::DcParams p;
        p.nominalVoltage = p.voltage = 12.0;
        p.noLoadSpeed = 60.0;
        p.noLoadCurrent = 0.2;
        p.stallCurrent = 3.0;
        p.sourceResistance = 0.5;
        const double inertia = 2e-4, torque = 0.05, winding = 4.0;
        const double constant = (12.0 - 0.2 * winding) / 60.0; // [V·s/rad] and [N·m/A]
        const auto run = [&](double speed, double volts, double resistance, double until, double& angle) {
            double time = 0.0;
            angle = 0.0;
            for (const double dt = 2e-6; time < 20.0; time += dt) {
                const double current = resistance > 0.0 ? (volts - constant * speed) / resistance : 0.0;
                const double losses = resistance > 0.0 ? 0.2 * constant : 0.0;
                speed += (constant * current - losses - torque) / inertia * dt;
                if (until > 0.0 ? speed >= until : speed <= 0.0) break;
                angle += speed * dt;
            }
            return time;
        };
        const motor::SwitchedOn on = motor::switchedOn(p, inertia, torque);
        double angle = 0.0;
        VERIFY_NEAR(run(0.0, 12.0, 4.5, 0.95 * on.finalSpeed, angle), on.time95(), 1e-3);
        for (const auto& [way, volts, resistance] :
             {std::tuple{motor::StopWay::Open, 0.0, 0.0}, std::tuple{motor::StopWay::Shorted, 0.0, 4.0},
              std::tuple{motor::StopWay::Reversed, -12.0, 4.5}}) {
            const auto off = motor::switchedOff(p, inertia, torque, 40.0, way);
            VERIFY_NEAR(run(40.0, volts, resistance, 0.0, angle), off->time, 1e-3);
            VERIFY_NEAR(angle, off->angle, 1e-3);
        }
        QVERIFY(!motor::switchedOff(p, inertia, 0.0, 40.0, motor::StopWay::Open));
        QVERIFY(motor::switchedOff(p, inertia, 0.0, 40.0, motor::StopWay::Shorted));
    }
    /// The mean current of a chopped winding at rest, by its own differential equation.
    void startDutyAgainstACircuit() {
        motor::DcParams p;
        p.nominalVoltage = p.voltage = 12.0;
        p.noLoadSpeed = 100.0;
        p.noLoadCurrent = 0.0;
        p.stallCurrent = 5.0;
        for (const double frequency : {400.0, 3000.0})
            for (const double torque : {0.02, 0.1}) {
                const double inductance = 6e-4, winding = 2.4, period = 1.0 / frequency;
                const double duty = motor::startDuty(p, torque, inductance, frequency, 0.6);
                double current = 0.0, mean = 0.0;
                constexpr int steps = 20000, periods = 40;
                for (int n = 0; n < periods; ++n)
                    for (int i = 0; i < steps; ++i) {
                        const double volts = i < duty * steps ? 12.0 : -0.6;
                        current = std::max(0.0, current + (volts - winding * current) / inductance * period /
                                                              steps);
                        if (n == periods - 1) mean += current / steps;
                    }
                VERIFY_NEAR(mean * 12.0 / 100.0, torque, 2e-3);
            }
    }
    /// By energy, against a rotor let go under a field that turns.
    void caughtAgainstTheSwing() {
        const int teeth = 50;
        const double amplitude = 0.3, inertia = 7e-6;
        for (const double friction : {0.0, 0.05, 0.15}) {
            const double most = motor::catchSpeed(teeth, amplitude, friction, inertia);
            const auto caught = [&](double field) {
                double place = 0.0, speed = 0.0;
                const double dt = 1e-6;
                for (double t = 0.0; t < 0.2; t += dt) {
                    const double lag = field * t - place;
                    if (lag * teeth > 1.5 * pi) return false;
                    const double torque = amplitude * std::sin(teeth * lag);
                    double net = torque - (speed > 0.0 ? friction : speed < 0.0 ? -friction : 0.0);
                    if (speed == 0.0)
                        net = std::abs(torque) <= friction ? 0.0 : torque - std::copysign(friction, torque);
                    speed += net / inertia * dt;
                    place += speed * dt;
                }
                return true;
            };
            QVERIFY2(caught(0.96 * most), qPrintable(QString::number(friction)));
            QVERIFY2(!caught(1.04 * most), qPrintable(QString::number(friction)));
        }
        QCOMPARE(motor::catchSpeed(teeth, 0.3, 0.3, inertia), 0.0);
    }
    /// On a switch: torque by what it gives at rest, its own speed, a time constant.
    void onASwitch() {
        Project p = turntable(SpeedControl::SupplyVoltage);
        const Assessment a = assess(p);
        const ShotEvaluation& s = a.evaluation.axes[0].shots[0];
        // 0.6 N·m at rest, 0.1 asked: 20 · 5/6 rad/s.
        VERIFY_NEAR(s.motion.topSpeed.value(), 20.0 * 5.0 / 6.0, 1e-9);
        VERIFY_NEAR(s.motion.time.value(), 6.0 * pi / (20.0 * 5.0 / 6.0), 1e-9);
        VERIFY_NEAR(s.torque.margin.value(), 6.0, 1e-9);
        VERIFY_NEAR(s.start.time.value(), 2.9957323 * (0.02 + 1e-6) * 20.0 / 0.6, 1e-6);
        VERIFY_NEAR(s.start.current.value(), 2.0, 1e-9);
        // 16.67 of 15 rad/s: 11 % beside, of a fifth.
        VERIFY_NEAR(find(a.verdicts, "motor_speed")->ratio.value(), 0.2 / (50.0 / 45.0 - 1.0), 1e-9);
        for (const char* silent : {"start", "settings", "repeat", "framing", "stepping", "ease"})
            QVERIFY2(find(a.verdicts, silent) == nullptr, silent);
        // It runs out against 0.1 N·m of friction.
        VERIFY_NEAR(s.motion.stoppingDistance.value(), 0.5 * 0.020001 * std::pow(20.0 * 5.0 / 6.0, 2) / 0.1,
                    1e-9);
        motorOf(p).stopping = Stopping::Shorted;
        QVERIFY(evaluate(p).axes[0].shots[0].motion.stoppingDistance.value() <
                0.3 * s.motion.stoppingDistance.value());
        // Ten times the inertia takes ten times as long, and no more torque.
        std::get<RotaryMechanism>(p.axes[0].mechanism).inertia.value = 0.2;
        const Evaluation heavy = evaluate(p);
        VERIFY_NEAR(heavy.axes[0].shots[0].torque.margin.value(), 6.0, 1e-9);
        VERIFY_NEAR(heavy.axes[0].shots[0].start.time.value(), 10.0 * s.start.time.value(), 1e-3);
        // With more friction than it gives it does not start.
        auto& r = std::get<RotaryMechanism>(p.axes[0].mechanism);
        r.friction.value = r.staticFriction.value = 0.7;
        const Assessment stalled = assess(p);
        VERIFY_NEAR(find(stalled.verdicts, "torque")->ratio.value(), 0.6 / 0.7, 1e-9);
        QCOMPARE(find(stalled.verdicts, "torque")->state, State::Over);
    }
    /// A knob without ramps keeps the shot's speed; a low setting may not break away.
    void onAKnob() {
        Project p = turntable(SpeedControl::Knob);
        motorOf(p).knob = 1.0;
        motorOf(p).lowestSteady = measured(0.02, 0.0);
        p.controller.ramps = RampKind::None;
        const auto speedOf = [](double speed) {
            return std::vector<ShotMove>{{"turn", BySpeed<AxisKind::Rotary>{2.0, speed, 3.0}}};
        };
        const Assessment fast = assess(p);
        VERIFY_NEAR(fast.evaluation.axes[0].shots[0].motion.topSpeed.value(), 15.0, 1e-9);
        // At 15 of 20 rad/s a quarter of 0.6 N·m is left.
        VERIFY_NEAR(fast.evaluation.axes[0].shots[0].torque.margin.value(), 1.5, 1e-9);
        QVERIFY(find(fast.verdicts, "start") == nullptr);
        p.shots[0].moves = speedOf(1.0);
        std::get<RotaryMechanism>(p.axes[0].mechanism).staticFriction.value = 0.16;
        const Assessment slow = assess(p);
        // 0.05 of the speed and 1/6 of the torque: 0.2167 of 12 V; breaking away takes 0.2667.
        const Verdict* start = find(slow.verdicts, "start");
        VERIFY_NEAR(slow.evaluation.axes[0].shots[0].knob.setting.value(), 0.05 + 1.0 / 6.0, 1e-6);
        VERIFY_NEAR(start->ratio.value(), (0.05 + 1.0 / 6.0) / (0.16 / 0.6), 1e-6);
        QCOMPARE(start->state, State::Over);
    }
    /// On a soft shaft a sudden start pulls by what the load swings, not by the motor's own jerk; and a motor
    /// on a switch has no drift, and no hold current to speak of.
    void softShaftOnASwitch() {
        Project p = turntable(SpeedControl::SupplyVoltage);
        auto& r = std::get<RotaryMechanism>(p.axes[0].mechanism);
        const double speed = 20.0 * 5.0 / 6.0, tau = (0.02 + 1e-6) * 20.0 / 0.6;
        VERIFY_NEAR(evaluate(p).axes[0].shots[0].motion.acceleration.value(), speed / tau, 1e-6);
        r.output = DirectOutput{measured(0.05, 0.0)};
        const Assessment a = assess(p);
        const ShotEvaluation& s = a.evaluation.axes[0].shots[0];
        VERIFY_NEAR(s.motion.acceleration.value(), speed / std::hypot(tau, std::sqrt(0.02 / 0.05)), 1e-6);
        QVERIFY(find(a.verdicts, "drift") == nullptr);
        r.unbalance = measured(0.05, 0.0);
        const Assessment loaded = assess(p);
        QVERIFY(loaded.evaluation.axes[0].powerOff.loaded);
        QVERIFY(find(loaded.verdicts, "standstill") == nullptr &&
                find(loaded.verdicts, "power_off") != nullptr);
    }
    void reversedAtSpeed() {
        Project p = turntable(SpeedControl::SupplyVoltage);
        p.axes[0].driver.maxCurrent = 4.0;
        const auto rating = [&] { return find(assess(p).verdicts, "driver_rating")->ratio.value(); };
        VERIFY_NEAR(rating(), 4.0 / 2.0, 1e-9);
        motorOf(p).stopping = Stopping::Reversed;
        // At 5/6 of its free speed it gives 10 V of its own: 22 V over 6 ohm.
        VERIFY_NEAR(rating(), 4.0 / (22.0 / 6.0), 1e-9);
        VERIFY_NEAR(evaluate(p).supply.startCurrent.value(), 22.0 / 6.0, 1e-9);
        const Assessment a = assess(p);
        p.axes[0].driver.maxCurrent = 3.0;
        const Assessment over = assess(p);
        const auto fixes = findFixes(p, over, *find(over.verdicts, "driver_rating"), {}, 5, {});
        QVERIFY(!fixes.empty());
        QCOMPARE(std::get<GearedDc>(fixes[0].result.axes[0].motor).stopping, Stopping::Shorted);
    }
    void supplyCurrent() {
        Project p = turntable(SpeedControl::SupplyVoltage);
        QVERIFY(find(assess(p).verdicts, "supply") == nullptr);
        p.supply.ratedCurrent = 1.5;
        const Assessment a = assess(p);
        VERIFY_NEAR(a.evaluation.supply.startCurrent.value(), 2.0, 1e-9);
        VERIFY_NEAR(find(a.verdicts, "supply")->ratio.value(), 0.75, 1e-9);
        QCOMPARE(find(a.verdicts, "supply")->state, State::Over);
        const auto fixes = findFixes(p, a, *find(a.verdicts, "supply"), {}, 5, {});
        QVERIFY(!fixes.empty());
        QCOMPARE(fixes[0].result.supply.ratedCurrent, 3.0);
        // A stepper on a mains supply draws what it draws, whether it starts or not.
        Project stepper = hand::slider();
        stepper.supply.ratedCurrent = 100.0;
        const Evaluation e = evaluate(stepper);
        QCOMPARE(e.supply.startCurrent.reason(), Reason::NotApplicable);
        VERIFY_NEAR(find(assess(stepper).verdicts, "supply")->ratio.value(), 100.0 / e.supply.current.value(),
                    1e-9);
    }
    /// A stepper on pulses without ramps: by what its field catches.
    void stepperAtOnce() {
        Project p = hand::slider();
        const Evaluation ramped = evaluate(p);
        p.controller.ramps = RampKind::None;
        const Assessment a = assess(p);
        const AxisEvaluation& e = a.evaluation.axes[0];
        const ShotEvaluation& s = e.shots[0];
        QVERIFY(s.torque.needed.value() < ramped.axes[0].shots[0].torque.needed.value());
        VERIFY_NEAR(s.torque.needed.value(), e.model.rampTorque(s.motion.topSpeed.value(), 0.0), 1e-12);
        const motor::StepperParams& m = *e.model.stepper();
        const double caught = motor::catchSpeed(m.rotorTeeth, e.model.torqueAmplitude,
                                                s.torque.needed.value(), e.inertiaAtMotor.value());
        // The load behind losses counts a little more than without.
        QVERIFY(s.start.catchSpeed.value() <= caught * e.model.outputPerRad * (1.0 + 1e-9));
        QVERIFY(s.start.catchSpeed.value() >= 0.9 * caught * e.model.outputPerRad);
        const Verdict* start = find(a.verdicts, "start");
        VERIFY_NEAR(start->ratio.value(), s.start.catchSpeed.value() / s.motion.topSpeed.value(), 1e-9);
        VERIFY_NEAR(start->bounds.wanted, 2.0, 1e-12);
        QVERIFY(find(assess(hand::slider()).verdicts, "start") == nullptr);
        // Twice as fast as it is caught: a controller with ramps mends it.
        p.shots[0].moves[0].movement = BySpeed<AxisKind::Linear>{0.4, 2.0 * s.start.catchSpeed.value(), 0.2};
        const Assessment fast = assess(p);
        QCOMPARE(find(fast.verdicts, "start")->state, State::Over);
        bool ramps = false;
        for (const Fix& f : findFixes(p, fast, *find(fast.verdicts, "start"), {}, 5, {}))
            ramps = ramps || f.result.controller.ramps == RampKind::Trapezoid;
        QVERIFY(ramps);
    }
    void windUpAsInTheReference() {
        for (const json& c : referenceCases("t52_windup", "windup")) {
            const json &in = c["inputs"], &out = c["expected"];
            const drivetrain::Sprung s{in["stiffness"], in["friction_sliding"], in["friction_static"],
                                       in["gravity"]};
            VERIFY_NEAR(lagForward(s), out["lag_forward"].get<double>(), 1e-9);
            VERIFY_NEAR(reversalLost(s), out["two_sided_repeat"].get<double>(), 1e-9);
            VERIFY_NEAR(breakawayJump(s), out["smallest_reliable_move"].get<double>(), 1e-9);
        }
        for (const json& c : referenceCases("t52_windup", "stick_slip_limit")) {
            const json& in = c["inputs"];
            const drivetrain::Sprung s{in["stiffness"], in["friction_sliding"], in["friction_static"], 0.0};
            VERIFY_NEAR(smoothFrom(s, in["mass"], in["damping_ratio"]),
                        c["expected"]["limit_speed"].get<double>(), 2e-4);
        }
        QCOMPARE(drivetrain::smoothFrom({1e4, 3.0, 3.0, 0.0}, 4.0, 0.05), 0.0);
        QVERIFY(std::isinf(drivetrain::smoothFrom({1e4, 3.0, 4.0, 0.0}, 4.0, 0.0)));
    }
    /// A slider on a spring of its own: what friction and gravity wind up is in lag, repeat and jitter.
    void windUpInThePicture() {
        Project p = hand::slider();
        auto& linear = std::get<LinearMechanism>(p.axes[0].mechanism);
        linear.frameStiffness = measured(2000.0, 0.0);
        linear.staticFriction.value = 1.5 * linear.runningFriction.value;
        p.axes[0].vibration.damping = measured(0.05, 0.0);
        p.shots[0].moves[0].movement = BySpeed<AxisKind::Linear>{0.3, 0.1, 0.5};
        const Evaluation e = evaluate(p);
        const ShotEvaluation& s = e.axes[0].shots[0];
        const double k = e.axes[0].model.outputStiffness, friction = linear.runningFriction.value;
        QVERIFY(k < 2000.0);
        VERIFY_NEAR(s.windUp.travel.value(), friction / k, 1e-9);
        VERIFY_NEAR(s.windUp.jump.value(), friction / k, 1e-9);
        VERIFY_NEAR(s.windUp.startDelay.value(), 1.5 * friction / k / 0.1, 1e-9);
        QCOMPARE(s.windUp.jumpPixels.value(), 0.0);
        const double px = s.pixelsPerUnit;
        p.shots[0].thereAndBack = true;
        const ShotEvaluation both = evaluate(p).axes[0].shots[0];
        VERIFY_NEAR(
            both.errors.repeat.value() - s.errors.repeat.value(),
            (2.0 - 1.0) * friction / k * px + both.errors.backlash.value() - s.errors.backlash.value(), 1e-9);
        p.shots[0].thereAndBack = false;
        // Slower than it runs smoothly.
        const double slow = 0.5 * s.windUp.smoothFrom.value();
        p.shots[0].moves[0].movement = BySpeed<AxisKind::Linear>{0.3, slow, 0.5};
        const Assessment a = assess(p);
        const ShotEvaluation& creeping = a.evaluation.axes[0].shots[0];
        VERIFY_NEAR(creeping.windUp.jumpPixels.value(), friction / k * px, 1e-9);
        QVERIFY(creeping.errors.jitter.value() >= creeping.windUp.jumpPixels.value());
        QVERIFY(sentence(*find(a.verdicts, "jitter"), p, units::System::Metric).find("sticking") !=
                std::string::npos);
        // On a slope gravity winds it up too.
        linear.slope = measured(0.2, 0.0);
        const double weight = e.axes[0].model.chain.load.inertia * 9.80665 * std::sin(0.2);
        VERIFY_NEAR(evaluate(p).axes[0].shots[0].windUp.travel.value(), (friction + weight) / k, 1e-9);
    }
    /// A swing that friction stops, as worked beside the program and in small steps.
    void swingsThatFrictionStops() {
        for (const json& c : referenceCases("t60_settle_friction", "settle")) {
            const json &in = c["inputs"], &out = c["expected"];
            const double stiffness = in["stiffness"], mass = in["mass"];
            motion::DyingSwing s;
            s.amplitude = in["amplitude"];
            s.band = in["friction"].get<double>() / stiffness;
            s.mode = {std::sqrt(stiffness / mass) / (2.0 * pi), in["damping_ratio"]};
            VERIFY_NEAR(s.halfSwings(), out["swings"].get<double>(), 1e-12);
            VERIFY_NEAR(s.rest(), out["rest_offset"].get<double>(), 1e-6);
            VERIFY_NEAR(s.stopTime(), out["stop_time"].get<double>(), 1e-9);
            QCOMPARE(s.held(), out["at_once"].get<bool>());
            const auto within = s.timeWithin(0.0, in["tolerance"]);
            QCOMPARE(within.has_value(), !out["settle_time"].is_null());
            if (within) VERIFY_NEAR(*within, out["settle_time"].get<double>(), 1e-9);
        }
        // At the abrupt end of a ramp the deflection that friction leaves is where it begins.
        for (const json& c : referenceCases("t60_settle_friction", "abrupt_end_of_ramp")) {
            const json &in = c["inputs"], &out = c["expected"];
            const double stiffness = in["stiffness"], mass = in["mass"], friction = in["friction"];
            const motion::DyingSwing s{mass * in["deceleration"].get<double>() / stiffness -
                                           friction / stiffness,
                                       friction / stiffness,
                                       {std::sqrt(stiffness / mass) / (2.0 * pi), 0.0}};
            VERIFY_NEAR(s.amplitude, out["deflection_at_stop"].get<double>(), 1e-9);
            QCOMPARE(s.held(), out["stops_at_once"].get<bool>());
            VERIFY_NEAR(s.rest(), out["rest"].get<double>(), 1e-9);
            VERIFY_NEAR(2.0 * friction / mass, out["limit_deceleration"].get<double>(), 1e-9);
        }
        std::mt19937_64 random(9);
        const auto between = [&](double low, double high) {
            return std::uniform_real_distribution<double>(low, high)(random);
        };
        for (int n = 0; n < 60; ++n) {
            motion::DyingSwing s{
                between(0.1, 3.0), between(0.02, 0.6), {1.0, n % 3 == 0 ? 0.0 : between(0.0, 0.2)}};
            const double w = 2.0 * pi, dt = 2e-5, wished = between(0.02, 0.5);
            double x = s.amplitude, v = 0.0, t = 0.0, out = 0.0;
            std::vector<double> places;
            while (t < 60.0) {
                if (v == 0.0 && std::abs(x) <= s.band) break;
                const double sign = v != 0.0 ? std::copysign(1.0, v) : -std::copysign(1.0, x);
                const double next = v + (-w * w * (x + s.band * sign) - 2.0 * s.mode.damping * w * v) * dt;
                v = v != 0.0 && next * v < 0.0 ? 0.0 : next;
                x += v * dt;
                t += dt;
                places.push_back(x);
            }
            VERIFY_NEAR(s.rest(), x, 0.01 + 2e-3 / std::abs(x));
            QVERIFY(std::abs(s.stopTime() - t) < 2e-3);
            for (std::size_t i = 0; i < places.size(); ++i)
                if (std::abs(places[i] - x) > 0.5 * wished) out = (static_cast<double>(i) + 1.0) * dt;
            const auto settled = s.settled(wished);
            QVERIFY(settled && std::abs(*settled - out) < 4e-3);
        }
        // Held where it stands, and never ending.
        QVERIFY((motion::DyingSwing{0.1, 0.2, {1.0, 0.0}}.held()));
        QVERIFY((!motion::DyingSwing{1.0, 0.0, {1.0, 0.0}}.timeWithin(0.0, 0.1)));
        QElapsedTimer timer;
        timer.start();
        QVERIFY((motion::DyingSwing{1.0, 1e-12, {1.0, 0.0}}.settled(0.1)));
        for (const double band : {1e-18, 1e-30, 1e-300})
            for (const double damping : {0.0, 1e-12, 0.02})
                for (const double left : {1e-200, 1e-6, 0.1, 10.0}) {
                    const auto settled = motion::DyingSwing{1.0, band, {1.0, damping}}.settled(left);
                    QVERIFY(!settled || std::isfinite(*settled));
                }
        QVERIFY(timer.elapsed() < 20);
    }
    void slackBelts() {
        Project p = hand::slider();
        auto& belt = std::get<BeltOutput>(std::get<LinearMechanism>(p.axes[0].mechanism).output);
        belt.preload = measured(6.0, 0.0);
        const Assessment a = assess(p);
        const double pull = a.evaluation.axes[0].checks.parts.back().load.value();
        VERIFY_NEAR(find(a.verdicts, "belt_preload")->ratio.value(), 12.0 / pull, 1e-9);
        belt.preload.value = 0.4 * pull;
        const Assessment slack = assess(p);
        QCOMPARE(find(slack.verdicts, "belt_preload")->state, State::Over);
        const auto fixes = findFixes(p, slack, *find(slack.verdicts, "belt_preload"), {}, 5, {});
        QVERIFY(!fixes.empty());
        VERIFY_NEAR(find(assess(fixes[0].result).verdicts, "belt_preload")->ratio.value(), 1.05, 0.05);
    }
    void layersOnADrum() {
        Project p = hand::slider();
        auto& linear = std::get<LinearMechanism>(p.axes[0].mechanism);
        linear.railLength = 4.65;
        linear.carriageLength = 0.15;
        linear.motion.softLimitMargin = 0.0;
        WinchOutput w;
        w.drumDiameter = measured(0.03, 0.0);
        w.cordDiameter = measured(0.0018, 0.0);
        w.layerHeight = measured(1.0, 0.0);
        w.drumWidth = 0.024;
        linear.output = w;
        const Assessment a = assess(p);
        const AxisEvaluation& e = a.evaluation.axes[0];
        QCOMPARE(e.checks.windingLayers.value(), 4.0);
        // 15.9 mm on the bare drum, 21.3 on the fourth layer.
        VERIFY_NEAR(e.checks.stepsPerUnitFirst.value() / e.checks.stepsPerUnitLast.value(), 21.3 / 15.9,
                    1e-9);
        QVERIFY(e.steps.stepsPerUnit.value() < e.checks.stepsPerUnitFirst.value() &&
                e.steps.stepsPerUnit.value() > e.checks.stepsPerUnitLast.value());
        // Its pulses are those of the bare drum, its torque that of the full one.
        const ShotEvaluation& s = e.shots[0];
        VERIFY_NEAR(s.pulseRate.value(),
                    s.motion.topSpeed.value() * 1000.0 * e.checks.stepsPerUnitFirst.value(), 1e-9);
        VERIFY_NEAR(s.motion.motorSpeed.value(), s.motion.topSpeed.value() / 0.0159, 1e-9);
        VERIFY_NEAR(e.pulseLimitSpeed.value(),
                    p.controller.pulseCeiling / (1000.0 * e.checks.stepsPerUnitFirst.value()), 1e-9);
        const Verdict* layers = find(a.verdicts, "layers");
        QVERIFY(layers != nullptr && layers->state == State::Over);
        const auto fixes = findFixes(p, a, *layers, {}, 5, {});
        QVERIFY(!fixes.empty());
        for (const Fix& f : fixes) QVERIFY(find(assess(f.result).verdicts, "layers") == nullptr);
        // A loop of cord lies side by side.
        std::get<WinchOutput>(linear.output).closedLoop = true;
        QCOMPARE(evaluate(p).axes[0].checks.windingLayers.reason(), Reason::NotApplicable);
        // Cheeks: four layers and two diameters of cord above a radius of 15 mm are 25.8 mm.
        auto& winch = std::get<WinchOutput>(linear.output);
        winch.closedLoop = false;
        winch.flangeDiameter = 0.052;
        QCOMPARE(find(assess(p).verdicts, "drum_room")->state, State::Fine);
        winch.flangeDiameter = 0.051;
        QCOMPARE(find(assess(p).verdicts, "drum_room")->state, State::Over);
    }
};

QTEST_GUILESS_MAIN(NoRampsTest)
#include "no_ramps_test.moc"
