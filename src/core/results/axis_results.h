// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/results/describe_figures.h"
#include "core/structure/softness.h"

#include <string_view>
#include <vector>

/// What is true of an axis whatever shot it takes. U is m or rad.
namespace gantry {

struct AxisSteps {
    Figure stepsPerUnit;       ///< [1/mm] or [1/°]
    Figure stepsPerUnitKept;   ///< as the controller keeps it
    Figure roundingShare;      ///< [1] relative error of the kept number
    Figure roundingOverTravel; ///< [U]
};
template <class V, Of<AxisSteps>... S>
void describe(V& v, S&... s) {
    v.figure(result("steps_per_unit", "steps per mm or degree", K::Ratio), s.stepsPerUnit...);
    v.figure(result("steps_per_unit_kept", "steps per mm or degree, as the controller rounds it", K::Ratio),
             s.stepsPerUnitKept...);
    v.figure(result("rounding_share", "rounding error, relative", K::Percentage), s.roundingShare...);
    v.figure(result("rounding_over_travel_m", K::Length, "rounding_over_travel_rad", K::Angle,
                    "rounding error over the travel"),
             s.roundingOverTravel...);
}

/// Of a stepper: rotor and load on the springs of field and drive, and the speeds that shake them.
struct RotorResonance {
    Figure frequency; ///< [Hz] the lower one, at run current, unloaded
    Figure low;       ///< [U/s] lower end of the band about it that cruising should avoid, by full steps
    Figure high;      ///< [U/s] upper end
    Figure speed;     ///< [U/s] where full steps meet it
    Figure damping;   ///< [1] of critical
    Figure loadSwing; ///< [1] swing of the load over that of the rotor
    Figure second;    ///< [Hz] the rotor against the drive's spring; none where that is rigid
    Figure secondLow, secondHigh, secondSpeed; ///< [U/s] the same of it
};
template <class V, Of<RotorResonance>... S>
void describe(V& v, S&... s) {
    v.figure(result("natural_frequency_hz", "natural frequency of rotor and load", K::Frequency),
             s.frequency...);
    v.figure(result("resonance_low_m_s", K::Speed, "resonance_low_rad_s", K::AngularSpeed,
                    "resonance band, lower end"),
             s.low...);
    v.figure(result("resonance_high_m_s", K::Speed, "resonance_high_rad_s", K::AngularSpeed,
                    "resonance band, upper end"),
             s.high...);
    v.figure(
        result("resonance_speed_m_s", K::Speed, "resonance_speed_rad_s", K::AngularSpeed, "resonance speed"),
        s.speed...);
    v.figure(result("resonance_damping", "damping ratio of rotor and load", K::Percentage), s.damping...);
    v.figure(result("load_swing", "swing of the load over that of the rotor", K::Ratio), s.loadSwing...);
    v.figure(result("second_frequency_hz", "natural frequency of the rotor against the drive", K::Frequency),
             s.second...);
    v.figure(result("second_low_m_s", K::Speed, "second_low_rad_s", K::AngularSpeed,
                    "second resonance band, lower end"),
             s.secondLow...);
    v.figure(result("second_high_m_s", K::Speed, "second_high_rad_s", K::AngularSpeed,
                    "second resonance band, upper end"),
             s.secondHigh...);
    v.figure(
        result("second_speed_m_s", K::Speed, "second_speed_rad_s", K::AngularSpeed, "second resonance speed"),
        s.secondSpeed...);
}

struct PowerOff {
    bool loaded = false; ///< gravity pulls at all
    bool falls = false;  ///< gravity beats friction and nothing else holds
    Figure gravity;      ///< [N] or [N·m]
    Figure friction;     ///< [N] or [N·m]
    Figure energy;       ///< [J] at the end of the travel
    Figure speed;        ///< [U/s] at the end of the travel
    Figure brakeRatio;   ///< [1] brake torque over gravity torque at the motor; none without a brake
};
template <class V, Of<PowerOff>... S>
void describe(V& v, S&... s) {
    v.flag(mark("falls", "runs down without power"), s.falls...);
    v.figure(result("gravity_N", K::Force, "gravity_Nm", K::Torque, "gravity"), s.gravity...);
    v.figure(result("friction_N", K::Force, "friction_Nm", K::Torque, "friction"), s.friction...);
    v.figure(result("energy_J", "energy at the end of the travel", K::Energy), s.energy...);
    v.figure(result("speed_m_s", K::Speed, "speed_rad_s", K::AngularSpeed, "speed at the end of the travel"),
             s.speed...);
    v.figure(result("brake_ratio", "brake torque over gravity", K::Ratio), s.brakeRatio...);
}

/// What a stop or a loss of power does to a loaded axis.
enum class StopOutcome { Stays, Creeps, Falls, Unknown };
template <>
struct ChoiceNames<StopOutcome> {
    static constexpr std::array<std::string_view, 4> keys{"stays", "creeps", "falls", "unknown"};
    static constexpr std::array<std::string_view, 4> labels{"stays", "creeps", "falls", "not known"};
};

/// After an emergency stop or a reset.
struct EmergencyStop {
    StopOutcome outcome = StopOutcome::Stays;
    Figure ratio; ///< [1] what holds then over what gravity asks
};
template <class V, Of<EmergencyStop>... S>
void describe(V& v, S&... s) {
    v.outcome(mark("outcome", "behaviour of the load"), s.outcome...);
    v.figure(result("ratio", "holding over gravity", K::Ratio), s.ratio...);
}

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
template <class V, Of<PartCheck>... S>
void describe(V& v, S&... s) {
    v.figure(result("strength", "rating over load", K::Ratio), s.strength...);
    v.figure(result("mesh_share_of_six", "teeth in mesh over six", K::Ratio), s.meshes...);
    v.figure(result("undercut", "smallest tooth count over undercut limit", K::Ratio), s.undercut...);
    v.figure(result("contact_ratio", "contact ratio", K::Ratio), s.contactRatio...);
    v.figure(result("grip", "traction over pull", K::Ratio), s.slip...);
    v.figure(result("centre_distance_m", "centre distance", K::PartLength), s.centreDistance...);
    v.figure(result("load", "maximum load in N or N·m", K::Ratio), s.load...);
    v.figure(result("allowed", "rated load, in the same unit", K::Ratio), s.allowed...);
}
template <>
constexpr bool printsOnlyWhatApplies<PartCheck> = true;

/// What the parts of an axis stand, each figure only where the axis has such a part.
struct AxisChecks {
    std::vector<PartCheck> parts; ///< the links in order, then the output
    Figure motorTopSpeed;         ///< [U/s] at which the motor has no torque left
    Figure caseTemperature;       ///< [°C] of the motor after hours at its set current or worst shot
    Figure caseLimit;             ///< [°C] that the mount stands
    Figure shaftRadial;           ///< [N] on the motor's shaft at the worst
    Figure shaftAxial;            ///< [N]
    Figure stallCurrent;          ///< [A] of a brushed motor
    Figure reversalCurrent;       ///< [A] when reversed at its no-load speed
    Figure whirlSpeed;            ///< [U/s] of a screw, without factor
    Figure bucklingLoad;          ///< [N] of a screw, without factor
    Figure cordRatio;             ///< [1] breaking load over the worst pull
    Figure windingLayers;         ///< [1] on a winch
    Figure stepsPerUnitFirst;     ///< on a winch: first layer, bare drum
    Figure stepsPerUnitLast;      ///< on a winch: drum as full as it gets
    Figure layerError;            ///< [m] ± of place on a winch, by the one number that errs least
    Figure drumCapacity;          ///< [1] cord that the drum takes over that of travel and turns that stay
    Figure guideRotation;         ///< [rad] by the play of the guides
    Figure bindingRatio;          ///< [1] beyond which plain bearings pushed off centre do not bind
    Figure bearingLoad;           ///< [N] on the worst bearing
    Figure guideFriction;         ///< [N] that the guides alone must cost
    Figure turningRadius;         ///< [m] of a steered wheel
    Figure panBarTurn;            ///< [rad] that a pan bar turns the camera over the travel
    Figure panBarReach;           ///< [1] arm length over what it must reach
    Figure placeError;            ///< [U] ± at rest
    Figure speedSpan;             ///< [1] of a motor on a knob: fastest over slowest steady speed …
    Figure speedsAsked;           ///< … and of its shots
    Figure ratioFactor; ///< [1] of the ratio at which its slowest shot runs steadily with its margin
    Figure massOn;      ///< [kg] of the heaviest axis that stands on a linear one
    bool locks = false; ///< a worm or screw in the drive locks at rest
};
template <class V, Of<AxisChecks>... S>
void describe(V& v, S&... s) {
    v.list("parts", s.parts...);
    v.figure(result("motor_top_speed_m_s", K::Speed, "motor_top_speed_rad_s", K::AngularSpeed,
                    "top speed of the motor"),
             s.motorTopSpeed...);
    v.figure(result("case_temperature_C", "steady case temperature of the motor", K::Celsius),
             s.caseTemperature...);
    v.figure(result("case_limit_C", "case temperature limit", K::Celsius), s.caseLimit...);
    v.figure(result("shaft_radial_N", "radial load on the motor shaft", K::Force), s.shaftRadial...);
    v.figure(result("shaft_axial_N", "axial load on the motor shaft", K::Force), s.shaftAxial...);
    v.figure(result("stall_current_A", "stall current", K::Current), s.stallCurrent...);
    v.figure(result("reversal_current_A", "reversal current at full speed", K::Current),
             s.reversalCurrent...);
    v.figure(result("whirl_speed_m_s", "whirling speed of the screw", K::Speed), s.whirlSpeed...);
    v.figure(result("buckling_load_N", "buckling load of the screw", K::Force), s.bucklingLoad...);
    v.figure(result("cord_ratio", "breaking load of the cord over its maximum pull", K::Ratio),
             s.cordRatio...);
    v.figure(result("winding_layers", "layers on the drum", K::Ratio), s.windingLayers...);
    v.figure(result("steps_per_unit_first_layer", "steps per mm on the bare drum", K::Ratio),
             s.stepsPerUnitFirst...);
    v.figure(result("steps_per_unit_last_layer", "steps per mm on the full drum", K::Ratio),
             s.stepsPerUnitLast...);
    v.figure(result("layer_error_m", "position error by layers on the drum, ±", K::Length), s.layerError...);
    v.figure(result("drum_capacity", "cord the drum takes over the cord there is", K::Ratio),
             s.drumCapacity...);
    v.figure(result("guide_rotation_rad", "rotation by play of the guides", K::Angle), s.guideRotation...);
    v.figure(result("binding_ratio", "safety against binding of plain bearings", K::Ratio),
             s.bindingRatio...);
    v.figure(result("bearing_load_N", "load on the most loaded bearing", K::Force), s.bearingLoad...);
    v.figure(result("guide_friction_N", "friction of the guides", K::Force), s.guideFriction...);
    v.figure(result("turning_radius_m", "turning radius", K::Length), s.turningRadius...);
    v.figure(result("pan_bar_turn_rad", "rotation by the pan bar over the travel", K::Angle),
             s.panBarTurn...);
    v.figure(result("pan_bar_reach", "pan bar length over required length", K::Ratio), s.panBarReach...);
    v.figure(result("place_error_m", K::PartLength, "place_error_rad", K::Angle, "position error at rest, ±"),
             s.placeError...);
    v.figure(result("speed_span", "fastest over slowest steady speed of the motor", K::Ratio),
             s.speedSpan...);
    v.figure(result("speeds_asked", "fastest over slowest shot", K::Ratio), s.speedsAsked...);
    v.figure(result("ratio_factor", "ratio over the present one for a steady slowest shot", K::Ratio),
             s.ratioFactor...);
    v.figure(result("mass_on_kg", "mass listed for what stands on it", K::Mass), s.massOn...);
    v.flag(mark("locks_at_rest", "self-locking at rest"), s.locks...);
}
template <>
constexpr bool printsOnlyWhatApplies<AxisChecks> = true;

/// What gives way under a camera.
enum class SoftCause { Drive, Rail, Stands, Boom, Mast, Pads };
std::string_view softName(SoftCause cause);

struct SoftEntry {
    SoftCause cause = SoftCause::Drive;
    structure::SoftPart part;
};

/// How a rail or an arm gives way, holds and balances. Figures that a kind of axis has not have no meaning
/// there.
struct AxisStructure {
    Reason problem = Reason::NeedsSection; ///< why there is nothing, if so
    bool printed = false;                  ///< a printed part carries the load

