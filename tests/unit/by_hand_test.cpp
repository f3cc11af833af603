// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/bare_rigs.h"
#include "support/paper.h"

using namespace gantry;
using namespace paper;

/// Every figure of two small drives, worked from the model's formulas once more: powers of the chain on one
/// line each, no call into the core.
class ByHandTest : public QObject {
    Q_OBJECT
private slots:
    void linearAxis() {
        const Project p = slide();
        const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
        const double radius = 20 * 0.002 / (2 * pi), perRad = radius / 2;  // m of travel per rad of the motor
        const double J = 8e-6 + 2e-6 + (3e-6 + 4.0 * radius * radius) / 4; // all of it at the motor
        const double wind = 0.5 * 1.2 * 1.2 * 0.02 * 9.0;
        const double gravity = 4.0 * g * std::sin(10 * pi / 180), friction = 3.5;
        const double kt = 0.6 / (std::sqrt(2.0) * 2.0), amplitude = kt * 1.6 * std::sqrt(2.0);
        // Rotor and the wheel on its shaft, and the load, on the springs of field and drive.
        const double rotor = 8e-6 + 2e-6, load = J - rotor, field = 50 * amplitude, full = perRad * pi / 100;
        const double spring = 1 / (1.2 / (4 * 1e4) + 1 / 2e5 + radius * radius / 100.0) * perRad * perRad;
        const double half = 0.5 * ((field + spring) / rotor + spring / load),
                     apart = std::sqrt(half * half - field * spring / (rotor * load)),
                     natural = std::sqrt(half - apart) / (2 * pi),
                     second = std::sqrt(half + apart) / (2 * pi);
        const double rotorDamping = std::get<Stepper>(p.axes[0].motor).rotorDamping.value;
        const double ownDamper = 2 * rotorDamping * std::sqrt(field * 8e-6),
                     driveDamper = 2 * p.axes[0].vibration.damping.value * std::sqrt(spring * load);
        const auto swing = [&](double f) { return spring / (spring - load * std::pow(2 * pi * f, 2)); };
        const auto damping = [&](double f) {
            const double r = swing(f);
            return (ownDamper + driveDamper * (1 - r) * (1 - r)) / (4 * pi * f * (rotor + load * r * r));
        };
        // Where 1/√((1 − r²)² + (2ζr)²) is 2.
        const auto edge = [&](double f, double side) {
            const double z = damping(f), b = 1 - 2 * z * z;
            return std::sqrt(b + side * std::sqrt(b * b - 0.75));
        };
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
             {"resonance_low_m_s", edge(natural, -1) * natural * full},
             {"resonance_high_m_s", edge(natural, 1) * natural * full},
             {"resonance_damping", damping(natural)},
             {"load_swing", swing(natural)},
             {"second_frequency_hz", second},
             {"second_speed_m_s", second * full},
             {"second_low_m_s", edge(second, -1) * second * full},
             {"second_high_m_s", edge(second, 1) * second * full},
             {"pulse_limit_speed_m_s", 40000 * 0.02 / 3200},
             {"hold_torque_needed_Nm", gravity * perRad},
             {"hold_torque_available_Nm", kt * 0.8 * std::sqrt(2.0)},
             {"gravity_N", gravity},
             {"friction_N", friction},
             {"energy_J", fall},
             {"guide_friction_N", 4.0 * g * std::cos(10 * pi / 180) *
                                      std::get<LinearMechanism>(p.axes[0].mechanism).guide.friction.value},
             // Both windings carry the run current's rms: 2 I² R.
             // T = 25 + 5 · 7.68 W · (1 + 0.00393 (T − 20))
             {"case_temperature_C", (25 + 38.4 * (1 - 0.00393 * 20)) / (1 - 0.00393 * 38.4)},
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
        const double w = e.cornerSpeed.value(), I = 1.6 * std::sqrt(2.0),
                     hot = (25 + 38.4 * (1 - 0.00393 * 20)) / (1 - 0.00393 * 38.4),
                     R = 1.5 * (1 + 0.00393 * (hot - 20)) + 0.3 + 0.2;
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
                 {"backlash_px", 0.0}, // weight on the slope keeps it on one side
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
        // Springs of the drive: breaking away at 5 N and sliding at 3.5, and what 3.5 N and the weight wind
        // up.
        const double weight =
            4.0 * 9.80665 * std::sin(std::get<LinearMechanism>(p.axes[0].mechanism).slope.value);
        VERIFY_NEAR(s.errors.repeat.value(),
                    s.place.frictionBand.value() + s.place.idleShift.value() + 2 * (5.0 - 3.5) / K * px,
                    1e-9);
        VERIFY_NEAR(s.errors.framing.value(),
                    s.place.lag.value() + s.place.accuracy.value() + (3.5 + weight) / K * px, 1e-9);
        // Least current: that with which twice the need is reached, at the ramp's end or breaking away.
        VERIFY_NEAR(s.torque.leastCurrent.value(), 2 * std::max(needed, still) / kt / std::sqrt(2.0), 2e-3);
        // Rocking on the belt and the motor's field.
        VERIFY_NEAR(e.model.mode->frequency,
                    std::sqrt(1 / (1 / K + perRad * perRad / field) / 4.0) / (2 * pi), 1e-9);
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
        Project p = bareRig(rigs::RigKind::PanTiltHead);
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
        VERIFY_NEAR(f.flank.moment.value(), f.profile.time() - f.profile.out.time(), 1e-9);
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
};

QTEST_APPLESS_MAIN(ByHandTest)
#include "by_hand_test.moc"
