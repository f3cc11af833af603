// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/drivetrain/ratio.h"
#include "core/evaluate/axis_structure.h"
#include "core/evaluate/drive_model.h"
#include "core/model/figure.h"
#include "core/model/project.h"
#include "core/motion/profile.h"
#include "core/motor/noise.h"

#include <optional>
#include <vector>

namespace gantry {

/// What one shot asks of one axis and what the picture makes of it. U is m or rad.
struct ShotEvaluation {
    int shot = 0;                  ///< index in Project::shots
    Reason problem = Reason::None; ///< why there is no profile, if so
    motion::Profile profile;       ///< empty if there is a problem
    bool jerkExceeded = false;     ///< the ease is shorter than the jerk setting allows
    bool follows = false;          ///< no movement of its own: it keeps the subject framed

    Figure topSpeed;             ///< [U/s]
    Figure acceleration;         ///< [U/s²] peak
    Figure jerkNeeded;           ///< [U/s³]
    Figure time;                 ///< [s]
    Figure distance;             ///< [U] without sign
    Figure stoppingDistance;     ///< [U] from the shot's top speed with its own ramp out
    Figure motorSpeed;           ///< [rad/s]
    Figure pulseRate;            ///< [Hz]
    Figure forceNeeded;          ///< [N] or [N·m] at the mechanism, largest on the ramp
    Figure outputTorque;         ///< [N·m] at the last shaft of the drive, largest on the ramp
    Figure torqueNeeded;         ///< [N·m] at the motor, largest on the ramp
    Figure breakawayTorque;      ///< [N·m] at the motor
    Figure torqueAvailable;      ///< [N·m] at motorSpeed
    Figure torqueAvailableLow;   ///< [N·m] at motorSpeed and the lowest supply voltage
    Figure torqueMargin;         ///< [1] available over needed, ramp and break-away
    Figure leastCurrent;         ///< [A rms] that still gives the wanted margin
    Figure torqueRms;            ///< [N·m] at the motor over the shot
    Figure torqueContinuous;     ///< [N·m] that the motor stands for hours at motorSpeed
    Figure carried;              ///< [N] or [N·m] from the axes below moving in the same shot
    Figure sourceCurrent;        ///< [A] that a brushed motor draws at its worst
    Figure speedSetting;         ///< [1] of full speed: the knob or duty that gives the top speed
    Figure slowestSetting;       ///< [1] of its top speed, the least that runs steadily
    Figure electricalPower;      ///< [W] from the supply at its worst
    Figure regulatorHeat;        ///< [W] in a linear regulator, lasting
    Figure regulatorTemperature; ///< [°C] of its chip
    Figure slipForce;            ///< [N] or [N·m] at which wheel or roller slips
    Figure slackDeceleration;    ///< [U/s²] at which a cord goes slack
    motor::Noise noise;
    Figure maxAcceleration; ///< [U/s²] with the wanted margin along the ramp to topSpeed

    double pixelsPerUnit = 0.0; ///< [px/U] in the delivered picture
    Figure lag;                 ///< [rad] of the rotor
    Figure lagTravel;           ///< [U]
    Figure lagPixels;           ///< [px]
    Figure stepPixels;          ///< [px] of one microstep
    Figure steppingPixels;      ///< [px] peak to peak left of microsteps and full-step error after exposure
    Figure accuracyPixels;      ///< [px] ± error of a full step
    Figure backlashPixels;      ///< [px]
    Figure guidePixels;         ///< [px] by which play of the guides turns the picture
    bool loadReverses = false;  ///< the backlash lets go within the shot
    Figure letsGoAt;      ///< [s] after the start, first; none where the place decides and not the moment
    Figure stretchTravel; ///< [U] between speeding up and braking
    Figure stretchPixels; ///< [px]
    Figure frictionBandPixels; ///< [px] within which the rotor may come to rest
    Figure idleShiftPixels;    ///< [px] when run current falls to hold current
    Figure roundingPixels;     ///< [px] over the shot, from rounded steps per unit
    Figure rockingPixels;      ///< [px] peak to peak, left when the shot's ramp out ends
    Figure rockingTime;        ///< [s] after it until only the jitter limit is left

