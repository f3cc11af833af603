// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/drivetrain/ratio.h"
#include "core/evaluate/drive_model.h"
#include "core/model/figure.h"
#include "core/model/project.h"
#include "core/motion/profile.h"

#include <optional>
#include <vector>

namespace gantry {

/// What one shot asks of one axis and what the picture makes of it. U is m or rad.
struct ShotEvaluation {
    int shot = 0;                  ///< index in Project::shots
    Reason problem = Reason::None; ///< why there is no profile, if so
    motion::Profile profile;       ///< empty if there is a problem
    bool jerkExceeded = false;     ///< the ease is shorter than the jerk setting allows

    Figure topSpeed;           ///< [U/s]
    Figure acceleration;       ///< [U/s²] peak
    Figure jerkNeeded;         ///< [U/s³]
    Figure time;               ///< [s]
    Figure distance;           ///< [U] without sign
    Figure stoppingDistance;   ///< [U] from the shot's top speed with its own ramp out
    Figure motorSpeed;         ///< [rad/s]
    Figure pulseRate;          ///< [Hz]
    Figure forceNeeded;        ///< [N] or [N·m] at the mechanism, largest on the ramp
    Figure outputTorque;       ///< [N·m] at the last shaft of the drive, largest on the ramp
    Figure torqueNeeded;       ///< [N·m] at the motor, largest on the ramp
    Figure breakawayTorque;    ///< [N·m] at the motor
    Figure torqueAvailable;    ///< [N·m] at motorSpeed
    Figure torqueAvailableLow; ///< [N·m] at motorSpeed and the lowest supply voltage
    Figure torqueMargin;       ///< [1] available over needed, ramp and break-away
    Figure leastCurrent;       ///< [A rms] that still gives the wanted margin
    Figure maxAcceleration;    ///< [U/s²] with the wanted margin along the ramp to topSpeed

    double pixelsPerUnit = 0.0; ///< [px/U] in the delivered picture
    Figure lag;                 ///< [rad] of the rotor
    Figure lagTravel;           ///< [U]
    Figure lagPixels;           ///< [px]
    Figure stepPixels;          ///< [px] of one microstep
    Figure steppingPixels;      ///< [px] peak to peak left of microsteps and full-step error after exposure
    Figure accuracyPixels;      ///< [px] ± error of a full step
    Figure backlashPixels;      ///< [px]
    bool loadReverses = false;  ///< the backlash lets go within the shot
    Figure stretchTravel;       ///< [U] between speeding up and braking
    Figure stretchPixels;       ///< [px]
    Figure frictionBandPixels;  ///< [px] within which the rotor may come to rest
    Figure idleShiftPixels;     ///< [px] when run current falls to hold current
    Figure roundingPixels;      ///< [px] over the shot, from rounded steps per unit

    Figure driftPixels;    ///< [px/frame]
    Figure jitterPixels;   ///< [px] peak to peak
    Figure repeatPixels;   ///< [px]
    Figure framingPixels;  ///< [px]
    Figure pictureSpeed;   ///< [px/s]
    Figure pixelsPerFrame; ///< [px]
    Figure blurPixels;     ///< [px]
    Figure crossingTime;   ///< [s] for detail to cross the picture
};

struct PowerOff {
    bool loaded = false; ///< gravity pulls at all
    bool falls = false;  ///< gravity beats friction and nothing else holds
    Figure gravity;      ///< [N] or [N·m]
    Figure friction;     ///< [N] or [N·m]
    Figure energy;       ///< [J] at the end of the travel
    Figure speed;        ///< [U/s] at the end of the travel
    Figure brakeRatio;   ///< [1] brake torque over gravity torque at the motor; none without a brake
};

struct AxisEvaluation {
    DriveModel model;
    std::optional<drivetrain::Ratio> ratio;
    Figure totalRatio;         ///< [1] motor turns per turn of the last shaft (linear) or of the axis
    Figure stepsPerUnit;       ///< [1/mm] or [1/°]
    Figure stepsPerUnitKept;   ///< as the controller keeps it
    Figure roundingShare;      ///< [1] relative error of the kept number
    Figure roundingOverTravel; ///< [U]
    Figure travelPerMotorRev;  ///< [U]
    Figure step;               ///< [U] one microstep
    Figure usableTravel;       ///< [U]
    Figure inertiaAtMotor;     ///< [kg·m²] all of it, lossless
    Figure rotorInertia;       ///< [kg·m²]
    Figure loadInertia;        ///< [kg·m²] all but the rotor
    Figure inertiaRatio;       ///< [1] load over rotor
    Figure naturalFrequency;   ///< [Hz] at run current, unloaded
    Figure resonanceLow;       ///< [U/s] lower end of the band about it that cruising should avoid
    Figure resonanceHigh;      ///< [U/s] upper end
    Figure resonanceSpeed;     ///< [U/s] where full steps meet it
    Figure cornerSpeed;        ///< [rad/s] of the motor up to which full current is driven
    Figure pulseLimitSpeed;    ///< [U/s]
    Figure torqueLimitSpeed;   ///< [U/s] with the wanted margin at the worst shot's acceleration
    Figure maxSpeed;           ///< [U/s] the smaller of the two
    Figure stoppingDistance;   ///< [U] from the controller's top speed with its settings
    Figure holdNeeded;         ///< [N·m] gravity at the motor, no friction counted
    Figure holdAvailable;      ///< [N·m] at hold current
    PowerOff powerOff;
    int worstShot = -1; ///< index into shots; −1 if no shot moves this axis
    std::vector<ShotEvaluation> shots;
};

struct Evaluation {
    std::vector<AxisEvaluation> axes; ///< one for each axis of the project, in its order
};

} // namespace gantry
