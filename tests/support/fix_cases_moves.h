// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/edit_moves.h"
#include "support/fix_case.h"

namespace fixcases {

/// A move of the first two axes of the demo dolly: from one end to the other, the pan turning with it. What
/// the picture shows of its drives has cases of its own.
inline void moved(Project& p, double from, double to, double time) {
    p.moves.clear();
    for (Shot& s : p.shots) s.limits.jitter = s.limits.drift = 50.0;
    addMove(p);
    const double first[] = {from, 1.2}, last[] = {to, 1.95};
    storePose(p, 0, -1, first);
    storePose(p, 0, 0, last);
    p.moves[0].poses[1].arrive.time = time;
}

/// The slide alone, looking across the rail, with what the picture allows as entered.
inline void seen(Project& p, double from, double to, double time, int microsteps) {
    const std::vector<Shot> shots = p.shots;
    moved(p, from, to, time);
    for (std::size_t i = 0; i < shots.size(); ++i) p.shots[i].limits = shots[i].limits;
    for (KeyPose& pose : p.moves[0].poses)
        std::get<AxisPlace<AxisKind::Rotary>>(pose.places[1].place).at = 1.57;
    p.axes[0].driver.microsteps = microsteps;
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

/// Cases of moves.
inline const std::vector<Case> moveCases{
    // Steps, play and springs in the picture.
    {"slide-and-pan",
     {},
     [](Project& p) { seen(p, 0.3, 0.305, 20.0, 2); },
     "move_stepping",
     "slide",
     "microsteps"},
    {"slide-and-pan",
     {},
     [](Project& p) { seen(p, 0.3, 0.305, 20.0, 2); },
     "move_stepping",
     "slide",
     "in all"},
    {"slide-and-pan",
     {{"axes/slide/mechanism/output/tensile_stiffness_N", 3000}},
     [](Project& p) { seen(p, 0.05, 0.85, 2.6, 16); },
     "move_drift",
     "slide",
     "in all"},
    {"slide-and-pan",
     {},
     [](Project& p) {
         seen(p, 0.05, 0.85, 2.6, 16);
         for (Shot& s : p.shots) s.limits.drift = 0.05;
     },
     "move_drift",
     "slide",
     "steel cords"},
    {"slide-and-pan",
     {},
     [](Project& p) {
         seen(p, 0.3, 0.32, 40.0, 64);
         linear(p).staticFriction.value = 12.0;
     },
     "move_jitter",
     "slide",
     "ball bearings"},
    {"slide-and-pan",
     {},
     [](Project& p) {
         seen(p, 0.05, 0.85, 3.0, 64);
         linear(p).runningFriction.value = linear(p).staticFriction.value = 0.3;
         linear(p).slope.value = 0.0;
         for (Shot& s : p.shots) s.limits.jitter = 0.1;
     },
     "move_jitter",
     "slide",
     "in all"},
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
};

} // namespace fixcases
