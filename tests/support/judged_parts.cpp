// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/judged_parts.h"
#include "support/bare_rigs.h"

#include "core/model/describe.h"
#include "core/model/fields.h"

#include <stdexcept>

namespace judged {

Estimate Inputs::value(const char* key) {
    const double v = number(key);
    const std::string source = all_.at(key).value("source", "counted");
    for (std::size_t i = 0; i < ChoiceNames<Source>::keys.size(); ++i)
        if (ChoiceNames<Source>::keys[i] == source) return estimate(v, static_cast<Source>(i));
    throw std::runtime_error("no source " + source);
}

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

Project bare(rigs::RigKind kind) {
    Project p = bareRig(kind);
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

Project beltSlider(Inputs& in, double distance) {
    Project p = slider(in);
    drive(p, in);
    belt(p, in);
    line(p).movingMass = in.value("moving_mass_kg");
    lineShot(p, distance, in.number("shot_speed_m_s"), in.number("shot_acceleration_m_s2"));
    return p;
}

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
void ratio(Project& p, int numerator, const Estimate& efficiency, const Estimate& backlash) {
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
MassItem item(const char* id, const Estimate& mass, double along, double above) {
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

} // namespace judged
