// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/edit_plans.h"
#include "support/fix_case.h"

/// Cases of interval plans.
namespace fixcases {

/// A slider with one plan of 200 pictures over a way [m] of its slide, and nothing else to complain of.
inline std::function<void(Project&)> run(double way, std::function<void(Project&, IntervalPlan&)> change) {
    return [=](Project& p) {
        driven(way, 0.1, 0.5)(p);
        p.shots[0].limits.jitter = 0.5;
        p.plans.clear();
        addPlan(p);
        IntervalPlan& plan = p.plans[0];
        plan.move.clear();
        plan.pictures = 200;
        plan.cameras[0].card = 0.0;
        change(p, plan);
    };
}

/// Somebody is there from the start for so long [s], and the way is laid out for another time; 0: the run.
inline std::function<void(Project&, IntervalPlan&)> seenFor(double time, double active) {
    return [=](Project&, IntervalPlan& plan) {
        PlanSensor sensor;
        sensor.id = "door";
        sensor.warmUp = 0.0;
        sensor.seenEvery = 6.0;
        plan.sensors = {sensor};
        plan.pauses = {PlanPause{"out", time, 1e5}};
        plan.activeTime = active;
    };
}

inline const std::vector<Case> planCases{
    {"belt-slider",
     {},
     run(0.3,
         [](Project&, IntervalPlan& plan) {
             plan.follows = FollowingFact::Interval;
             plan.duration = 0.1;
         }),
     "plan_run",
     "slide",
     "as it follows"},
    {"belt-slider",
     {},
     run(0.3,
         [](Project&, IntervalPlan& plan) {
             plan.hours.kept = true;
             plan.gaps = GapsGo::Linear;
         }),
     "plan_run",
     "slide",
     "even"},
    {"belt-slider",
     {},
     run(0.3,
         [](Project&, IntervalPlan& plan) {
             plan.interval = 2.0;
             plan.exposure = 3.0;
         }),
     "plan_room",
     "slide",
     "every"},
    {"belt-slider",
     {},
     run(0.3,
         [](Project&, IntervalPlan& plan) {
             plan.interval = 4.0;
             plan.cameras[0].focus = 3.0;
         }),
     "plan_room",
     "slide",
     "by hand"},
    {"belt-slider",
     {},
     run(0.3,
         [](Project&, IntervalPlan& plan) {
             plan.interval = 4.0;
             plan.settleBy = SettleBy::Entered;
             plan.settle = 1.0;
             plan.cameras[0].write = 3.0;
             plan.writesWhileMoving = false;
         }),
     "plan_room",
     "slide",
     "while it moves"},
    {"belt-slider",
     {},
     run(0.6,
         [](Project& p, IntervalPlan& plan) {
             linear(p).motion.maxSpeed = 0.004;
             plan.interval = 1.25;
             plan.exposure = 0.2;
             plan.settleBy = SettleBy::Entered;
             plan.settle = 0.1;
             plan.spare = 0.0;
         }),
     "plan_room",
     "slide",
     "even steps"},
    {"belt-slider",
     {},
     run(0.6,
         [](Project& p, IntervalPlan& plan) {
             linear(p).motion.maxSpeed = 0.004;
             plan.steps = StepsGo::Even;
             plan.interval = 1.0;
             plan.cameras[0].write = 0.1;
             plan.exposure = 0.2;
             plan.settleBy = SettleBy::Entered;
             plan.settle = 0.1;
             plan.spare = 0.0;
         }),
     "plan_room",
     "slide",
     "pictures"},
    {"belt-slider",
     {{"axes/slide/vibration/frequency_hz", 3.0}},
     run(0.6,
         [](Project& p, IntervalPlan& plan) {
             linear(p).runningFriction.value = linear(p).staticFriction.value = 0.0;
             plan.pictures = 60;
             plan.settleBy = SettleBy::Entered;
             plan.settle = 0.05;
             plan.interval = 30.0;
         }),
     "plan_still",
     "slide",
     "as long as it takes"},
    {"belt-slider",
     {{"axes/slide/vibration/frequency_hz", 3.0}},
     run(0.6,
         [](Project& p, IntervalPlan& plan) {
             linear(p).runningFriction.value = linear(p).staticFriction.value = 0.0;
             plan.pictures = 60;
             plan.settleBy = SettleBy::Entered;
             plan.settle = 0.05;
             plan.interval = 30.0;
         }),
     "plan_still",
     "slide",
     "picture before"},
    {"belt-slider",
     {},
     run(0.3,
         [](Project&, IntervalPlan& plan) {
             plan.mode = IntervalMode::Pulses;
             plan.pulses.pulse = 2.0;
         }),
     "plan_travel",
     "slide",
     "gear ratio"},
    {"belt-slider", {}, run(0.3, seenFor(600.0, 0.0)), "plan_pace", "slide", "of presence"},
    {"belt-slider", {}, run(0.3, seenFor(1100.0, 300.0)), "plan_pace", "slide", "turning back"},
    {"belt-slider", {}, run(3.0, [](Project&, IntervalPlan&) {}), "plan_travel", "slide", " in “"},
    {"belt-slider",
     {},
     run(0.3,
         [](Project&, IntervalPlan& plan) {
             plan.mode = IntervalMode::Pulses;
             plan.pulses.pulse = 2.0;
         }),
     "plan_travel",
     "slide",
     "pulses of"},
    {"belt-slider",
     {},
     run(0.6,
         [](Project&, IntervalPlan& plan) {
             plan.mode = IntervalMode::Runs;
             plan.exposure = 2.0;
         }),
     "plan_blur",
     "slide",
     "a stop for each"},
    {"belt-slider",
     {},
     run(0.6,
         [](Project&, IntervalPlan& plan) {
             plan.mode = IntervalMode::Runs;
             plan.exposure = 2.0;
         }),
     "plan_blur",
     "slide",
     "every"},
    {"belt-slider",
     {{"shots/reveal/subject_distance_m", 0.2}},
     run(0.3, [](Project&, IntervalPlan& plan) { plan.wholeSteps = true; }),
     "plan_steps",
     "slide",
     "holds between"},
    {"belt-slider",
     {{"shots/reveal/subject_distance_m", 0.2}},
     run(0.3, [](Project& p, IntervalPlan&) { p.axes[0].driver.microsteps = 1; }),
     "plan_steps",
     "slide",
     "microsteps"},
    {"belt-slider",
     {},
     run(0.3, [](Project&, IntervalPlan& plan) { plan.cameras[0].card = 2e9; }),
     "plan_storage",
     "slide",
     "card of"},
    {"belt-slider",
     {},
     run(0.3, [](Project& p, IntervalPlan&) { p.supply.capacity = 350.0; }),
     "plan_battery",
     "slide",
     "battery of"},
    // It would last, but for what a reading half way tells.
    {"belt-slider",
     {},
     run(0.3,
         [](Project& p, IntervalPlan& plan) {
             p.supply.capacity = 1500.0;
             plan.readings = {PackReading{"r", 100, p.supply.lowVoltage.value + 0.3}};
         }),
     "plan_battery",
     "slide",
     "without the readings"},
    {"belt-slider",
     {},
     run(0.3,
         [](Project& p, IntervalPlan& plan) {
             p.supply.capacity = 410.0;
             p.axes[0].driver.holdCurrent = p.axes[0].driver.runCurrent;
             plan.consumers.clear();
         }),
     "plan_battery",
     "slide",
     "hold currents"},
    {"belt-slider",
     {},
     run(0.3,
         [](Project& p, IntervalPlan& plan) {
             p.supply.capacity = 55.0;
             p.axes[0].driver.holdCurrent = 0.35 * p.axes[0].driver.runCurrent;
             p.axes[0].driver.idleDelay = 0.1;
             plan.consumers.clear();
         }),
     "plan_battery",
     "slide",
     "current cut"},
    {"belt-slider",
     {{"axes/slide/mechanism/slope_rad", 0.4}},
     run(0.3, [](Project& p, IntervalPlan&) { p.supply.capacity = 350.0; }),
     "plan_falls",
     "slide",
     "battery of"},
    {"belt-slider",
     {{"axes/slide/mechanism/slope_rad", 0.4}},
     run(0.3, [](Project&, IntervalPlan& plan) { plan.wholeSteps = true; }),
     "plan_falls",
     "slide",
     "holds between"},
    {"belt-slider",
     {},
     run(0.6,
         [](Project&, IntervalPlan& plan) {
             plan.mode = IntervalMode::SeparateHead;
             plan.interval = 60.0;
             plan.head.longest = 3000.0;
             plan.head.turn = 0.6;
         }),
     "plan_head",
     "slide",
     "every"},
    {"belt-slider",
     {},
     run(0.6,
         [](Project&, IntervalPlan& plan) {
             plan.mode = IntervalMode::SeparateHead;
             plan.head.turn = 0.1;
         }),
     "plan_head",
     "slide",
     "turning by"},
    {"belt-slider",
     {},
     run(0.3,
         [](Project&, IntervalPlan& plan) {
             plan.mode = IntervalMode::Timers;
             plan.clocks.rigSlow = 5e-3;
         }),
     "plan_timers",
     "slide",
     "one trigger"},
    {"belt-slider",
     {},
     run(0.3,
         [](Project&, IntervalPlan& plan) {
             plan.cameras[0].bulb = true;
             plan.cameras[0].leastPress = 1.0;
         }),
     "plan_trigger",
     "slide",
     "timed by the camera"},
    {"belt-slider",
     {},
     run(0.3,
         [](Project&, IntervalPlan& plan) {
             plan.cameras[0].bulb = true;
             plan.cameras[0].leastGap = 3.0;
             plan.exposure = 3.5;
             plan.settleBy = SettleBy::Entered;
             plan.settle = 0.1;
         }),
     "plan_trigger",
     "slide",
     "every"},
    {"belt-slider",
     {},
     run(0.3,
         [](Project&, IntervalPlan& plan) {
             PlanSensor sensor;
             sensor.id = "door";
             sensor.hold = 30.0;
             sensor.triggersItself = 0.6;
             plan.sensors = {sensor};
         }),
     "plan_sensor",
     "slide",
     "not heard"},
    {"belt-slider",
     {},
     run(0.3,
         [](Project& p, IntervalPlan&) {
             auto& motor = std::get<Stepper>(p.axes[0].motor);
             motor.body.thermalResistance.value = 9.0;
             motor.body.mount = MountMaterial::PrintedPla;
             p.axes[0].driver.holdCurrent = p.axes[0].driver.runCurrent;
         }),
     "plan_heat",
     "slide",
     "hold currents"},
};

} // namespace fixcases
