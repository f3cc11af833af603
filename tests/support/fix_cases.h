// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/edit_axes.h"
#include "core/model/edit_moves.h"
#include "core/model/fields.h"
#include "support/bare_rigs.h"
#include "support/files.h"

#include <algorithm>
#include <functional>
#include <string>
#include <utility>
#include <vector>

/// Rigs on which each family of fixes is wanted, one case a family or more.
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

/// A move of the first two axes of the demo dolly: from one end to the other, the pan turning with it.
inline void moved(Project& p, double from, double to, double time) {
    p.moves.clear();
    addMove(p);
    const double first[] = {from, 1.2}, last[] = {to, 1.95};
    storePose(p, 0, -1, first);
    storePose(p, 0, 0, last);
    p.moves[0].poses[1].arrive.time = time;
}

/// Two blocks of the pan, of 2 s each, within a slide of 9 s.
inline void panBlocks(Project& p, double first, double second) {
    moved(p, 0.1, 0.7, 9.0);
    for (KeyPose& pose : p.moves[0].poses)
        std::get<AxisPlace<AxisKind::Rotary>>(pose.places[1].place).at = 1.2;
    for (const double start : {first, second}) {
        addBlock(p, 0, 1, start, 9.0);
        p.moves[0].blocks.back().start = start;
        p.moves[0].blocks.back().length = 2.0;
        p.moves[0].blocks.back().byAngle = 0.2;
    }
}

/// A move past a target with an axis on the focus ring that is left where it is, aimed or straight.
inline void focusing(Project& p, bool aimed) {
    moved(p, aimed ? 0.05 : 0.4, aimed ? 0.85 : 0.5, 8.0);
    addAxis(p, Role::Focus);
    auto& rotary = std::get<RotaryMechanism>(p.axes.back().mechanism);
    LensRingOutput ring;
    ring.marks = {{"m", 4.7, 0.45}, {"a", 2.0, 1.0}, {"b", 1.0, 2.0}, {"c", 0.2, 10.0}};
    rotary.output = ring;
    rotary.range = 4.7;
    addTarget(p, 0, 0.0, 1.0, 1.0);
    MoveSegment& s = p.moves[0].poses[1].arrive;
    s.kind = aimed ? SegmentKind::Aimed : SegmentKind::Straight;
    s.target = p.moves[0].targets[0].id;
    s.pullsFocus = false;
}