    Figure driftPixels;    ///< [px/frame]
    Figure jitterPixels;   ///< [px] peak to peak
    Figure repeatPixels;   ///< [px]
    Figure framingPixels;  ///< [px]
    Figure pictureSpeed;   ///< [px/s]
    Figure pixelsPerFrame; ///< [px]
    Figure blurPixels;     ///< [px]
    Figure crossingTime;   ///< [s] for detail to cross the picture
    Figure sagPixels;      ///< [px] by which rail or arm shift and turn the picture over the travel
    Figure sagDrift;       ///< [px/frame] of it at the shot's top speed
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

/// What a stop or a loss of power does to a loaded axis.
enum class StopOutcome { Stays, Creeps, Falls };

/// What one link or the output stands. Each entry is what is allowed over what is there, or has no meaning
/// there.
struct PartCheck {
    int link = -1;       ///< index in Axis::links; −1: the output
    Figure strength;     ///< [1] tooth root, rated torque or allowed belt pull over what the worst shot asks
    Figure meshes;       ///< [1] teeth in mesh over the six that a belt wants
    Figure undercut;     ///< [1] least teeth over those that escape undercut
    Figure contactRatio; ///< [1] pairs of teeth in contact
    Figure slip;         ///< [1] grip over pull
    Figure centreDistance; ///< [m]
    Figure load;           ///< [N] or [N·m], the worst on it
    Figure allowed;        ///< the same unit
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
    StopOutcome onStop = StopOutcome::Stays; ///< after an emergency stop or reset, as far as it is known
    Figure stopRatio;                        ///< [1] what holds then over what gravity asks
    bool locks = false;                      ///< a worm or screw in the drive locks at rest
    Figure motorTopSpeed;                    ///< [U/s] at which the motor has no torque left
    Figure caseTemperature;   ///< [°C] of the motor after hours at its set current or worst shot
    Figure caseLimit;         ///< [°C] that the mount stands
    Figure shaftRadial;       ///< [N] on the motor's shaft at the worst
    Figure shaftAxial;        ///< [N]
    Figure whirlSpeed;        ///< [U/s] of a screw, without factor
    Figure bucklingLoad;      ///< [N] of a screw, without factor
    Figure cordRatio;         ///< [1] breaking load over the worst pull
    Figure guideRotation;     ///< [rad] by the play of the guides
    Figure bindingRatio;      ///< [1] beyond which plain bearings pushed off centre do not bind
    Figure bearingLoad;       ///< [N] on the worst bearing
    Figure guideFriction;     ///< [N] that the guides alone must cost
    Figure stepsPerUnitFirst; ///< on a winch: first layer, bare drum
    Figure stepsPerUnitLast;  ///< on a winch: drum as full as it gets
    Figure windingLayers;     ///< [1] on a winch
    Figure turningRadius;     ///< [m] of a steered wheel
    Figure stallCurrent;      ///< [A] of a brushed motor
    Figure reversalCurrent;   ///< [A] when reversed at its no-load speed
    Figure panBarTurn;        ///< [rad] that a pan bar turns the camera over the travel
    Figure panBarReach;       ///< [1] arm length over what it must reach
    std::vector<PartCheck> parts;
    AxisStructure structure; ///< of its rail or arm
    Figure handVoltage; ///< [V] that the motor drives back when pushed by hand at the speed of Conditions
    int worstShot = -1; ///< index into shots; −1 if no shot moves this axis
    std::vector<ShotEvaluation> shots;
};

/// What the supply gives with every axis at its worst at once.
struct SupplyEvaluation {
    Figure power;   ///< [W]
    Figure current; ///< [A]
    Figure voltage; ///< [V] that arrives at the drivers
    Figure drop;    ///< [V] in source and cable
    Figure runTime; ///< [s] of a battery; NotApplicable on mains
};

/// The rig as a whole: weight, what it stands on, what it may run into.
struct RigStructure {
    Figure mass;             ///< [kg]
    Figure centreAlong;      ///< [m] of gravity from the middle of the base, in the pose shown
    Figure centreAcross;     ///< [m]
    Figure centreHeight;     ///< [m] above the feet
    Figure price;            ///< in the user's money
    Figure tipping;          ///< [1] with side push, wind and the planned stop, in the worst pose
    Figure tippingEmergency; ///< [1] with the hardest stop, in that pose
    Figure tippingDirection; ///< [rad] in which the rig points then
    std::vector<double> tippingPose;
    int tippingAxis = 0;               ///< index of the axis that turns it there
    Figure ballastNeeded;              ///< [kg] in the middle for a ratio of 1.5 in that pose
    Figure anchors;                    ///< [1] strength of anchors over their pull
    Figure anchorPull;                 ///< [N]
    Figure clearance;                  ///< [m] least over all ranges to ground, base and rooms to keep out of
    std::vector<double> clearancePose; ///< where that is, as in rig_layout.h
    Figure clearanceAtLeast;           ///< [m] no pose comes nearer than this; the search is not finer
    int keepOut = -1;                  ///< index in Project::keepOut of the nearest; −1: ground or base
    std::string_view clearanceBody;    ///< what comes near …
    std::string_view clearanceWith;    ///< … to what of ground and base; static words
};

struct Evaluation {
    RigStructure rig;
    std::vector<AxisEvaluation> axes; ///< one for each axis of the project, in its order
    SupplyEvaluation supply;
};

} // namespace gantry
