// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/drivetrain/chain.h"
#include "core/drivetrain/ratio.h"
#include "core/model/figure.h"
#include "core/model/project.h"
#include "core/motion/profile.h"
#include "core/motor/stepper_torque.h"

#include <optional>

namespace gantry {

inline constexpr double standardGravity = 9.80665; ///< [m/s²]

/// An axis as the formula rooms see it. "Output unit" U is m on linear axes and rad on rotary ones; forces
/// are N or N·m accordingly. Numbers that are not given are NaN and `missing` says which.
struct DriveModel {
    AxisKind kind = AxisKind::Linear;
    drivetrain::Chain chain;
    motor::StepperParams stepper; ///< at nominal voltage
    double lowVoltage = 0.0;      ///< [V]
    Reason missing = Reason::None;

    double torqueAmplitude = 0.0; ///< [N·m] static torque at run current
    double holdAmplitude = 0.0;   ///< [N·m] static torque at hold current
    double detentTorque = 0.0;    ///< [N·m]
    double stepAccuracy = 0.0;    ///< [1] of a full step
    int microsteps = 1;
    double fullStepAngle = 0.0;   ///< [rad] of the motor
    double outputPerRad = 0.0;    ///< [U/rad]
    double staticFriction = 0.0;  ///< [N] or [N·m] at break-away, never below the running friction
    double outputStiffness = 0.0; ///< [N/m] or [N·m/rad]; infinite if nothing is given
    double backlash = 0.0;        ///< [U]
    double travel = 0.0;          ///< [U] usable
    motion::Limits settings;      ///< what the controller is set to
    double wantedMargin = 2.0;

    std::optional<drivetrain::Ratio> exactRatio; ///< motor turns per turn of the last shaft or of the axis
    std::optional<drivetrain::Ratio> exactStepsPerUnit; ///< per mm or per degree

    double fullStep() const { return fullStepAngle * outputPerRad; } ///< [U]
    double microstep() const { return fullStep() / microsteps; }     ///< [U]
    double gravityAtMotor() const {
        return std::abs(chain.load.steady) * outputPerRad;
    } ///< [N·m] without losses

    double available(double motorSpeed) const { return motor::pullOutTorque(stepper, motorSpeed); }
    double availableAtLowVoltage(double motorSpeed) const;
    /// Largest torque on the ramp, both directions, speeding up and braking [N·m]. Speeds and accelerations
    /// at the output.
    double rampTorque(double speed, double acceleration) const;
    /// Torque to break away from rest [N·m].
    double breakawayTorque() const;
    /// Available over needed, the least of the ramp's end and break-away.
    double margin(double speed, double acceleration) const;
    /// Largest output acceleration with the wanted margin along a ramp up to `speed` [U/s²].
    double largestAcceleration(double speed) const;
};

DriveModel makeDriveModel(const Project& project, const Axis& axis);

} // namespace gantry
