// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluate.h"
#include "support/bare_rigs.h"
#include "support/hand_rigs.h"
#include "support/near.h"

#include <QTest>
#include <cmath>
#include <map>
#include <string>

/// What tests need that work figures on paper: exact inputs, a comparison key by key, and a slide.
namespace paper {

using namespace gantry;
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

inline Estimate exact(double value) {
    Estimate e = estimate(value, Source::Measured);
    e.tolerance = 0.0;
    return e;
}

inline Stepper stepper() {
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

/// A carriage of 4 kg up 10° on a 2 mm belt of 20 teeth behind a 20:40 belt stage.
inline Project slide() {
    Project p = bareRig(rigs::RigKind::BeltSlider);
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

} // namespace paper