    Figure ownMass;      ///< [kg] of rail or arm
    Figure sag;          ///< [m] largest less smallest along the travel, or at the arm's end when level
    Figure slope;        ///< [rad] largest along the travel, or at the arm's end
    Figure twist;        ///< [rad] largest
    Figure sagShift;     ///< [m] by which the sag changes over the travel
    Figure slopeShift;   ///< [rad] by which the slope changes
    Figure slopeRate;    ///< [rad/U] steepest change of slope along the travel
    Figure sagRate;      ///< [m/U]
    Figure twistShift;   ///< [rad]
    Figure bounce;       ///< [Hz] first natural frequency up and down
    Figure stressRatio;  ///< [1] what the material stands over the largest bending stress
    Figure tippingRatio; ///< [1] of a rail over its stands
    Figure clampRatio;   ///< [1] what a clamp bolt of the rail stands over its worst pull
    Figure tippingAt;    ///< [m] of the carriage along the rail, where that is least

    Figure frontMoment;  ///< [N·m] of what hangs in front of the pivot, level; none without a counterweight
    Figure gravityWorst; ///< [N·m] left for the motor, largest without sign over the range
    Figure gravityWorstAt; ///< [rad] elevation where it is
    Figure offLine;        ///< [m] centre of gravity above the arm line of all but the counterweight
    Figure unbalanceable;  ///< [N·m] left at the worst angle with the best mass or place of counterweight
    Figure balancingMass;  ///< [kg] at the place it has now
    Figure balancingPlace; ///< [m] behind the pivot for the mass it has now
    Figure weightInertia;  ///< [1] share of the counterweight in the moment of inertia
    Figure dropEnergy;     ///< [J] freed from the highest to the lowest place of the range, at most
    Figure pinRatio;       ///< [1]
    Figure bearingRatio;   ///< [1] rated load over the weight on the pivot
    Figure momentRatio;    ///< [1] rated moment of the bearing under the arm over the largest
    Figure boltRatio;      ///< [1]

