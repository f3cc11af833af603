// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/judged_parts.h"

namespace judged {
namespace {

/// A carriage on a light tripod, driven so that it can brake as hard as the case says.
Project onTripod(Inputs& in) {
    Project p = slider(in);
    auto& m = line(p);
    const double mass = in.number("carriage_kg");
    m.movingMass = in.value("carriage_kg");
    m.runningFriction = m.staticFriction = known(0.0);
    RackOutput rack;
    rack.efficiency = known(1.0);
    rack.stiffness = rack.backlash = known(0.0);
    m.output = rack;
    m.carriageLength = 0.1;
    m.railLength = 2.0 * in.number("travel_out_m") + 0.1;
    m.guide.massHeight = in.number("carriage_cg_m") - in.number("rail_cg_m");
    ServoMotor servo;
    servo.rotorInertia = known(1e-9);
    p.axes[0].motor = servo;
    settle(p.axes[0]);
    m.movingMass = in.value("carriage_kg");
    // At this radius of the rack: force is torque over it.
    const double radius = evaluate(p).axes[0].model.outputPerRad;
    auto& drive = std::get<ServoMotor>(p.axes[0].motor);
    drive.peakTorque = known(mass * in.number("drive_hard_stop_m_s2") * radius);
    drive.ratedTorque = drive.peakTorque;
    drive.ratedSpeed = known(1e4);
    drive.topSpeed = known(2e4);
    Base& b = p.base;
    b.kind = BaseKind::Legs;
    b.legs = in.count("legs");
    b.legRadius = in.number("leg_radius_m");
    b.firstLeg = pi; // so that one edge lies ahead
    // Tripod and rail together.
    const double tripod = in.number("tripod_kg"), rail = in.number("rail_kg");
    b.mass = {tripod + rail, Source::Measured, 0.02};
    b.massHeight = (tripod * in.number("tripod_cg_m") + rail * in.number("rail_cg_m")) / (tripod + rail);
    b.height = in.number("rail_cg_m");
    // Its travel is shorter than the ramps: the settings say how it runs.
    m.motion.maxSpeed = in.number("shot_speed_m_s");
    m.motion.maxAcceleration = in.number("shot_acceleration_m_s2");
    p.controller.ramps = RampKind::Trapezoid;
    return p;
}

} // namespace

const Builders& railBuilders() {
    static const Builders all{
        {"J36",
         [](Inputs& in, char) {
             Project p = slider(in);
             drive(p, in);
             belt(p, in);
             auto& m = line(p);
             p.axes[0].role = Role::Lift;
             // A motor of that torque is one of the larger ones, and heats as such.
             std::get<Stepper>(p.axes[0].motor).body.thermalResistance = estimate(2.2, Source::Guess);
             m.slope = known(0.5 * pi);
             m.movingMass = in.value("mass_kg");
             p.supply.ratedCurrent = in.number("supply_A");
             p.axes[0].told = {std::to_string(in.number("claim_torque_Nm")).substr(0, 3) + " N·m at " +
                               std::to_string(in.count("claim_rpm")) + " rpm, lifts 8 kg at " +
                               std::to_string(in.number("claim_speed_m_s")).substr(0, 3) + " m/s"};
             // Long and gentle, so that gravity alone is asked.
             m.railLength = 100.0;
             lineShot(p, 90.0, in.number("claim_speed_m_s"), 0.05);
             return p;
         }},
        {"J01",
         [](Inputs& in, char) {
             Project p = beltSlider(in, 1.0);
             line(p).motion.maxSpeed = in.number("set_max_speed_m_s");
             line(p).motion.maxAcceleration = in.number("set_max_acceleration_m_s2");
             auto& body = std::get<Stepper>(p.axes[0].motor).body;
             body.thermalResistance = in.value("thermal_resistance_K_W");
             body.mount = MountMaterial::Metal;
             p.conditions.ambient = in.number("ambient_C");
             in.skip({"case_limit_C"}); // that of a metal mount
             return p;
         }},
        {"J02",
         [](Inputs& in, char variant) {
             Project p = slider(in);
             drive(p, in);
             belt(p, in);
             auto& m = line(p);
             m.movingMass = in.value("moving_mass_kg");
             m.railLength = in.number("rail_m");
             m.carriageLength = in.number("carriage_m");
             m.bumperLength = in.number("bumper_m");
             const double a = in.number("soft_margin_m"), b = in.number("soft_margin_variant_b_m");
             m.motion.softLimitMargin = variant == 'b' ? b : a;
             p.shots[0].moves = {
                 {p.axes[0].id, ByTime<AxisKind::Linear>{in.number("shot_m"), in.number("shot_time_s"),
                                                         in.number("ramp_s"), in.number("ramp_s")}}};
             return p;
         }},
        {"J03", [](Inputs& in, char) { return beltSlider(in, 0.5); }},
        {"J04",
         [](Inputs& in, char) {
             Project p = slider(in);
             drive(p, in);
             belt(p, in);
             line(p).movingMass = in.value("carriage_kg");
             line(p).items = {item("camera", in.value("camera_kg"), 0.0)};
             lineShot(p, 0.5, in.number("shot_speed_m_s"), in.number("shot_acceleration_m_s2"));
             in.skip({"sweep_camera_kg", "sweep_resistance_ohm", "sweep_friction_N"});
             return p;
         }},
        {"J09", [](Inputs& in, char) { return onTripod(in); }},
        {"J10", [](Inputs& in, char) { return onTripod(in); }},
        {"J14", [](Inputs& in, char) { return beltSlider(in, 0.5); }},
        {"J15",
         [](Inputs& in, char) {
             Project p = slider(in);
             drive(p, in);
             WinchOutput w;
             w.drumDiameter = {in.number("drum_m"), Source::Measured, 0.0177};
             w.cordDiameter = in.value("cord_m");
             w.drumWidth = in.number("drum_width_m");
             w.efficiency = in.value("efficiency");
             w.drumInertia = w.backlash = known(0.0);
             w.breakingLoad.tolerance = w.tensileStiffness.tolerance = 0.0;
             line(p).output = w;
             line(p).movingMass = in.value("cart_kg");
             line(p).carriageLength = 0.1;
             line(p).railLength = in.number("travel_m") + 0.1;
             lineShot(p, in.number("travel_m"), in.number("shot_speed_m_s"),
                      in.number("shot_acceleration_m_s2"));
             return p;
         }},
        {"J16",
         [](Inputs& in, char) {
             Project p = slider(in);
             drive(p, in);
             WinchOutput w;
             w.drumDiameter = in.value("drum_m");
             w.cordDiameter = in.value("cord_m");
             w.drumWidth = 0.3;
             w.efficiency = in.value("efficiency");
             w.drumInertia = w.backlash = known(0.0);
             w.breakingLoad.tolerance = 0.0;
             w.tensileStiffness = in.value("cord_EA_N");
             line(p).output = w;
             line(p).movingMass = in.value("cart_kg");
             line(p).staticFriction = in.value("static_friction_N");
             line(p).railLength = in.number("cord_length_m");
             p.shots[0].focalLength = in.number("focal_length_m");
             p.shots[0].subjectDistance = in.number("subject_distance_m");
             lineShot(p, 60.0 * in.number("shot_speed_m_s"), in.number("shot_speed_m_s"), 0.1);
             return p;
         }},
        {"J17",
         [](Inputs& in, char) {
             Project p = slider(in);
             p.supply.voltage = in.value("supply_V");
             p.supply.lowVoltage = known(p.supply.voltage.value);
             ScrewOutput s;
             s.lead = known(in.number("screw_lead_m"));
             s.starts = 1;
             s.pitchDiameter = in.value("screw_pitch_diameter_m");
             s.rootDiameter = known(0.006);
             s.friction = {in.number("screw_friction"), Source::DataSheet,
                           in.number("screw_friction_tolerance")};
             s.threadHalfAngle = in.number("thread_half_angle_rad");
             s.nutDrag = s.backlash = known(0.0);
             s.axialStiffness = known(0.0);
             line(p).output = s;
             line(p).movingMass = in.value("moving_mass_kg");
             line(p).railLength = in.number("screw_length_m");
             GearedDc m = geared(in);
             m.control = SpeedControl::SupplyVoltage;
             m.appliedVoltage = p.supply.voltage.value;
             m.gearNumerator = in.count("gear");
             m.gearDenominator = 1;
             p.axes[0].motor = m;
             p.controller.ramps = RampKind::None;
             in.skip({"controller_ramps"});
             lineShot(p, 0.3, 0.0164, 1.0);
             return p;
         }},
        {"J19",
         [](Inputs& in, char) {
             Project p = slider(in);
             p.supply.voltage = in.value("supply_V");
             p.supply.lowVoltage = known(12.0);
             GearedDc m = geared(in);
             m.control = SpeedControl::Knob;
             m.knob = 1.0;
             p.axes[0].motor = m;
             belt(p, in);
             line(p).movingMass = known(2.0);
             in.skip({"gears_on_hand_teeth"});
             lineShot(p, 0.5, in.number("fast_m_s"), 0.1);
             Shot creep = p.shots[0];
             creep.id = creep.name = "creep";
             creep.moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{0.2, in.number("slow_m_s"), 0.01}}};
             p.shots.push_back(creep);
             return p;
         }},
        {"J26",
         [](Inputs& in, char) {
             Project p = beltSlider(in, 1.0);
             line(p).motion.maxSpeed = in.number("set_max_speed_m_s");
             line(p).motion.maxAcceleration = in.number("set_max_acceleration_m_s2");
             return p;
         }},
        {"J27",
         [](Inputs& in, char variant) {
             Project p = slider(in);
             auto& m = line(p);
             m.movingMass = in.value("carriage_kg");
             m.railLength = in.number("rail_m");
             m.carriageLength = m.railLength - in.number("travel_m");
             Section& s = m.rail.section;
             s.shape = SectionShape::HollowRectangle;
             s.material = BeamMaterial::Aluminium;
             s.width = in.raw("section_m")[0];
             s.height = in.raw("section_m")[1];
             s.wall = in.raw("section_m")[2];
             in.skip({"E_Pa"});
             m.rail.standSway = m.rail.standMass = known(0.0);
             m.rail.headTurning = in.value("head_Nm_rad");
             m.rail.headAt = 0.5 * m.railLength;
             m.rail.firstStand = in.raw("stands_m")[0];
             m.rail.secondStand = in.raw("stands_m")[1];
             if (variant == 'a') {
                 m.rail.support = RailSupport::OneHead;
                 p.base.kind = BaseKind::Legs;
                 p.base.legs = 3;
                 p.base.height = 1.0;
             }
             p.base.legRadius = in.number("leg_radius_m");
             p.base.mass = in.value("tripod_kg");
             p.shots[0].focalLength = in.number("focal_length_m");
             p.shots[0].subjectDistance = in.number("subject_distance_m");
             lineShot(p, in.number("travel_m"), in.number("shot_speed_m_s"),
                      in.number("shot_acceleration_m_s2"));
             return p;
         }},
        {"J29",
         [](Inputs& in, char) {
             Project p = slider(in);
             drive(p, in);
             belt(p, in);
             auto& m = line(p);
             m.movingMass = in.value("cart_kg");
             m.railLength = in.number("travel_m") + m.carriageLength;
             p.base.groundSlope = in.value("ground_slope_rad");
             p.base.downhill = pi;
             p.base.kind = BaseKind::Rectangle;
             p.base.length = m.railLength;
             p.base.height = in.number("underside_m");
             lineShot(p, 2.0, in.number("shot_speed_m_s"), in.number("shot_acceleration_m_s2"));
             return p;
         }},
        {"J34",
         [](Inputs& in, char) {
             Project p = slider(in);
             p.supply.voltage = in.value("supply_V");
             p.supply.lowVoltage = known(p.supply.voltage.value);
             RackOutput rack;
             rack.efficiency = known(1.0);
             rack.stiffness = rack.backlash = known(0.0);
             line(p).output = rack;
             line(p).movingMass = known(5.0);
             line(p).runningFriction = line(p).staticFriction = known(0.0);
             GearedDc m;
             const double volts = in.number("nominal_V");
             // What it draws while running is all its own.
             m.figures = {known(volts),
                          known(30.0),
                          in.value("running_current_A"),
                          {volts / in.number("winding_ohm"), Source::Measured, 0.02},
                          known(1.0),
                          known(1.0)};
             m.gearNumerator = m.gearDenominator = 1;
             m.control = SpeedControl::SupplyVoltage;
             m.appliedVoltage = p.supply.voltage.value;
             m.stopping = Stopping::Reversed;
             m.rotorInertia = known(1e-6);
             m.gearboxBacklash = known(0.0);
             p.axes[0].motor = m;
             p.axes[0].driver.maxCurrent = in.number("driver_peak_A");
             p.controller.ramps = RampKind::None;
             in.skip({"ramps"});
             lineShot(p, 1.0, 0.3, 1.0);
             return p;
         }},
        {"J33",
         [](Inputs& in, char) {
             Project p = slider(in);
             drive(p, in);
             belt(p, in);
             auto& m = line(p);
             // The motor is in what is entered.
             m.movingMass = in.value("moving_mass_kg");
             m.movingMass.value -= std::get<Stepper>(p.axes[0].motor).body.mass.value;
             std::get<BeltOutput>(m.output).motorRides = in.raw("motor_rides").get<bool>();
             lineShot(p, 0.5, in.number("shot_speed_m_s"), in.number("shot_acceleration_m_s2"));
             return p;
         }},
    };
    return all;
}

} // namespace judged