inline const std::vector<Case> cases{
    // A number that was typed, and people in the way.
    {"belt-slider",
     {},
     [](Project& p) { p.axes[0].told = {"steps/mm = 100"}; },
     "steps_set",
     "slide",
     "set 80 steps per mm"},
    // A pull that the drive has not enough torque for, mended at the motor, the shot, the gearing, the
    // supply.
    {"slide-and-pan", {{"axes/slide/driver/run_current_rms_A", 0.12}}, {}, "torque", "slide", "run current"},
    {"belt-slider", {{"shots/reveal/moves/slide/movement/time_s", 30}}, onAKnob, "torque", "slide", "knob"},
    {"belt-slider", {}, driven(0.4, 0.2, 8.0), "torque", "slide", "mm/s²"},
    {"slide-and-pan",
     {{"axes/slide/mechanism/output/tensile_stiffness_N", 3000},
      {"axes/slide/mechanism/output/pulley_inertia_kgm2", 0.0005}},
     {},
     "torque",
     "slide",
     "mm/s"},
    {"belt-slider", {{"axes/slide/mechanism/cable_drag_N", 25}}, {}, "torque", "slide", "pulley with"},
    {"jib-crane", {{"axes/swing/driver/run_current_rms_A", 0.06}}, {}, "torque", "swing", "belt reduction"},
    {"winched-cart",
     {{"shots/climb/moves/cart/movement/time_s", 12},
      {"axes/cart/mechanism/cable_drag_N", 10},
      {"axes/cart/driver/max_voltage_V", 40}},
     {},
     "torque",
     "cart",
     "supply of"},
    // Moves.
    {"slide-and-pan",
     {},
     [](Project& p) { moved(p, 0.05, 0.85, 2.0); },
     "move_limits",
     "slide",
     "A to B” in"},
    {"slide-and-pan",
     {},
     [](Project& p) { moved(p, 0.05, 0.85, 2.0); },
     "move_limits",
     "slide",
     "as fast as"},
    {"slide-and-pan",
     {},
     [](Project& p) {
         moved(p, 0.05, 0.85, 6.0);
         p.moves[0].poses[1].arrive.easeIn = p.moves[0].poses[1].arrive.easeOut = 0.02;
     },
     "move_limits",
     "slide",
     "with ease of"},
    {"slide-and-pan",
     {{"axes/slide/mechanism/motion/max_speed_m_s", 0.1}},
     [](Project& p) { moved(p, 0.05, 0.85, 8.0); },
     "move_limits",
     "slide",
     "top speed"},
    {"slide-and-pan",
     {},
     [](Project& p) { moved(p, 0.05, 1.2, 20.0); },
     "move_travel",
     "slide",
     "within the travel"},
    {"slide-and-pan",
     {},
     [](Project& p) {
         // Through a pose right at the soft limit, which a smooth way swings past.
         moved(p, 0.1, 0.935, 4.0);
         const double back[] = {0.5, 1.0};
         storePose(p, 0, 1, back);
         p.moves[0].poses[1].passes = p.moves[0].overshoots = true;
         p.moves[0].poses[2].arrive.time = 9.0;
     },
     "move_travel",
     "slide",
     "stop at every pose"},
    {"slide-and-pan",
     {},
     [](Project& p) {
         moved(p, 0.05, 0.9, 20.0);
         // Both poses show it near the middle, and between them the pan turns evenly where it should not.
         addTarget(p, 0, 0.0, 0.9, 1.0);
         p.shots[0].limits.framing = 1e-3;
     },
     "move_framing",
     "slide",
     "aimed"},
    // Moves, along the way.
    {"slide-and-pan", {}, [](Project& p) { moved(p, 0.05, 0.85, 1.0); }, "move_torque", "slide", "in all"},
    {"slide-and-pan", {}, [](Project& p) { moved(p, 0.05, 0.85, 1.0); }, "move_torque", "slide", "motor “"},
    {"slide-and-pan",
     {{"axes/slide/driver/run_current_rms_A", 0.3}},
     [](Project& p) { moved(p, 0.05, 0.85, 4.0); },
     "move_torque",
     "slide",
     "run current"},
    {"slide-and-pan",
     {{"axes/slide/driver/microsteps", 64}},
     [](Project& p) { moved(p, 0.05, 0.85, 4.0); },
     "move_pulses",
     "slide",
     "microsteps"},
    {"slide-and-pan",
     {{"axes/slide/driver/microsteps", 64}},
     [](Project& p) { moved(p, 0.05, 0.85, 4.0); },
     "move_pulses",
     "slide",
     "in all"},
    {"slide-and-pan",
     {{"axes/slide/driver/microsteps", 64}},
     [](Project& p) { moved(p, 0.05, 0.85, 4.0); },
     "move_pulses",
     "slide",
     "controller"},
    {"slide-and-pan",
     {},
     [](Project& p) { moved(p, 0.05, 0.09, 20.0); },
     "move_resonance",
     "slide",
     "in 10 s in all"},
    {"slide-and-pan",
     {},
     [](Project& p) { moved(p, 0.05, 0.09, 20.0); },
     "move_resonance",
     "slide",
     "in 30 s in all"},
    {"slide-and-pan",
     {{"base/length_m", 0.4}, {"base/width_m", 0.4}, {"base/mass_kg", 3}},
     [](Project& p) { moved(p, 0.05, 0.85, 1.0); },
     "move_tipping",
     "slide",
     "in all"},
    {"slide-and-pan",
     {{"base/length_m", 0.4}, {"base/width_m", 0.4}, {"base/mass_kg", 3}},
     [](Project& p) { moved(p, 0.05, 0.85, 1.0); },
     "move_tipping",
     "slide",
     "column"},
    {"slide-and-pan",
     {},
     [](Project& p) {
         moved(p, 0.05, 0.85, 1.5);
         addTarget(p, 0, 0.0, 1.0, 1.0);
     },
     "move_judder",
     "slide",
     "in all"},
    {"slide-and-pan",
     {},
     [](Project& p) {
         moved(p, 0.05, 0.85, 3.0);
         addTarget(p, 0, 0.0, 1.5, 1.0);
         std::get<AxisPlace<AxisKind::Rotary>>(p.moves[0].poses[1].places[1].place).at = 1.2;
     },
     "move_judder",
     "slide",
     "aimed"},
    {"slide-and-pan",
     {},
     [](Project& p) {
         // The pan as a tilt; the far end of the rail just comes in at the lower edge.
         p.axes[1].role = Role::Tilt;
         std::get<RotaryMechanism>(p.axes[1].mechanism).lowAngle = -1.2;
         moved(p, 0.1, 0.2, 6.0);
         for (KeyPose& pose : p.moves[0].poses)
             std::get<AxisPlace<AxisKind::Rotary>>(pose.places[1].place).at = 1.57;
         p.shots.resize(1);
         p.shots[0].moves.clear();
         p.shots[0].focalLength = 0.024;
     },
     "move_own_parts",
     "slide",
     "a lens of"},
    {"slide-and-pan", {}, [](Project& p) { focusing(p, true); }, "move_focus", "slide", "focus pulled"},
    {"slide-and-pan",
     {},
     [](Project& p) { focusing(p, false); },
     "move_focus",
     "slide",
     "focus on the target"},
    {"slide-and-pan",
     {},
     [](Project& p) { moved(p, 0.005, 0.5, 10.0); },
     "move_approach",
     "slide",
     "farther from the soft limit"},
    {"kettle-jib",
     {},
     [](Project& p) {
         // The arm up, and the head panned away from it.
         p.moves.clear();
         addMove(p);
         std::vector<double> places;
         for (Axis& a : p.axes) {
             if (auto* r = std::get_if<RotaryMechanism>(&a.mechanism)) r->boom.arm = ArmKind::Plain;
             places.push_back((a.role == Role::BoomTilt ? 0.8 : 0.5) * usableTravel(a));
         }
         storePose(p, 0, -1, places);
         for (std::size_t a = 0; a < p.axes.size(); ++a)
             if (p.axes[a].role == Role::Pan) places[a] += 0.5;
         storePose(p, 0, 0, places);
         p.moves[0].poses[1].arrive.time = 20.0;
     },
     "move_horizon",
     "swing",
     "parallel links"},
    {"slide-and-pan",
     {},
     [](Project& p) {
         moved(p, 0.05, 0.85, 4.0);
         p.axes[0].onStop = OnStop::CutsCurrent;
         linear(p).runningFriction.value = linear(p).staticFriction.value = 0.2;
         linear(p).cableDrag.value = linear(p).slope.value = 0.0;
     },
     "move_run_on",
     "slide",
     "holding"},
    {"slide-and-pan",
     {},
     [](Project& p) {
         moved(p, 0.1, 0.7, 9.0);
         linear(p).motion.speeds = {{"1", 0.05}, {"2", 0.11}};
     },
     "move_choices",
     "slide",
     "in 7.27 s"},
    {"slide-and-pan",
     {},
     [](Project& p) {
         moved(p, 0.01, 0.03, 8.0);
         storePose(p, 0, 1, std::vector{0.5, 1.0});
         p.moves[0].poses[1].passes = p.moves[0].overshoots = true;
         p.moves[0].poses[2].arrive.time = 4.0;
     },
     "move_travel",
     "slide",
     "without going past its poses"},
    {"slide-and-pan",
     {},
     [](Project& p) {
         moved(p, 0.1, 0.7, 9.0);
         linear(p).motion.speeds = {{"1", 0.05}};
         p.moves[0].poses[1].arrive.even = EvenSpeed::Lens;
     },
     "move_plan",
     "slide",
     "straight, from stop to stop"},
    {"slide-and-pan",
     {},
     [](Project& p) {
         moved(p, 0.1, 0.7, 9.0);
         p.moves[0].poses[1].arrive.even = EvenSpeed::Picture;
     },
     "move_plan",
     "slide",
     "even speed of the axes"},
    {"slide-and-pan",
     {},
     [](Project& p) {
         moved(p, 0.1, 0.7, 9.0);
         p.moves[0].poses[1].arrive.easeIn = 0.8;
         p.moves[0].poses[1].arrive.easeOut = 0.4;
     },
     "move_plan",
     "slide",
     "ease of 50 %"},
    {"slide-and-pan",
     {},
     [](Project& p) { panBlocks(p, 1.0, 2.5); },
     "move_plan",
     "pan",
     "block of “Pan” at 3 s"},
    {"slide-and-pan",
     {},
     [](Project& p) { panBlocks(p, 1.0, 8.5); },
     "move_plan",
     "pan",
     "block of “Pan” at 7 s"},
    // What falls or creeps.
    {"slide-and-pan", {}, {}, "power_off", "slide", "brake of"},
    {"here-is-what-i-have",
     {{"axes/slide/mechanism/slope_rad", 0.79}},
     {},
     "emergency_stop",
     "slide",
     "brake of"},
    {"slide-and-pan",
     {},
     [](Project& p) { p.axes[0].onStop = OnStop::CutsCurrent; },
     "emergency_stop",
     "slide",
     "keeps the holding"},
    // A stiff pivot keeps an arm that is balanced, and not one that is not.
    {"jib-crane",
     {{"axes/boom/mechanism/boom/counterweight/mass_kg", 9},
      {"axes/boom/mechanism/friction_Nm", 5},
      {"axes/boom/mechanism/static_friction_Nm", 6}},
     [](Project& p) {
         p = rigs::make(rigs::RigKind::JibCrane);
         p.axes[1].brake.fitted = false;
         p.axes[1].links = p.axes[0].links;
     },
     "power_off",
     "boom",
     "counterweight"},
    {"jib-crane", {{"axes/swing/mechanism/unbalance_Nm", 16}}, {}, "standstill", "swing", "hold current"},
    {"jib-crane",
     {{"axes/swing/mechanism/unbalance_Nm", 1}, {"axes/swing/driver/hold_current_rms_A", 0.06}},
     {},
     "standstill",
     "swing",
     "belt reduction"},
    {"slide-and-pan",
     {{"axes/slide/mechanism/moving_mass_kg", 12}},
     {},
     "standstill",
     "slide",
     "pulley with"},
    // Heat.
    {"lift-column", {{"conditions/ambient_C", 35}}, {}, "case_temperature", "lift", "run current"},
    {"belt-slider",
     {{"conditions/ambient_C", 30}},
     [](Project& p) {
         std::visit([](auto& m) { m.body.mount = MountMaterial::PrintedPla; }, p.axes[0].motor);
     },
     "case_temperature",
     "slide",
     "metal"},
    {"moss-orbit", {{"axes/orbit/motor/rated_torque_Nm", 0.075}}, {}, "duty", "orbit", "belt reduction"},
    {"moss-orbit", {{"shots/orbit/moves/orbit/movement/distance_rad", 26}}, {}, "duty", "orbit", "” in "},
    {"belt-slider",
     {{"axes/slide/mechanism/running_friction_N", 1}, {"axes/slide/mechanism/static_friction_N", 1}},
     [](Project& p) {
         driven(0.3, 0.5, 4.0)(p);
         DcServo motor;
         motor.figures.ratedTorque.value = 0.12;
         p.axes[0].motor = motor;
     },
     "duty",
     "slide",
     "mm/s²"},
    // Pulses, steps, speeds.
    {"slide-and-pan", {{"axes/slide/mechanism/output/doubled", 1}}, {}, "pulse_rate", "slide", "pulley with"},
    {"screw-slider", {{"controller/pulse_ceiling_hz", 4000}}, {}, "pulse_rate", "slide", "microsteps"},
    {"screw-slider", {{"controller/pulse_ceiling_hz", 4000}}, {}, "pulse_rate", "slide", "controller with"},
    {"screw-slider", {{"controller/pulse_ceiling_hz", 4000}}, {}, "pulse_rate", "slide", "” in "},
    {"moss-orbit",
     {{"shots/orbit/moves/orbit/movement/distance_rad", 26}},
     {},
     "motor_speed",
     "orbit",
     "” in "},
    {"moss-orbit",
     {{"axes/orbit/motor/nominal_voltage_V", 36}, {"axes/orbit/motor/no_load_current_A", 1}},
     {},
     "motor_speed",
     "orbit",
     "supply of"},
    {"belt-slider",
     {{"shots/reveal/moves/slide/movement/time_s", 30}},
     onAKnob,
     "motor_speed",
     "slide",
     "knob"},
    {"stop-motion-stage", {{"axes/stage/mechanism/rail_length_m", 4}}, {}, "whirl", "stage", "” in "},
    {"slide-and-pan",
     {{"shots/creep/moves/slide/movement/speed_m_s", 0.0031}},
     {},
     "resonance",
     "slide",
     "mm/s"},
    {"winched-cart", {{"axes/cart/mechanism/output/drum_width_m", 0.02}}, {}, "layers", "cart", "drum"},
    {"winched-cart", {{"axes/cart/mechanism/output/drum_width_m", 0.02}}, {}, "layers", "cart", "both ways"},
    {"winched-cart",
     {{"axes/cart/mechanism/output/drum_width_m", 0.02},
      {"axes/cart/mechanism/output/flange_diameter_m", 0.05}},
     {},
     "drum_room",
     "cart",
     "drum"},
    {"winched-cart",
     {{"axes/cart/links/cart-belt/preload_N", 4}},
     {},
     "belt_preload",
     "cart",
     "belt tension"},
    {"belt-slider",
     {{"shots/reveal/moves/slide/movement/time_s", 6}},
     [](Project& p) { p.controller.ramps = RampKind::None; },
     "start",
     "slide",
     "ramps"},
    {"belt-slider", {{"supply/rated_current_A", 0.1}}, {}, "supply", "slide", "supply rated"},
    {"kettle-jib", {{"axes/boom/driver/microsteps", 6}}, {}, "stepping", "boom", "microsteps"},
    {"jib-crane", {}, {}, "stepping", "swing", "belt reduction"},
    {"jib-crane", {}, {}, "stepping", "swing", "” in "},
    {"kettle-jib", {{"axes/boom/driver/microsteps", 6}}, {}, "jitter", "boom", "microsteps"},
    {"jib-crane", {}, {}, "jitter", "swing", "belt reduction"},
    {"jib-crane", {}, {}, "jitter", "swing", "” in "},
    {"wheel-dolly",
     {{"controller/decimals_kept", 2}, {"axes/dolly/motor/rotor_teeth", 10}},
     {},
     "rounding",
     "dolly",
     "microsteps"},
    {"wheel-dolly",
     {{"controller/decimals_kept", 2}, {"axes/dolly/motor/rotor_teeth", 10}},
     {},
     "rounding",
     "dolly",
     "decimals"},
    // What is exchanged or made stronger.
    {"belt-slider",
     {},
     [](Project& p) {
         Guide& g = linear(p).guide;
         g.kind = GuideKind::PlainRods;
         g.friction.value = 0.2;
         g.pushOffset = 0.5;
     },
     "binding",
     "slide",
     "through the middle"},
    {"belt-slider",
     {},
     [](Project& p) {
         onAKnob(p);
         auto& motor = std::get<GearedDc>(p.axes[0].motor);
         motor.control = SpeedControl::LinearRegulator;
         motor.appliedVoltage = 4.0;
         motor.regulatorResistance.value = 70.0;
     },
     "regulator_heat",
     "slide",
     "switching converter"},
    {"winched-cart",
     {},
     [](Project& p) { std::get<WinchOutput>(linear(p).output).breakingLoad.value = 60.0; },
     "cord_strength",
     "cart",
     "cord that breaks"},
    {"belt-slider",
     {},
     [](Project& p) {
         GearStage weak;
         weak.id = "weak";
         weak.module = 5e-4;
         weak.faceWidth = 2e-3;
         weak.material = GearMaterial::PrintedPla;
         p.axes[0].links = {weak};
     },
     "tooth_strength",
     "slide",
     "gears of steel"},
    {"belt-slider",
     {},
     [](Project& p) {
         BeltStage small;
         small.id = "small";
         small.motorTeeth = 12;
         small.loadTeeth = 60;
         p.axes[0].links = {small};
     },
     "belt_mesh",
     "slide",
     "pulleys with"},
    {"belt-slider",
     {},
     [](Project& p) {
         Axis pan = rigOf("pan-tilt-head").axes[0];
         pan.id = "head";
         MassItem camera;
         camera.id = "camera";
         camera.mass.value = 6.0;
         camera.along = 0.02;
         std::get<RotaryMechanism>(pan.mechanism).items.push_back(camera);
         p.axes.push_back(pan);
     },
     "moving_mass",
     "slide",
     "moving mass"},
    {"belt-slider",
     {},
     [](Project& p) {
         p.shots.resize(1);
         p.shots[0].moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{0.3, 0.1, 0.5, true, 5.0}}};
     },
     "travel",
     "slide",
     "begins at"},
    {"belt-slider", {}, driven(2.0, 0.1, 0.5), "travel", "slide", "“Reveal” over"},
    {"kettle-jib",
     {},
     [](Project& p) {
         for (Axis& a : p.axes)
             if (a.role == Role::BoomTilt)
                 std::get<RotaryMechanism>(a.mechanism).boom.pivot.bearingRating.value = 300.0;
     },
     "pivot",
     "boom",
     "pivot bearings rated"},
    {"jib-crane",
     {},
     [](Project& p) {
         for (Axis& a : p.axes)
             if (a.role == Role::BoomTilt) {
                 Section& s = std::get<RotaryMechanism>(a.mechanism).boom.section;
                 s.shape = SectionShape::SolidRectangle;
                 s.width = 0.06;
                 s.height = 0.008;
             }
     },
     "beam_strength",
     "boom",
     "screwed upright"},
    // The shot and its picture.
    {"slide-and-pan", {}, {}, "drift", "pan", "with ramps of"},
    {"slide-and-pan", {}, {}, "judder", "slide", "mm/s"},
    {"slide-and-pan", {}, {}, "judder", "slide", "subject at"},
    {"slide-and-pan", {}, {}, "vibration", "slide", "mm/s²"},
    {"slide-and-pan", {}, {}, "vibration", "slide", "mm/s³"},
    {"slide-and-pan", {{"axes/slide/mechanism/rail_length_m", 1.05}}, {}, "stopping", "slide", "at 240 mm/s"},
    {"kettle-jib",
     {{"axes/swing/motor/mass_kg", 0.35}, {"shots/over/moves/swing/movement/ease_out_s", 3.3}},
     {},
     "ease",
     "swing",
     "with ramps of"},
    {"winched-cart",
     {{"axes/cart/mechanism/motion/max_speed_m_s", 0.04}},
     {},
     "settings",
     "cart",
     "speed setting"},
    {"winched-cart", {{"shots/climb/moves/cart/movement/time_s", 12}}, {}, "settings", "cart", "” in "},
    {"slide-and-pan", {{"shots/rise/limits/repeat_px", 0.3}}, {}, "repeat", "slide", "hold current"},
    {"slide-and-pan", {}, {}, "vibration", "slide", "at 200 mm/s"},
    {"belt-slider",
     {{"controller/decimals_kept", 0}, {"axes/slide/mechanism/output/teeth", 18}},
     {},
     "rounding",
     "slide",
     "pulley with 16 teeth"}, // 3200 steps on 32 mm are 100 a millimetre
    {"belt-slider",
     {},
     [](Project& p) {
         driven(0.4, 0.024, 0.5)(p);
         p.conditions.silence = Silence::Quiet;
     },
     "noise",
     "slide",
     "mm/s"}, // below a hundred full steps a second it is soft enough
    // Parts and structure.
    {"orbit-boom", {{"axes/orbit/mechanism/unbalance_Nm", 14}}, {}, "tooth_strength", "orbit", "wide"},
    {"kettle-jib", {{"axes/boom/mechanism/boom/reach_m", 1.97}}, {}, "sag", "boom", "section"},
    {"kettle-jib",
     {{"axes/boom/mechanism/boom/section/wall_m", 0.0002}},
     {},
     "beam_strength",
     "boom",
     "section"},
    {"kettle-jib", {{"axes/boom/mechanism/boom/rear_m", 1.6}}, {}, "balance", "boom", "behind"},
    {"moss-orbit", {{"base/tethered", 0}}, {}, "tether", "orbit", "tether"},
    {"belt-slider",
     {{"axes/slide/mechanism/static_friction_N", 2}, {"axes/slide/mechanism/running_friction_N", 2}},
     driven(0.4, 0.3, 4.0),
     "tooth_strength",
     "slide",
     "mm/s²"},
    {"wheel-dolly",
     {{"axes/dolly/mechanism/static_friction_N", 3}, {"axes/dolly/mechanism/running_friction_N", 3}},
     driven(0.6, 0.3, 1.2),
     "grip",
     "dolly",
     "mm/s²"},
    {"belt-slider",
     {},
     [](Project& p) {
         driven(0.4, 0.1, 0.5)(p);
         p.conditions.silence = Silence::Quiet;
         p.conditions.microphoneDistance = 3.5;
         p.axes[0].driver.microsteps = 2;
     },
     "noise",
     "slide",
     "microsteps"},
    {"belt-slider",
     {},
     [](Project& p) {
         linear(p).rail.section.shape = SectionShape::SlottedProfile;
         linear(p).rail.firstStand = 0.45;
         linear(p).rail.secondStand = 0.55;
     },
     "rail_tipping",
     "slide",
     "stands at 112 mm"}, // half of what is left to the end, and half again
    {"belt-slider",
     {{"axes/slide/mechanism/rail/clamp_bolts", 1},
      {"axes/slide/mechanism/rail/clamp_spacing_m", 0.02},
      {"axes/slide/mechanism/rail/clamp_bolt_limit_N", 20}},
     [](Project& p) {
         linear(p).rail.section.shape = SectionShape::SlottedProfile;
         linear(p).rail.firstStand = 0.3;
         linear(p).rail.secondStand = 0.7;
     },
     "rail_clamps",
     "slide",
     "bolts"},
    {"belt-slider",
     {{"axes/slide/mechanism/rail/clamp_bolts", 2},
      {"axes/slide/mechanism/rail/clamp_spacing_m", 0.05},
      {"axes/slide/mechanism/rail/clamp_bolt_limit_N", 30}},
     [](Project& p) {
         linear(p).rail.section.shape = SectionShape::SlottedProfile;
         linear(p).rail.firstStand = 0.4;
         linear(p).rail.secondStand = 0.6;
     },
     "rail_clamps",
     "slide",
     "stands at"},
    {"kettle-jib",
     {{"axes/boom/mechanism/boom/pivot/pin_diameter_m", 0.003}},
     {},
     "pivot",
     "boom",
     "pivot pin"},
    {"belt-slider",
     {},
     [](Project& p) {
         driven(0.6, 0.4, 0.5)(p);
         ServoMotor servo;
         servo.loop.followingLimit = 0.1;
         p.axes[0].motor = servo;
     },
     "following",
     "slide",
     "mm/s"},
};

/// The rig of a case, made as it says.
inline Project projectOf(const Case& c) {
    Project p = rigOf(c.rig);
    if (c.change) c.change(p);
    for (const auto& [path, value] : c.values)
        if (!setNumberAt(p, path, value)) qFatal("no field %s", path.c_str());
    return p;
}

} // namespace fixcases
