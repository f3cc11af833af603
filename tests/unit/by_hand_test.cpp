// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/rigs/rigs.h"
#include "core/tools/compare_ramps.h"
#include "core/tools/limits.h"
#include "core/verdicts/verdict.h"
#include "support/hand_rigs.h"
#include "support/near.h"

#include <QTest>
#include <algorithm>
#include <cmath>
#include <map>

using namespace gantry;

namespace {

using hand::g, hand::pi;
using Figures = std::map<std::string, double>;

/// Compares what is worked on paper with what is evaluated, key by key. A key that is not there fails.
template <class S>
void compare(const Figures& paper, const S& results, bool linear) {
    Figures left = paper;
    results::forEachFigure(
        [&](const FigureInfo& info, const Figure& f) {
            const std::string key(info.keyFor(linear));
            const auto it = left.find(key);
            if (it == left.end()) return;
            QVERIFY2(f, (key + " has no number").c_str());
            QVERIFY2(isNear(f.value(), it->second, 1e-9, 1e-12),
                     qPrintable(QString("%1: %2, on paper %3")
                                    .arg(QString::fromStdString(key))
                                    .arg(f.value(), 0, 'g', 12)
                                    .arg(it->second, 0, 'g', 12)));
            left.erase(it);
        },
        results);
    for (const auto& [key, value] : left) QVERIFY2(false, (key + " is no figure").c_str());
}

Estimate exact(double value) {
    Estimate e = estimate(value, Source::Measured);
    e.tolerance = 0.0;
    return e;
}

Stepper stepper() {
    Stepper m;
    m.rotorTeeth = 50;
    m.holdingTorque = exact(0.6);
    m.ratedCurrent = exact(2.0);
    m.resistance = exact(1.5);
    m.inductance = exact(0.002);
    m.rotorInertia = exact(8e-6);
    m.detentTorque = exact(0.02);
    m.stepAccuracy = exact(0.05);
    m.body.thermalResistance = exact(5.0);
    return m;
}

} // namespace

/// Every figure of two small rigs, worked from the model's formulas once more: powers of the chain on one
/// line each, no call into the core.
class ByHandTest : public QObject {
    Q_OBJECT

