// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/judged_rigs.h"

#include "core/evaluate/evaluate.h"
#include "core/model/describe.h"
#include "core/model/fields.h"
#include "core/rigs/rigs.h"
#include "support/files.h"

#include <functional>
#include <map>
#include <numbers>
#include <set>
#include <stdexcept>

namespace judged {
namespace {

using namespace gantry;
using nlohmann::json;
constexpr double pi = std::numbers::pi;

/// The inputs of a case. Each has to be asked for.
class Inputs {
public:
    explicit Inputs(const json& all) : all_(all) {}
    bool has(const char* key) const { return all_.contains(key); }
    const json& raw(const char* key) {
        read_.insert(key);
        return all_.at(key).at("value");
    }
    double number(const char* key) { return raw(key).get<double>(); }
    double number(const char* key, double otherwise) { return has(key) ? number(key) : otherwise; }
    int count(const char* key) { return raw(key).get<int>(); }
    Estimate value(const char* key) {
        const double v = number(key);
        const std::string source = all_.at(key).value("source", "counted");
        for (std::size_t i = 0; i < ChoiceNames<Source>::keys.size(); ++i)
            if (ChoiceNames<Source>::keys[i] == source) return estimate(v, static_cast<Source>(i));
        throw std::runtime_error("no source " + source);
    }
    Estimate value(const char* key, Estimate otherwise) { return has(key) ? value(key) : otherwise; }
    /// What says only how the case was worked out, or is told by another input.
    void skip(std::initializer_list<const char*> keys) {
        for (const char* k : keys) read_.insert(k);
    }
    std::string unread() const {
        std::string out;
        for (const auto& [key, v] : all_.items())
            if (!read_.contains(key)) out += key + " ";
        return out;
    }

private:
    const json& all_;
    std::set<std::string> read_;
};

Estimate known(double v) {
    return {v, Source::Counted, 0.0};
}
Estimate sheet(double v) {
    return estimate(v, Source::DataSheet);
}

Stepper stepper(Inputs& in) {
    Stepper m;
    if (in.has("motor_name")) m.name = in.raw("motor_name").get<std::string>();
    m.rotorTeeth = in.has("rotor_teeth") ? in.count("rotor_teeth") : 50;
    m.holdingTorque = in.value("holding_torque_Nm");
    m.ratedCurrent = in.value("rated_current_rms_A");
    m.resistance = in.value("resistance_ohm", sheet(2.0));
    m.inductance = in.value("inductance_H", sheet(0.003));
    m.rotorInertia = in.value("rotor_inertia_kgm2", known(1e-12));
    m.body.mass = in.value("mass_kg", sheet(0.3));
    m.detentTorque = known(0.0);
    return m;
}

/// One axis, everything that no case gives known exactly and out of the way.
Project bare(rigs::RigKind kind) {
    Project p = rigs::make(kind);
    p.payload.clear();
    p.axes.resize(1);
    p.shots.resize(1);
    Shot& s = p.shots[0];
    s.kind = ShotKind::Live;
    s.keepFramed = false;
    s.focalLength = 0.05;
    s.subjectDistance = 2.0;
    s.moves.clear();
    Axis& a = p.axes[0];
    a.carriesPayload = false;
    a.links.clear();
    a.candidates.clear();
    a.driver.microsteps = 16;
    a.driver.maxCurrent = 2.0;
    a.driver.maxVoltage = 28.0;
    a.onStop = OnStop::CutsCurrent;
    p.controller.ramps = RampKind::Trapezoid;
    p.controller.pulseCeiling = 40000.0;
    for (const UncertainInput& i : uncertainInputsOf(p.supply)) i.estimate->tolerance = 0.0;
    p.supply.voltage = sheet(24.0);
    p.supply.lowVoltage = known(24.0);
    p.supply.sourceResistance = known(0.0);
    p.base = {};
    for (const UncertainInput& i : uncertainInputsOf(p.base)) i.estimate->tolerance = 0.0;
    return p;
}
void settle(Axis& a) {
    for (Estimate* e : estimatesOf(a)) e->tolerance = 0.0;
}

void drive(Project& p, Inputs& in) {
    Axis& a = p.axes[0];
    a.motor = stepper(in);
    a.driver.runCurrent = in.number("run_current_rms_A", std::get<Stepper>(a.motor).ratedCurrent.value);
    a.driver.holdCurrent = in.number("hold_current_rms_A", 0.5 * a.driver.runCurrent);
    if (in.has("microsteps")) a.driver.microsteps = in.count("microsteps");
    a.driver.maxCurrent = in.number("driver_max_rms_A", 2.0);
    a.driver.maxVoltage = in.number("driver_max_V", 28.0);
    a.driver.bridgeResistance = known(0.3);
    p.supply.voltage = in.value("supply_V", sheet(24.0));
    p.supply.lowVoltage = known(p.supply.voltage.value);
    p.controller.pulseCeiling = in.number("pulse_ceiling_hz", 40000.0);
}

LinearMechanism& line(Project& p) {
    return std::get<LinearMechanism>(p.axes[0].mechanism);
}
RotaryMechanism& turn(Project& p) {
    return std::get<RotaryMechanism>(p.axes[0].mechanism);
}

/// A rail with a carriage: mass, friction and slope as the case has them, nothing else.
Project slider(Inputs& in) {
    Project p = bare(rigs::RigKind::BeltSlider);
    Axis& a = p.axes[0];
    auto& m = line(p);
    m = {};
    m.railLength = 2.2;
    m.carriageLength = 0.1;
    m.guide.friction = known(0.0);
    m.motion.maxSpeed = 5.0;
    m.motion.maxAcceleration = 50.0;
    m.motion.softLimitMargin = 0.0;
    m.slope = known(0.0);
    settle(a);
    m.output = BeltOutput{};
    settle(a);
    m.slope = in.value("slope_rad", known(0.0));
    if (in.has("friction_N")) m.runningFriction = in.value("friction_N");
    m.staticFriction = in.value("static_friction_N", known(0.0));
    return p;
}
void belt(Project& p, Inputs& in) {
    BeltOutput b;
    b.teeth = in.count("belt_teeth");
    b.pitch = known(in.number("belt_pitch_m"));
    b.efficiency = in.value("belt_efficiency", sheet(0.95));
    b.pulleyInertia = b.backlash = known(0.0);
    b.tensileStiffness.tolerance = b.preload.tolerance = 0.0;
    b.preload.value = 200.0;
    line(p).output = b;
}
void lineShot(Project& p, double distance, double speed, double acceleration) {
    p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{distance, speed, acceleration}}};
}
void turnShot(Project& p, double distance, double speed, double acceleration) {
    p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Rotary>{distance, speed, acceleration}}};
}

