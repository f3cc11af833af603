// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/winch.h"
#include "core/evaluate/evaluate.h"
#include "core/evaluate/rig/arm_masses.h"
#include "core/evaluate/shot/evaluate_shot.h"
#include "core/model/edit_axes.h"
#include "core/model/fields.h"
#include "core/model/kinds.h"
#include "core/rigs/rigs.h"
#include "core/tools/chain_table.h"
#include "core/tools/winch_curve.h"
#include "core/verdicts/matters.h"
#include "core/verdicts/ranges.h"
#include "core/verdicts/rules.h"
#include "io/project/project_file.h"
#include "support/near.h"

#include <QTest>
#include <cmath>

using namespace gantry;

namespace {
const Verdict* find(const Assessment& a, std::string_view rule, int axis = 0) {
    for (const Verdict& v : a.verdicts)
        if (ruleKey(v) == rule && v.axis == axis) return &v;
    return nullptr;
}
Project rig(rigs::RigKind kind) {
    return rigs::make(kind);
}
} // namespace

/// Rigs to start from, and what the kinds of motors, links and outputs do to a whole axis.
class RigsTest : public QObject {
    Q_OBJECT
private slots:
    void everyRigIsComplete() {
        QStringList over;
        for (const rigs::RigInfo& info : rigs::all()) {
            const Project p = rigs::make(info.kind);
            const std::string name(info.name);
            QVERIFY2(inconsistencies(p).empty(), name.c_str());
            for (const Axis& axis : p.axes) {
                Project copy = p;
                for (const FieldRef& f : allFields(copy))
                    if (auto* const* e = std::get_if<Estimate*>(&f.target))
                        QVERIFY2((*e)->value >= f.info.min && (*e)->value <= f.info.max,
                                 (name + ": " + f.path).c_str());
                if (info.kind != rigs::RigKind::WhatIHave)
                    QVERIFY2(axis.onStop != OnStop::NotAsked, name.c_str());
            }
            const Assessment a = assess(p);
            int spots = 0;
            for (const Matter& m : matters(p, a.verdicts)) {
                const Verdict& v = *m.verdict;
                const std::string where =
                    name + ": " + title(v) + ": " + sentence(v, p, units::System::Metric);
                QVERIFY2(v.state != State::Unknown, where.c_str());
                // A starting project must not fail at what it lays itself, nor be in doubt of it.
                if (v.state == State::Over || v.state == State::AtRisk) over << QString::fromStdString(where);
                spots += v.state == State::Tight;
            }
            QVERIFY2(spots <= 1, name.c_str()); // one honest tight spot
            for (const AxisEvaluation& e : a.evaluation.axes)
                QVERIFY2(!e.shots.empty() || info.kind == rigs::RigKind::WhatIHave, name.c_str());
            const auto back = io::readProject(io::writeProject(p));
            QVERIFY2(std::holds_alternative<io::LoadedProject>(back) &&
                         std::get<io::LoadedProject>(back).project == p,
                     name.c_str());
        }
        QVERIFY2(over.isEmpty(), qPrintable(over.join(QLatin1Char('\n'))));
    }
    /// Every station answers at once: there is a camera on the rig, it stands on something, each rail and arm
    /// is of something and entered once, and whatever is uncertain is marked as assumed.
    void everyRigStands() {
        for (const rigs::RigInfo& info : rigs::all()) {
            if (info.kind == rigs::RigKind::Empty) continue;
            const std::string name(info.name);
            Project p = rigs::make(info.kind);
            QVERIFY2(p.base.kind != BaseKind::NotGiven, name.c_str());
            QVERIFY2(p.base.anchorStrength.value == 0.0, name.c_str()); // never presumed
            QVERIFY2(!p.payload.empty() || info.kind == rigs::RigKind::SubjectTurntable, name.c_str());
            int carriers = 0, arms = 0;
            for (const Axis& axis : p.axes) {
                carriers += axis.carriesPayload;
                if (const auto* r = std::get_if<RotaryMechanism>(&axis.mechanism)) {
                    arms += r->boom.section.shape != SectionShape::NotGiven;
                    const double pin = r->boom.pivot.pinDiameter + r->boom.pivot.bearingRating.value;
                    QCOMPARE(pin, 0.0);
                } else {
                    QVERIFY2(sectionOf(axis).shape != SectionShape::NotGiven, name.c_str());
                }
            }
            QVERIFY2(carriers >= 1 || info.kind == rigs::RigKind::SubjectTurntable, name.c_str());
            const bool armed = info.kind == rigs::RigKind::JibCrane || info.kind == rigs::RigKind::OrbitBoom;
            QVERIFY2(arms == (armed ? 1 : 0), name.c_str());
            for (const FieldRef& f : allFields(p))
                if (auto* const* e = std::get_if<Estimate*>(&f.target); e != nullptr && (*e)->value != 0.0)
                    QVERIFY2((*e)->source == Source::Assumed || (*e)->tolerance == 0.0,
                             (name + ": " + f.path).c_str());
        }
    }
    /// What one would build: no head weighs as much as a crane.
    void totalsAreThoseOfRigs() {
        for (const rigs::RigInfo& info : rigs::all()) {
            if (info.kind == rigs::RigKind::Empty) continue;
            const std::string name(info.name);
            const Evaluation e = evaluate(rigs::make(info.kind));
            const double mass = e.rig.mass.value(), price = e.rig.price.value();
            QVERIFY2(mass > 5.0 && mass < 60.0, (name + " " + std::to_string(mass)).c_str());
            if (info.kind != rigs::RigKind::WhatIHave)
                QVERIFY2(price > 60.0 && price < 700.0, (name + " " + std::to_string(price)).c_str());
        }
    }
    /// Every combination of motor, link and output evaluates, and goes through the file unchanged.
    void everyKindFits() {
        for (std::size_t m = 0; m < std::variant_size_v<Motor>; ++m)
            for (std::size_t l = 0; l < std::variant_size_v<Link>; ++l)
                for (std::size_t o = 0;
                     o < std::variant_size_v<LinearOutput> + std::variant_size_v<RotaryOutput>; ++o) {
                    const bool linear = o < std::variant_size_v<LinearOutput>;
                    Project p = rig(linear ? rigs::RigKind::BeltSlider : rigs::RigKind::PanTiltHead);
                    p.axes.resize(1);
                    for (Shot& s : p.shots)
                        std::erase_if(s.moves, [&](const ShotMove& x) { return x.axis != p.axes[0].id; });
                    p.axes[0].motor = makeKind<Motor>(m);
                    Link link = makeKind<Link>(l);
                    linkId(link) = "link";
                    p.axes[0].links = {link};
                    if (linear)
                        std::get<LinearMechanism>(p.axes[0].mechanism).output = makeKind<LinearOutput>(o);
                    else
                        std::get<RotaryMechanism>(p.axes[0].mechanism).output =
                            makeKind<RotaryOutput>(o - std::variant_size_v<LinearOutput>);
                    const Assessment a = assess(p);
                    QVERIFY(a.evaluation.axes[0].shots.at(0).torque.margin);
                    const auto back = io::readProject(io::writeProject(p));
                    QVERIFY(std::get<io::LoadedProject>(back).project == p);
                }
    }
    void screwLiftsAsItsFormulaSays() {
        Project p = rig(rigs::RigKind::LiftColumn);
        auto& m = std::get<LinearMechanism>(p.axes[0].mechanism);
        m.runningFriction = m.staticFriction = assumed(0.0);
        auto& screw = std::get<ScrewOutput>(m.output);
        screw.nutDrag = assumed(0.0);
        screw.backlash = assumed(0.0);
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        // Slow enough that the ramp adds nothing: F d/2 tan(λ + φ) of Shigley for 3 kg.
        const double lead = std::atan(0.004 / (std::numbers::pi * 0.007));
        const double rub =
            std::atan(0.15 / std::cos(std::atan(std::tan(0.2617993877991494) * std::cos(lead))));
        VERIFY_NEAR(e.model.rampTorque(0.01, 0.0), 3.0 * 9.80665 * 0.0035 * std::tan(lead + rub), 1e-6);
        QCOMPARE(e.steps.stepsPerUnit.value(), 800.0); // 3200 microsteps over 4 mm
    }
    void doubledBeltHalvesTheWay() {
        Project p = rig(rigs::RigKind::BeltSlider);
        const AxisEvaluation one = evaluateAxis(p, p.axes[0]);
        std::get<BeltOutput>(std::get<LinearMechanism>(p.axes[0].mechanism).output).doubled = true;
        const AxisEvaluation two = evaluateAxis(p, p.axes[0]);
        VERIFY_NEAR(two.steps.stepsPerUnit.value(), 2 * one.steps.stepsPerUnit.value(), 1e-12);
        VERIFY_NEAR(two.travelPerMotorRev.value(), one.travelPerMotorRev.value() / 2, 1e-12);
    }
    void twoMotorsShareTheWork() {
        Project p = rig(rigs::RigKind::BeltSlider);
        const AxisEvaluation one = evaluateAxis(p, p.axes[0]);
        std::get<BeltOutput>(std::get<LinearMechanism>(p.axes[0].mechanism).output).motors = 2;
        const AxisEvaluation two = evaluateAxis(p, p.axes[0]);
        VERIFY_NEAR(two.shots[0].torque.available.value(), 2 * one.shots[0].torque.available.value(), 1e-12);
        VERIFY_NEAR(two.shots[0].torque.needed.value() -
                        one.shots[0].torque.needed.value(), // the second rotor
                    5.7e-6 * one.shots[0].motion.acceleration.value() / one.model.outputPerRad, 1e-6);
        QVERIFY(two.shots[0].torque.margin.value() > 1.8 * one.shots[0].torque.margin.value());
    }
    void motorThatRidesIsCarried() {
        Project p = rig(rigs::RigKind::BeltSlider);
        const double before = evaluateAxis(p, p.axes[0]).model.chain.load.inertia;
        std::get<BeltOutput>(std::get<LinearMechanism>(p.axes[0].mechanism).output).motorRides = true;
        VERIFY_NEAR(evaluateAxis(p, p.axes[0]).model.chain.load.inertia, before + 0.29, 1e-12);
    }
    void armGravityByHand() {
        RotaryMechanism arm;
        const std::vector<structure::ArmMass> masses{{2.0, 1.0, 0.1, false}, {5.0, -0.4, 0.0, false}};
        // Level: g (2·1 − 5·0.4) = 0; upright: −g·2·0.1.
        QVERIFY(std::abs(armTorque(masses, arm, 0.0)) < 1e-12);
        VERIFY_NEAR(armTorque(masses, arm, std::numbers::pi / 2), -9.80665 * 0.2, 1e-9);
        arm.spring = {assumed(3.0), assumed(-1.0)};
        VERIFY_NEAR(armTorque(masses, arm, 0.5),
                    9.80665 * (2 * (std::cos(0.5) - 0.1 * std::sin(0.5)) - 2 * std::cos(0.5)) - (3.0 - 0.5),
                    1e-9);
    }
    void slopeAndRampsLoadThePan() {
        Project p = rig(rigs::RigKind::MultiAxis);
        auto& head = std::get<RotaryMechanism>(p.axes[1].mechanism);
        head.items = {{"lens", "Long lens", assumed(2.0), 0.1, 0.0}};
        p.shots[0].moves.push_back({"pan", ByTime<AxisKind::Rotary>{0.5, 15, 2, 2}});
        Evaluation level = evaluate(p);
        // Carriage ramp: m a e.
        const double a = level.axes[0].shots[0].motion.acceleration.value();
        VERIFY_NEAR(level.axes[1].shots[0].carried.value(), 2.0 * a * 0.1, 1e-9);
        std::get<LinearMechanism>(p.axes[0].mechanism).slope = assumed(0.2);
        const Evaluation steep = evaluate(p);
        VERIFY_NEAR(steep.axes[1].model.chain.load.steady, 2.0 * 9.80665 * 0.1 * std::sin(0.2), 1e-9);
        QVERIFY(steep.axes[1].shots[0].torque.needed.value() > level.axes[1].shots[0].torque.needed.value());
    }
    /// A boom of 1.2 m that speeds up and turns pulls a pan's offset weight by its tip's acceleration, and
    /// the pan turns back against it.
    void swingLoadsThePan() {
        Project p = rig(rigs::RigKind::MultiAxis);
        p.axes.erase(p.axes.begin() + 2, p.axes.end());
        Axis& swing = p.axes[0];
        RotaryMechanism boom;
        boom.items = {{"tip", "Head", assumed(3.0), 1.2, 0.0}};
        swing.mechanism = boom;
        swing.links.clear();
        swing.role = Role::Swing;
        auto& head = std::get<RotaryMechanism>(p.axes[1].mechanism);
        head.items = {{"lens", "Long lens", assumed(2.0), 0.1, 0.0}};
        p.shots[0].keepFramed = false;
        p.shots[0].moves = {{swing.id, BySpeed<AxisKind::Rotary>{1.0, 0.3, 0.2}},
                            {p.axes[1].id, BySpeed<AxisKind::Rotary>{0.5, 0.2, 0.2}}};
        const Evaluation e = evaluate(p);
        const double tip = 1.2 * std::hypot(0.2, 0.3 * 0.3);
        const double turning = e.axes[1].model.chain.load.inertia * 0.2;
        VERIFY_NEAR(e.axes[1].shots[0].carried.value(), 2.0 * 0.1 * tip + turning, 1e-9);
    }
    /// A brake on the motor holds a cart on a slope no better than its wheel grips the track.
    void aSlippingWheelLimitsItsBrake() {
        Project p = rig(rigs::RigKind::WheelDolly);
        Axis& axis = p.axes[0];
        auto& m = std::get<LinearMechanism>(axis.mechanism);
        auto& wheel = std::get<WheelOutput>(m.output);
        m.slope = assumed(0.2);
        axis.brake.fitted = true;
        axis.brake.holdingTorque = assumed(500.0);
        // Both go with the weight: μ · share · cos β over sin β.
        VERIFY_NEAR(evaluate(p).axes[0].powerOff.brakeRatio.value(),
                    wheel.friction.value * wheel.drivenShare.value / std::tan(0.2), 1e-9);
        axis.brake.holdingTorque = assumed(1e-3);
        const double weak = evaluate(p).axes[0].powerOff.brakeRatio.value();
        QVERIFY(weak < 0.1);
        // A roller between motor and load grips as its pressure lets it; a brake behind it does not need it.
        RollerStage roller;
        roller.id = "roller";
        roller.friction = assumed(0.4);
        roller.pressure = assumed(10.0);
        roller.rollerDiameter = assumed(0.02);
        roller.wheelDiameter = assumed(0.1);
        axis.links = {roller};
        axis.brake.holdingTorque = assumed(500.0);
        wheel.friction = assumed(5.0);
        const double gravity = evaluate(p).axes[0].powerOff.gravity.value();
        // 0.4 · 10 N · 50 mm on the shaft of the wheel.
        const double force = 0.4 * 10.0 * 0.05 / (wheel.diameter.value / 2);
        VERIFY_NEAR(evaluate(p).axes[0].powerOff.brakeRatio.value(), force / gravity, 1e-9);
        axis.brake.place = BrakePlace::LoadSide;
        QVERIFY(evaluate(p).axes[0].powerOff.brakeRatio.value() > 1.0);
    }
    /// Integrating cord over turns along the curve gives the turns that the drum needs by its own formula.
    void winchCurveKeepsTheCord() {
        Project p = rig(rigs::RigKind::WinchedCart);
        auto& winch = std::get<WinchOutput>(std::get<LinearMechanism>(p.axes[0].mechanism).output);
        winch.drumWidth = 0.02;
        winch.cordDiameter = assumed(0.002);
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const double motorSpeed = 12.5;
        const auto curve = winchCurve(p.axes[0], e, motorSpeed);
        QVERIFY(curve.size() >= 4 && curve.back().layer == static_cast<int>(curve.size()) / 2);
        VERIFY_NEAR(curve.back().wound, e.model.travel, 1e-12);
        double motorAngle = 0;
        for (std::size_t i = 0; i < curve.size(); i += 2) {
            QVERIFY(i == 0 || curve[i].wound == curve[i - 1].wound);
            QVERIFY(i == 0 || curve[i].speed > curve[i - 1].speed);
            motorAngle += (curve[i + 1].wound - curve[i].wound) / curve[i].speed * motorSpeed;
        }
        const double turns = e.model.layers.back().turns;
        VERIFY_NEAR(motorAngle, turns * 2 * std::numbers::pi * e.model.shaftRatio, 1e-6);
        VERIFY_NEAR(curve.front().stepsPerUnit, e.checks.stepsPerUnitFirst.value(), 1e-9);
        VERIFY_NEAR(curve.back().stepsPerUnit, e.checks.stepsPerUnitLast.value(), 1e-9);
        QVERIFY(winchCurve(rig(rigs::RigKind::BeltSlider).axes[0], e, 1.0).empty());
    }
    void panFollowsTheSubjectByItself() {
        const Project p = rig(rigs::RigKind::MultiAxis);
        const Evaluation e = evaluate(p);
        QCOMPARE(e.axes[1].shots.size(), std::size_t(1));
        QVERIFY(e.axes[1].shots[0].follows);
        QCOMPARE(e.axes[1].shots[0].motion.time.value(), e.axes[0].shots[0].motion.time.value());
        const double v = e.axes[0].shots[0].motion.topSpeed.value();
        VERIFY_NEAR(e.axes[1].shots[0].motion.topSpeed.value(), v / 1.5, 1e-6);
        QVERIFY(e.axes[2].shots[0].motion.topSpeed.value() > 0.0);
    }
    void cordSlackAndWheelSlip() {
        Project p = rig(rigs::RigKind::WinchedCart);
        const Assessment a = assess(p);
        const ShotEvaluation& s = a.evaluation.axes[0].shots[0];
        const double g = 9.80665 * std::sin(8.0 * std::numbers::pi / 180.0);
        VERIFY_NEAR(s.slackDeceleration.value(), g + 4.0 / 8.0, 1e-9);
        std::get<WinchOutput>(std::get<LinearMechanism>(p.axes[0].mechanism).output).closedLoop = true;
        QVERIFY(find(assess(p), "cord_slack") == nullptr);
        Project d = rig(rigs::RigKind::WheelDolly);
        std::get<LinearMechanism>(d.axes[0].mechanism).slope = assumed(0.25);
        const Assessment steep = assess(d);
        QCOMPARE(find(steep, "grip")->state, State::Over); // 0.5 · 0.4 of the weight against 0.25 of it
    }
    void knobMotorSaysItsSetting() {
        const Project p = rig(rigs::RigKind::OrbitBoom);
        const Assessment a = assess(p);
        const ShotEvaluation& s = a.evaluation.axes[0].shots[0];
        QVERIFY(s.knob.setting.value() > 0.05 && s.knob.setting.value() < 1.0);
        QVERIFY(!a.evaluation.axes[0].steps.stepsPerUnit);
        QVERIFY(find(a, "framing") == nullptr); // it keeps no place
        QVERIFY(find(a, "motor_speed") != nullptr);
    }
    /// A motor past its speed leaves nothing for the parts behind it; one that is not known leaves no number.
    void whatIsLeftAlongTheChain() {
        Project p = rig(rigs::RigKind::OrbitBoom);
        std::get<GearedDc>(p.axes[0].motor).figures.noLoadSpeed.value = 0.1;
        AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        for (const ChainColumn& c : chainColumns(p.axes[0], e, e.shots.at(0)))
            if (c.part == ChainPart::Link || c.part == ChainPart::Load)
                QCOMPARE(c.available.figure.value(), 0.0);
        p = rig(rigs::RigKind::BeltSlider);
        std::get<Stepper>(p.axes[0].motor).inductance.value = 0.0;
        e = evaluateAxis(p, p.axes[0]);
        for (const ChainColumn& c : chainColumns(p.axes[0], e, e.shots.at(0)))
            if (c.part == ChainPart::Belt || c.part == ChainPart::Load) QVERIFY(!c.available.figure);
    }
    void emergencyStopIsAskedAndJudged() {
        Project p = rig(rigs::RigKind::LiftColumn);
        p.axes[0].brake.fitted = false;
        p.axes[0].onStop = OnStop::NotAsked;
        QCOMPARE(find(assess(p), "emergency_stop")->state, State::Unknown);
        p.axes[0].onStop = OnStop::CutsCurrent;
        auto& m = std::get<LinearMechanism>(p.axes[0].mechanism);
        auto& screw = std::get<ScrewOutput>(m.output);
        // A steep, slippery screw runs back; a fine one locks at rest, and is never better than tight.
        screw.lead = assumed(0.02, 0.0);
        screw.friction = assumed(0.01, 0.0);
        m.runningFriction = m.staticFriction = assumed(0.5, 0.0);
        screw.nutDrag = assumed(0.0);
        QCOMPARE(evaluateAxis(p, p.axes[0]).stop.outcome, StopOutcome::Falls);
        QCOMPARE(find(assess(p), "emergency_stop")->state, State::Over);
        screw.lead = assumed(0.002, 0.0);
        screw.friction = assumed(0.2, 0.0);
        QCOMPARE(evaluateAxis(p, p.axes[0]).stop.outcome, StopOutcome::Creeps);
        QCOMPARE(find(assess(p), "emergency_stop")->state, State::Tight);
    }
    /// However much friction outweighs gravity, it never counts as a brake: not when power goes, not after a
    /// stop.
    void frictionIsNoBrake() {
        Project p = rig(rigs::RigKind::BeltSlider);
        auto& m = std::get<LinearMechanism>(p.axes[0].mechanism);
        m.slope = assumed(0.05, 0.0);
        m.runningFriction = m.staticFriction = assumed(60.0, 0.0);
        p.axes[0].onStop = OnStop::CutsCurrent;
        const Assessment a = assess(p);
        QVERIFY(find(a, "emergency_stop")->ratio.value() > 10.0);
        QCOMPARE(find(a, "emergency_stop")->state, State::Tight);
        QVERIFY(
            find(a, "emergency_stop")->sentence.text.starts_with("After an emergency stop or reset only"));
        QCOMPARE(find(a, "power_off")->state, State::Tight);
        p.axes[0].onStop = OnStop::KeepsHolding;
        QCOMPARE(find(assess(p), "emergency_stop")->state, State::Fine);
    }
    /// A locking worm is said to lock, and is tight at best.
    void lockingDrivesSayWhatHolds() {
        Project p = rig(rigs::RigKind::JibCrane);
        p.axes[1].brake.fitted = false;
        // As assumed, its lead angle may well lie above the angle of friction: then it does not lock.
        const Assessment unsure = assess(p);
        QCOMPARE(find(unsure, "power_off", 1)->state, State::AtRisk);
        QVERIFY(find(unsure, "power_off", 1)->switches);
        auto& worm = std::get<WormStage>(p.axes[1].links[0]);
        worm.leadAngle.tolerance = worm.friction.tolerance = 0.01;
        const Assessment a = assess(p);
        QVERIFY(a.evaluation.axes[1].checks.locks && !a.evaluation.axes[1].powerOff.falls);
        QVERIFY(
            find(a, "power_off", 1)->sentence.text.starts_with("Only the self-locking worm or screw holds"));
        QCOMPARE(find(a, "power_off", 1)->state, State::Tight);
    }
    /// Both spans pull the shaft with the preload, until the pull of the load leaves the slack one loose.
    void beltPullOnTheShaft() {
        Project p = rig(rigs::RigKind::BeltSlider);
        auto& belt = std::get<BeltOutput>(std::get<LinearMechanism>(p.axes[0].mechanism).output);
        belt.preload = assumed(30.0);
        QCOMPARE(evaluateAxis(p, p.axes[0]).checks.shaftRadial.value(), 60.0);
        belt.preload = assumed(0.0);
        auto& m = std::get<LinearMechanism>(p.axes[0].mechanism);
        m.runningFriction = assumed(0.0);
        m.staticFriction = assumed(17.0); // more than the gentle ramp asks
        VERIFY_NEAR(evaluateAxis(p, p.axes[0]).checks.shaftRadial.value(), 17.0, 1e-9);
    }
    /// Focus and roll in the picture, by hand.
    void ringsAndRollInPixels() {
        Project p = rig(rigs::RigKind::MultiAxis);
        p.shots[0].focalLength = 0.05;
        p.shots[0].fNumber = 2.0;
        p.shots[0].subjectDistance = 2.0;
        auto& ring = std::get<LensRingOutput>(std::get<RotaryMechanism>(p.axes[3].mechanism).output);
        ring.marks = {{"near", 0.0, 1.0}, {"far", 5.0, 2.0}}; // 1/s falls by 0.5 over 5 rad
        // f²/N · 0.1 / (1 − 0.05/2) on the sensor, 3840 px on 36 mm.
        VERIFY_NEAR(pixelsPerUnit(p.camera, p.shots[0], p.axes[3], armReach(p.axes, 3)).value(),
                    0.0025 / 2 * 0.1 / 0.975 / 0.036 * 3840, 1e-9);
        p.axes[1].role = Role::Roll;
        VERIFY_NEAR(pixelsPerUnit(p.camera, p.shots[0], p.axes[1], armReach(p.axes, 1)).value(),
                    1920 * std::sqrt(1 + 81.0 / 256.0), 1e-9);
        p.axes[1].role = Role::Focus;
        QCOMPARE(pixelsPerUnit(p.camera, p.shots[0], p.axes[1], armReach(p.axes, 1)).reason(),
                 Reason::NeedsLensRing);
    }
    void lensRingsThatCannotBeDrivenAreRefused() {
        Project p = rig(rigs::RigKind::MultiAxis);
        auto& ring = std::get<LensRingOutput>(std::get<RotaryMechanism>(p.axes[3].mechanism).output);
        QVERIFY(find(assess(p), "lens_ring", 3)->state != State::Over);
        ring.hardStops = false;
        QVERIFY(find(assess(p), "lens_ring", 3)
                    ->sentence.text.starts_with("A ring without stops has no place to count"));
        ring.steadyElectronics = false;
        QVERIFY(find(assess(p), "lens_ring", 3)
                    ->sentence.text.starts_with("This ring drives electronics that follow its"));
        QCOMPARE(find(assess(p), "lens_ring", 3)->state, State::Over);
    }
    void printedTeethAreTightAtBest() {
        Project p = rig(rigs::RigKind::PanTiltHead);
        GearStage gear;
        gear.id = "gear";
        gear.faceWidth = 0.05;
        gear.module = 0.004;
        gear.material = GearMaterial::PrintedPla;
        p.axes[0].links = {gear};
        const Assessment a = assess(p);
        QCOMPARE(find(a, "tooth_strength")->state, State::Tight);
        QVERIFY(find(a, "tooth_strength")->ratio.value() > 3.0);
    }
    void motorsThatStandHeat() {
        Project p = rig(rigs::RigKind::BeltSlider);
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const auto& motor = std::get<Stepper>(p.axes[0].motor);
        // Ipk² R at 1.2 A rms through 1.5 ohm is 4.32 W cold; hot copper settles where its heat leaves the
        // case.
        double settled = 25.0;
        for (int i = 0; i < 200; ++i)
            settled = 25.0 + 4.32 * (1.0 + 0.00393 * (settled - 20.0)) * motor.body.thermalResistance.value;
        VERIFY_NEAR(e.checks.caseTemperature.value(), settled, 1e-9);
        std::get<Stepper>(p.axes[0].motor).body.mount = MountMaterial::PrintedPla;
        QVERIFY(evaluateAxis(p, p.axes[0]).checks.caseLimit.value() < e.checks.caseLimit.value());
        // The lesser of mount and motor: no plastic lets a motor run hotter than metal does.
        for (const MountMaterial m :
             {MountMaterial::PrintedPla, MountMaterial::PrintedPetg, MountMaterial::PrintedAbs,
              MountMaterial::PrintedNylon, MountMaterial::Plywood}) {
            std::get<Stepper>(p.axes[0].motor).body.mount = m;
            QVERIFY(evaluateAxis(p, p.axes[0]).checks.caseLimit.value() <= 80.0);
        }
        QCOMPARE(e.checks.caseLimit.value(), 80.0);
    }
    void candidatesAreKeptAndSwapped() {
        Project p = rig(rigs::RigKind::BeltSlider);
        Axis& axis = p.axes[0];
        const Axis before = axis;
        QCOMPARE(addCandidate(p, 0), std::string("B"));
        QCOMPARE(axis.fittedToday, std::string("A"));
        axis.motor = makeKind<Motor>(1);
        std::get<LinearMechanism>(axis.mechanism).output = RackOutput{};
        const Axis b = axis;
        QVERIFY(useCandidate(p, 0, "A"));
        QVERIFY(axis.motor == before.motor && axis.mechanism == before.mechanism);
        QVERIFY(withCandidate(axis, "B").motor == b.motor);
        QVERIFY(useCandidate(p, 0, "B"));
        QVERIFY(axis.mechanism == b.mechanism);
        QVERIFY(!useCandidate(p, 0, "Q"));
        for (const char* letter : {"C", "D", "E", "F"}) QCOMPARE(addCandidate(p, 0), std::string(letter));
        QVERIFY(addCandidate(p, 0).empty());
        QVERIFY(inconsistencies(p).empty());
        const auto back = io::readProject(io::writeProject(p));
        QVERIFY(std::get<io::LoadedProject>(back).project == p);
    }
    void axesAreCopiedAndMoved() {
        Project p = rig(rigs::RigKind::MultiAxis);
        QCOMPARE(copyAxis(p, 0), 1);
        QVERIFY(findMovement(p.shots[0], p.axes[1].id) != nullptr);
        QVERIFY(inconsistencies(p).empty());
        const std::string id = p.axes[1].id;
        QCOMPARE(moveAxis(p, 1, 2), 3);
        QCOMPARE(p.axes[3].id, id);
        QCOMPARE(moveAxis(p, 0, -1), 0);
        removeAxis(p, 3);
        QVERIFY(findMovement(p.shots[0], id) == nullptr);
        QVERIFY(inconsistencies(p).empty());
    }
    void olderFilesAreMigrated() {
        std::string text = io::writeProject(rig(rigs::RigKind::BeltSlider));
        const auto replace = [&](std::string_view from, std::string_view to) {
            const auto at = text.find(from);
            QVERIFY(at != std::string::npos);
            text.replace(at, from.size(), to);
        };
        replace("\"version\": 2", "\"version\": 1");
        replace("\"kind\": \"belt\",", "");
        const auto back = io::readProject(text);
        QVERIFY(std::holds_alternative<io::LoadedProject>(back));
        QVERIFY(std::get<io::LoadedProject>(back).project == rig(rigs::RigKind::BeltSlider));
    }
};

QTEST_APPLESS_MAIN(RigsTest)
#include "rigs_test.moc"
