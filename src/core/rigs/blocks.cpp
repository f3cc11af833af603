// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rigs/blocks.h"

#include <cmath>

namespace gantry::rigs::blocks {

Stepper stepper(const char* name, double torque, double amps, double ohms, double henries, double inertia,
                double mass, double length) {
    Stepper s;
    s.name = name;
    s.holdingTorque = assumed(torque, 0.1);
    s.ratedCurrent = assumed(amps, 0.1);
    s.resistance = assumed(ohms, 0.1);
    s.inductance = assumed(henries, 0.2);
    s.rotorInertia = assumed(inertia, 0.2);
    s.detentTorque = assumed(0.04 * torque);
    s.body.mass = assumed(mass, 0.1);
    s.body.length = length;
    // Bigger cases shed heat better and carry bigger bearings.
    s.body.thermalResistance = assumed(6.0 * std::pow(0.3 / mass, 0.6), 0.3);
    s.body.radialRating = assumed(28.0 * std::pow(mass / 0.3, 0.6), 0.3);
    s.body.axialRating = assumed(10.0 * std::pow(mass / 0.3, 0.6), 0.3);
    return s;
}
Stepper small17() {
    return stepper("Size 17, 40 mm", 0.44, 1.7, 1.5, 0.0028, 5.7e-6, 0.29, 0.040);
}
Stepper long17() {
    return stepper("Size 17, 60 mm", 0.65, 2.1, 1.6, 0.0032, 1.02e-5, 0.5, 0.060);
}
Stepper mid23() {
    return stepper("Size 23, 56 mm", 1.26, 2.8, 0.9, 0.0025, 3.0e-5, 0.7, 0.056);
}

Driver driver(double run, double rating) {
    Driver d;
    d.name = "Step driver";
    d.microsteps = 16;
    d.runCurrent = run;
    d.holdCurrent = 0.6 * run;
    d.maxCurrent = rating;
    d.maxVoltage = 36.0;
    return d;
}

Axis axis(const char* id, const char* name, Role role, Motor motor, const Driver& d) {
    Axis a;
    a.id = id;
    a.name = name;
    a.role = role;
    a.motor = std::move(motor);
    a.driver = d;
    a.onStop = OnStop::KeepsHolding;
    return a;
}

LinearMechanism slide(double rail, double mass) {
    LinearMechanism m;
    m.railLength = rail;
    m.carriageLength = 0.15;
    m.bumperLength = 0.005;
    m.movingMass = assumed(mass, 0.1);
    m.runningFriction = assumed(1.0 + 0.5 * mass, 0.4);
    m.staticFriction = assumed(1.5 + 0.7 * mass, 0.4);
    m.guide.play = assumed(1e-5);
    m.motion = {0.4, 1.0, 0.0, 0.0, 0.005, 0.03, 0.005};
    return m;
}

std::vector<MassItem> camera() {
    const auto item = [](const char* id, const char* name, double mass, double along, double above) {
        MassItem i;
        i.id = id;
        i.name = name;
        i.mass = assumed(mass, 0.05);
        i.along = along;
        i.above = above;
        return i;
    };
    // Balanced in its place, as a head needs it.
    return {item("body", "Camera body", 0.75, -0.026, 0.0), item("lens", "Lens", 0.55, 0.07, 0.0),
            item("battery", "Battery", 0.3, -0.06, 0.03), item("plate", "Plate", 0.3, 0.0, -0.03)};
}

Section section(SectionShape shape, double width, double height, double wall, double price) {
    Section s;
    s.shape = shape;
    s.width = width;
    s.height = height;
    s.wall = wall;
    s.price = price;
    return s;
}

void onStands(LinearMechanism& m, const Section& rail) {
    m.rail.section = rail;
    m.rail.support = RailSupport::TwoStands;
    m.rail.firstStand = 0.1 * m.railLength;
    m.rail.secondStand = 0.9 * m.railLength;
    m.rail.headAt = 0.5 * m.railLength;
    m.rail.standMass = assumed(0.8, 0.1);
    m.rail.standSway = assumed(2e5, 0.5);
    m.rail.shownAt = 0.4 * m.railLength;
}

void onOneHead(LinearMechanism& m, const Section& rail) {
    onStands(m, rail);
    m.rail.support = RailSupport::OneHead;
}

void bedded(LinearMechanism& m, const Section& rail) {
    onStands(m, rail);
    m.rail.support = RailSupport::Bedded;
    m.rail.standMass = assumed(0.0, 0.1);
    m.rail.standSway = assumed(0.0, 0.5);
}

Base plate(double length, double width, double height, double mass) {
    Base b;
    b.kind = BaseKind::Rectangle;
    b.length = length;
    b.width = width;
    b.height = height;
    b.mass = assumed(mass, 0.1);
    b.massHeight = 0.4 * height;
    b.sidePush = assumed(5.0, 0.3);
    b.pushHeight = height;
    return b;
}

Base legs(double radius, double height, double mass) {
    Base b = plate(1.0, 0.6, height, mass);
    b.kind = BaseKind::Legs;
    b.legRadius = radius;
    return b;
}

BeltStage beltStage(const char* id, int motorTeeth, int loadTeeth, double preload) {
    BeltStage s;
    s.id = id;
    s.motorTeeth = motorTeeth;
    s.loadTeeth = loadTeeth;
    s.preload = assumed(preload, 0.4);
    s.width = 0.009;
    s.figures.stiffness =
        assumed(2.0 * 14e3 / 0.15 * std::pow(loadTeeth * 0.002 / (2.0 * std::numbers::pi), 2), 0.5);
    return s;
}

RotaryMechanism head(double inertia, double range) {
    RotaryMechanism m;
    m.range = range;
    m.inertia = assumed(inertia, 0.3);
    m.friction = assumed(0.05, 0.4);
    m.staticFriction = assumed(0.051, 0.02); // ball bearings hardly stick, and always by as much
    m.output = DirectOutput{assumed(400.0)};
    m.motion = {20.0 * deg, 120.0 * deg, 0.0, 0.0, 0.02, 10.0 * deg, 2.0 * deg};
    return m;
}

Project project(const char* name) {
    Project p;
    p.name = name;
    p.camera.name = "Camera";
    p.supply.name = "Supply";
    p.controller.name = "Controller";
    p.payload = camera();
    p.head.tiltHeight = assumed(0.17, 0.1); // room for the lens when it looks down
    return p;
}

Shot shot(const char* id, const char* name, double lens, double distance) {
    Shot s;
    s.id = id;
    s.name = name;
    s.focalLength = lens;
    s.subjectDistance = distance;
    return s;
}

void moves(Shot& s, const Axis& a, double distance, double time, double ease) {
    if (kindOf(a) == AxisKind::Linear)
        s.moves.push_back({a.id, ByTime<AxisKind::Linear>{distance, time, ease, ease}});
    else
        s.moves.push_back({a.id, ByTime<AxisKind::Rotary>{distance, time, ease, ease}});
}

Axis beltSlide() {
    Axis a = axis("slide", "Slide", Role::Slide, small17(), driver(1.2, 2.0));
    LinearMechanism m = slide(1.0, 3.5);
    m.movingMass = assumed(1.6, 0.1);
    onStands(m, section(SectionShape::SlottedProfile, 0.04, 0.04, 0.002, 24.0));
    BeltOutput belt;
    belt.preload = assumed(8.0, 0.4);
    a.carriesPayload = true;
    a.price = 85.0;
    m.output = belt;
    a.mechanism = m;
    return a;
}

/// Two belt stages of 4:1 and fine microsteps: a long lens shows every step of a pan.
Axis headAxis(const char* id, const char* name, Role role) {
    Driver d = driver(0.8, 2.0);
    d.microsteps = 64;
    Stepper fine = small17();
    fine.name = "Size 17, 40 mm, 0.9°";
    fine.rotorTeeth = 100;
    Axis a = axis(id, name, role, fine, d);
    const std::string prefix(id);
    a.links.push_back(beltStage((prefix + "-belt").c_str(), 20, 80));
    a.links.push_back(beltStage((prefix + "-belt-2").c_str(), 20, 80));
    return a;
}

Axis pan() {
    Axis a = headAxis("pan", "Pan", Role::Pan);
    RotaryMechanism m = head(0.03, 2.0 * std::numbers::pi);
    MassItem frame;
    frame.id = "frame";
    frame.name = "Frame and motors";
    frame.mass = assumed(1.8, 0.2);
    m.items.push_back(frame);
    a.mechanism = m;
    a.price = 110.0;
    return a;
}

Axis tilt() {
    Axis a = headAxis("tilt", "Tilt", Role::Tilt);
    RotaryMechanism m = head(0.02, 120.0 * deg);
    m.lowAngle = -60.0 * deg;
    a.mechanism = m;
    a.carriesPayload = true;
    a.price = 120.0;
    a.brake.fitted = true;
    a.brake.holdingTorque = assumed(0.2, 0.15);
    return a;
}

} // namespace gantry::rigs::blocks