/// A carriage on a belt with one shot, as most sliders of the cases are.
Project beltSlider(Inputs& in, double distance) {
    Project p = slider(in);
    drive(p, in);
    belt(p, in);
    line(p).movingMass = in.value("moving_mass_kg");
    lineShot(p, distance, in.number("shot_speed_m_s"), in.number("shot_acceleration_m_s2"));
    return p;
}

/// A turning axis with nothing on it.
Project turning(Inputs& in, Role role) {
    Project p = bare(rigs::RigKind::PanTiltHead);
    Axis& a = p.axes[0];
    a.role = role;
    auto& r = turn(p);
    r = {};
    settle(a);
    r.inertia = in.value("inertia_kgm2", known(1e-6));
    r.friction = in.value("friction_Nm", known(0.0));
    r.staticFriction = known(0.0);
    r.motion.maxSpeed = 50.0;
    r.motion.maxAcceleration = 500.0;
    r.motion.softLimitMargin = 0.0;
    return p;
}
void ratio(Project& p, int numerator, const Estimate& efficiency, const Estimate& backlash = known(0.0)) {
    ReducerStage r;
    r.id = "gears";
    r.numerator = numerator;
    r.denominator = 1;
    r.ratedTorque = known(1e4);
    r.figures.efficiency = efficiency;
    r.figures.backlash = backlash;
    r.figures.inertia = r.figures.stiffness = known(0.0);
    p.axes[0].links = {r};
}
MassItem item(const char* id, const Estimate& mass, double along, double above = 0.0) {
    MassItem out;
    out.id = out.name = id;
    out.mass = mass;
    out.along = along;
    out.above = above;
    return out;
}
void lens(Project& p, Inputs& in) {
    p.shots[0].focalLength = in.number("focal_length_m", 0.05);
    p.shots[0].subjectDistance = in.number("subject_distance_m", 2.0);
    p.camera.sensorWidth = in.number("sensor_width_m", 0.036);
    p.camera.pixelsAcross = p.camera.deliveredWidth = 3840;
}
GearedDc geared(Inputs& in) {
    GearedDc m;
    m.figures.nominalVoltage = in.value("nominal_V", known(12.0));
    m.figures.noLoadSpeed = in.value("no_load_rad_s");
    m.figures.stallTorque = in.value("stall_torque_Nm");
    m.figures.stallCurrent = in.value("stall_current_A", known(1.0));
    m.figures.noLoadCurrent = known(0.0);
    m.figures.ratedTorque = known(m.figures.stallTorque.value);
    m.appliedVoltage = m.figures.nominalVoltage.value;
    m.rotorInertia = in.value("rotor_inertia_kgm2", known(1e-9));
    m.lowestSteady = in.value("lowest_steady", known(0.0));
    m.gearboxBacklash = known(0.0);
    m.regulatorResistance.tolerance = 0.0;
    return m;
}

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

