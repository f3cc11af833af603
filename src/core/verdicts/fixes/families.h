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
extern const Family subjectDistance; ///< the camera farther away
// fixes/gearing.cpp
extern const Family outputTeeth; ///< another pulley or pinion
extern const Family reduction;   ///< a belt stage in front
// controller/controller_fixes.cpp
extern const Family finerMicrosteps, coarserMicrosteps;
extern const Family controllerPulses, controllerDecimals, controllerRamps;
extern const Family settingsToLimits; ///< lowers both to the recommended limits
extern const Family settingsUpToShot; ///< raises top speed and acceleration to what the shot asks
// motor/motor_fixes.cpp
extern const Family runCurrent, lowerRunCurrent, knobUp, supplyVoltage, supplyCurrent, mountMaterial,
    gentlerStop; ///< of a brushed motor that is reversed at speed
// holding/holding_fixes.cpp
extern const Family holdCurrent; ///< only ever more
extern const Family brake, stopBehaviour;
// parts/parts_fixes.cpp
extern const Family faceWidth, closedCord, widerDrum, beltTension;
// told/told_fixes.cpp
extern const Family stepsOfTheParts; ///< in place of the number that was typed
// structure/rail_fixes.cpp
extern const Family bestStandPlaces; ///< of a rail, found by search
extern const Family standsOutwards;  ///< so that the rail does not tip over them
extern const Family clampBolts;
extern const Family stockSection; ///< of the same outline, and on edge
// structure/arm_fixes.cpp
extern const Family counterweight; ///< its place or its mass
extern const Family thickerPin;
// rig/base_fixes.cpp
extern const Family ballast;
extern const Family ballastOnLeg; ///< all of it on the foot where the least does
extern const Family stifferPads;  ///< under the feet
extern const Family widerFeet, lowerColumn, secondTether;
// rig/clearance_fixes.cpp
extern const Family shorterRange, higherColumn;
extern const Family spacer;     ///< under the head, its tilt, or what stands on a carriage
extern const Family cameraBack; ///< on its plate

} // namespace gantry::fixes
