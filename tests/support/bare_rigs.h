// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/rigs/rigs.h"
#include "support/bare_rigs.h"

#include <numbers>

/// Rigs of which nothing is known but their drives: no rail, arm, base or payload, so that what is computed
/// by hand of a drive stays as short as it is. Their figures are the tests' own, whatever the rigs to start
/// from become.
namespace bare {

inline void listArm(gantry::RotaryMechanism& m, double reach, double camera, double weight, double weightAt) {
    const auto item = [&](const char* id, double mass, double along) {
        gantry::MassItem i;
        i.id = id;
        i.mass = gantry::assumed(mass, 0.05);
        i.along = along;
        m.items.push_back(i);
    };
    item("camera", camera, reach);
    item("beam", 1.2, (reach + weightAt) / 2.0);
    item("counterweight", weight, weightAt);
}

inline void strip(gantry::Axis& axis, double payload) {
    using namespace gantry;
    if (auto* linear = std::get_if<LinearMechanism>(&axis.mechanism)) {
        if (axis.carriesPayload) linear->movingMass.value += payload;
        linear->rail = Rail();
    } else {
        auto& rotary = std::get<RotaryMechanism>(axis.mechanism);
        rotary.items.clear();
        rotary.boom = Boom();
        if (axis.role == Role::Pan || axis.role == Role::Tilt || axis.role == Role::Turntable)
            rotary.staticFriction = assumed(0.055, 0.1);
        if (axis.role == Role::Tilt) {
            MassItem camera;
            camera.id = "camera";
            camera.mass = assumed(1.6, 0.1);
            camera.along = 0.002;
            rotary.items.push_back(camera);
        }
    }
    axis.carriesPayload = false;
    axis.price = 0.0;
}

inline void stage(gantry::Axis& axis, int motorTeeth, int loadTeeth, double preload) {
    auto& s = std::get<gantry::BeltStage>(axis.links.at(0));
    s.motorTeeth = motorTeeth;
    s.loadTeeth = loadTeeth;
    s.preload = gantry::assumed(preload, 0.4);
    s.figures.stiffness =
        gantry::assumed(2.0 * 14e3 / 0.15 * std::pow(loadTeeth * 0.002 / (2.0 * std::numbers::pi), 2), 0.5);
}

} // namespace bare

inline gantry::Project bareRig(gantry::rigs::RigKind kind) {
    using namespace gantry;
    using rigs::RigKind;
    Project p = rigs::make(kind);
    double payload = 0.0;
    for (const MassItem& item : p.payload) payload += item.mass.value;
    p.payload.clear();
    p.base = Base();
    p.head = Head();
    for (Axis& axis : p.axes) bare::strip(axis, payload);
    const auto current = [&](double run) {
        p.axes[0].driver.runCurrent = run;
        p.axes[0].driver.holdCurrent = 0.6 * run;
    };
    if (kind == RigKind::WinchedCart) {
        current(1.6);
        bare::stage(p.axes[0], 20, 60, 16.0);
        std::get<LinearMechanism>(p.axes[0].mechanism).staticFriction = assumed(6.0, 0.4);
    }
    if (kind == RigKind::WheelDolly) bare::stage(p.axes[0], 20, 80, 14.0);
    if (kind == RigKind::LiftColumn) current(1.6);
    if (kind == RigKind::OrbitBoom)
        bare::listArm(std::get<RotaryMechanism>(p.axes[0].mechanism), 0.9, 2.0, 4.0, -0.4);
    if (kind == RigKind::JibCrane) {
        for (std::size_t arm : {0u, 1u})
            bare::listArm(std::get<RotaryMechanism>(p.axes[arm].mechanism), 1.8, 2.5, 7.6, -0.6);
        p.axes[0].driver.microsteps = 16;
        for (ShotMove& m : p.shots[0].moves)
            if (m.axis == "tilt")
                std::get<ByTime<AxisKind::Rotary>>(m.movement).distance = -20.0 * std::numbers::pi / 180.0;
    }
    if (kind == RigKind::MultiAxis)
        std::get<LinearMechanism>(p.axes[0].mechanism).movingMass = assumed(3.5, 0.1);
    if (kind == RigKind::WhatIHave) p.axes[0].mechanism = LinearMechanism();
    return p;
}
