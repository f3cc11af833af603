// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/judged_parts.h"

namespace judged {
namespace {

/// An arm without weight, for what hangs on it and where it ends.
void weightless(Boom& boom, double reach, double rear) {
    boom.section.shape = SectionShape::Own;
    boom.section.ownMass = 0.0;
    boom.section.ownInertia = boom.section.ownSideways = 1.0;
    boom.section.width = boom.section.height = 0.01;
    boom.reach = reach;
    boom.rear = rear;
    boom.section.stiffnessFactor = known(1.0);
    boom.mastTurning = known(0.0);
}

} // namespace

const Builders& armBuilders() {
    static const Builders all{
        {"J06",
         [](Inputs& in, char variant) {
             Project p = turning(in, Role::Pan);
             drive(p, in);
             ratio(p, in.count("ratio"), in.value("efficiency"), in.value("backlash_rad"));
             auto& r = turn(p);
             r.output = DirectOutput{known(0.0)};
             r.items = {item("camera", in.value("camera_kg"), in.number("off_axis_m"))};
             r.range = pi;
             r.leanKnown = true;
             r.lean = in.value("lean_rad");
             r.downhill = 0.5 * pi; // 0 degrees is the middle of the range
             lens(p, in);
             in.skip({"variant_a_from_to_rad", "variant_b_from_to_rad"});
             const json& way = in.raw(variant == 'a' ? "variant_a_from_to_rad" : "variant_b_from_to_rad");
             const double from = way[0], to = way[1];
             turnShot(p, to - from, in.number("shot_speed_rad_s"), in.number("shot_acceleration_rad_s2"));
             auto& move = std::get<BySpeed<AxisKind::Rotary>>(p.shots[0].moves[0].movement);
             move.placed = true;
             move.start = from + r.downhill;
             p.shots[0].thereAndBack = variant == 'a';
             return p;
         }},
        {"J21",
         [](Inputs& in, char) {
             Project p = turning(in, Role::Turntable);
             Stepper motor;
             motor.rotorTeeth = in.count("full_steps") / 4;
             p.axes[0].motor = motor;
             p.axes[0].driver.microsteps = 1;
             p.axes[0].driver.runCurrent = motor.ratedCurrent.value;
             settle(p.axes[0]);
             const json motorTeeth = in.raw("gear_motor_teeth"), loadTeeth = in.raw("gear_load_teeth");
             for (std::size_t i = 0; i < motorTeeth.size(); ++i) {
                 GearStage g;
                 g.id = "g" + std::to_string(i);
                 g.motorTeeth = motorTeeth[i];
                 g.loadTeeth = loadTeeth[i];
                 p.axes[0].links.emplace_back(g);
             }
             turn(p).output = DirectOutput{known(0.0)};
             turn(p).items = {item("subject", known(1e-3), in.number("subject_radius_m"))};
             p.axes[0].told = {"1:" + std::to_string(in.count("ratio_label")),
                               std::to_string(in.count("set_steps_per_turn")) + " steps a turn"};
             lens(p, in);
             Shot& s = p.shots[0];
             s.kind = ShotKind::StopMotion;
             s.frames = in.count("pictures");
             s.moves = {{p.axes[0].id, ByTime<AxisKind::Rotary>{2.0 * pi, 240.0, 1.0, 1.0}}};
             return p;
         }},
        {"J28",
         [](Inputs& in, char variant) {
             Project p = turning(in, Role::BoomTilt);
             p.axes[0].motor = ServoMotor{};
             settle(p.axes[0]);
             auto& r = turn(p);
             r.output = DirectOutput{known(0.0)};
             r.items = {item("camera", in.value("camera_kg"), in.number("length_m"))};
             r.range = 0.1;
             Section& section = r.boom.section;
             section.material = BeamMaterial::Aluminium;
             section.stiffnessFactor = known(1.0);
             section.shape = variant == 'a' ? SectionShape::SolidRectangle : SectionShape::Tee;
             const json flat = in.raw("flat_m"), web = in.raw("web_m");
             section.width = flat[0];
             section.flange = flat[1];
             section.wall = web[1];
             section.height = flat[1].get<double>() + (variant == 'a' ? 0.0 : web[0].get<double>());
             in.skip({"E_Pa"});
             r.boom.reach = in.number("length_m");
             r.boom.rear = 0.0;
             r.boom.tipSide = in.number("side_m");
             r.boom.mastTurning = known(0.0);
             p.axes[0].vibration.damping = in.value("damping");
             lens(p, in);
             Shot& s = p.shots[0];
             s.kind = ShotKind::Interval;
             s.settle = in.number("settle_s");
             s.interval = 10.0;
             // The same push moves the stiffer arm less.
             s.swingSeen = in.number("nod_on_strip_px") / (variant == 'a' ? 1.0 : 141.0);
             turnShot(p, 0.05, 0.05, 0.05);
             return p;
         }},
        {"J05",
         [](Inputs& in, char variant) {
             Project p = turning(in, Role::Pan);
             drive(p, in);
             GearStage g;
             g.id = "gears";
             g.motorTeeth = in.count("gear_motor_teeth");
             g.loadTeeth = in.count("gear_load_teeth");
             g.figures.efficiency = in.value("gear_efficiency");
             g.figures.backlash = in.value("backlash_rad");
             g.figures.stiffness = g.figures.inertia = known(0.0);
             p.axes[0].links = {g};
             Estimate spring = in.value("spring_variant_c_Nm");
             spring.tolerance = in.number("spring_variant_c_tolerance");
             if (variant == 'c') turn(p).spring.torqueAtLow = spring;
             if (variant != 'a') p.shots[0].thereAndBack = true;
             lens(p, in);
             turnShot(p, in.number("shot_rad"), in.number("shot_speed_rad_s"),
                      in.number("shot_acceleration_rad_s2"));
             return p;
         }},
        {"J07",
         [](Inputs& in, char variant) {
             Project p = turning(in, Role::Pan);
             drive(p, in);
             ratio(p, in.count("ratio"), known(1.0), in.value("backlash_rad"));
             lens(p, in);
             if (variant == 'c') p.shots[0].thereAndBack = true;
             turnShot(p, in.number("shot_rad"), in.number("shot_speed_rad_s"),
                      in.raw("shot_acceleration_rad_s2")[variant == 'b' ? 1 : 0].get<double>());
             return p;
         }},
        {"J08",
         [](Inputs& in, char) {
             Project p = turning(in, Role::Swing);
             drive(p, in);
             ratio(p, in.count("ratio"),
                   estimate(std::pow(in.number("stage_efficiency"), 2), Source::Measured));
             Boom& b = turn(p).boom;
             b.section.shape = SectionShape::HollowRectangle;
             b.section.material = BeamMaterial::Steel;
             b.section.width = b.section.height = in.number("tube_outer_m");
             b.section.wall = in.number("tube_wall_m");
             b.section.stiffnessFactor = known(1.0);
             in.skip({"density_kg_m3"}); // of steel
             b.reach = in.number("front_m");
             b.rear = in.number("rear_m");
             b.counterweight.mass = in.value("counterweight_kg");
             b.counterweight.behind = in.number("counterweight_behind_m");
             turn(p).items = {item("camera", in.value("camera_kg"), b.reach)};
             const double speed = in.number("shot_speed_rad_s");
             turnShot(p, 1.0, speed, speed / in.number("ramp_s"));
             return p;
         }},
        {"J11",
         [](Inputs& in, char) {
             Project p = turning(in, Role::BoomTilt);
             auto& r = turn(p);
             r.items = {
                 item("head", in.value("head_kg"), in.number("head_along_m"), in.number("head_above_m")),
                 item("arm", in.value("arm_kg"), in.number("arm_cg_m"))};
             r.lowAngle = in.raw("range_rad")[0];
             r.range = in.raw("range_rad")[1].get<double>() - r.lowAngle;
             // An arm of no weight of its own that carries the weight behind it.
             weightless(r.boom, in.number("head_along_m"), in.number("weight_behind_m"));
             Counterweight& w = r.boom.counterweight;
             w.mass = in.value("weight_kg");
             w.behind = in.number("weight_behind_m");
             w.above = in.number("weight_above_m");
             Base& b = p.base;
             b.kind = BaseKind::Rectangle;
             const double rear = in.number("rear_edge_m"), front = in.number("front_edge_m");
             b.length = rear + front;
             b.width = 2.0; // to the sides it stands wide
             b.columnAhead = 0.5 * (rear - front);
             b.height = 1.0;
             b.mass = in.value("trolley_kg");
             b.massHeight = 0.2;
             // Nothing is said of how it moves: it stands.
             r.motion.maxSpeed = r.motion.maxAcceleration = 1e-3;
             p.shots.clear();
             return p;
         }},
        {"J12",
         [](Inputs& in, char variant) {
             Project p = turning(in, Role::BoomTilt);
             drive(p, in);
             ratio(p, in.count("ratio"), in.value("efficiency"));
             auto& r = turn(p);
             r.friction = in.value("pivot_friction_Nm");
             r.lowAngle = in.raw("range_rad")[0];
             r.range = in.raw("range_rad")[1].get<double>() - r.lowAngle;
             // What balancing leaves is an input of its own.
             Estimate camera = in.value("camera_kg"), left = in.value("residual_kg_at_tip");
             const double reach = in.number("reach_m");
             r.items = {item("camera", variant == 'a' ? left : camera, reach)};
             in.skip({"counterweight_kg", "counterweight_behind_m"});
             turnShot(p, 0.5, 0.02, 0.05);
             return p;
         }},
        {"J13",
         [](Inputs& in, char) {
             Project p = turning(in, Role::Tilt);
             drive(p, in);
             ratio(p, in.count("ratio"), in.value("efficiency"));
             turn(p).items = {item("camera", in.value("camera_kg"), in.number("cg_ahead_m"))};
             turn(p).lowAngle = -0.3;
             turn(p).range = 0.6;
             in.skip({"on_stop"}); // cuts the current, as all here
             turnShot(p, 0.3, 0.02, 0.02);
             return p;
         }},
        {"J18",
         [](Inputs& in, char) {
             Project p = turning(in, Role::Turntable);
             GearedDc m = geared(in);
             m.control = SpeedControl::Knob;
             m.knob = 1.0;
             p.axes[0].motor = m;
             p.supply.voltage = p.supply.lowVoltage = known(12.0);
             turn(p).items = {item("tray", in.value("tray_kg"), 0.0)};
             in.skip({"ratio"});
             turnShot(p, 3.0, in.number("want_rad_s"), 0.05);
             return p;
         }},
        {"J20",
         [](Inputs& in, char) {
             Project p = turning(in, Role::Pan);
             HobbyServo s;
             s.range = in.number("range_rad");
             s.pulseSpan = in.number("pulse_span_s");
             s.pulseStep = in.number("pulse_step_s");
             s.deadBand = in.value("dead_band_s");
             s.stallTorque = in.value("stall_torque_Nm");
             s.outputInertia = known(1e-6);
             s.ratedVoltage = known(6.0);
             s.supplyVoltage = 6.0;
             s.secondsPer60.tolerance = s.fullTorqueError.tolerance = 0.0;
             p.axes[0].motor = s;
             turn(p).friction = in.value("need_Nm");
             lens(p, in);
             p.camera.pixelsAcross = p.camera.deliveredWidth = in.count("pixels");
             turn(p).range = in.number("shot_rad");
             p.shots[0].moves = {
                 {p.axes[0].id,
                  ByTime<AxisKind::Rotary>{in.number("shot_rad"), in.number("shot_time_s"), 1.0, 1.0}}};
             return p;
         }},
        {"J22",
         [](Inputs& in, char variant) {
             Project p = variant == 'a' ? turning(in, Role::Pan) : slider(in);
             drive(p, in);
             if (variant == 'a') {
                 WormStage w;
                 w.id = "worm";
                 w.starts = 1;
                 w.wheelTeeth = in.count("worm_ratio");
                 w.leadAngle = in.value("lead_angle_rad");
                 w.friction = {in.number("worm_friction"), Source::DataSheet, 0.2};
                 w.backlash = w.inertia = w.stiffness = known(0.0);
                 p.axes[0].links = {w};
                 turnShot(p, 0.5, 0.05, 0.05);
                 in.skip({"belt_teeth", "belt_pitch_m"});
             } else {
                 belt(p, in);
                 line(p).movingMass = known(2.0);
                 lineShot(p, 0.5, 0.1, 0.2);
                 in.skip({"worm_ratio", "lead_angle_rad", "worm_friction"});
             }
             p.conditions.handSpeed = in.number("hand_speed_m_s");
             return p;
         }},
        {"J23",
         [](Inputs& in, char variant) {
             Project p = turning(in, Role::Tilt);
             drive(p, in);
             ratio(p, in.count("ratio"), in.value("efficiency"), in.value("backlash_rad"));
             turn(p).items = {
                 item("camera", in.value("camera_kg"), in.number("cg_ahead_m"), in.number("cg_above_m"))};
             turn(p).lowAngle = in.raw("range_rad")[0];
             turn(p).range = variant == 'b' ? 55.0 * pi / 180.0 : in.raw("range_rad")[1].get<double>();
             lens(p, in);
             p.shots[0].thereAndBack = true;
             turnShot(p, turn(p).range, in.number("shot_speed_rad_s"), 0.02);
             return p;
         }},
        {"J24",
         [](Inputs& in, char) {
             Project p = turning(in, Role::Turntable);
             drive(p, in);
             turn(p).inertia = in.value("table_inertia_kgm2");
             turn(p).output = DirectOutput{known(0.0)};
             turnShot(p, 6.0, in.number("shot_speed_rad_s"), in.number("shot_acceleration_rad_s2"));
             return p;
         }},
        {"J25",
         [](Inputs& in, char) {
             Project p = turning(in, Role::Pan);
             drive(p, in);
             ratio(p, in.count("ratio"), sheet(0.95));
             turn(p).motion.maxSpeed = in.number("set_max_speed_rad_s");
             turn(p).motion.maxAcceleration = 10 * pi / 180.0;
             turnShot(p, 1.0, in.number("shot_speed_rad_s"), in.number("shot_acceleration_rad_s2"));
             return p;
         }},
        {"J30",
         [](Inputs& in, char) {
             Project p = turning(in, Role::Swing);
             auto& r = turn(p);
             r.items = {item("arm", in.value("arm_kg"), in.number("arm_cg_m")),
                        item("camera", in.value("camera_kg"), in.number("reach_m"))};
             r.lowAngle = in.raw("swing_rad")[0];
             r.range = in.raw("swing_rad")[1].get<double>() - r.lowAngle;
             weightless(r.boom, in.number("reach_m"), in.number("tail_m"));
             Base& b = p.base;
             b.kind = BaseKind::WallBracket;
             b.mount = in.number("pivot_from_wall_m");
             b.mass = in.value("bracket_kg");
             b.anchorSpread = in.number("anchor_spread_m");
             in.skip({"anchor_strength_N"}); // not given, as the program starts
             r.motion.maxAcceleration = 1e-3;
             p.shots.clear();
             return p;
         }},
        {"J31",
         [](Inputs& in, char) {
             Project p = turning(in, Role::Focus);
             drive(p, in);
             LensRingOutput ring;
             ring.pinionTeeth = in.count("pinion_teeth");
             ring.ringTeeth = in.count("ring_teeth");
             ring.efficiency = in.value("gear_efficiency");
             ring.hardStops = in.raw("hard_stops") != "no";
             ring.steadyElectronics = in.raw("steady_electronics") != "no";
             turn(p).output = ring;
             settle(p.axes[0]);
             turn(p).friction = in.value("ring_torque_Nm");
             p.shots[0].kind = ShotKind::RepeatPass;
             p.shots[0].passes = in.count("passes");
             turnShot(p, 2.0, 1.0, 2.0);
             return p;
         }},
        {"J32",
         [](Inputs& in, char) {
             Project p = turning(in, Role::Swing);
             turn(p).inertia = in.value("inertia_kgm2");
             const double rate = 2.0 * pi * in.number("frequency_hz");
             // A motor held by a loop, on the spring that the frequency tells.
             p.axes[0].motor = ServoMotor{};
             settle(p.axes[0]);
             turn(p).inertia = in.value("inertia_kgm2");
             turn(p).output = DirectOutput{known(turn(p).inertia.value * rate * rate)};
             turn(p).friction = turn(p).staticFriction = in.value("pivot_friction_Nm");
             p.axes[0].vibration = {in.value("frequency_hz"), in.value("damping")};
             Shot& s = p.shots[0];
             s.kind = ShotKind::Interval;
             s.focalLength = in.number("focal_length_m");
             s.settle = in.number("settle_s");
             s.interval = 10.0;
             s.swingSeen = in.number("swing_after_move_rad") * s.focalLength / p.camera.sensorWidth *
                           p.camera.deliveredWidth;
             turnShot(p, 1.0, 0.1, 0.1);
             return p;
         }},
        {"J35",
         [](Inputs& in, char) {
             Project p = turning(in, Role::BoomTilt);
             drive(p, in);
             ratio(p, in.count("ratio"), in.value("efficiency"));
             auto& stage = std::get<ReducerStage>(p.axes[0].links[0]);
             stage.ratedTorque = in.value("rated_output_Nm");
             turn(p).items = {item("camera", in.value("mass_kg"), in.number("arm_m"))};
             turn(p).lowAngle = -0.3;
             turn(p).range = 0.6;
             std::get<Stepper>(p.axes[0].motor).body.mass = known(0.3);
             p.axes[0].told = {"gives " + std::to_string(in.count("claimed_Nm")) + " N·m"};
             turnShot(p, 0.3, 0.01, 0.01);
             return p;
         }},
    };
    return all;
}

} // namespace judged
