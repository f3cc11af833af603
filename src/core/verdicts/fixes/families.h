// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

/// Every family of fixes by name, for the rules that try them. A family that serves one topic stands in that
/// topic's folder, one that serves several here.
namespace gantry::fixes {

struct Family;

// fixes/shots.cpp
extern const Family shotAcceleration; ///< gentler ramps
extern const Family tunedRamps;       ///< ramps of whole periods of what rocks
extern const Family slowerShot;
extern const Family fasterShot;      ///< past a resonance
extern const Family slowerSteps;     ///< of an interval or stop-motion shot
extern const Family longerSettle;    ///< the shot waits
extern const Family oneWay;          ///< no turn in the take
extern const Family subjectDistance; ///< the camera farther away
// fixes/gearing.cpp
extern const Family outputTeeth; ///< another pulley or pinion
extern const Family reducerInFront;
extern const Family reduction; ///< a belt stage in front
// controller/controller_fixes.cpp
extern const Family finerMicrosteps, coarserMicrosteps;
extern const Family controllerPulses, controllerDecimals, controllerRamps;
extern const Family settingsToLimits; ///< lowers both to the recommended limits
extern const Family settingsUpToShot; ///< raises top speed and acceleration to what the shot asks
// controller/travel_fixes.cpp
extern const Family shorterTravel, otherStart, softMargin, railLength;
extern const Family gentleStop; ///< lowers the acceleration setting until no stop tips the rig
extern const Family handSpeed;
// motor/motor_choice.cpp
extern const Family largerMotor, smallerMotor, otherGearmotor, driverExchange, converterInstead;
extern const Family stepperInstead; ///< of a motor that jumps, stutters or spans too few speeds
// motor/motor_fixes.cpp
extern const Family runCurrent, lowerRunCurrent, knobUp, supplyVoltage, supplyCurrent, mountMaterial,
    gentlerStop; ///< of a brushed motor that is reversed at speed
// holding/holding_fixes.cpp
extern const Family holdCurrent; ///< only ever more
extern const Family brake, stopBehaviour;
extern const Family balanceHead, balanceWeight; ///< of a pan, tilt or roll
extern const Family locking;                    ///< a worm or a screw that cannot be driven back
// parts/parts_fixes.cpp
extern const Family faceWidth, closedCord, widerDrum, largerDrum, beltTension, lessTension;
extern const Family stifferDrive; ///< wider belts, thicker shafts
extern const Family cordLoad, cordStiffness, ballWheels, guideBearings, centredPull, largerWheels;
extern const Family gearMaterial, otherGearhead, screwExchange, grippingForce;
extern const Family shaftBearing; ///< that takes the load off the motor's
// picture/picture_fixes.cpp
extern const Family preloadSpring, feltWasher, noPlay, guidePlay, wheelbase;
extern const Family hungLower; ///< so that weight keeps backlash to one side
extern const Family mechanicalRing;
// moves/move_fixes.cpp
extern const Family moveInLeastTime, moveGentler,
    moveFastest;                    ///< of every segment that is too quick, and of one
extern const Family settingsToMove; ///< raises them to what the move asks
extern const Family aimSegment, posesIntoTravel, stopAtPoses, keepBetweenPoses, moveToChoice, mendPlan;
extern const Family moveSlower, moveFaster; ///< all of it, in step
extern const Family longerLens;             ///< a narrower picture
extern const Family pullFocus;              ///< on what a segment is aimed at
extern const Family startFarther;           ///< the first pose, so far from the end that backlash is taken up
extern const Family headOnLinks;            ///< which keep it level on an arm
extern const Family focusAtPoses;           ///< on the target, in every pose
// intervals/plan_fixes.cpp
extern const Family mendRun;
extern const Family longerInterval, focusByHand, writesInMoves, evenSteps, morePictures, settleLonger;
extern const Family shorterWay, pulseInTime, stopForPictures, currentHolds, largerCard;
extern const Family lessHoldCurrent; ///< of what cannot fall
extern const Family cutCurrent;      ///< between pictures, at full steps
extern const Family largerBattery, runWithinHead, headTurn, oneTrigger, cameraTimes, sensorDeaf;
extern const Family pictureFirst, paceByPresence, turnsBack, gearOfPulses;
// told/told_fixes.cpp
extern const Family massOfParts;
extern const Family stepsOfTheParts; ///< in place of the number that was typed
// structure/rail_fixes.cpp
extern const Family bestStandPlaces; ///< of a rail, found by search
extern const Family standsOutwards;  ///< so that the rail does not tip over them
extern const Family clampBolts, twoStands;
extern const Family rib;          ///< under a flat bar
extern const Family stockSection; ///< of the same outline, and on edge
// structure/arm_fixes.cpp
extern const Family counterweight; ///< its place or its mass
extern const Family counterweightHeight, thickerPin, pivotParts;
// rig/base_fixes.cpp
extern const Family ballast;
extern const Family ballastOnLeg; ///< all of it on the foot where the least does
extern const Family stifferPads;  ///< under the feet
extern const Family widerFeet, lowerColumn, secondTether, anchorSpread;
// rig/clearance_fixes.cpp
extern const Family shorterRange, higherColumn;
extern const Family spacer;     ///< under the head, its tilt, or what stands on a carriage
extern const Family cameraBack; ///< on its plate

} // namespace gantry::fixes
