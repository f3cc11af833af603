// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rigs/rigs.h"

#include "core/rigs/blocks.h"

#include <array>
#include <cmath>
#include <numbers>

namespace gantry::rigs {
namespace {

using namespace blocks;

constexpr std::array table{
    RigInfo{RigKind::BeltSlider, "belt-slider", "Belt slider",
            "A carriage on a rail, pulled by a toothed belt."},
    RigInfo{RigKind::ScrewSlider, "screw-slider", "Screw slider", "A short, strong slider on a lead screw."},
    RigInfo{RigKind::WinchedCart, "winched-cart", "Winched cart",
            "A cart on a long or steep track, pulled by a cord."},
    RigInfo{RigKind::WheelDolly, "wheel-dolly", "Wheel dolly",
            "A dolly that drives itself on floor or track."},
    RigInfo{RigKind::LiftColumn, "lift-column", "Lift column", "The camera goes straight up and down."},
    RigInfo{RigKind::PanTiltHead, "pan-tilt-head", "Pan-tilt head", "Two geared axes under the camera."},
    RigInfo{RigKind::OrbitBoom, "orbit-boom", "Orbit boom",
            "A boom that carries the camera round its subject."},
    RigInfo{RigKind::JibCrane, "jib-crane", "Jib crane", "A balanced arm that rises and swings."},
    RigInfo{RigKind::StopMotionStage, "stop-motion-stage", "Stop-motion stage",
            "Small, exact steps between pictures."},
    RigInfo{RigKind::SubjectTurntable, "subject-turntable", "Subject turntable",
            "The subject turns before a fixed camera."},
    RigInfo{RigKind::MultiAxis, "multi-axis-rig", "Multi-axis rig", "Slide, pan, tilt and focus together."},
    RigInfo{RigKind::WhatIHave, "here-is-what-i-have", "Start from my parts",
            "One axis; five numbers give an answer."},
    RigInfo{RigKind::Empty, "empty", "Empty", "Nothing yet; add axes one by one."},
};

Project beltSlider() {
    Project p = project("Belt slider");
    p.base = plate(0.8, 0.6, 0.9, 5.0);
    p.axes.push_back(beltSlide());
    Shot s = shot("reveal", "Reveal", 0.035, 1.2);
    moves(s, p.axes[0], 0.7, 12.0, 1.0);
    p.shots.push_back(s);
    return p;
}

Project screwSlider() {
    Project p = project("Screw slider");
    Axis a = axis("slide", "Slide", Role::Slide, small17(), driver(1.2, 2.0));
    Coupling c;
    c.id = "coupling";
    a.links.push_back(c);
    LinearMechanism m = slide(0.5, 3.0);
    m.movingMass = assumed(1.1, 0.1);
    a.carriesPayload = true;
    a.price = 95.0;
    onOneHead(m, section(SectionShape::SlottedProfile, 0.08, 0.04, 0.002, 38.0));
    p.base = legs(0.5, 1.1, 4.0);
    m.guide.kind = GuideKind::BallRail;
    m.motion.maxSpeed = 0.06;
    m.motion.homingSpeed = 0.01;
    m.output = ScrewOutput{};
    a.mechanism = m;
    p.axes.push_back(a);
    Shot s = shot("creep", "Creep", 0.05, 0.6);
    moves(s, a, 0.3, 20.0, 1.0);
    p.shots.push_back(s);
    return p;
}

Project winchedCart() {
    Project p = project("Winched cart");
    Axis a = axis("cart", "Cart", Role::Slide, long17(), driver(1.35, 2.5));
    a.links.push_back(beltStage("cart-belt", 30, 90, 13.0));
    LinearMechanism m = slide(6.0, 8.0);
    m.movingMass = assumed(6.1, 0.1);
    a.carriesPayload = true;
    a.price = 160.0;
    bedded(m, section(SectionShape::RodPair, 0.025, 0.025, 0.002, 14.0));
    m.rail.section.spacing = 0.3;
    p.base = plate(6.0, 0.5, 0.15, 25.0);
    m.carriageLength = 0.4;
    m.slope = assumed(8.0 * deg, 0.1);
    m.runningFriction = assumed(4.0, 0.4);
    m.staticFriction = assumed(4.8, 0.1); // wheels on ball bearings
    m.guide.wheelbase = 0.35;
    m.guide.track = 0.3;
    m.guide.play = assumed(5e-5);
    m.motion.maxSpeed = 0.3;
    m.motion.maxAcceleration = 0.4;
    // Thin wire rope in one layer: it hardly stretches, and one number of steps per mm holds.
    WinchOutput winch;
    winch.drumWidth = 0.1;
    winch.tensileStiffness = assumed(6e4, 0.3);
    winch.turnsOn = 3.0;
    m.output = winch;
    a.mechanism = m;
    a.brake.fitted = true;
    a.brake.holdingTorque = assumed(1.0, 0.15);
    p.axes.push_back(a);
    Shot s = shot("climb", "Climb", 0.024, 2.0);
    moves(s, a, 4.0, 40.0, 6.0);
    p.shots.push_back(s);
    return p;
}

Project wheelDolly() {
    Project p = project("Wheel dolly");
    Axis a = axis("dolly", "Dolly", Role::Slide, mid23(), driver(2.2, 3.5));
    a.links.push_back(beltStage("dolly-belt", 30, 120, 15.0));
    LinearMechanism m = slide(4.0, 12.0);
    m.movingMass = assumed(10.1, 0.1);
    a.carriesPayload = true;
    a.price = 190.0;
    bedded(m, section(SectionShape::RodPair, 0.025, 0.025, 0.002, 14.0));
    m.rail.section.spacing = 0.4;
    p.base = plate(4.0, 0.6, 0.1, 20.0);
    m.carriageLength = 0.5;
    m.runningFriction = assumed(6.0, 0.4);
    m.staticFriction = assumed(9.0, 0.4);
    m.guide.wheelbase = 0.45;
    m.guide.track = 0.4;
    m.guide.massHeight = 0.6;
    m.motion.maxSpeed = 0.4;
    m.motion.maxAcceleration = 0.4;
    m.output = WheelOutput{};
    a.mechanism = m;
    p.axes.push_back(a);
    Shot s = shot("past", "Past the bench", 0.028, 1.8);
    moves(s, a, 2.5, 20.0, 2.0);
    p.shots.push_back(s);
    return p;
}

Project liftColumn() {
    Project p = project("Lift column");
    Axis a = axis("lift", "Lift", Role::Lift, long17(), driver(1.35, 2.5));
    Coupling c;
    c.id = "coupling";
    a.links.push_back(c);
    LinearMechanism m = slide(0.6, 3.0);
    m.movingMass = assumed(1.1, 0.1);
    a.carriesPayload = true;
    a.price = 120.0;
    bedded(m, section(SectionShape::SlottedProfile, 0.08, 0.04, 0.002, 38.0));
    p.base = legs(0.5, 0.9, 8.0);
    m.slope = assumed(90.0 * deg, 0.02);
    m.guide.kind = GuideKind::BallRail;
    m.motion.maxSpeed = 0.05;
    m.motion.homingSpeed = 0.01;
    ScrewOutput screw;
    screw.lead = assumed(0.004, 0.0);
    screw.starts = 2;
    m.output = screw;
    a.mechanism = m;
    a.brake.fitted = true;
    a.brake.holdingTorque = assumed(0.4, 0.15);
    p.axes.push_back(a);
    Shot s = shot("rise", "Rise", 0.035, 1.0);
    moves(s, a, 0.3, 20.0, 1.5);
    p.shots.push_back(s);
    return p;
}

Project panTiltHead() {
    Project p = project("Pan-tilt head");
    p.base = legs(0.5, 1.3, 4.0);
    p.axes = {pan(), tilt()};
    Shot s = shot("look", "Look round", 0.035, 2.0);
    moves(s, p.axes[0], 60.0 * deg, 13.0, 3.2);
    moves(s, p.axes[1], 15.0 * deg, 15.0, 2.0);
    p.shots.push_back(s);
    return p;
}

/// An arm with the camera at its end and discs behind the pivot.
void arm(RotaryMechanism& m, const Section& section, double reach, double rear, double weight,
         double behind) {
    m.boom.section = section;
    m.boom.reach = reach;
    m.boom.rear = rear;
    m.boom.counterweight.mass = assumed(weight, 0.02); // discs are stamped
    m.boom.counterweight.behind = behind;
    m.boom.counterweight.nearest = 0.5 * rear;
    m.boom.counterweight.farthest = rear;
}

Project orbitBoom() {
    Project p = project("Orbit boom");
    p.controller.ramps = RampKind::SCurve;
    GearedDc motor;
    motor.name = "Geared motor, 12 V, 30 rpm";
    Axis a = axis("orbit", "Orbit", Role::Swing, motor, driver(2.0, 6.0));
    GearStage gears;
    gears.id = "orbit-gears";
    gears.motorTeeth = 20;
    gears.loadTeeth = 120;
    gears.module = 0.004;
    gears.faceWidth = 0.018;
    gears.material = GearMaterial::Plywood;
    gears.figures = {assumed(0.85, 0.05), assumed(0.01), assumed(3000.0, 0.15), assumed(2e-4)};
    a.links.push_back(gears);
    RotaryMechanism m = head(0.05, 4.0 * std::numbers::pi);
    m.friction = assumed(0.3, 0.4);
    m.staticFriction = assumed(0.45, 0.4);
    arm(m, section(SectionShape::HollowRectangle, 0.04, 0.04, 0.002, 18.0), 0.9, 0.5, 4.6, 0.45);
    a.carriesPayload = true;
    a.price = 55.0;
    p.base = legs(0.6, 1.2, 10.0);
    m.motion = {25.0 * deg, 10.0 * deg, 1.2 * deg, 0.0, 0.02, 5.0 * deg, 2.0 * deg};
    a.mechanism = m;
    p.supply.voltage = assumed(12.0, 0.05);
    p.supply.lowVoltage = assumed(11.0, 0.05);
    p.axes.push_back(a);
    Shot s = shot("orbit", "Orbit", 0.024, 0.9);
    s.limits.jitter = 2.0;
    moves(s, a, 150.0 * deg, 34.0, 7.0);
    p.shots.push_back(s);
    return p;
}

Project jibCrane() {
    Project p = project("Jib crane");
    p.controller.ramps = RampKind::SCurve;
    Axis swing = axis("swing", "Swing", Role::Swing, mid23(), driver(2.2, 3.5));
    swing.driver.microsteps = 32;
    PlanetaryStage planetary;
    planetary.id = "swing-gearhead";
    planetary.sunTeeth = 12;
    planetary.ringTeeth = 48;
    planetary.stages = 2;
    planetary.ratedTorque = assumed(15.0, 0.2);
    planetary.figures.stiffness = assumed(3000.0, 0.2);
    swing.links.push_back(planetary);
    RotaryMechanism around = head(0.1, 200.0 * deg);
    around.friction = assumed(0.4, 0.4);
    around.staticFriction = assumed(0.45, 0.1);
    around.output = DirectOutput{assumed(0.0)}; // the arm's hub is stiff beside its gearhead
    around.motion = {25.0 * deg, 12.0 * deg, 0.4 * deg, 0.0, 0.02, 5.0 * deg, 2.0 * deg};
    around.lowAngle = -100.0 * deg;
    around.boom.shownAt = 100.0 * deg;
    swing.mechanism = around;
    Axis boom = axis("boom", "Boom", Role::BoomTilt, mid23(), driver(2.2, 3.5));
    WormStage worm;
    worm.id = "boom-worm";
    worm.wheelTeeth = 60;
    worm.stiffness = assumed(4000.0, 0.2);
    boom.links.push_back(worm);
    RotaryMechanism up = head(0.1, 80.0 * deg);
    up.lowAngle = -35.0 * deg;
    up.friction = assumed(0.4, 0.4);
    up.staticFriction = assumed(0.45, 0.1);
    up.output = DirectOutput{assumed(0.0)};
    arm(up, section(SectionShape::HollowRectangle, 0.04, 0.06, 0.002, 22.0), 1.8, 0.8, 11.1, 0.7);
    up.boom.arm = ArmKind::ParallelLinks;
    up.boom.shownAt = 50.0 * deg;
    up.boom.mastTurning = assumed(20000.0, 0.4);
    boom.carriesPayload = true;
    boom.price = 150.0;
    swing.price = 140.0;
    p.base = legs(0.8, 1.2, 16.0);
    p.base.ballast = assumed(20.0, 0.05);
    up.motion = {15.0 * deg, 8.0 * deg, 0.4 * deg, 0.0, 0.02, 3.0 * deg, 1.0 * deg};
    boom.mechanism = up;
    boom.brake.fitted = true;
    boom.brake.holdingTorque = assumed(2.0, 0.15);
    // The head hangs on the arm with the camera; on its own tilt only the camera turns.
    MassItem frame;
    frame.id = "head";
    frame.name = "Pan-tilt head";
    frame.mass = assumed(1.8, 0.05);
    frame.above = -0.1;
    Axis tilts = tilt();
    tilts.carriesPayload = false;
    std::get<RotaryMechanism>(tilts.mechanism).items = p.payload;
    p.payload.push_back(frame);
    p.axes = {swing, boom, pan(), tilts};
    Shot s = shot("over", "Over the pond", 0.024, 2.5);
    moves(s, p.axes[0], 45.0 * deg, 36.0, 11.0);
    moves(s, p.axes[1], 20.0 * deg, 36.0, 11.0);
    moves(s, p.axes[2], -45.0 * deg, 36.0, 11.0);
    moves(s, p.axes[3], -30.0 * deg, 36.0, 11.0);
    p.shots.push_back(s);
    return p;
}

Project stopMotionStage() {
    Project p = screwSlider();
    p.name = "Stop-motion stage";
    p.axes[0].id = "stage";
    p.axes[0].name = "Stage";
    auto& m = std::get<LinearMechanism>(p.axes[0].mechanism);
    m.railLength = 0.4;
    bedded(m, m.rail.section);
    p.base = plate(0.6, 0.5, 0.75, 20.0);
    ScrewOutput screw;
    screw.lead = assumed(0.002, 0.0);
    screw.starts = 1;
    m.output = screw;
    m.motion.maxSpeed = 0.01;
    m.motion.homingSpeed = 0.004;
    p.shots.clear();
    Shot s = shot("bloom", "Bloom", 0.06, 0.4);
    s.frameRate = 24.0;
    moves(s, p.axes[0], 0.1, 30.0, 1.0);
    p.shots.push_back(s);
    return p;
}

Project subjectTurntable() {
    Project p = project("Subject turntable");
    p.base = plate(0.4, 0.4, 0.15, 6.0);
    Axis a = axis("table", "Turntable", Role::Turntable, small17(), driver(1.0, 2.0));
    a.price = 90.0;
    WormStage worm;
    worm.id = "table-worm";
    a.links.push_back(worm);
    RotaryMechanism m = head(0.05, 2.0 * std::numbers::pi);
    m.pointMass = assumed(2.0, 0.3);
    m.pointRadius = 0.1;
    m.motion.maxSpeed = 30.0 * deg;
    a.mechanism = m;
    p.axes.push_back(a);
    Shot s = shot("turn", "Turn", 0.05, 0.8);
    moves(s, a, 350.0 * deg, 30.0, 1.0);
    p.shots.push_back(s);
    return p;
}

Project multiAxis() {
    Project p = project("Multi-axis rig");
    p.base = plate(0.8, 0.6, 0.9, 8.0);
    Axis focus = axis("focus", "Focus", Role::Focus, small17(), driver(0.8, 2.0));
    RotaryMechanism ring = head(2e-4, 270.0 * deg);
    ring.friction = assumed(0.04, 0.4);
    ring.staticFriction = assumed(0.05, 0.4);
    ring.output = LensRingOutput{};
    focus.mechanism = ring;
    focus.price = 75.0;
    p.axes = {beltSlide(), pan(), tilt(), focus};
    std::get<LinearMechanism>(p.axes[0].mechanism).movingMass = assumed(3.4, 0.1); // the head with it
    Shot s = shot("past", "Past the subject", 0.035, 1.5);
    s.keepFramed = true;
    s.subjectHeight = 0.3;
    moves(s, p.axes[0], 0.7, 15.0, 1.5);
    moves(s, p.axes[3], 20.0 * deg, 15.0, 1.5);
    p.shots.push_back(s);
    return p;
}

Project whatIHave() {
    Project p = project("What I have");
    Axis a;
    a.id = "slide";
    a.name = "Slide";
    a.role = Role::Slide;
    a.carriesPayload = true;
    LinearMechanism m;
    m.movingMass = assumed(1.1);
    onStands(m, section(SectionShape::SlottedProfile, 0.04, 0.04, 0.002, 0.0));
    BeltOutput belt;
    belt.preload = assumed(8.0);
    m.output = belt;
    a.mechanism = m;
    p.axes.push_back(a);
    p.base = plate(0.8, 0.6, 0.9, 5.0);
    return p;
}

} // namespace

std::span<const RigInfo> all() {
    return table;
}

Project make(RigKind kind) {
    switch (kind) {
    case RigKind::BeltSlider:
        return beltSlider();
    case RigKind::ScrewSlider:
        return screwSlider();
    case RigKind::WinchedCart:
        return winchedCart();
    case RigKind::WheelDolly:
        return wheelDolly();
    case RigKind::LiftColumn:
        return liftColumn();
    case RigKind::PanTiltHead:
        return panTiltHead();
    case RigKind::OrbitBoom:
        return orbitBoom();
    case RigKind::JibCrane:
        return jibCrane();
    case RigKind::StopMotionStage:
        return stopMotionStage();
    case RigKind::SubjectTurntable:
        return subjectTurntable();
    case RigKind::MultiAxis:
        return multiAxis();
    case RigKind::WhatIHave:
        return whatIHave();
    case RigKind::Empty:
        break;
    }
    return project("New project");
}

} // namespace gantry::rigs
