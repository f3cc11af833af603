// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/drivetrain/chain.h"
#include "core/drivetrain/flank.h"
#include "core/drivetrain/ratio.h"
#include "core/drivetrain/winch.h"
#include "core/drivetrain/wind_up.h"
#include "core/model/figure.h"
#include "core/model/project.h"
#include "core/motion/profile.h"
#include "core/motion/rocking.h"
#include "core/motor/curve.h"
#include "core/structure/balance.h"
#include "core/units/constants.h"

#include <optional>
#include <span>

namespace gantry {

using units::standardGravity;

/// An axis as the formula rooms see it. "Output unit" U is m on linear axes and rad on rotary ones; forces
/// are N or N·m accordingly. Numbers that are not given are NaN and `missing` says which. Torques at the
/// motor are those of all motors of the axis together.
struct DriveModel {
    AxisKind kind = AxisKind::Linear;
    drivetrain::Chain chain;
    motor::Curve curve; ///< of one motor, at nominal voltage
    int motors = 1;
    double lowVoltage = 0.0; ///< [V]
    Reason missing = Reason::None;

    bool regulated = false;    ///< a linear regulator takes the voltage down
    bool pulses = true;        ///< commanded by step and direction
    double pulseCeiling = 0.0; ///< [Hz] that the controller leaves this axis
    double commandAngle = 0.0; ///< [rad] of the motor for the finest command; 0: commanded by speed
    double jumpAngle =
        0.0; ///< [rad] by which it really moves on: the command, the dead band or an encoder count
    double angleError = 0.0;       ///< [rad] ± of the motor at rest
    double fullStepAngle = 0.0;    ///< [rad] of a stepper; 0 on others
    double torqueAmplitude = 0.0;  ///< [N·m] static torque of a stepper at run current
    double holdAmplitude = 0.0;    ///< [N·m] that holds at rest while powered
    double detentTorque = 0.0;     ///< [N·m]
    double followDelay = 0.0;      ///< [s] of a position loop: lag per speed
    double followCompliance = 0.0; ///< [rad/(N·m)] of a position loop: lag per torque
    double lowestSpeed = 0.0;      ///< [rad/s] of the motor below which it stutters
    bool oneSpeed = false;         ///< nothing sets its speed: it runs as its load lets it
    bool atOnce = false;           ///< starts and stops without a ramp

    double outputPerRad = 0.0;        ///< [U/rad]
    double friction = 0.0;            ///< [N] or [N·m] running, without wind
    double staticFriction = 0.0;      ///< [N] or [N·m] at break-away, never below the running friction
    double outputStiffness = 0.0;     ///< [N/m] or [N·m/rad]; infinite if nothing is given
    std::optional<motion::Mode> mode; ///< of what rocks on the axis, where one is known
    double swingBand =
        0.0; ///< [U] either way in which friction holds a swing across the drive; 0: it does not
    double backlash = 0.0;   ///< [U]
    double travel = 0.0;     ///< [U] usable
    motion::Limits settings; ///< what the controller is set to
    double wantedMargin = 2.0;

    drivetrain::LastingLoad lasting; ///< at a place of the axis [U]; of an arm by its angle above level
    double lowPlace = 0.0;           ///< [U] of the low end of the travel in those places
    double tilted = 0.0;             ///< [rad] by which what carries the axis may stand off level

    std::vector<drivetrain::CordLayer> layers; ///< of a cord over the travel; empty without
    drivetrain::WinchScale cordScale;          ///< of these layers

    double gravityLow = 0.0, gravityHigh = 0.0; ///< [N] or [N·m] least and greatest over the travel, signed
    double carriedMass = 0.0;                   ///< [kg] of the listed items on a rotary axis …
    double carriedAlong = 0.0;                  ///< [m] … their centre of gravity off the axis, along
    double carriedReach = 0.0;                  ///< [m] … and its whole distance from it
    double farthestItem = 0.0; ///< [m] the item farthest out, where the camera hangs on a boom

    double shaftRatio = 1.0; ///< [1] motor turns per turn of the last shaft or of the axis
    std::optional<drivetrain::Ratio> exactRatio;        ///< the same, where tooth counts make it exact
    std::optional<drivetrain::Ratio> exactStepsPerUnit; ///< per mm or per degree

    const motor::StepperParams* stepper() const { return std::get_if<motor::StepperParams>(&curve); }
    const motor::DcParams* dc() const { return std::get_if<motor::DcParams>(&curve); }
    double fullStep() const { return fullStepAngle * outputPerRad; } ///< [U]
    double microstep() const { return commandAngle * outputPerRad; } ///< [U] of the finest command
    /// How many times as fast the motor turns with an empty drum as with a full one [1].
    double layerSpread() const { return layers.empty() ? 1.0 : layers.back().radius / layers.front().radius; }
    double jump() const { return jumpAngle * outputPerRad; } ///< [U]
    double gravityAtMotor() const {
        return std::abs(chain.load.steady) * outputPerRad;
    } ///< [N·m] without losses

    double available(double motorSpeed) const { return motors * motor::peakTorque(curve, motorSpeed); }
    double availableAtLowVoltage(double motorSpeed) const;
    double continuous(double motorSpeed) const { return motors * motor::continuousTorque(curve, motorSpeed); }
    /// Lag of the rotor behind its command [rad] under a torque [N·m] at a speed [rad/s].
    double lag(double torque, double motorSpeed) const;
    /// Largest torque on the ramp, both directions, speeding up and braking [N·m]. Speeds and accelerations
    /// at the output.
    double rampTorque(double speed, double acceleration) const;
    /// Inertia [kg·m²] that the motors have to speed up, what their drive loses on the way counted.
    double inertiaToSpeedUp() const;
    /// Least torque [N·m] that slows the motors when they are let go while running; not below 0.
    double slowingTorque(double speed) const;
    /// Stiffness [N/m] or [N·m/rad] at the load of a stepper's field; infinite for motors held by loops, and
    /// for motors that nothing holds.
    double fieldStiffness() const;
    double stiffnessWithField() const { return 1.0 / (1.0 / outputStiffness + 1.0 / fieldStiffness()); }
    /// Hardest deceleration [U/s²] that motors, and a brake with `extra` [N·m] at their shafts, can give
    /// while it runs: friction and losses help, and gravity where it pulls back. Infinite where nothing of
    /// the motor is known.
    double hardestBraking(double extra) const;
    /// The drive's springs at the load, without the field of the motor.
    drivetrain::Sprung sprung() const;
    /// The same drive with its drum empty.
    DriveModel withBareDrum() const;
    /// Torque to break away from rest [N·m].
    double breakawayTorque() const;
    /// Available over needed, the least of the ramp's end and break-away.
    double margin(double speed, double acceleration) const;
    /// Largest output acceleration with the wanted margin along a ramp up to `speed` [U/s²].
    double largestAcceleration(double speed) const;

    friend bool operator==(const DriveModel&, const DriveModel&) = default;
};

/// Gravity torque [N·m] of what a rotary axis carries, and of its spring, with the arm at `angle` [rad] above
/// level; positive pulls it down.
double armTorque(std::span<const structure::ArmMass> masses, const RotaryMechanism& rotary, double angle);

} // namespace gantry
