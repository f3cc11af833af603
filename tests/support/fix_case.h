// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/edit_axes.h"
#include "core/model/fields.h"
#include "support/bare_rigs.h"
#include "support/files.h"

#include <QtGlobal>
#include <algorithm>
#include <functional>
#include <string>
#include <utility>
#include <vector>

/// What a case of a family of fixes is made of.
namespace fixcases {

using namespace gantry;

using Values = std::vector<std::pair<std::string, double>>;

/// One family of fixes, on a rig where it is wanted. Rigs are demos or rigs to start from, with a few fields
/// put to where a builder could have them.
struct Case {
    const char* rig;
    Values values;
    std::function<void(Project&)> change; ///< what no field alone can say
    const char* rule;
    const char* axis;
    const char* offered; ///< words that only this family's fix has
};

inline Project rigOf(const char* name) {
    for (const rigs::RigInfo& info : rigs::all())
        if (info.key == name) return bareRig(info.kind);
    return demoProject(name);
}

inline LinearMechanism& linear(Project& p, std::size_t axis = 0) {
    return std::get<LinearMechanism>(p.axes[axis].mechanism);
}

/// A slide driven by a small geared motor on a knob.
inline void onAKnob(Project& p) {
    GearedDc motor;
    motor.control = SpeedControl::Knob;
    motor.knob = 0.5;
    p.axes[0].motor = motor;
    p.axes[0].driver.maxCurrent = 10.0;
    linear(p).motion.maxSpeed = 1.0;
    p.shots.resize(1);
    p.shots[0].keepFramed = false;
}

/// One live shot of the first axis by speed and acceleration.
inline std::function<void(Project&)> driven(double distance, double speed, double acceleration) {
    return [=](Project& p) {
        p.shots.resize(1);
        p.shots[0].keepFramed = false;
        p.shots[0].kind = ShotKind::Live;
        p.controller.ramps = RampKind::Trapezoid;
        if (kindOf(p.axes[0]) == AxisKind::Linear) {
            auto& motion = linear(p).motion;
            motion.maxSpeed = std::max(motion.maxSpeed, 2.0 * speed);
            motion.maxAcceleration = std::max(motion.maxAcceleration, 2.0 * acceleration);
            p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{distance, speed, acceleration}}};
        } else {
            auto& motion = std::get<RotaryMechanism>(p.axes[0].mechanism).motion;
            motion.maxSpeed = std::max(motion.maxSpeed, 2.0 * speed);
            motion.maxAcceleration = std::max(motion.maxAcceleration, 2.0 * acceleration);
            p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Rotary>{distance, speed, acceleration}}};
        }
    };
}

/// The rig of a case, made as it says.
inline Project projectOf(const Case& c) {
    Project p = rigOf(c.rig);
    if (c.change) c.change(p);
    for (const auto& [path, value] : c.values)
        if (!setNumberAt(p, path, value)) qFatal("no field %s", path.c_str());
    return p;
}

} // namespace fixcases
