// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/criteria/criteria.h"
#include "core/evaluate/evaluate.h"
#include "support/bare_rigs.h"
#include "support/every_rig.h"
#include "support/hand_rigs.h"
#include "support/near.h"

#include <QTest>
#include <algorithm>

using namespace gantry;
using namespace hand;

/// What a drive is made of, worked on paper: springs in series, play, friction, gravity, each kind of motor,
/// each kind of output; then what follows for the axis as a whole.
class DriveByHandTest : public QObject {
    Q_OBJECT
    static AxisEvaluation of(const Project& p, std::size_t axis = 0) { return evaluate(p).axes[axis]; }
    static double inSeries(std::initializer_list<double> springs) {
        double compliance = 0.0;
        for (const double k : springs) compliance += 1.0 / k;
        return 1.0 / compliance;
    }
    /// A turning table whose role is to pan, with nothing on it.
    static Project table() {
        Project p = bareRig(rigs::RigKind::SubjectTurntable);
        p.payload.clear();
        RotaryMechanism& r = turn(p);
        r.items.clear();
        r.inertia.value = 0.03;
        r.pointMass.value = 2.0;
        r.pointRadius = 0.2;
        r.output = DirectOutput{};
        p.axes[0].links.clear();
        return p;
    }
    static RotaryMechanism& turn(Project& p) { return std::get<RotaryMechanism>(p.axes[0].mechanism); }

private slots:
    void outputsByHand() {
        Project p = slider();
        LinearMechanism& m = rail(p);
        p.axes[0].links.clear();
        m.frameStiffness.value = 5e4;
        BeltOutput belt;
        belt.teeth = 20;
        belt.pitch.value = 0.002;
        belt.tensileStiffness.value = 2e4;
        belt.efficiency.value = 0.95;
        belt.pulleyInertia.value = 3e-6;
        belt.backlash.value = 1e-4;
        m.output = belt;
        // At mid travel both spans of half a rail: 4 EA / L.
        AxisEvaluation e = of(p);
        VERIFY_NEAR(e.model.outputStiffness, inSeries({4 * 2e4 / 1.0, 5e4}), 1e-9);
        VERIFY_NEAR(e.model.outputPerRad, 0.04 / (2 * pi), 1e-12);
        VERIFY_NEAR(e.model.backlash, 1e-4, 1e-12);
        VERIFY_NEAR(e.model.chain.stages[0].efficiency, 0.95, 1e-12);
        VERIFY_NEAR(e.model.chain.stages[0].backEfficiency, 2 - 1 / 0.95, 1e-12);
        VERIFY_NEAR(e.model.chain.stages[0].inputInertia, 3e-6, 1e-12);
        VERIFY_NEAR(e.travelPerMotorRev.value(), 0.04, 1e-12);
        // Over a roller at the carriage, twice the belt moves it half as far: four times as stiff for its
        // length.
        belt.doubled = true;
        belt.motors = 2;
        m.output = belt;
        e = of(p);
        VERIFY_NEAR(e.model.outputStiffness, inSeries({4 * 2e4 / 2.0 * 4, 5e4}), 1e-9);
        VERIFY_NEAR(e.model.outputPerRad, 0.02 / (2 * pi), 1e-12);
        VERIFY_NEAR(e.model.backlash, 0.5e-4, 1e-12);
        VERIFY_NEAR(e.model.chain.stages[0].inputInertia, 6e-6, 1e-12);
        QCOMPARE(e.model.motors, 2);

        ScrewOutput screw;
        screw.lead.value = 0.004;
        screw.pitchDiameter.value = 0.01;
        screw.friction.value = 0.1;
        screw.threadHalfAngle = 0.0;
        screw.axialStiffness.value = 3e5;
        screw.nutDrag.value = 0.02;
        screw.backlash.value = 5e-5;
        m.output = screw;
        e = of(p);
        VERIFY_NEAR(e.model.outputStiffness, inSeries({3e5, 5e4}), 1e-9);
        VERIFY_NEAR(e.model.outputPerRad, 0.004 / (2 * pi), 1e-12);
        VERIFY_NEAR(e.model.backlash, 5e-5, 1e-12);
        const double lead = std::atan(0.004 / (pi * 0.01)),
                     efficiency = std::tan(lead) / std::tan(lead + std::atan(0.1));
        VERIFY_NEAR(e.model.chain.stages[0].efficiency, efficiency, 1e-9);
        // A bar of steel 1 m long: m r² / 2.
        VERIFY_NEAR(e.model.chain.stages[0].inputInertia, 7850 * pi / 4 * 1e-4 * 1.0 * 0.005 * 0.005 / 2,
                    0.01);
        const double drag = 0.02 * 2 * pi / 0.004 * efficiency;
        VERIFY_NEAR(e.model.friction, m.runningFriction.value + m.cableDrag.value + drag, 1e-9);
        VERIFY_NEAR(e.model.staticFriction, m.staticFriction.value + m.cableDrag.value + drag, 1e-9);

        RackOutput rack;
        rack.teeth = 20;
        rack.module.value = 0.001;
        rack.stiffness.value = 2e5;
        rack.pinionInertia.value = 4e-6;
        m.output = rack;
        e = of(p);
        VERIFY_NEAR(e.model.outputStiffness, inSeries({2e5, 5e4}), 1e-9);
        VERIFY_NEAR(e.model.outputPerRad, 0.01, 1e-12);
        VERIFY_NEAR(e.model.chain.stages[0].inputInertia, 4e-6, 1e-12);

        WheelOutput wheel;
        wheel.diameter.value = 0.06;
        wheel.wheelInertia.value = 7e-6;
        wheel.backlash.value = 2e-4;
        m.output = wheel;
        e = of(p);
        VERIFY_NEAR(e.model.outputStiffness, 5e4, 1e-9);
        VERIFY_NEAR(e.model.outputPerRad, 0.03, 1e-12);
        VERIFY_NEAR(e.model.backlash, 2e-4, 1e-12);
        m.frameStiffness.value = 0.0; // nothing gives
        QVERIFY(std::isinf(of(p).model.outputStiffness));
    }
    void loadsByHand() {
        Project p = slider();
        LinearMechanism& m = rail(p);
        p.payload.clear();
        m.items = {{"lamp", "Lamp", estimate(1.5, Source::Measured)}};
        m.slope.value = 0.2;
        m.runningFriction.value = 3.0;
        m.staticFriction.value = 4.0;
        m.cableDrag.value = 0.7;
        m.windArea = 0.05;
        p.conditions.windSpeed = 6.0;
        p.axes[0].carriesPayload = false;
        m.output = WheelOutput{};
        const DriveModel d = of(p).model;
        const double wind = 0.5 * 1.2 * 1.2 * 0.05 * 36;
        VERIFY_NEAR(d.chain.load.inertia, 6.5, 1e-12);
        VERIFY_NEAR(d.chain.load.steady, 6.5 * g * std::sin(0.2), 1e-12);
        VERIFY_NEAR(d.gravityLow, d.gravityHigh, 1e-12);
        VERIFY_NEAR(d.chain.load.coulomb, 3.7 + wind, 1e-12);
        VERIFY_NEAR(d.friction, 3.7, 1e-12);
        VERIFY_NEAR(d.staticFriction, 4.7 + wind, 1e-12);
        m.staticFriction.value = 1.0; // nothing breaks away more easily than it runs
        VERIFY_NEAR(of(p).model.staticFriction, 3.7 + wind, 1e-12);

        Project t = table();
        RotaryMechanism& r = turn(t);
        r.items = {{"a", "A", estimate(3.0, Source::Measured), 0.3, 0.0},
                   {"b", "B", estimate(1.0, Source::Measured), -0.5, 0.0}};
        r.friction.value = 0.05;
        r.staticFriction.value = 0.08;
        r.cableDrag.value = 0.01;
        r.windArea = 0.1;
        r.windArm = 0.3;
        r.unbalance.value = 0.4;
        t.conditions.windSpeed = 5.0;
        const DriveModel x = of(t).model;
        const double gust = 0.5 * 1.2 * 1.2 * 0.1 * 25 * 0.3;
        VERIFY_NEAR(x.chain.load.inertia, 0.03 + 2.0 * 0.04 + 3.0 * 0.09 + 1.0 * 0.25, 1e-12);
        VERIFY_NEAR(x.chain.load.coulomb, 0.06 + gust, 1e-12);
        VERIFY_NEAR(x.staticFriction, 0.09 + gust, 1e-12);
        VERIFY_NEAR(x.gravityHigh, 0.4, 1e-9); // upright, only what was entered
        VERIFY_NEAR(x.gravityLow, -0.4, 1e-9);
        VERIFY_NEAR(x.carriedMass, 4.0, 1e-12);
        VERIFY_NEAR(x.carriedAlong, (3.0 * 0.3 - 0.5) / 4.0, 1e-9);
        VERIFY_NEAR(x.farthestItem, 0.5, 1e-9);
        // The other way round the same weight lies as far off.
        r.items[0].along = -0.3;
        r.items[1].along = 0.5;
        VERIFY_NEAR(of(t).model.carriedAlong, 0.1, 1e-9);
    }
    /// Springs and plays of links reach the output through what stands behind them.
    void linksByHand() {
        Project p = slider();
        LinearMechanism& m = rail(p);
        WheelOutput wheel;
        wheel.diameter.value = 0.04;
        wheel.backlash.value = 0.0;
        wheel.wheelInertia.value = 0.0;
        m.output = wheel;
        m.frameStiffness.value = 1e5;
        GearStage gear;
        gear.id = "g";
        gear.motorTeeth = 20;
        gear.loadTeeth = 60;
        gear.figures = {assumed(0.9), assumed(0.01), assumed(300.0), assumed(2e-6)};
        ReducerStage box;
        box.id = "r";
        box.numerator = 5;
        box.denominator = 2;
        box.figures = {assumed(0.8), assumed(0.002), assumed(900.0), assumed(7e-6)};
        p.axes[0].links = {gear, box};
        const AxisEvaluation e = of(p);
        // The box' output is the wheel's shaft: 0.02 m a radian. The gear's turns 2.5 times as far.
        VERIFY_NEAR(e.model.outputStiffness,
                    inSeries({1e5, 900 / (0.02 * 0.02), 300 * 2.5 * 2.5 / (0.02 * 0.02)}), 1e-9);
        VERIFY_NEAR(e.model.backlash, 0.002 * 0.02 + 0.01 / 2.5 * 0.02, 1e-9);
        VERIFY_NEAR(e.totalRatio.value(), 7.5, 1e-12);
        VERIFY_NEAR(e.model.outputPerRad, 0.02 / 7.5, 1e-12);
        const double rotor = e.rotorInertia.value();
        VERIFY_NEAR(e.inertiaAtMotor.value(),
                    rotor + 2e-6 + 7e-6 / 9 + e.model.chain.load.inertia * std::pow(0.02 / 7.5, 2), 1e-9);
        VERIFY_NEAR(e.inertiaRatio.value(), e.loadInertia.value() / rotor, 1e-12);
        VERIFY_NEAR(e.loadInertia.value(), e.inertiaAtMotor.value() - rotor, 1e-9);
        // The mode without a measurement: the load on that spring and the motor's field.
        p.axes[0].vibration.frequency.value = 0.0;
        m.rail.section.shape = SectionShape::NotGiven;
        const AxisEvaluation own = of(p);
        const double field = own.model.stepper()->rotorTeeth * own.model.torqueAmplitude /
                             std::pow(own.model.outputPerRad, 2),
                     both = 1 / (1 / own.model.outputStiffness + 1 / field);
        VERIFY_NEAR(own.model.mode->frequency, std::sqrt(both / own.model.chain.load.inertia) / (2 * pi),
                    1e-9);
        std::get<GearStage>(p.axes[0].links[0]).split = true; // a split gear has no play
        VERIFY_NEAR(of(p).model.backlash, 0.002 * 0.02, 1e-9);
    }
    void steppersByHand() {
        Project p = slider();
        Stepper s;
        s.rotorTeeth = 50;
        s.holdingTorque.value = 0.5;
        s.ratedCurrent.value = 2.0;
        s.resistance.value = 1.5;
        s.inductance.value = 3e-3;
        s.detentTorque.value = 0.02;
        s.stepAccuracy.value = 0.05;
        s.rotorInertia.value = 8e-6;
        p.axes[0].motor = s;
        Driver& d = p.axes[0].driver;
        d.runCurrent = 1.2;
        d.holdCurrent = 0.6;
        d.microsteps = 16;
        d.bridgeResistance.value = 0.3;
        p.supply.sourceResistance.value = 0.2;
        p.supply.cableLength = 0.0;
        p.supply.voltage.value = 24.0;
        p.supply.lowVoltage.value = 20.0;
        // Copper that stays at 20 °C.
        std::get<Stepper>(p.axes[0].motor).body.thermalResistance.value = 0.0;
        p.conditions.ambient = 20.0;
        const DriveModel m = of(p).model;
        VERIFY_NEAR(m.torqueAmplitude, 0.5 * 1.2 / 2.0 / std::numbers::sqrt2 * std::numbers::sqrt2, 1e-9);
        VERIFY_NEAR(m.holdAmplitude, 0.5 * m.torqueAmplitude, 1e-12);
        VERIFY_NEAR(m.fullStepAngle, pi / 100, 1e-12);
        VERIFY_NEAR(m.commandAngle, pi / 1600, 1e-12);
        VERIFY_NEAR(m.jumpAngle, pi / 1600, 1e-12);
        VERIFY_NEAR(m.angleError, 0.05 * pi / 100, 1e-12);
        VERIFY_NEAR(m.stepper()->resistance, 2.0, 1e-12);
        VERIFY_NEAR(m.stepper()->peakCurrent, 1.2 * std::numbers::sqrt2, 1e-12);
        VERIFY_NEAR(m.chain.motorInertia, 8e-6, 1e-12);
        QCOMPARE(m.lowVoltage, 20.0);
        VERIFY_NEAR(m.lag(0.15, 10.0), std::asin(0.15 / m.torqueAmplitude) / 50, 1e-12);
        std::get<Stepper>(p.axes[0].motor).winding = Winding::Unipolar;
        const DriveModel u = of(p).model;
        VERIFY_NEAR(u.stepper()->peakCurrent, std::numbers::sqrt2 * 24 / 2.0, 1e-9);
        VERIFY_NEAR(u.commandAngle, pi / 200, 1e-12); // half steps at best
        QCOMPARE(u.holdAmplitude, u.torqueAmplitude);
        // The first figure that is missing is named.
        std::get<Stepper>(p.axes[0].motor).inductance.value = 0.0;
        QCOMPARE(of(p).model.missing, Reason::NeedsInductance);
        std::get<Stepper>(p.axes[0].motor).resistance.value = 0.0;
        QCOMPARE(of(p).model.missing, Reason::NeedsResistance);
        std::get<Stepper>(p.axes[0].motor).ratedCurrent.value = 0.0;
        QCOMPARE(of(p).model.missing, Reason::NeedsRatedCurrent);
        std::get<Stepper>(p.axes[0].motor).holdingTorque.value = 0.0;
        QCOMPARE(of(p).model.missing, Reason::NeedsHoldingTorque);
        QCOMPARE(of(p).holdAvailable.reason(), Reason::NeedsHoldingTorque);
    }
    void servosByHand() {
        Project p = slider();
        p.supply.voltage.value = 36.0;
        ServoMotor s;
        s.loop.countsPerTurn = 4000;
        s.loop.gear = {5, 2};
        s.loop.bandwidth.value = 20.0;
        s.loop.feedforward.value = 0.8;
        s.ratedTorque.value = 0.4;
        s.coggingTorque.value = 0.01;
        s.rotorInertia.value = 5e-6;
        p.axes[0].motor = s;
        const DriveModel m = of(p).model;
        const double count = 2 * pi / 4000;
        VERIFY_NEAR(m.commandAngle, 2.5 * count, 1e-12);
        VERIFY_NEAR(m.jumpAngle, 2.5 * count, 1e-12);
        VERIFY_NEAR(m.angleError, count, 1e-12);
        VERIFY_NEAR(m.followDelay, 0.2 / (2 * pi * 20), 1e-12);
        VERIFY_NEAR(m.lag(0.3, 50.0), 0.2 / (2 * pi * 20) * 50, 1e-12);
        VERIFY_NEAR(m.holdAmplitude, 0.4, 1e-12);
        VERIFY_NEAR(m.detentTorque, 0.01, 1e-12);
        VERIFY_NEAR(m.chain.motorInertia, 5e-6, 1e-12);
        // In hot air it gives less for hours, and holds less: half the room of 90 K is left at 85 °C, a tenth
        // of the loss is iron's. For a moment it gives what it gave.
        p.conditions.ambient = 85.0;
        const double share = std::sqrt((0.5 - 0.1) / 0.9);
        VERIFY_NEAR(of(p).model.holdAmplitude, 0.4 * share, 1e-9);
        VERIFY_NEAR(of(p).model.continuous(0.0), 0.4 * share, 1e-9);
        VERIFY_NEAR(of(p).model.available(0.0), m.available(0.0), 1e-12);
        p.conditions.ambient = 25.0;
        // 1600 pulses a turn over a belt's 40 mm, exactly.
        BeltOutput belt;
        belt.teeth = 20;
        belt.pitch.value = 0.002;
        rail(p).output = belt;
        p.axes[0].links.clear();
        QCOMPARE(of(p).steps.stepsPerUnit.value(), 40.0);
        std::get<ServoMotor>(p.axes[0].motor).loop.gear = {1, 3}; // finer commands than counts
        VERIFY_NEAR(of(p).model.commandAngle, count / 3, 1e-12);
        VERIFY_NEAR(of(p).model.jumpAngle, count, 1e-12);

        DcServo dc;
        dc.loop.countsPerTurn = 2000;
        dc.figures.noLoadCurrent.value = 9.0; // more than it draws stalled cannot be
        dc.figures.stallCurrent.value = 5.0;
        p.axes[0].motor = dc;
        p.axes[0].driver.runCurrent = 3.0;
        p.axes[0].driver.bridgeResistance.value = 0.4;
        p.supply.sourceResistance.value = 0.1;
        p.supply.cableLength = 0.0;
        const DriveModel x = of(p).model;
        VERIFY_NEAR(x.dc()->noLoadCurrent, 4.5, 1e-12);
        VERIFY_NEAR(x.dc()->sourceResistance, 0.5, 1e-12);
        VERIFY_NEAR(x.dc()->voltage, 36.0, 1e-12);
        VERIFY_NEAR(x.dc()->currentLimit, 3.0, 1e-12);
        VERIFY_NEAR(x.commandAngle, 2 * pi / 2000 * dc.loop.gear.numerator / dc.loop.gear.denominator, 1e-12);
    }
    void brushedAndHobbyByHand() {
        Project p = slider();
        p.supply.voltage.value = 14.0;
        p.supply.lowVoltage.value = 11.0;
        p.supply.sourceResistance.value = 0.3;
        p.supply.cableLength = 0.0;
        GearedDc s;
        s.gearNumerator = 60;
        s.gearDenominator = 2;
        s.rotorInertia.value = 1e-6;
        s.lowestSteady.value = 0.1;
        s.gearboxBacklash.value = 0.02;
        s.knob = 0.7;
        p.axes[0].links.clear();
        p.axes[0].motor = s;
        const DriveModel knob = of(p).model;
        VERIFY_NEAR(knob.dc()->voltage, 14.0, 1e-12);
        VERIFY_NEAR(knob.dc()->duty, 0.7, 1e-12);
        VERIFY_NEAR(knob.dc()->sourceResistance, 0.3, 1e-12);
        VERIFY_NEAR(knob.chain.motorInertia, 900e-6, 1e-9);
        QVERIFY(!knob.pulses && knob.commandAngle == 0.0 && !knob.regulated);
        QCOMPARE(knob.lowVoltage, 11.0);
        double other = 0.0; // of the output itself
        std::visit(
            [&](const auto& o) {
                if constexpr (requires { o.backlash; }) other = o.backlash.value;
            },
            rail(p).output);
        VERIFY_NEAR(knob.backlash, other + 0.02 * knob.outputPerRad, 1e-9);
        auto& geared = std::get<GearedDc>(p.axes[0].motor);
        geared.control = SpeedControl::LinearRegulator;
        geared.appliedVoltage = 9.0;
        geared.regulatorDropout = 2.5;
        DriveModel m = of(p).model;
        QVERIFY(m.regulated);
        VERIFY_NEAR(m.dc()->voltage, 9.0, 1e-12);
        VERIFY_NEAR(m.dc()->sourceResistance, 0.0, 1e-12);
        VERIFY_NEAR(m.lowVoltage, 8.5, 1e-12); // 11 V less what the regulator needs
        geared.appliedVoltage = 13.0;
        VERIFY_NEAR(of(p).model.dc()->voltage, 11.5, 1e-12);
        p.supply.voltage.value = 2.0; // leaves nothing
        VERIFY_NEAR(of(p).model.dc()->voltage, 0.0, 1e-12);
        p.supply.voltage.value = 14.0;
        geared.control = SpeedControl::SupplyVoltage;
        geared.appliedVoltage = 7.0;
        m = of(p).model;
        VERIFY_NEAR(m.dc()->voltage, 7.0, 1e-12);
        VERIFY_NEAR(m.lowVoltage, 7.0, 1e-12); // which does not sag
        VERIFY_NEAR(m.lowestSpeed, 0.1 * motor::noLoadSpeed(*m.dc()), 1e-12);

        HobbyServo h;
        h.range = pi;
        h.pulseSpan = 2e-3;
        h.pulseStep = 1e-6;
        h.deadBand.value = 4e-6;
        h.fullTorqueError.value = 0.06;
        h.stallTorque.value = 1.5;
        h.supplyVoltage = 5.0;
        h.outputInertia.value = 3e-4;
        p.axes[0].motor = h;
        m = of(p).model;
        VERIFY_NEAR(m.commandAngle, pi / 2000, 1e-9);
        VERIFY_NEAR(m.jumpAngle, 4 * pi / 2000, 1e-9);
        VERIFY_NEAR(m.angleError, 2.5 * pi / 2000, 1e-9);
        VERIFY_NEAR(m.followCompliance, 0.06 / 1.5, 1e-12);
        VERIFY_NEAR(m.lag(0.5, 3.0), 0.5 * 0.04, 1e-12);
        VERIFY_NEAR(m.chain.motorInertia, 3e-4, 1e-12);
        QCOMPARE(m.lowVoltage, 5.0);
        QVERIFY(!m.pulses);
    }
    void severalMotorsAndSharedPulses() {
        Project p = slider();
        BeltOutput belt;
        belt.motors = 2;
        rail(p).output = belt;
        GearStage gear;
        gear.id = "g";
        gear.figures.inertia.value = 5e-6;
        p.axes[0].links = {gear};
        const DriveModel two = of(p).model;
        std::get<BeltOutput>(rail(p).output).motors = 1;
        const DriveModel one = of(p).model;
        VERIFY_NEAR(two.chain.motorInertia, 2 * one.chain.motorInertia, 1e-12);
        VERIFY_NEAR(two.chain.stages[0].inputInertia, 1e-5, 1e-12);
        VERIFY_NEAR(two.available(10.0), 2 * one.available(10.0), 1e-12);
        VERIFY_NEAR(two.availableAtLowVoltage(10.0), 2 * one.availableAtLowVoltage(10.0), 1e-12);
        // Pulses shared by the axes that move at once.
        Project rig = bareRig(rigs::RigKind::MultiAxis);
        rig.controller.pulseCeiling = 60e3;
        rig.controller.pulsesShared = true;
        const Evaluation e = evaluate(rig);
        bool shared = false;
        for (std::size_t a = 0; a < rig.axes.size(); ++a) {
            std::size_t most = 1;
            for (const Shot& s : rig.shots) {
                std::size_t pulsed = 0;
                bool moves = false;
                for (std::size_t b = 0; b < rig.axes.size(); ++b) {
                    const bool in = std::any_of(
                        e.axes[b].shots.begin(), e.axes[b].shots.end(),
                        [&](const ShotEvaluation& x) { return rig.shots[x.shot.at()].id == s.id; });
                    pulsed += in && e.axes[b].model.pulses;
                    moves = moves || (b == a && in);
                }
                if (moves) most = std::max(most, pulsed);
            }
            shared = shared || most > 1;
            VERIFY_NEAR(e.axes[a].model.pulseCeiling, 60e3 / static_cast<double>(most), 1e-9);
        }
        QVERIFY(shared);
    }
    /// Without power: what holds, what falls and how fast.
    void powerOffByHand() {
        Project p = slider();
        LinearMechanism& m = rail(p);
        p.payload.clear();
        m.slope.value = 0.6;
        m.output = WheelOutput{};
        std::get<WheelOutput>(m.output).diameter.value = 0.04;
        std::get<WheelOutput>(m.output).friction.value = 0.9;
        std::get<WheelOutput>(m.output).drivenShare.value = 0.5;
        m.runningFriction.value = 4.0;
        m.staticFriction.value = 5.0;
        p.axes[0].brake.fitted = false;
        GearStage gear;
        gear.id = "g";
        gear.motorTeeth = 20;
        gear.loadTeeth = 60;
        p.axes[0].links = {gear};
        AxisEvaluation e = of(p);
        const double gravity = 5 * g * std::sin(0.6), way = e.usableTravel.value();
        QVERIFY(e.powerOff.loaded && e.powerOff.falls);
        VERIFY_NEAR(e.powerOff.gravity.value(), gravity, 1e-9);
        VERIFY_NEAR(e.powerOff.energy.value(), (gravity - 4.0) * way, 1e-9);
        const double inertia = e.inertiaAtMotor.value() / std::pow(e.model.outputPerRad, 2);
        VERIFY_NEAR(e.powerOff.speed.value(), std::sqrt(2 * (gravity - 4.0) * way / inertia), 1e-9);
        VERIFY_NEAR(e.holdNeeded.value(), gravity * 0.02 / 3, 1e-9);
        // A brake on the motor or on the last shaft, and the wheel's own grip, whichever holds less.
        Brake& b = p.axes[0].brake;
        b.fitted = true;
        b.place = BrakePlace::MotorShaft;
        b.holdingTorque.value = 0.05;
        VERIFY_NEAR(of(p).powerOff.brakeRatio.value(), 0.05 / (gravity * 0.02 / 3), 1e-9);
        b.place = BrakePlace::LoadSide;
        b.holdingTorque.value = 0.1;
        VERIFY_NEAR(of(p).powerOff.brakeRatio.value(), 0.1 / (gravity * 0.02), 1e-9);
        b.holdingTorque.value = 100.0;
        VERIFY_NEAR(of(p).powerOff.brakeRatio.value(), 0.9 * 0.5 * 5 * g * std::cos(0.6) / gravity, 1e-9);
        // A roller between motor and wheel slips before a strong brake on the motor gives way.
        RollerStage roller;
        roller.id = "r";
        roller.friction.value = 0.5;
        roller.pressure.value = 10.0;
        roller.rollerDiameter.value = 0.01;
        roller.wheelDiameter.value = 0.05;
        p.axes[0].links = {roller};
        std::get<WheelOutput>(m.output).friction.value = 100.0;
        b.place = BrakePlace::MotorShaft;
        VERIFY_NEAR(of(p).powerOff.brakeRatio.value(), 0.5 * 10 * 0.025 / 0.02 / gravity, 1e-9);
        b.place = BrakePlace::LoadSide; // behind the roller
        QVERIFY(of(p).powerOff.brakeRatio.value() > 5.0);
        // Friction holds; nothing falls, and nothing is told of a fall.
        b.fitted = false;
        m.runningFriction.value = m.staticFriction.value = 40.0;
        e = of(p);
        QVERIFY(e.powerOff.loaded && !e.powerOff.falls);
        QCOMPARE(e.powerOff.energy.reason(), Reason::NotApplicable);
        m.slope.value = 0.0;
        QVERIFY(!of(p).powerOff.loaded);
    }
    /// On every rig: the speed that torque allows is where the torque that is wanted ends, and steps are
    /// rounded as the controller keeps them.
    void axesByTheirLaws() {
        const EveryRig rigs;
        int limits = 0, hands = 0, springy = 0;
        for (std::size_t r = 0; r < rigs.projects.size(); ++r)
            for (std::size_t a = 0; a < rigs.projects[r].axes.size(); ++a) {
                const Project& p = rigs.projects[r];
                const AxisEvaluation& e = rigs.evaluations[r].axes[a];
                const DriveModel& m = e.model;
                const char* name = p.axes[a].name.c_str();
                const double unit = m.kind == AxisKind::Linear ? 1e-3 : pi / 180;
                if (m.pulses) {
                    // A cord in layers has a number of its own, see no_ramps_test.
                    const double perUnit = m.layers.size() > 1 ? e.steps.stepsPerUnit.value()
                                                               : unit / (m.commandAngle * m.outputPerRad),
                                 grid = std::pow(10, p.controller.decimalsKept);
                    QVERIFY2(isNear(e.steps.stepsPerUnit.value(), perUnit, 1e-9), name);
                    QVERIFY2(
                        isNear(e.steps.stepsPerUnitKept.value(), std::round(perUnit * grid) / grid, 1e-12),
                        name);
                    QVERIFY2(isNear(e.steps.roundingShare.value(),
                                    e.steps.stepsPerUnitKept.value() / e.steps.stepsPerUnit.value() - 1, 1e-9,
                                    1e-13),
                             name);
                    QVERIFY2(isNear(e.steps.roundingOverTravel.value(),
                                    std::abs(e.steps.roundingShare.value()) * m.travel, 1e-9, 1e-15),
                             name);
                    QVERIFY2(isNear(e.pulseLimitSpeed.value(), m.pulseCeiling * m.microstep(), 1e-12), name);
                }
                if (m.missing != Reason::None) continue;
                if (const motor::StepperParams* s = m.stepper()) {
                    // Rotor and load on two springs: their squares add up to the trace of M⁻¹K, and multiply
                    // to its determinant.
                    const double field = s->rotorTeeth * m.motors * m.torqueAmplitude,
                                 drive = m.outputStiffness * m.outputPerRad * m.outputPerRad,
                                 rotor = m.chain.motorInertia +
                                         (m.chain.stages.empty() ? 0.0 : m.chain.stages.front().inputInertia),
                                 load = e.inertiaAtMotor.value() - rotor;
                    const double first = std::pow(2 * pi * e.resonance.frequency.value(), 2);
                    if (e.resonance.second) {
                        ++springy;
                        const double second = std::pow(2 * pi * e.resonance.second.value(), 2);
                        QVERIFY2(isNear(first + second, (field + drive) / rotor + drive / load, 1e-9), name);
                        QVERIFY2(isNear(first * second, field / rotor * drive / load, 1e-9), name);
                        QVERIFY2(first <= field / (rotor + load) * (1 + 1e-9), name);
                    } else {
                        QVERIFY2(isNear(first, field / (rotor + load), 1e-9), name);
                    }
                    QVERIFY2(isNear(e.resonance.speed.value(),
                                    e.resonance.frequency.value() * m.fullStepAngle * m.outputPerRad, 1e-9),
                             name);
                    // At the ends of a band the answer is twice that at rest.
                    if (!e.resonance.low) continue;
                    const double z = e.resonance.damping.value();
                    for (const Figure& end : {e.resonance.low, e.resonance.high}) {
                        const double x = end.value() / e.resonance.speed.value();
                        QVERIFY2(isNear(1 / std::hypot(1 - x * x, 2 * z * x), 2.0, 1e-9), name);
                    }
                }
                if (e.torqueLimitSpeed && e.torqueLimitSpeed.value() > 0.0) {
                    ++limits;
                    const double a2 = e.worst() != nullptr ? e.worst()->motion.acceleration.value()
                                                           : m.settings.acceleration,
                                 v = e.torqueLimitSpeed.value(),
                                 wanted = m.wantedMargin * m.rampTorque(0.0, a2);
                    QVERIFY2(m.available(0.9999 * v / m.outputPerRad) >= wanted &&
                                 m.available(1.0001 * v / m.outputPerRad) < wanted,
                             name);
                    QVERIFY2(isNear(e.maxSpeed.value(), m.pulses ? std::min(v, e.pulseLimitSpeed.value()) : v,
                                    1e-9),
                             name);
                }
                if (e.handVoltage) {
                    ++hands;
                    QVERIFY2(!e.checks.locks && e.handVoltage.value() > 0.0, name);
                }
                // The worst shot has the least margin of all.
                if (const ShotEvaluation* worst = e.worst(); worst != nullptr && worst->torque.margin)
                    for (const ShotEvaluation& s : e.shots)
                        QVERIFY2(!s.torque.margin || s.torque.margin.value() >= worst->torque.margin.value(),
                                 name);
            }
        QVERIFY(springy > 20);
        QVERIFY2(limits > 20 && hands > 3, qPrintable(QStringLiteral("%1 %2").arg(limits).arg(hands)));
    }
    /// Pushed by hand at the end of an arm, the motor turns so much the slower the longer the arm is.
    void handDrivenArm() {
        Project p = table();
        RotaryMechanism& r = turn(p);
        r.items = {{"a", "A", estimate(1.0, Source::Measured), 0.8, 0.0}};
        r.friction.value = r.staticFriction.value = 0.02;
        p.axes[0].motor = Stepper{};
        std::get<Stepper>(p.axes[0].motor).detentTorque.value = 0.0;
        p.conditions.handSpeed = 0.4;
        const AxisEvaluation e = of(p);
        const auto& s = std::get<Stepper>(p.axes[0].motor);
        const double constant = s.holdingTorque.value / (std::numbers::sqrt2 * s.ratedCurrent.value);
        VERIFY_NEAR(e.handVoltage.value(), constant * 0.4 / 0.8 / e.model.outputPerRad, 1e-6);
        r.friction.value = r.staticFriction.value = 0.9 * criteria::pushForce * 0.8;
        QVERIFY(of(p).handVoltage);
        r.friction.value = r.staticFriction.value = 1.1 * criteria::pushForce * 0.8;
        QVERIFY(!of(p).handVoltage); // nobody pushes that hard
    }
};

QTEST_APPLESS_MAIN(DriveByHandTest)
#include "drive_by_hand_test.moc"
