// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/drivetrain/ratio.h"
#include "core/evaluate/drive/drive_model.h"
#include "core/results/axis_results.h"
#include "core/results/interval_results.h"
#include "core/results/move_results.h"
#include "core/results/rig_results.h"
#include "core/results/shot_results.h"
#include "core/results/visitors.h"

#include <memory>
#include <optional>
#include <vector>

namespace gantry {

/// Everything nominal about one axis. U is m or rad.
struct AxisEvaluation {
    DriveModel model;
    std::optional<drivetrain::Ratio> ratio;
    double smoothFrom = 0.0;              ///< [U/s] below which it sticks and slips; infinite: always
    std::optional<std::size_t> worstShot; ///< place in `shots` of the one that worst() gives

    AxisSteps steps;
    Figure totalRatio;        ///< [1] motor turns per turn of the last shaft (linear) or of the axis
    Figure travelPerMotorRev; ///< [U]
    Figure step;              ///< [U] one microstep
    Figure usableTravel;      ///< [U]
    Figure inertiaAtMotor;    ///< [kg·m²] all of it, lossless
    Figure rotorInertia;      ///< [kg·m²]
    Figure loadInertia;       ///< [kg·m²] all but the rotor
    Figure inertiaRatio;      ///< [1] load over rotor
    RotorResonance resonance;
    Figure cornerSpeed; ///< [rad/s] of the motor up to which full current is driven
    std::vector<ShotEvaluation> shots;
    Figure pulseLimitSpeed;  ///< [U/s]
    Figure torqueLimitSpeed; ///< [U/s] with the wanted margin at the worst shot's acceleration
    Figure maxSpeed;         ///< [U/s] the smaller of the two
    Figure stoppingDistance; ///< [U] from the controller's top speed with its settings
    Figure holdNeeded;       ///< [N·m] gravity at the motor, no friction counted
    Figure holdAvailable;    ///< [N·m] at hold current
    Figure handVoltage;    ///< [V] that the motor drives back when pushed by hand at the speed of Conditions
    Figure handSpeedLimit; ///< [m/s] of that hand up to which the driver has its wanted margin
    PowerOff powerOff;
    EmergencyStop stop;
    AxisChecks checks;
    AxisStructure structure;            ///< of its rail or arm
    std::vector<AxisMoveResults> moves; ///< one for each move in which it moves or is pushed

    /// The shot with the least torque margin; where break-away decides for several, the one that asks most of
    /// the motor on its ramp. Shots that cannot be planned only where there are no others. Null if no shot
    /// moves this axis. Every "worst shot" of an axis is this one; a rule names the shot that binds it.
    const ShotEvaluation* worst() const { return worstShot ? &shots[*worstShot] : nullptr; }
};
template <class V, Of<AxisEvaluation>... S>
void describe(V& v, S&... s) {
    describe(v, s.steps...);
    v.figure(result("total_ratio", "total ratio, motor to last shaft or axis", K::Ratio), s.totalRatio...);
    v.figure(result("travel_per_motor_rev_m", K::Length, "travel_per_motor_rev_rad", K::Angle,
                    "travel per motor revolution"),
             s.travelPerMotorRev...);
    v.figure(result("step_m", K::Length, "step_rad", K::Angle, "one microstep"), s.step...);
    v.figure(result("usable_travel_m", K::Length, "usable_travel_rad", K::Angle, "usable travel"),
             s.usableTravel...);
    v.figure(result("inertia_at_motor_kgm2", "inertia at the motor", K::Inertia), s.inertiaAtMotor...);
    v.figure(result("rotor_inertia_kgm2", "rotor inertia", K::Inertia), s.rotorInertia...);
    v.figure(result("load_inertia_kgm2", "load inertia at the motor", K::Inertia), s.loadInertia...);
    v.figure(result("inertia_ratio", "inertia ratio, load to rotor", K::Ratio), s.inertiaRatio...);
    describe(v, s.resonance...);
    v.figure(result("corner_speed_rpm", "corner speed of the motor", K::RotationRate, perMinute),
             s.cornerSpeed...);
    v.list("shots", s.shots...);
    v.figure(result("max_speed_m_s", K::Speed, "max_speed_rad_s", K::AngularSpeed, "maximum speed"),
             s.maxSpeed...);
    v.figure(result("torque_limit_speed_m_s", K::Speed, "torque_limit_speed_rad_s", K::AngularSpeed,
                    "maximum speed by torque"),
             s.torqueLimitSpeed...);
    v.figure(result("pulse_limit_speed_m_s", K::Speed, "pulse_limit_speed_rad_s", K::AngularSpeed,
                    "maximum speed by pulse rate"),
             s.pulseLimitSpeed...);
    v.figure(result("stopping_distance_m", K::Length, "stopping_distance_rad", K::Angle,
                    "stopping distance from the controller's top speed"),
             s.stoppingDistance...);
    v.figure(result("hold_torque_needed_Nm", "holding torque needed", K::Torque), s.holdNeeded...);
    v.figure(result("hold_torque_available_Nm", "holding torque at hold current", K::Torque),
             s.holdAvailable...);
    v.figure(result("hand_pushed_V", "voltage driven back when pushed by hand", K::Voltage),
             s.handVoltage...);
    v.figure(result("hand_speed_limit_m_s", "hand speed that the driver stands with its margin", K::Speed),
             s.handSpeedLimit...);
    v.part("power_off", s.powerOff...);
    v.part("emergency_stop", s.stop...);
    v.part("checks", s.checks...);
    v.part("structure", s.structure...);
    v.list("moves", s.moves...);
}

struct PoseSearch;
struct PlannedMove;

/// Whether all poses are searched while one waits, or left for later where that takes long.
enum class Poses { Search, Later };

/// What takes long to find, from an earlier evaluation; each is taken over as far as it still holds.
struct Known {
    std::shared_ptr<const PoseSearch> poses;
    std::shared_ptr<const std::vector<PlannedMove>> planned;
};

struct Evaluation {
    RigStructure rig;
    std::shared_ptr<const PoseSearch> poses; ///< the search that its clearance comes from; null: not made yet
    std::vector<AxisEvaluation> axes;        ///< one for each axis of the project, in its order
    SupplyEvaluation supply;
    std::vector<MoveResults> moves; ///< one for each move of the project, in its order …
    std::shared_ptr<const std::vector<PlannedMove>> planned; ///< … and how it runs
    std::vector<IntervalResults> plans; ///< one for each interval plan of the project, in its order

    Known known() const { return {poses, planned}; }
};
template <class V, Of<Evaluation>... S>
void describe(V& v, S&... s) {
    v.list("axes", s.axes...);
    v.part("supply", s.supply...);
    v.part("rig", s.rig...);
    v.list("moves", s.moves...);
    v.list("plans", s.plans...);
}

} // namespace gantry
