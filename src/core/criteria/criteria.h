// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/kind.h"

#include <span>
#include <string_view>

/// Every number that a judgement leans on, once: wanted ratios, safety factors, thresholds. Rules, limits,
/// fixes and words read them here, docs/models/criteria.md says them a second time with their sources, and a
/// test compares the two.
namespace gantry::criteria {

struct Criterion {
    std::string_view id;        ///< that of its rule where a rule leans on it
    std::string_view what;      ///< in plain words
    units::Kind kind;           ///< of the value, which is in SI
    double value;               ///< of a rule: the ratio that is wanted
    double oversizedFrom = 0.0; ///< of a rule: the ratio from which on it is too much; 0: never

    constexpr operator double() const { return value; }
};

// Drive: wanted ratios of the rules, what there is over what is needed
inline constexpr Criterion torque{"torque", "torque available over torque needed", units::Kind::Ratio, 2.0,
                                  6.0};
inline constexpr Criterion pulseRate{"pulse_rate", "pulse ceiling over pulse rate", units::Kind::Ratio, 1.25};
inline constexpr Criterion powerOff{"power_off", "what holds without power over gravity", units::Kind::Ratio,
                                    2.0};
inline constexpr Criterion standstill{"standstill", "hold torque over gravity", units::Kind::Ratio, 2.0};
inline constexpr Criterion resonance{"resonance", "distance of cruising from the resonance band",
                                     units::Kind::Ratio, 1.5};
inline constexpr Criterion motorCurrent{"motor_current", "rated current over the current that is set",
                                        units::Kind::Ratio, 1.0};
inline constexpr Criterion driverRating{"driver_rating", "driver's rating over what it is given",
                                        units::Kind::Ratio, 1.1};
inline constexpr Criterion motorSize{"motor_size", "motor torque over what the shots need",
                                     units::Kind::Ratio, 1.0, 3.0};
inline constexpr Criterion duty{"duty", "lasting torque over root mean square", units::Kind::Ratio, 1.3};
inline constexpr Criterion caseTemperature{
    "case_temperature", "room up to the limit of the case over the rise", units::Kind::Ratio, 1.2};
inline constexpr Criterion regulatorHeat{"regulator_heat", "room up to the chip's limit over the rise",
                                         units::Kind::Ratio, 1.2};
inline constexpr Criterion shaftLoad{"shaft_load", "rated shaft load over the load", units::Kind::Ratio, 1.5};
inline constexpr Criterion noise{"noise", "allowed rank over the loudest rank", units::Kind::Ratio, 1.0};
inline constexpr Criterion motorSpeed{"motor_speed", "motor's top speed over the shot's", units::Kind::Ratio,
                                      1.2};
inline constexpr Criterion movingMass{"moving_mass", "moving mass over what is listed on it",
                                      units::Kind::Ratio, 1.0};
inline constexpr Criterion speedSpan{"speed_span",
                                     "fastest over slowest steady speed of a motor over that of its shots",
                                     units::Kind::Ratio, 1.2};
inline constexpr Criterion start{"start", "speed at which the rotor is caught over that of the shot",
                                 units::Kind::Ratio, 2.0};
inline constexpr Criterion startSetting{
    "start_setting", "torque at the setting of the knob over break-away torque", units::Kind::Ratio, 1.2};
inline constexpr Criterion supply{"supply", "rated current of the supply over what is drawn",
                                  units::Kind::Ratio, 1.2};
inline constexpr Criterion layers{"layers", "allowed framing error over that of layers on a drum",
                                  units::Kind::Ratio, 1.0};
inline constexpr Criterion beltPreload{"belt_preload", "twice the tension of a belt over its pull",
                                       units::Kind::Ratio, 1.2};
inline constexpr Criterion drumRoom{"drum_room", "cord that a drum takes over the cord there is",
                                    units::Kind::Ratio, 1.0};
inline constexpr Criterion following{"following", "limit of the drive over its lag", units::Kind::Ratio, 1.5};
inline constexpr Criterion servoRange{"servo_range", "range of the servo over the travel", units::Kind::Ratio,
                                      1.0};
// Controller and shot
inline constexpr Criterion rounding{"rounding", "allowed error over that of rounded steps per unit",
                                    units::Kind::Ratio, 2.0};
inline constexpr Criterion stopping{"stopping", "way left over stopping distance", units::Kind::Ratio, 1.5};
inline constexpr Criterion travel{"travel", "usable travel over distance", units::Kind::Ratio, 1.0};
inline constexpr Criterion settings{"settings", "what the controller is set to over what the shot needs",
                                    units::Kind::Ratio, 1.0};
inline constexpr Criterion ease{"ease", "ease that is asked over the least the jerk limit allows",
                                units::Kind::Ratio, 1.0};
inline constexpr Criterion stepsSet{
    "steps_set", "allowed error over that of the steps per unit that were told", units::Kind::Ratio, 2.0};
inline constexpr Criterion claim{"claim", "what the drive does over what was told of it", units::Kind::Ratio,
                                 1.0};
inline constexpr Criterion claimPower{"claim_power", "power of the supply over the power that was told",
                                      units::Kind::Ratio, 1.0};
// Picture
inline constexpr Criterion stepping{"stepping", "jitter limit over stepping", units::Kind::Ratio, 1.5};
inline constexpr Criterion vibration{"vibration", "jitter limit over the vibration left", units::Kind::Ratio,
                                     1.5};
inline constexpr Criterion drift{"drift", "drift limit over drift", units::Kind::Ratio, 1.5};
inline constexpr Criterion jitter{"jitter", "jitter limit over jitter", units::Kind::Ratio, 1.5};
inline constexpr Criterion repeatError{"repeat", "repeat limit over repeat error", units::Kind::Ratio, 1.5};
inline constexpr Criterion framing{"framing", "framing limit over framing error", units::Kind::Ratio, 1.5};
inline constexpr Criterion backlash{"backlash", "repeat limit over backlash", units::Kind::Ratio, 1.5};
inline constexpr Criterion flank{"flank", "what keeps backlash on one side over what takes it off",
                                 units::Kind::Ratio, 2.0};
inline constexpr Criterion focusPull{"focus_pull", "blur that is allowed over the blur of the subject",
                                     units::Kind::Ratio, 1.2};
inline constexpr Criterion judder{"judder", "time in which detail crosses the picture over the least",
                                  units::Kind::Ratio, 1.4};
inline constexpr Criterion sag{"sag", "framing and drift limit over what bending does", units::Kind::Ratio,
                               1.5};
inline constexpr Criterion settling{"settling", "time that the shot waits over the time to settle",
                                    units::Kind::Ratio, 1.3};
inline constexpr Criterion guides{"guides", "repeat limit over what guides let turn", units::Kind::Ratio,
                                  1.0};
// Parts
inline constexpr Criterion toothStrength{
    "tooth_strength", "strength of teeth, belts and gearheads over their load", units::Kind::Ratio, 3.0};
inline constexpr Criterion gearForm{"gear_form", "teeth over undercut, contact over its least",
                                    units::Kind::Ratio, 1.0};
inline constexpr Criterion beltMesh{"belt_mesh", "teeth in mesh over six", units::Kind::Ratio, 1.0};
inline constexpr Criterion grip{"grip", "grip over pull of rollers and wheels", units::Kind::Ratio, 1.5};
inline constexpr Criterion cordSlack{"cord_slack", "braking at which a cord goes slack over the shot's",
                                     units::Kind::Ratio, 1.5};
inline constexpr Criterion cordStrength{"cord_strength", "cord's factor over the usual one",
                                        units::Kind::Ratio, 2.0};
inline constexpr Criterion whirl{"whirl", "ceiling of a screw's speed over the shot's", units::Kind::Ratio,
                                 1.0};
inline constexpr Criterion buckling{"buckling", "buckling load of a screw over its load", units::Kind::Ratio,
                                    3.0};
inline constexpr Criterion binding{"binding", "room before plain bearings bind", units::Kind::Ratio, 1.5};
inline constexpr Criterion bearingLoad{"bearing_load", "bearing's rating over its load", units::Kind::Ratio,
                                       2.0};
inline constexpr Criterion frictionSources{"friction_sources", "friction entered over what guides alone cost",
                                           units::Kind::Ratio, 1.5};
inline constexpr Criterion lensRing{"lens_ring", "throw of the ring over the range", units::Kind::Ratio, 1.0};
inline constexpr Criterion panBar{"pan_bar", "arm of a pan bar over its reach", units::Kind::Ratio, 1.1};
// Structure and safety
inline constexpr Criterion emergencyStop{"emergency_stop", "what holds after a stop over gravity",
                                         units::Kind::Ratio, 2.0};
inline constexpr Criterion railTipping{"rail_tipping", "what keeps a rail on its stands over what tips it",
                                       units::Kind::Ratio, 1.5};
inline constexpr Criterion railClamps{"rail_clamps", "strength of clamp bolts over their pull",
                                      units::Kind::Ratio, 3.0};
inline constexpr Criterion beamStrength{"beam_strength", "strength of rail or arm over the stress",
                                        units::Kind::Ratio, 3.0};
inline constexpr Criterion pivot{"pivot", "strength of pivot, bearing and bolts over their load",
                                 units::Kind::Ratio, 3.0};
inline constexpr Criterion balance{"balance", "share that may be left over what is left", units::Kind::Ratio,
                                   2.0};
inline constexpr Criterion handDriven{"hand_driven", "driver's voltage rating over what a pushed motor gives",
                                      units::Kind::Ratio, 1.2};
inline constexpr Criterion nearPeople{"near_people", "energy or speed allowed near people over what moves",
                                      units::Kind::Ratio, 1.25};
inline constexpr Criterion movePlan{"move_plan", "a move that can run as it is meant", units::Kind::Ratio,
                                    1.0};
inline constexpr Criterion moveLimits{"move_limits", "time of a segment over the least that the limits allow",
                                      units::Kind::Ratio, 1.0};
inline constexpr Criterion moveTravel{"move_travel", "half the travel over the farthest from its middle",
                                      units::Kind::Ratio, 1.0};
inline constexpr Criterion moveFraming{"move_framing", "drift of a target that is allowed over what there is",
                                       units::Kind::Ratio, 1.0};
inline constexpr Criterion moveTorque{"move_torque", "torque available over needed along a move",
                                      units::Kind::Ratio, 2.0};
inline constexpr Criterion movePulses{"move_pulses", "pulse rate of the controller over that of a move",
                                      units::Kind::Ratio, 1.0};
inline constexpr Criterion moveResonance{
    "move_resonance", "stay in the rotor's resonance that does no harm over that of a move",
    units::Kind::Ratio, 1.2};
inline constexpr Criterion moveTipping{"move_tipping",
                                       "what keeps the rig on its feet over what tips it, along a move",
                                       units::Kind::Ratio, 1.5};
inline constexpr Criterion moveClearance{"move_clearance", "distance along a move over the least distance",
                                         units::Kind::Ratio, 1.0};
inline constexpr Criterion moveOwnParts{
    "move_own_parts", "share of the picture that the rig's own parts may cover over what they do",
    units::Kind::Ratio, 1.0};
inline constexpr Criterion moveFocus{"move_focus", "blur that looks sharp over that of the target in a move",
                                     units::Kind::Ratio, 1.2};
inline constexpr Criterion moveJudder{
    "move_judder", "time in which the target crosses the frame over the least", units::Kind::Ratio, 1.4};
inline constexpr Criterion moveStepping{"move_stepping", "jitter limit over stepping along a move",
                                        units::Kind::Ratio, 1.5};
inline constexpr Criterion moveJitter{"move_jitter", "jitter limit over jitter along a move",
                                      units::Kind::Ratio, 1.5};
inline constexpr Criterion moveDrift{"move_drift", "drift limit over drift along a move", units::Kind::Ratio,
                                     1.5};
inline constexpr Criterion moveHorizon{
    "move_horizon", "lean of the horizon that is not seen over that of a move", units::Kind::Ratio, 1.0};
inline constexpr Criterion moveHeld{"move_held", "what a standing axis holds over what pushes it in a move",
                                    units::Kind::Ratio, 2.0};
inline constexpr Criterion moveApproach{"move_approach", "room before the first pose over the backlash",
                                        units::Kind::Ratio, 1.0};
inline constexpr Criterion moveRunOn{"move_run_on",
                                     "way to the end of travel over the way on after an emergency stop",
                                     units::Kind::Ratio, 1.0};
inline constexpr Criterion moveChoices{"move_choices",
                                       "share of a segment's time that may lack or be too much over what is",
                                       units::Kind::Ratio, 1.0};
// Interval plans
inline constexpr Criterion planRun{"plan_run", "a plan that can run as it is meant", units::Kind::Ratio, 1.0};
inline constexpr Criterion planRoom{"plan_room", "interval over the shortest that everything fits in",
                                    units::Kind::Ratio, 1.05};
inline constexpr Criterion planStill{
    "plan_still", "jitter limit over the vibration left when the shutter opens", units::Kind::Ratio, 1.25};
inline constexpr Criterion planTravel{"plan_travel", "half the travel over the farthest from its middle",
                                      units::Kind::Ratio, 1.0};
inline constexpr Criterion planBlur{"plan_blur", "smear that looks sharp over that of a picture",
                                    units::Kind::Ratio, 1.0};
inline constexpr Criterion planSteps{"plan_steps", "jitter limit over what steps put a picture off",
                                     units::Kind::Ratio, 1.5};
inline constexpr Criterion planStorage{"plan_storage", "pictures on the card over those of the plan",
                                       units::Kind::Ratio, 1.1};
inline constexpr Criterion planBattery{"plan_battery", "energy of the battery over that of the plan",
                                       units::Kind::Ratio, 1.25};
inline constexpr Criterion planFalls{"plan_falls", "power to the end for an axis that falls without",
                                     units::Kind::Ratio, 1.25};
inline constexpr Criterion planHead{"plan_head", "framing limit over the error of a head that stops early",
                                    units::Kind::Ratio, 1.5};
inline constexpr Criterion planTimers{
    "plan_timers", "pictures without a collision of clocks over all of the plan", units::Kind::Ratio, 1.0};
inline constexpr Criterion planTrigger{"plan_trigger", "exposure against what the trigger can do",
                                       units::Kind::Ratio, 1.0};
inline constexpr Criterion planSensor{
    "plan_sensor", "pictures that may be taken of nobody over those that are", units::Kind::Ratio, 1.0};
inline constexpr Criterion planPace{"plan_pace", "share of the way that is shown over the least that does",
                                    units::Kind::Ratio, 1.1};
inline constexpr Criterion planHeat{"plan_heat", "room up to the limit of the case over the rise in the plan",
                                    units::Kind::Ratio, 1.2};
inline constexpr Criterion tipping{"tipping", "what keeps the rig on its feet over what tips it",
                                   units::Kind::Ratio, 1.5};
inline constexpr Criterion anchors{"anchors", "strength of anchors over their pull", units::Kind::Ratio, 5.0};
inline constexpr Criterion tether{"tether", "second tether of an overhead rig", units::Kind::Ratio, 1.0};
inline constexpr Criterion clearance{"clearance", "distance over the least distance", units::Kind::Ratio,
                                     1.0};
inline constexpr Criterion weight{"weight", "weight budget over weight", units::Kind::Ratio, 1.05};
inline constexpr Criterion money{"money", "money budget over price", units::Kind::Ratio, 1.0};
// Thresholds
inline constexpr Criterion supplyEfficiency{"supply_efficiency",
                                            "share that drivers and converters pass on to what they feed",
                                            units::Kind::Percentage, 0.9};
inline constexpr Criterion ownPictures{"own_pictures", "pictures that may be taken after everybody left",
                                       units::Kind::Count, 2.0};
inline constexpr Criterion paceShare{
    "pace_share",
    "least share of the way that is shown, or of pictures that show it, while somebody is there",
    units::Kind::Percentage, 0.9};
inline constexpr Criterion whirlShare{"whirl_share", "share of its whirling speed that a screw may reach",
                                      units::Kind::Percentage, 0.8};
inline constexpr Criterion cordFactor{"cord_factor", "breaking load of a cord over its pull that is usual",
                                      units::Kind::Ratio, 5.0};
inline constexpr Criterion beltStrain{"belt_strain", "strain that a belt withstands in service",
                                      units::Kind::Percentage, 0.004};
inline constexpr Criterion droopShare{
    "droop_share", "share of its length by which the end of an arm may droop", units::Kind::Percentage, 0.01};
inline constexpr Criterion stepsShare{"steps_share", "share by which told steps per unit may miss the parts",
                                      units::Kind::Percentage, 0.001};
inline constexpr Criterion startFriction{
    "start_friction", "friction of worm flanks at rest over that when they run", units::Kind::Ratio, 1.5};
inline constexpr Criterion teethInMesh{"teeth_in_mesh", "teeth in mesh that a belt's rating is given for",
                                       units::Kind::Count, 6.0};
inline constexpr Criterion contactRatio{"contact_ratio", "pairs of teeth in contact that run smoothly",
                                        units::Kind::Ratio, 1.2};
inline constexpr Criterion beltSpeed{"belt_speed", "speed of a toothed belt", units::Kind::Speed, 40.0};
inline constexpr Criterion metalToothSpeed{
    "metal_tooth_speed", "speed of straight metal teeth at the pitch circle", units::Kind::Speed, 15.0};
inline constexpr Criterion softToothSpeed{"soft_tooth_speed",
                                          "speed of plastic, printed and wooden teeth at the pitch circle",
                                          units::Kind::Speed, 5.0};
inline constexpr Criterion creepFriction{
    "creep_friction", "friction over gravity below which a shaken axis creeps", units::Kind::Ratio, 1.5};
inline constexpr Criterion balanceShare{"balance_share",
                                        "share of what hangs in front that may be left unbalanced",
                                        units::Kind::Percentage, 0.1};
inline constexpr Criterion clearanceDistance{
    "clearance_distance", "least distance of moving parts to anything", units::Kind::Length, 0.05};
inline constexpr Criterion ownClearance{"own_clearance", "least distance of small parts to the rig's own",
                                        units::Kind::Length, 0.01};
inline constexpr Criterion resonanceStay{"resonance_stay", "stay in the rotor's resonance that does no harm",
                                         units::Kind::Time, 0.5};
inline constexpr Criterion creepTime{
    "creep_time", "time for which a crawl has to last before its steps are seen", units::Kind::Time, 0.5};
inline constexpr Criterion choiceMiss{"choice_miss",
                                      "share of a segment's time by which a fixed speed or time may miss it",
                                      units::Kind::Percentage, 0.02};
inline constexpr Criterion horizonLean{"horizon_lean", "lean of the horizon that is not seen",
                                       units::Kind::Angle, 0.0087266462599716477}; // half a degree
inline constexpr Criterion ownParts{"own_parts",
                                    "share of the picture in which a part of the rig goes unseen",
                                    units::Kind::Percentage, 0.001};
inline constexpr Criterion sharpness{"sharpness", "blur that still looks sharp", units::Kind::Pixels, 2.0};
inline constexpr Criterion judderRate{
    "judder_rate", "frame rate up to which the crossing time holds as it is", units::Kind::Frequency, 30.0};
inline constexpr Criterion pushForce{"push_force", "firm push of one hand", units::Kind::Force, 60.0};
inline constexpr Criterion fallAngle{"fall_angle", "angle over which an unbalanced arm falls freely",
                                     units::Kind::Angle, 2.0};
inline constexpr Criterion motorCase{"motor_case", "temperature that a motor's case withstands for hours",
                                     units::Kind::Celsius, 80.0};
inline constexpr Criterion servoRise{"servo_rise", "rise of a servo motor's case at its rated torque",
                                     units::Kind::Ratio, 60.0};
inline constexpr Criterion servoAir{"servo_air", "air that a servo's rated torque is given for",
                                    units::Kind::Celsius, 40.0};
inline constexpr Criterion servoIronShare{
    "servo_iron_share", "share of a servo's loss at rated torque that its torque does not change",
    units::Kind::Percentage, 0.1};
inline constexpr Criterion windingLimit{"winding_limit", "temperature that a winding's insulation withstands",
                                        units::Kind::Celsius, 130.0};
inline constexpr Criterion servoEfficiency{"servo_efficiency",
                                           "share of the supply's power that a servo drive passes on",
                                           units::Kind::Percentage, 0.75};
inline constexpr Criterion settlingPlenty{"settling_plenty", "ratio of times beyond which more says nothing",
                                          units::Kind::Ratio, 20.0};
inline constexpr Criterion ampleRatio{
    "ample_ratio", "ratio beyond which what is needed counts, not what is left", units::Kind::Ratio, 4.0};
inline constexpr Criterion shotRoom{"shot_room", "room above what the shots need in recommended limits",
                                    units::Kind::Ratio, 1.25};
inline constexpr Criterion speedShare{"speed_share",
                                      "share of the largest speed that is recommended without shots",
                                      units::Kind::Percentage, 0.64};
inline constexpr Criterion accelerationShare{
    "acceleration_share", "share of the largest acceleration that is recommended without shots",
    units::Kind::Percentage, 0.5};
inline constexpr Criterion instantStepShare{"instant_step_share",
                                            "share of the start-stop speed that a jump of speed may take",
                                            units::Kind::Percentage, 0.5};
inline constexpr Criterion drumFreeboard{
    "drum_freeboard", "cord diameters that stay clear below the cheek of a drum", units::Kind::Ratio, 2.0};
inline constexpr Criterion diodeVoltage{"diode_voltage", "voltage over a freewheeling diode",
                                        units::Kind::Voltage, 0.6};
inline constexpr Criterion ownSpeed{
    "own_speed", "share by which a motor without speed control may miss the speed of a shot",
    units::Kind::Percentage, 0.2};
// Rig building defaults
inline constexpr Criterion regulatorChip{"regulator_chip",
                                         "temperature that the chip of a linear regulator withstands",
                                         units::Kind::Celsius, 125.0};
inline constexpr Criterion mountPla{
    "mount_pla", "temperature at which a printed PLA mount softens under load", units::Kind::Celsius, 50.0};
inline constexpr Criterion mountPetg{"mount_petg", "the same of PETG", units::Kind::Celsius, 68.0};
inline constexpr Criterion mountAbs{"mount_abs", "the same of ABS", units::Kind::Celsius, 88.0};
inline constexpr Criterion toothSteel{"tooth_steel", "lasting bending stress of steel teeth",
                                      units::Kind::Stress, 140e6};
inline constexpr Criterion toothAluminium{"tooth_aluminium", "the same of aluminium teeth",
                                          units::Kind::Stress, 70e6};
inline constexpr Criterion toothBrass{"tooth_brass", "the same of brass teeth", units::Kind::Stress, 50e6};
inline constexpr Criterion toothAcetal{"tooth_acetal", "the same of acetal teeth", units::Kind::Stress, 25e6};
inline constexpr Criterion toothNylon{"tooth_nylon", "the same of nylon teeth", units::Kind::Stress, 20e6};
inline constexpr Criterion toothPla{"tooth_pla", "the same of printed PLA teeth", units::Kind::Stress, 10e6};
inline constexpr Criterion toothPetg{"tooth_petg", "the same of printed PETG teeth", units::Kind::Stress,
                                     8e6};
inline constexpr Criterion toothHardwood{"tooth_hardwood", "the same of hardwood teeth", units::Kind::Stress,
                                         7e6};
inline constexpr Criterion toothPlywood{"tooth_plywood", "the same of plywood teeth", units::Kind::Stress,
                                        6e6};

/// All of them, in the order in which they stand here.
std::span<const Criterion> all();

} // namespace gantry::criteria
