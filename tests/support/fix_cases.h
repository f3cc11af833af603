// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "support/fix_case.h"
#include "support/fix_cases_moves.h"
#include "support/fix_cases_plans.h"

/// Rigs on which each family of fixes is wanted, one case a family or more.
namespace fixcases {

/// Cases of parts, shots and rigs.
inline const std::vector<Case> rigCases{
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

inline const std::vector<Case> cases = [] {
    std::vector<Case> out = rigCases;
    out.insert(out.end(), moveCases.begin(), moveCases.end());
    out.insert(out.end(), planCases.begin(), planCases.end());
    return out;
}();

} // namespace fixcases