    /// A carriage of 4 kg up 10° on a 2 mm belt of 20 teeth behind a 20:40 belt stage.
    static Project slide() {
        Project p = rigs::make(rigs::RigKind::BeltSlider);
        Axis& a = p.axes[0];
        a.motor = stepper();
        a.driver.runCurrent = 1.6;
        a.driver.holdCurrent = 0.8;
        a.driver.microsteps = 16;
        a.driver.bridgeResistance = exact(0.3);
        p.supply.voltage = exact(24.0);
        p.supply.lowVoltage = exact(20.0);
        p.supply.sourceResistance = exact(0.2);
        p.supply.cableLength = 0.0;
        p.supply.capacity = 0.0;
        p.controller.ramps = RampKind::Trapezoid;
        p.controller.pulseCeiling = 40000.0;
        p.controller.pulsesShared = false;
        p.controller.decimalsKept = 3;
        p.conditions.windSpeed = 3.0;
        p.conditions.ambient = 25.0;
        p.payload.clear();
        BeltStage stage;
        stage.id = "stage";
        stage.motorTeeth = 20;
        stage.loadTeeth = 40;
        stage.pitch = exact(0.003);
        stage.figures = {exact(0.96), exact(0.002), exact(100.0), exact(2e-6)};
        a.links = {stage};
        a.vibration.frequency = exact(0.0);
        a.wantedMargin = 2.0;
        auto& m = std::get<LinearMechanism>(a.mechanism);
        BeltOutput belt;
        belt.teeth = 20;
        belt.pitch = exact(0.002);
        belt.efficiency = exact(0.95);
        belt.tensileStiffness = exact(1e4);
        belt.backlash = exact(5e-5);
        belt.pulleyInertia = exact(3e-6);
        belt.preload = exact(12.0);
        m.output = belt;
        m.railLength = 1.2;
        m.carriageLength = 0.15;
        m.bumperLength = 0.01;
        m.slope = exact(10.0 * pi / 180.0);
        m.movingMass = exact(4.0);
        m.items.clear();
        m.runningFriction = exact(3.0);
        m.staticFriction = exact(4.5);
        m.cableDrag = exact(0.5);
        m.frameStiffness = exact(2e5);
        m.windArea = 0.02;
        m.rail.section.shape = SectionShape::NotGiven;
        m.motion.maxSpeed = 0.5;
        m.motion.maxAcceleration = 2.0;
        p.camera.sensorWidth = 0.036;
        p.camera.pixelsAcross = 7680;
        p.camera.deliveredWidth = 3840;
        p.shots.resize(1);
        Shot& s = p.shots[0];
        s.kind = ShotKind::Live;
        s.keepFramed = false;
        s.focalLength = 0.05;
        s.subjectDistance = 2.0;
        s.frameRate = 25.0;
        s.exposure = 0.02;
        s.moves = {{a.id, BySpeed<AxisKind::Linear>{0.8, 0.2, 0.5}}};
        return p;
    }

private slots:
    void linearAxis() {
        const Project p = slide();
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const double radius = 20 * 0.002 / (2 * pi), perRad = radius / 2;  // m of travel per rad of the motor
        const double J = 8e-6 + 2e-6 + (3e-6 + 4.0 * radius * radius) / 4; // all of it at the motor
        const double wind = 0.5 * 1.2 * 1.2 * 0.02 * 9.0;
        const double gravity = 4.0 * g * std::sin(10 * pi / 180), friction = 3.5;
        const double kt = 0.6 / (std::sqrt(2.0) * 2.0), amplitude = kt * 1.6 * std::sqrt(2.0);
        const double natural = std::sqrt(50 * amplitude / J) / (2 * pi), full = perRad * pi / 100;
        const double travel = 1.2 - 0.15 - 2 * 0.01;
        const double fall = (gravity - friction) * travel;
        compare(
            {{"steps_per_unit", 200 * 16 / 20.0},
             {"steps_per_unit_kept", 160.0},
             {"rounding_share", 0.0},
             {"rounding_over_travel_m", 0.0},
             {"total_ratio", 2.0},
             {"travel_per_motor_rev_m", 0.02},
             {"step_m", 0.02 / 3200},
             {"usable_travel_m", travel},
             {"inertia_at_motor_kgm2", J},
             {"rotor_inertia_kgm2", 8e-6},
             {"load_inertia_kgm2", J - 8e-6},
             {"inertia_ratio", (J - 8e-6) / 8e-6},
             {"natural_frequency_hz", natural},
             {"resonance_speed_m_s", natural * full},
             {"resonance_low_m_s", 0.85 * natural * full},
             {"resonance_high_m_s", 1.15 * natural * full},
             {"pulse_limit_speed_m_s", 40000 * 0.02 / 3200},
             {"hold_torque_needed_Nm", gravity * perRad},
             {"hold_torque_available_Nm", kt * 0.8 * std::sqrt(2.0)},
             {"gravity_N", gravity},
             {"friction_N", friction},
             {"energy_J", fall},
             {"guide_friction_N", 4.0 * g * std::cos(10 * pi / 180) *
                                      std::get<LinearMechanism>(p.axes[0].mechanism).guide.friction.value},
             // Both windings carry the run current's rms: 2 I² R.
             {"case_temperature_C", 25 + 5.0 * 2 * 1.6 * 1.6 * 1.5},
             {"case_limit_C", 80.0},
             {"shaft_axial_N", 0.0}},
            [&] {
                AxisEvaluation one = e;
                one.shots.clear(); // keys of shots stand for themselves
                one.powerOff.speed = Figure::none(Reason::NoShot);
                one.stoppingDistance = Figure::none(Reason::NoShot);
                return one;
            }(),
            true);
        VERIFY_NEAR(e.stoppingDistance.value(), 0.5 * 0.5 / (2 * 2.0), 1e-9);
        VERIFY_NEAR(e.powerOff.speed.value(), std::sqrt(2 * fall / (J / (perRad * perRad))), 1e-9);
        QVERIFY(e.powerOff.falls);
        // (R I + kt ω)² + (Nr ω L I)² = V² at the corner, with all resistance in the loop.
        const double w = e.cornerSpeed.value(), I = 1.6 * std::sqrt(2.0), R = 1.5 + 0.3 + 0.2;
        VERIFY_NEAR(std::hypot(R * I + kt * w, 50 * w * 0.002 * I), 24.0, 1e-9);

        const ShotEvaluation& s = e.shots.at(0);
        const double v = 0.2, a = 0.5, drag = friction + wind, motor = v / perRad;
        const double up = 4.0 * a + gravity + drag; // N at the carriage, speeding up uphill
        const double shaft = up * radius / 0.95 + 3e-6 * a / radius;
        const double needed = shaft / (2 * 0.96) + 2e-6 * a / perRad + 8e-6 * a / perRad;
        const double still = (gravity + 5.0 + wind) * radius / 0.95 / (2 * 0.96);
        const double amplitudeLag = std::asin(needed / amplitude) / 50;
        const double K = 1 / (1.2 / (4 * 1e4) + 1 / 2e5 + radius * radius / 100.0); // N/m at the carriage
        const double focal = 0.05 / 0.036 * 7680 / 2, px = focal / 2.0;
        const double play = 5e-5 + 0.002 * radius;
        compare({{"distance_m", 0.8},
                 {"carried_N", 0.0},
                 {"top_speed_m_s", v},
                 {"acceleration_m_s2", a},
                 {"jerk_m_s3", 0.0},
                 {"time_s", 0.8 / v + v / a},
                 {"stopping_distance_m", v * v / (2 * a)},
                 {"motor_speed_rpm", motor},
                 {"pulse_rate_hz", v / (0.02 / 3200)},
                 {"force_needed_N", up},
                 {"last_shaft_torque_Nm", up * radius / 0.95},
                 {"torque_needed_Nm", needed},
                 {"breakaway_torque_Nm", still},
                 // 0.24 N·m of current at 60 rad/s: the voltage of this supply drives all of it.
                 {"torque_available_Nm", amplitude},
                 {"torque_margin", std::min(amplitude / needed, amplitude / still)},
                 {"electrical_power_W", 2 * 1.6 * 1.6 * (1.5 + 0.3) + needed * motor},
                 {"lag_rad", amplitudeLag},
                 {"lag_m", amplitudeLag * perRad},
                 {"lag_px", amplitudeLag * perRad * px},
                 {"step_px", 0.02 / 3200 * px},
                 {"step_accuracy_px", 0.05 * full * px},
                 {"friction_band_px", std::asin(drag * perRad / amplitude) / 50 * perRad * px},
                 {"idle_shift_px",
                  (std::asin(gravity * perRad / (amplitude / 2)) - std::asin(gravity * perRad / amplitude)) /
                      50 * perRad * px},
                 {"stretch_m", 2 * 4.0 * a / K},
                 {"stretch_px", 2 * 4.0 * a / K * px},
                 {"backlash_px", play * px},
                 {"rounding_px", 0.0},
                 {"picture_speed_px_s", v * px},
                 {"picture_speed_px_per_frame", v * px / 25},
                 {"blur_px", v * px * 0.02},
                 {"crossing_time_s", 3840 / (v * px)},
                 {"guide_px", std::get<LinearMechanism>(p.axes[0].mechanism).guide.play.value /
                                  std::get<LinearMechanism>(p.axes[0].mechanism).guide.wheelbase * focal}},
                s, true);
        VERIFY_NEAR(s.pixelsPerUnit, px, 1e-9);
        // The four kinds, as they add up. Nothing lets the play go: gravity outweighs friction and ramps.
        QVERIFY(!s.loadReverses);
        VERIFY_NEAR(s.errors.drift.value(), s.errors.stretch.value() / 2, 1e-9);
        VERIFY_NEAR(s.errors.jitter.value(), s.place.stepping.value(), 1e-9);
        VERIFY_NEAR(s.errors.repeat.value(), s.place.frictionBand.value() + s.place.idleShift.value(), 1e-9);
        VERIFY_NEAR(s.errors.framing.value(), s.place.lag.value() + s.place.accuracy.value(), 1e-9);
        // Least current: that with which twice the need is reached, at the ramp's end or breaking away.
        VERIFY_NEAR(s.torque.leastCurrent.value(), 2 * std::max(needed, still) / kt / std::sqrt(2.0), 2e-3);
        // Rocking on the belt alone, by its own spring.
        VERIFY_NEAR(e.model.mode->frequency, std::sqrt(K / 4.0) / (2 * pi), 1e-9);
        // The tooth belts: pull over what they stand; 7 N a millimetre of a 2 mm belt, by the power 1.47.
        VERIFY_NEAR(e.checks.parts[1].load.value(), up, 1e-9);
        VERIFY_NEAR(e.checks.parts[1].allowed.value(), 0.004 * 1e4, 1e-9);
        const double stageRadius = 40 * 0.003 / (2 * pi);
        VERIFY_NEAR(e.checks.parts[0].load.value(), up * radius / 0.95 / stageRadius, 1e-9);
        VERIFY_NEAR(e.checks.parts[0].allowed.value(),
                    7e3 * std::pow(1.5, 1.47) * 0.006 * std::min(1.0, e.checks.parts[0].meshes.value()),
                    1e-9);
        // On the motor's shaft both spans pull twice the preload until one is slack.
        VERIFY_NEAR(e.checks.shaftRadial.value(), std::max(16.0, e.checks.parts[0].load.value()), 1e-9);
    }
    /// A pan of 0.05 kg·m² with a camera off its axis on a slope, behind a ring of 120 teeth on a pinion
    /// of 20.
    void turningAxis() {
        Project p = rigs::make(rigs::RigKind::PanTiltHead);
        p.axes.resize(1);
        Axis& a = p.axes[0];
        a.role = Role::Pan;
        a.motor = stepper();
        a.driver.runCurrent = 1.0;
        a.driver.microsteps = 8;
        a.links.clear();
        a.carriesPayload = false;
        a.vibration.frequency = exact(5.0);
        a.vibration.damping = exact(0.04);
        p.payload.clear();
        p.conditions.windSpeed = 0.0;
        p.controller.ramps = RampKind::SCurve;
        auto& r = std::get<RotaryMechanism>(a.mechanism);
        r.boom.section.shape = SectionShape::NotGiven;
        r.boom.counterweight.mass = exact(0.0);
        r.items.clear();
        MassItem camera;
        camera.id = "camera";
        camera.mass = exact(2.0);
        camera.along = 0.06;
        camera.above = 0.0;
        r.items.push_back(camera);
        r.inertia = exact(0.05);
        r.pointMass = exact(0.0);
        r.friction = exact(0.08);
        r.staticFriction = exact(0.1);
        r.cableDrag = exact(0.01);
        r.unbalance = exact(0.0);
        r.range = 3.0;
        r.motion.maxSpeed = 2.0;
        r.motion.maxAcceleration = 4.0;
        r.motion.jerk = 20.0;
        RingOutput ring;
        ring.pinionTeeth = 20;
        ring.ringTeeth = 120;
        ring.efficiency = exact(0.9);
        ring.backlash = exact(0.001);
        ring.stiffness = exact(500.0);
        r.output = ring;
        p.shots.resize(1);
        Shot& s = p.shots[0];
        s.kind = ShotKind::Live;
        s.keepFramed = false;
        s.focalLength = 0.035;
        s.frameRate = 50.0;
        s.exposure = 0.01;
        s.moves = {{a.id, BySpeed<AxisKind::Rotary>{1.5, 0.5, 2.0}}};
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const double J = 0.05 + 2.0 * 0.06 * 0.06, all = 8e-6 + J / 36;
        VERIFY_NEAR(e.inertiaAtMotor.value(), all, 1e-9);
        VERIFY_NEAR(e.totalRatio.value(), 6.0, 1e-12);
        VERIFY_NEAR(e.steps.stepsPerUnit.value(), 200 * 8 * 6 / 360.0, 1e-9);
        VERIFY_NEAR(e.travelPerMotorRev.value(), 2 * pi / 6, 1e-9);
        const ShotEvaluation& f = e.shots.at(0);
        const double needed = (J * 2.0 + 0.09) / (6 * 0.9) + 8e-6 * 6 * 2.0;
        const double amplitude = 0.6 / (std::sqrt(2.0) * 2.0) * std::sqrt(2.0);
        const double focal = 0.035 / p.camera.sensorWidth * p.camera.deliveredWidth;
        compare({{"distance_rad", 1.5},
                 {"load_torque_needed_Nm", J * 2.0 + 0.09},
                 {"last_shaft_torque_Nm", (J * 2.0 + 0.09) / (6 * 0.9)},
                 {"torque_needed_Nm", needed},
                 {"breakaway_torque_Nm", 0.11 / (6 * 0.9)},
                 {"torque_available_Nm", amplitude},
                 {"torque_margin", std::min(amplitude / needed, amplitude / (0.11 / 5.4))},
                 {"motor_speed_rpm", 3.0},
                 {"pulse_rate_hz", 0.5 / (2 * pi / (1600 * 6))},
                 {"jerk_rad_s3", 20.0},
                 // A ramp of v/a + a/j, half of it lost.
                 {"time_s", 1.5 / 0.5 + 0.5 / 2.0 + 2.0 / 20},
                 {"stopping_distance_rad", 0.5 * (0.5 / 2.0 + 2.0 / 20) / 2},
                 {"lag_rad", std::asin(needed / amplitude) / 50},
                 {"lag_travel_rad", std::asin(needed / amplitude) / 50 / 6},
                 {"backlash_px", 0.001 * focal},
                 {"stretch_rad", 2 * J * 2.0 / 500},
                 {"step_px", 2 * pi / 9600 * focal},
                 {"blur_px", 0.5 * focal * 0.01},
                 {"picture_speed_px_per_frame", 0.5 * focal / 50}},
                f, false);
        // A pan on the level lets its play go wherever braking beats friction.
        QVERIFY(f.loadReverses);
        VERIFY_NEAR(f.letsGoAt.value(), f.profile.time() - f.profile.out.time(), 1e-9);
        VERIFY_NEAR(f.errors.jitter.value(), f.place.stepping.value() + f.errors.backlash.value(), 1e-9);
        VERIFY_NEAR(f.errors.drift.value(), f.errors.stretch.value() / 2 / std::max(1.0, 50 * 2.0 / 20),
                    1e-9);
        QCOMPARE(e.powerOff.loaded, false);
        VERIFY_NEAR(e.model.mode->frequency, 5.0, 1e-12); // the measured one
    }
    /// The torque of a whole move, up and down again, phase by phase.
    void torqueOverTheShot() {
        const Project p = slide();
        const ShotEvaluation s = evaluateAxis(p, p.axes[0]).shots.at(0);
        const double radius = 20 * 0.002 / (2 * pi), perRad = radius / 2;
        const double gravity = 4.0 * g * std::sin(10 * pi / 180), drag = 3.5 + 0.5 * 1.2 * 1.2 * 0.02 * 9.0;
        const auto through = [](double torque, double sense, double efficiency) {
            return torque * sense >= 0 ? torque / efficiency : torque * (2 - 1 / efficiency);
        };
        const auto torque = [&](double sense, double a) {
            double t = (4.0 * a + gravity + sense * drag) * radius;
            t = through(t, sense, 0.95) + 3e-6 * a / radius;
            t = through(t, sense, 0.96) / 2 + 2e-6 * a / perRad;
            return t + 8e-6 * a / perRad;
        };
        const double ramp = 0.2 / 0.5, cruise = 0.8 / 0.2 - ramp;
        double squares = 0.0;
        for (const double sense : {1.0, -1.0})
            squares +=
                (std::pow(torque(sense, sense * 0.5), 2) + std::pow(torque(sense, -sense * 0.5), 2)) * ramp +
                std::pow(torque(sense, 0.0), 2) * cruise;
        VERIFY_NEAR(s.torque.rms.value(), std::sqrt(squares / (2 * (2 * ramp + cruise))), 1e-9);
        // What the drive still takes at the wanted margin: twice the torque for it is all there is.
        const double most = s.torque.maxAcceleration.value();
        VERIFY_NEAR(2 * torque(1.0, most), s.torque.available.value(), 1e-9);
    }
    /// A steel tube of 2.8 m, 2 m of it before the pivot, with 3 kg at its end, from 0.5 rad below level to
    /// as much above.
    void arm() {
        Project p = hand::jib();
        RotaryMechanism& r = hand::boom(p);
        Boom& b = r.boom;
        r.lowAngle = -0.5;
        r.range = 1.0;
        r.spring.torqueAtLow = r.spring.rate = exact(0.0);
        b.section.material = BeamMaterial::Steel;
        b.section.stiffnessFactor = exact(1.0);
        b.arm = ArmKind::Plain;
        b.tipOffset = b.tipAbove = 0.0;
        b.tipSide = 0.1;
        b.counterweight.mass = exact(0.0);
        b.counterweight.behind = 0.7;
        b.pivot = {};
        b.pivot.pinDiameter = 0.012;
        b.pivot.cheekGap = 0.05;
        b.pivot.pinLimit = 200e6;
        b.pivot.bearingRating = exact(900.0);
        b.pivot.bearingMoment = exact(120.0);
        b.pivot.bolts = 4;
        b.pivot.boltCircle = 0.06;
        b.pivot.boltLimit = 3000.0;
        p.axes[1].carriesPayload = false;
        const double D = 0.05, d = 0.046, A = pi / 4 * (D * D - d * d),
                     I = pi / 64 * (D * D * D * D - d * d * d * d);
        const double E = 210e9, G = 81e9, w = 7850 * A, L = 2.0, own = w * 2.8, load = (3 + own) * g;
        const double sag = 3 * g * L * L * L / (3 * E * I) + w * g * L * L * L * L / (8 * E * I);
        const double slope = 3 * g * L * L / (2 * E * I) + w * g * L * L * L / (6 * E * I);
        const double twist = 3 * g * 0.1 * L / (G * 2 * I);
        const double moment = own * 0.6 + 3 * 2.0; // kg·m before the pivot
        const double least = 1 - std::cos(0.5), tilting = moment * g + load * 0.1;
        const double bending = 32 * load * 0.05 / 4 / (pi * std::pow(0.012, 3)),
                     shear = load / 2 / (pi * 0.012 * 0.012 / 4);
        AxisStructure found = evaluateAxis(p, p.axes[1]).structure;
        compare({{"own_mass_kg", own},
                 {"sag_m", sag},
                 {"slope_rad", slope},
                 {"twist_rad", twist},
                 {"sag_change_m", sag * least},
                 {"slope_change_rad", slope * least},
                 {"twist_change_rad", twist * least},
                 {"sag_change_m_per_rad", sag * std::sin(0.5)},
                 {"slope_change_rad_per_rad", slope * std::sin(0.5)},
                 {"stress_ratio", 235e6 * I / (moment * g * D / 2)},
                 {"gravity_worst_Nm", moment * g},
                 {"gravity_worst_at_rad", 0.0},
                 {"off_line_m", 0.0},
                 {"balancing_mass_kg", moment / 0.7},
                 {"pin_ratio", 200e6 / std::sqrt(bending * bending + 3 * shear * shear)},
                 {"bearing_ratio", 900.0 / load},
                 {"bearing_moment_ratio", 120.0 / tilting},
                 {"bolt_ratio", 3000.0 / (2 * tilting / (4 * 0.06))}},
                found, false);
        // From the lowest to the highest place it rises by twice the sine.
        VERIFY_NEAR(found.dropEnergy.value(), moment * g * 2 * std::sin(0.5), 1e-3);
        // With parallel links the head stays level and only sinks.
        b.arm = ArmKind::ParallelLinks;
        found = evaluateAxis(p, p.axes[1]).structure;
        QCOMPARE(found.slopeShift.value(), 0.0);
        QCOMPARE(found.slopeRate.value(), 0.0);
        VERIFY_NEAR(found.sag.value(), sag, 1e-9);
        b.arm = ArmKind::Plain;
        // Each of the four that hold the arm decides where it is the weakest.
        const auto decides = [&](words::MessageId sentence, auto weaken) {
            Project weak = p;
            weaken(hand::boom(weak).boom.pivot);
            const auto v = hand::verdict(weak, "pivot");
            QVERIFY(v && v->sentence == sentence);
        };
        decides(words::MessageId::PinText, [](Pivot& x) { x.pinDiameter = 0.003; });
        decides(words::MessageId::PivotBearingText, [](Pivot& x) { x.bearingRating.value = 5.0; });
        decides(words::MessageId::TurningBearingText, [](Pivot& x) { x.bearingMoment.value = 1.0; });
        decides(words::MessageId::PivotBoltText, [](Pivot& x) { x.boltLimit = 5.0; });
    }
    /// What gives way under a slider, part by part: the belt, and both stands with all that stands on them.
    void softParts() {
        Project p = hand::slider();
        LinearMechanism& m = hand::rail(p);
        m.rail.standSway = exact(50000.0);
        m.frameStiffness = exact(0.0);
        p.axes[0].links.clear();
        auto& belt = std::get<BeltOutput>(m.output);
        belt.tensileStiffness = exact(1e4);
        belt.doubled = false;
        const AxisStructure s = evaluateAxis(p, p.axes[0]).structure;
        const auto frequency = [&](SoftCause cause) {
            for (const SoftEntry& e : s.soft)
                if (e.cause == cause) return e.part.frequency;
            return 0.0;
        };
        const double rail = 7850 * (0.04 * 0.04 - 0.036 * 0.036);
        VERIFY_NEAR(frequency(SoftCause::Drive), std::sqrt(4 * 1e4 / 1.0 / 5.0) / (2 * pi), 1e-9);
        VERIFY_NEAR(frequency(SoftCause::Stands), std::sqrt(2 * 50000.0 / (5.0 + rail)) / (2 * pi), 1e-9);
        VERIFY_NEAR(s.ownMass.value(), rail, 1e-9);
        QVERIFY(s.soft.front().part.frequency <= s.soft.back().part.frequency);
    }
    /// Limits of the slide: what binds, what is recommended, which speeds to stay out of.
    void limitsOfTheSlide() {
        Project p = slide();
        p.conditions.silence = Silence::Quiet;
        p.shots[0].limits.jitter = 0.01;
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const AxisLimits l = axisLimits(p, p.axes[0], e);
        const double radius = 20 * 0.002 / (2 * pi), perRad = radius / 2, full = perRad * pi / 100;
        const double K = 1 / (1.2 / (4 * 1e4) + 1 / 2e5 + radius * radius / 100.0);
        const double f = std::sqrt(K / 4.0) / (2 * pi), px = 0.05 / 0.036 * 3840 / 2.0;
        const double amplitude = 0.48, detent = 0.02;
        const auto band = [&](BandReason reason) {
            for (const SpeedBand& b : l.bands)
                if (b.reason == reason) return std::pair{b.low, b.high};
            return std::pair{0.0, 0.0};
        };
        const auto near = [](std::pair<double, double> is, double low, double high) {
            return isNear(is.first, low, 1e-9, 1e-12) && isNear(is.second, high, 1e-9, 1e-12);
        };
        QVERIFY(near(band(BandReason::Noise), 100 * full, 5000 * full));
        QVERIFY(near(band(BandReason::RotorResonance), e.resonance.low.value(), e.resonance.high.value()));
        QVERIFY(near(band(BandReason::FullStepsOnMode), 0.9 * full * f, 1.1 * full * f));
        // Microsteps of a sixtieth of a pixel ring too softly to be kept clear of.
        QVERIFY(near(band(BandReason::MicrostepsOnMode), 0.0, 0.0));
        // A microstep of 6.25 µm is more than the jitter limit, so those slower than one a frame are seen.
        QVERIFY(near(band(BandReason::VisibleSteps), 0.0, full / 16 * 25));
        const double speed = 1.25 * 0.2, wish = 1.25 * 0.5;
        VERIFY_NEAR(l.recommended.speed, speed, 1e-9);
        // Ramps of whole periods of the belt's spring, no harder than wished.
        const double periods = std::ceil(speed / wish * f);
        VERIFY_NEAR(l.recommended.acceleration, speed * f / periods, 1e-9);
        VERIFY_NEAR(l.stoppingOrdinary.value(), speed * speed / (2 * l.recommended.acceleration), 1e-9);
        VERIFY_NEAR(l.ripplePixels.value(), 2 * std::asin(detent / amplitude) / 50 * perRad * px, 1e-9);
        VERIFY_NEAR(l.powerUpPixels.value(), 2 * full * px, 1e-9);
        const double wind = 0.5 * 1.2 * 1.2 * 0.02 * 9.0;
        VERIFY_NEAR(l.finestMove.value(),
                    std::max(pi / 1600, 2 * std::asin((5.0 + wind) * perRad / amplitude) / 50) * perRad,
                    1e-9);
        const auto limit = [&](const std::vector<Limit>& all, LimitReason reason) {
            for (const Limit& one : all)
                if (one.reason == reason) return one.value;
            return 0.0;
        };
        VERIFY_NEAR(limit(l.speed, LimitReason::PulseRate), 0.25, 1e-9);
        VERIFY_NEAR(limit(l.jerk, LimitReason::OnePeriod), wish * f, 1e-9);
        // Leaning by the jitter limit while it speeds up: a = limit ω².
        VERIFY_NEAR(limit(l.acceleration, LimitReason::RampPicture), 0.01 / px * std::pow(2 * pi * f, 2),
                    1e-9);
        // The belt stage at 40 m/s on its motor's pulley, seen at the carriage; the belt itself.
        std::vector<double> parts;
        for (const Limit& one : l.speed)
            if (one.reason == LimitReason::PartSpeed) parts.push_back(one.value);
        QCOMPARE(parts.size(), std::size_t(2));
        std::sort(parts.begin(), parts.end());
        VERIFY_NEAR(parts[0], 40.0 / (20 * 0.003 / (2 * pi)) * perRad, 1e-9);
        VERIFY_NEAR(parts[1], 40.0, 1e-9);
        // Nearer to people than a cap allows: by speed, and by the energy of all that moves.
        p.conditions.speedNearPeople = 0.15;
        p.conditions.energyNearPeople = 0.05;
        const AxisLimits near2 = axisLimits(p, p.axes[0], evaluateAxis(p, p.axes[0]));
        VERIFY_NEAR(limit(near2.speed, LimitReason::PeopleSpeed), 0.15, 1e-9);
        const double all = e.inertiaAtMotor.value() / (perRad * perRad);
        VERIFY_NEAR(limit(near2.speed, LimitReason::PeopleEnergy), std::sqrt(2 * 0.05 / all), 1e-9);
    }
    /// The shot with other ramps at the same top speed and peak acceleration.
    void otherRamps() {
        const Project p = slide();
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const double v = 0.2, a = 0.5;
        int seen = 0;
        for (const RampRow& row : compareRamps(p, e, e.shots.at(0))) {
            if (row.shape == RampShape::Trapezoid) {
                VERIFY_NEAR(row.time.value(), 0.8 / v + v / a, 1e-9);
                QVERIFY(row.offered);
                ++seen;
            } else if (row.shape == RampShape::SCurve) {
                QVERIFY(!row.offered);
                QVERIFY(row.time.value() > 0.8 / v + v / a);
                ++seen;
            } else if (row.shape == RampShape::HalfSine) {
                // A half sine of peak a reaches v in π v / 2a.
                VERIFY_NEAR(row.time.value(), 0.8 / v + pi * v / (2 * a), 1e-9);
                ++seen;
            }
            VERIFY_NEAR(row.speed.value(), v, 1e-9);
        }
        QCOMPARE(seen, 3);
    }
};

QTEST_APPLESS_MAIN(ByHandTest)
#include "by_hand_test.moc"