using Build = Project (*)(Inputs&, char);
const std::map<std::string, Build> builders{
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
         ratio(p, in.count("ratio"), estimate(std::pow(in.number("stage_efficiency"), 2), Source::Measured));
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
    {"J09", [](Inputs& in, char) { return onTripod(in); }},
    {"J10", [](Inputs& in, char) { return onTripod(in); }},
    {"J11",
     [](Inputs& in, char) {
         Project p = turning(in, Role::BoomTilt);
         auto& r = turn(p);
         r.items = {item("head", in.value("head_kg"), in.number("head_along_m"), in.number("head_above_m")),
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
         lineShot(p, in.number("travel_m"), in.number("shot_speed_m_s"), in.number("shot_acceleration_m_s2"));
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
         s.friction = {in.number("screw_friction"), Source::DataSheet, in.number("screw_friction_tolerance")};
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
         p.shots[0].moves = {{p.axes[0].id, ByTime<AxisKind::Rotary>{in.number("shot_rad"),
                                                                     in.number("shot_time_s"), 1.0, 1.0}}};
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
         lineShot(p, in.number("travel_m"), in.number("shot_speed_m_s"), in.number("shot_acceleration_m_s2"));
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
         in.skip({"claimed_Nm"});
         turnShot(p, 0.3, 0.01, 0.01);
         return p;
     }},
};

} // namespace

const std::vector<json>& cases() {
    static const json all = json::parse(textOfFile(sourcePath("tests/data/judged-rigs.json")));
    static const std::vector<json> out = all.at("cases").get<std::vector<json>>();
    return out;
}

const json& caseOf(const std::string& id) {
    for (const json& c : cases())
        if (c.at("id") == id) return c;
    throw std::runtime_error("no case " + id);
}

bool canBuild(const std::string& id) {
    return builders.contains(id);
}

Project rigOf(const json& c, char variant) {
    Inputs in(c.at("inputs"));
    Project p = builders.at(c.at("id").get<std::string>())(in, variant);
    if (!in.unread().empty()) throw std::runtime_error("inputs without a field: " + in.unread());
    return p;
}

} // namespace judged
