// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/recipes/recipe.h"

#include "core/drivetrain/belt.h"
#include "core/recipes/structure_recipes.h"
#include "core/units/constants.h"

#include <cmath>
#include <numbers>

namespace gantry::recipes {
namespace {

using K = units::Kind;
using In = std::span<const double>;
using std::numbers::pi;

constexpr std::string_view slideCare = "Work with a dummy mass, never with the camera. Tie a catch strap to "
                                       "the carriage, raise the low end slowly, and keep "
                                       "hands out of its way: it starts without warning.";
constexpr std::string_view shaftCare =
    "Switch the supply off and wait a minute before you touch leads or shafts.";
constexpr std::string_view loadCare = "Block or tie the axis so that it cannot drop or spin when you let go. "
                                      "Keep fingers clear of gears and belts.";
constexpr std::string_view heatCare = "Motors get hot enough to burn. Touch the case only with a "
                                      "thermometer, keep paper away, stop at the agreed temperature.";

double asRead(In r) {
    return r[0];
}
double slidingAngle(In r) {
    return r[0] * units::standardGravity * std::sin(r[1]);
}
double bifilar(In r) { // mass, distance of the strings, their length, time of ten swings
    return r[0] * units::standardGravity * r[1] * r[1] * std::pow(r[3] / 10.0, 2) / (16.0 * pi * pi * r[2]);
}
double share(In r) {
    return r[0] / r[1];
}
double fallenRise(In r) {
    return std::asin(r[0] / r[1]);
}

std::vector<Recipe> makeRecipes() {
    return {
        {"friction-scale",
         "running_friction_N",
         "Running friction with a luggage scale",
         "1. Level the rail with a spirit level. 2. Take the belt, cord or nut off the carriage. 3. Hook the "
         "scale to the "
         "carriage and pull it slowly and steadily along the whole travel. 4. Read the scale while it moves; "
         "take the "
         "highest steady reading.",
         "",
         {{"Steady pull", K::Force, 3.0}},
         asRead,
         0.15},
        {"friction-angle",
         "running_friction_N",
         "Running friction from the angle at which it keeps sliding",
         "1. Take the drive off and put a dummy mass on. 2. Raise one end until a push keeps the carriage "
         "moving at the same "
         "speed. 3. Measure the angle with a protractor or a phone.",
         slideCare,
         {{"Moving mass", K::Mass, 3.0, "moving_mass_kg"}, {"Angle", K::Angle, 0.05}},
         slidingAngle,
         0.1},
        {"static-angle",
         "static_friction_N",
         "Break-away friction from the angle at which it starts",
         "1. Take the drive off and put a dummy mass on. 2. Raise one end slowly until the carriage starts "
         "by itself. "
         "3. Measure the angle; repeat three times and take the largest.",
         slideCare,
         {{"Moving mass", K::Mass, 3.0, "moving_mass_kg"}, {"Angle", K::Angle, 0.07}},
         slidingAngle,
         0.15},
        {"static-scale",
         "static_friction_N",
         "Break-away friction with a luggage scale",
         "1. Level the rail, take the drive off. 2. Pull gently until the carriage jumps; read the highest "
         "value. 3. Repeat "
         "at both ends and in the middle.",
         "",
         {{"Highest pull", K::Force, 4.0}},
         asRead,
         0.2},
        {"friction-torque",
         "friction_Nm",
         "Running friction of an axis with a scale and an arm",
         "1. Take the drive off. 2. Hook the scale to an arm at a known distance from the axis, square to "
         "it. 3. Turn slowly "
         "and read the pull.",
         loadCare,
         {{"Pull", K::Force, 1.0}, {"Distance from the axis", K::Length, 0.1}},
         [](In r) { return r[0] * r[1]; },
         0.15},
        {"inertia-swing",
         "inertia_kgm2",
         "Inertia by swinging it on two strings",
         "1. Hang the part level on two equal strings, the axis in the middle between them. 2. Twist it a "
         "little and let it "
         "swing about the vertical. 3. Time ten full swings.",
         "Swing something that may fall only over a cushion, low above the floor, and never the camera on "
         "thin string.",
         {{"Mass", K::Mass, 1.0},
          {"Distance of the strings", K::Length, 0.2},
          {"Length of the strings", K::Length, 0.5},
          {"Time of ten swings", K::Time, 12.0}},
         bifilar,
         0.05},
        {"mass-scales",
         "moving_mass_kg",
         "Moving mass on a kitchen scale",
         "1. Put one end of the carriage on the scale, the other on a block of equal height. 2. Swap the "
         "ends. 3. Add both "
         "readings.",
         "",
         {{"First end", K::Mass, 1.5}, {"Second end", K::Mass, 1.5}},
         [](In r) { return r[0] + r[1]; },
         0.02},
        {"slope-heights",
         "slope_rad",
         "Slope from two heights",
         "1. Measure the height of the rail above the floor at both ends. 2. Measure the rail between the "
         "two places.",
         "",
         {{"Difference of the heights", K::Length, 0.2}, {"Length between them", K::Length, 1.0}},
         fallenRise,
         0.02},
        {"pitch-50",
         "pitch_m",
         "Belt pitch over fifty teeth",
         "1. Lay the belt straight on a table. 2. Mark a tooth, count fifty on, mark again. 3. Measure "
         "between the marks: "
         "100.0 mm is a 2.000 mm pitch, 101.6 mm is 2.032 mm.",
         "",
         {{"Length between the marks", K::PartLength, 0.1}, {"Teeth counted", K::Count, 50}},
         share,
         0.002},
        {"drum-turns",
         "drum_diameter_m",
         "Drum diameter by winding",
         "1. Wind a length of cord side by side on the bare drum. 2. Count the turns. 3. Unwind and measure "
         "the cord.",
         "",
         {{"Length of cord", K::Length, 1.0},
          {"Turns", K::Count, 8},
          {"Cord diameter", K::PartLength, 0.0015, "cord_diameter_m"}},
         [](In r) { return r[0] / (pi * r[1]) - r[2]; },
         0.01},
        {"cord-side-by-side",
         "cord_diameter_m",
         "Cord diameter from turns side by side",
         "1. Wind twenty turns close together on a pencil, under light pull. 2. Measure their whole width.",
         "",
         {{"Width of all turns", K::PartLength, 0.03}, {"Turns", K::Count, 20}},
         share,
         0.05},
        {"lead-turns",
         "lead_m",
         "Screw lead by counted turns",
         "1. Turn the screw by hand ten times and measure how far the nut goes. A start more makes a lead "
         "more than it looks.",
         shaftCare,
         {{"Way of the nut", K::Length, 0.08}, {"Turns", K::Count, 10}},
         share,
         0.005},
        {"backlash-marks",
         "backlash_m",
         "Backlash by two marks",
         "1. Push the carriage gently one way by hand, motor held, and mark its place on the rail. 2. Push "
         "it the other way "
         "and mark again. 3. Measure between the marks.",
         loadCare,
         {{"Between the marks", K::Length, 1e-4}},
         asRead,
         0.2},
        {"backlash-arm",
         "backlash_rad",
         "Backlash by two marks on an arm",
         "1. Fix a long pointer to the turning part. 2. Push it gently to and fro with the motor held. 3. "
         "Measure the way of "
         "its tip.",
         loadCare,
         {{"Way of the tip", K::Length, 0.001}, {"Length of the pointer", K::Length, 0.3}},
         share,
         0.15},
        {"resistance-meter",
         "resistance_ohm",
         "Phase resistance with a multimeter",
         "1. Unplug the motor. 2. Touch the probes together and read the leads. 3. Measure one phase.",
         shaftCare,
         {{"Reading", K::Resistance, 1.7}, {"Probes together", K::Resistance, 0.2}},
         [](In r) { return r[0] - r[1]; },
         0.03},
        {"ratio-turns",
         "ratio_numerator",
         "True gear ratio by counted turns",
         "1. Mark both shafts. 2. Turn the input until the output has made a whole number of turns and both "
         "marks meet again. "
         "3. Count the input turns; use one output turn here and type the fraction if both are whole.",
         loadCare,
         {{"Turns of the input", K::Count, 50}, {"Turns of the output", K::Count, 1}},
         share,
         0.0},
        {"gearmotor-turns",
         "gear_numerator",
         "True gearbox ratio by counted turns",
         "1. Take the cover off and mark the motor shaft. 2. Turn it until the output has made one turn; "
         "count.",
         shaftCare,
         {{"Turns of the rotor", K::Count, 100}, {"Turns of the shaft", K::Count, 1}},
         share,
         0.0},
        {"speed-timed",
         "no_load_speed_rad_s",
         "Motor speed by timed turns",
         "1. Run the motor free at its nominal voltage. 2. Put a tape flag on the shaft and count its passes "
         "for half a minute "
         "or more.",
         "Keep sleeves, hair and strings away from the turning shaft.",
         {{"Turns", K::Count, 15}, {"Time", K::Time, 30}},
         [](In r) { return 2.0 * pi * r[0] / r[1]; },
         0.03},
        {"current-sense",
         "run_current_rms_A",
         "Current from the sense voltage",
         "1. Run the axis slowly. 2. Measure the highest voltage over the sense resistor with a scope, or a "
         "meter that holds "
         "peaks. 3. The peak current is that voltage over the resistance; its rms is 1/√2 of it.",
         "Measure on a low-voltage driver only, with one hand, and do not slip with the probe.",
         {{"Peak sense voltage", K::Voltage, 0.17}, {"Sense resistor", K::Resistance, 0.1}},
         [](In r) { return r[0] / r[1] / std::numbers::sqrt2; },
         0.05},
        {"belt-tone",
         "preload_N",
         "Belt preload from its tone",
         "1. Pluck the free span and read its tone with a phone. 2. Weigh a metre of belt.",
         "",
         {{"Tone", K::Frequency, 80}, {"Free span", K::Length, 0.4}, {"Mass of one metre", K::Mass, 0.0085}},
         [](In r) { return drivetrain::spanTension(r[2], r[1], r[0]); },
         0.1},
        {"holding-arm",
         "holding_torque_Nm",
         "Holding torque with an arm and a scale",
         "1. Clamp an arm on the shaft, power both phases at the rated current. 2. Pull square to the arm "
         "with a luggage "
         "scale until the rotor slips.",
         heatCare,
         {{"Highest pull", K::Force, 4.0}, {"Distance from the shaft", K::Length, 0.1}},
         [](In r) { return r[0] * r[1]; },
         0.1},
        {"detent-arm",
         "detent_torque_Nm",
         "Detent torque with an arm and weights",
         "1. Unplug the motor, clamp a light arm on the shaft. 2. Hang weights on until it slips.",
         "",
         {{"Mass", K::Mass, 0.02}, {"Distance from the shaft", K::Length, 0.08}},
         [](In r) { return r[0] * units::standardGravity * r[1]; },
         0.2},
        {"heat-rise",
         "thermal_resistance_K_W",
         "Thermal resistance from a warm run",
         "1. Mount the motor as it will be. 2. Hold it at a known current for an hour. 3. Read case and air.",
         heatCare,
         {{"Case temperature", K::Celsius, 50},
          {"Air temperature", K::Celsius, 22, "ambient_C"},
          {"Current, rms", K::Current, 1.0, "run_current_rms_A"},
          {"Phase resistance", K::Resistance, 1.5, "resistance_ohm"}},
         [](In r) { return (r[0] - r[1]) / (2.0 * r[2] * r[2] * r[3]); },
         0.15},
        {"efficiency-two-scales",
         "efficiency",
         "Efficiency with two arms and two scales",
         "1. Take the motor off. 2. Clamp an arm on each shaft and hang a luggage scale on each. 3. Pull the "
         "input slowly and steadily so that the output turns against its scale. 4. Read both while they "
         "move.",
         loadCare,
         {{"Pull at the input", K::Force, 5.0},
          {"Arm of the input", K::Length, 0.05},
          {"Pull at the output", K::Force, 9.0},
          {"Arm of the output", K::Length, 0.08},
          {"Turns in for one turn out", K::Ratio, 3.0}},
         [](In r) { return r[2] * r[3] / (r[0] * r[1] * r[4]); },
         0.1},
        {"belt-stretch",
         "tensile_stiffness_N",
         "Belt or cord stiffness from its stretch",
         "1. Hang a metre or more of it up, with a little weight that straightens it. 2. Mark two places far "
         "apart. "
         "3. Hang a known mass on and measure how much farther apart they are.",
         "Hang the mass low over a cushion, keep feet away, and stay well below the breaking load.",
         {{"Added mass", K::Mass, 2.0}, {"Between the marks", K::Length, 1.0}, {"Stretch", K::Length, 0.002}},
         [](In r) { return r[0] * units::standardGravity * r[1] / r[2]; },
         0.15},
        {"stiffness-arm",
         "stiffness_Nm_rad",
         "Stiffness with an arm and a pointer",
         "1. Hold the input shaft so that it cannot turn. 2. Clamp an arm on the output and a long pointer "
         "with a "
         "scale behind its tip. 3. Pull once gently to take the play up and note the tip; pull harder and "
         "note it "
         "again.",
         loadCare,
         {{"Further pull", K::Force, 10.0},
          {"Arm", K::Length, 0.1},
          {"Way of the tip", K::Length, 0.003},
          {"Length of the pointer", K::Length, 0.3}},
         [](In r) { return r[0] * r[1] / (r[2] / r[3]); },
         0.2},
        {"stiffness-push",
         "stiffness_N_m",
         "Stiffness of rack and mounts by pushing",
         "1. Hold the motor shaft. 2. Pull the carriage once gently with a luggage scale to take the play "
         "up, zero a "
         "dial gauge on it. 3. Pull harder and read both.",
         loadCare,
         {{"Further pull", K::Force, 20.0}, {"Gauge", K::Length, 2e-5}},
         share,
         0.2},
        {"axial-push",
         "axial_stiffness_N_m",
         "Stiffness of screw, nut and bearings by pushing",
         "1. Hold the screw so that it cannot turn. 2. Pull the carriage once gently to take the play up, "
         "zero a dial "
         "gauge on it. 3. Pull harder with a luggage scale and read both.",
         loadCare,
         {{"Further pull", K::Force, 30.0}, {"Gauge", K::Length, 1e-5}},
         share,
         0.25},
        {"frame-push",
         "frame_stiffness_N_m",
         "Stiffness of the belt's mounts by pulling",
         "1. Put a dial gauge against the motor mount or the idler. 2. Pull the belt with a luggage scale "
         "and read both. "
         "The softer of the two mounts counts.",
         "",
         {{"Pull", K::Force, 30.0}, {"Gauge", K::Length, 5e-5}},
         share,
         0.2},
        {"module-over-tips",
         "module_m",
         "Module from the tips of a gear",
         "1. Count the teeth. 2. Measure across the tips with a caliper; with an odd number of teeth turn "
         "the gear and "
         "take the largest. The module is that over two more than the teeth.",
         shaftCare,
         {{"Across the tips", K::PartLength, 0.022}, {"Teeth", K::Count, 20}},
         [](In r) { return r[0] / (r[1] + 2.0); },
         0.01},
        {"friction-board",
         "friction",
         "Friction of two materials on a tilting board",
         "1. Lay the one on a board of the other, loaded as it will be. 2. Raise the board slowly until it "
         "slides on "
         "steadily after a tap. 3. Measure the angle.",
         "Use a dummy, not the camera, and stop it at the end of the board.",
         {{"Angle", K::Angle, 0.3}},
         [](In r) { return std::tan(r[0]); },
         0.1},
        {"unbalance-scale",
         "unbalance_Nm",
         "Unbalance of an axis with a scale",
         "1. Take the drive off and turn the axis to where it pulls most. 2. Hold it with a luggage scale on "
         "an arm, "
         "square to it, and read the pull while you let it sink and raise it; the middle counts.",
         loadCare,
         {{"Pull sinking", K::Force, 1.0}, {"Pull raising", K::Force, 1.4}, {"Arm", K::Length, 0.2}},
         [](In r) { return 0.5 * (r[0] + r[1]) * r[2]; },
         0.1},
        {"source-two-loads",
         "source_resistance_ohm",
         "Source resistance from two loads",
         "1. Measure voltage and current at the drivers with the motors idle. 2. Again with all motors "
         "holding.",
         "Low voltage only; do not slip with the probe. Leave mains wiring to qualified people.",
         {{"Voltage, idle", K::Voltage, 24.2},
          {"Current, idle", K::Current, 0.2},
          {"Voltage, holding", K::Voltage, 23.9},
          {"Current, holding", K::Current, 2.2}},
         [](In r) { return (r[0] - r[2]) / (r[3] - r[1]); },
         0.1},
        {"rotor-inertia-ring",
         "rotor_inertia_kgm2",
         "Rotor inertia by swinging it on two strings",
         "1. Only for a rotor that is out of its motor; magnets of a stepper may lose strength when it is "
         "opened, so "
         "use the data sheet there. 2. Hang it level on two equal strings and time ten swings about its "
         "axis.",
         "",
         {{"Mass", K::Mass, 0.1},
          {"Distance of the strings", K::Length, 0.02},
          {"Length of the strings", K::Length, 0.5},
          {"Time of ten swings", K::Time, 6.0}},
         bifilar,
         0.08},
    };
}

} // namespace

const std::vector<Recipe>& all() {
    static const std::vector<Recipe> recipes = [] {
        std::vector<Recipe> list = makeRecipes();
        for (Recipe& r : structureRecipes()) list.push_back(std::move(r));
        return list;
    }();
    return recipes;
}

Recipe directReading(std::string_view label, units::Kind kind, double value, double tolerance) {
    return {"direct-reading",
            "",
            "Measure it directly",
            "Measure it with the best instrument at hand, three times, and enter the mean. What a data sheet "
            "or a label says is no measurement: enter that in the field and choose its source there.",
            "",
            {{label, kind, value}},
            asRead,
            tolerance};
}

std::vector<const Recipe*> forField(std::string_view path) {
    const std::string_view key = path.substr(path.rfind('/') + 1);
    std::vector<const Recipe*> out;
    for (const Recipe& r : all())
        if (r.field == key) out.push_back(&r);
    return out;
}

} // namespace gantry::recipes