    Figure frequency;            ///< [Hz] of all that gives way in series
    Figure damping;              ///< [1] of critical, of all together
    std::vector<SoftEntry> soft; ///< softest first
    structure::Softness all;     ///< of all in series
};
template <class V, Of<AxisStructure>... S>
void describe(V& v, S&... s) {
    v.figure(result("own_mass_kg", "own mass of rail or arm", K::Mass), s.ownMass...);
    v.figure(result("sag_m", "deflection", K::PartLength), s.sag...);
    v.figure(result("slope_rad", "maximum slope", K::Angle), s.slope...);
    v.figure(result("twist_rad", "maximum twist", K::Angle), s.twist...);
    v.figure(result("sag_change_m", "change of deflection over the travel", K::PartLength), s.sagShift...);
    v.figure(result("slope_change_rad", "change of slope over the travel", K::Angle), s.slopeShift...);
    v.figure(result("twist_change_rad", "change of twist over the travel", K::Angle), s.twistShift...);
    v.figure(result("sag_change_m_per_m", K::Ratio, "sag_change_m_per_rad", K::Ratio,
                    "maximum change of deflection per unit of travel"),
             s.sagRate...);
    v.figure(result("slope_change_rad_per_m", K::Ratio, "slope_change_rad_per_rad", K::Ratio,
                    "maximum change of slope per unit of travel"),
             s.slopeRate...);
    v.figure(result("bounce_hz", "natural frequency, vertical", K::Frequency), s.bounce...);
    v.figure(result("stress_ratio", "allowable stress over bending stress", K::Ratio), s.stressRatio...);
    v.figure(result("tipping_ratio", "safety against tipping over the stands", K::Ratio), s.tippingRatio...);
    v.figure(result("tipping_at_m", "carriage position at minimum safety", K::Length), s.tippingAt...);
    v.figure(result("clamp_bolt_ratio", "clamp bolt rating over maximum pull", K::Ratio), s.clampRatio...);
    v.figure(result("front_moment_Nm", "moment in front of the pivot", K::Torque), s.frontMoment...);
    v.figure(result("gravity_worst_Nm", "maximum gravity torque over the range", K::Torque),
             s.gravityWorst...);
    v.figure(result("gravity_worst_at_rad", "elevation at maximum gravity torque", K::Angle),
             s.gravityWorstAt...);
    v.figure(result("off_line_m", "centre of gravity above the arm axis", K::PartLength), s.offLine...);
    v.figure(result("unbalanceable_Nm", "residual torque with the best counterweight", K::Torque),
             s.unbalanceable...);
    v.figure(result("balancing_mass_kg", "balancing mass at this position", K::Mass), s.balancingMass...);
    v.figure(result("balancing_place_m", "balancing position for this mass", K::Length), s.balancingPlace...);
    v.figure(result("counterweight_inertia_share", "share of the counterweight in the moment of inertia",
                    K::Percentage),
             s.weightInertia...);
    v.figure(result("drop_energy_J", "energy from the highest to the lowest position", K::Energy),
             s.dropEnergy...);
    v.figure(result("pin_ratio", "pivot pin, rating over load", K::Ratio), s.pinRatio...);
    v.figure(result("bearing_ratio", "pivot bearing, rating over load", K::Ratio), s.bearingRatio...);
    v.figure(result("bearing_moment_ratio", "pivot bearing, rated moment over tilting moment", K::Ratio),
             s.momentRatio...);
    v.figure(result("bolt_ratio", "pivot bolts, rating over load", K::Ratio), s.boltRatio...);
    v.figure(result("frequency_hz", "natural frequency, all compliances in series", K::Frequency),
             s.frequency...);
    v.figure(result("damping", "damping ratio", K::Percentage), s.damping...);
}
template <>
constexpr bool printsOnlyWhatApplies<AxisStructure> = true;

} // namespace gantry
