// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/recipes/structure_recipes.h"

#include <cmath>
#include <numbers>

namespace gantry::recipes {
namespace {

using K = units::Kind;
using In = std::span<const double>;
using std::numbers::pi;

constexpr std::string_view tiltCare = "Two people, a dummy mass in place of the camera, and a rope or strap "
                                      "that catches the rig before it falls. "
                                      "Stand uphill, keep feet and hands from under it.";
constexpr std::string_view armCare =
    "Tie the arm before you change weights; take weights off before the camera, never the camera first.";
constexpr std::string_view ringCare = "Tap with a soft hand; keep your face out of the way of the arm's end.";

double ratioOfSags(In r) {
    return r[0] / r[1];
}
double cycles(In r) {
    return r[0] / r[1];
}
double decrement(In r) { // first and later swing, cycles between them
    const double d = std::log(r[0] / r[1]) / r[2];
    return d / std::sqrt(4.0 * pi * pi + d * d);
}
double heightOfTip(In r) {
    return r[0] / std::tan(r[1]);
}
double read(In r) {
    return r[0];
}
double radiusOfFeet(In r) {
    return 0.5 * r[0] / std::sin(pi / r[1]);
}
double turning(In r) { // pull, arm, how far a point at a distance moves, that distance
    return r[0] * r[1] / std::atan(r[2] / r[3]);
}
double spring(In r) {
    return r[0] / r[1];
}

} // namespace

std::vector<Recipe> structureRecipes() {
    return {
        {"sag-weight",
         "stiffness_factor",
         "Stiffness from the sag under a known weight",
         "1. Set the moving mass to a dummy weight and the drawing to a place in the middle; note the sag "
         "that "
         "Structure foresees there. 2. Measure how far rail or arm comes down at that place when the dummy "
         "is put on, "
         "against a string or a stick from the floor. 3. Take off what it came down under its own weight "
         "before.",
         armCare,
         {{"Sag foreseen", K::Length, 0.002}, {"Sag measured", K::Length, 0.002}},
         ratioOfSags,
         0.05},
        {"ring-cycles",
         "frequency_hz",
         "Natural frequency by counting swings",
         "1. Put everything on as it will be. 2. Film the camera in slow motion, or lay a phone with its "
         "acceleration "
         "recorder on it. 3. Tap it along the way this axis moves. 4. Count swings over a second or two and "
         "divide by "
         "the real time, not the slowed one.",
         ringCare,
         {{"Swings counted", K::Ratio, 20.0}, {"Real time", K::Time, 5.0}},
         cycles,
         0.03},
        {"ring-decay",
         "damping",
         "Damping from how fast the vibration settles",
         "1. Record the swings as for the frequency. 2. Read the height of one swing and of a later one, "
         "from middle to "
         "top. 3. Count the swings between them.",
         ringCare,
         {{"First swing", K::Length, 0.01},
          {"Later swing", K::Length, 0.005},
          {"Swings between", K::Ratio, 10.0}},
         decrement,
         0.2},
        {"tilt-tip",
         "mass_height_m",
         "Height of the centre of gravity by tilting until it tips",
         "1. Measure how far the centre of gravity lies inside the edge between two feet; for a base that is "
         "alike all "
         "round this is the middle's distance to that edge. 2. Lift the opposite side slowly until it stands "
         "in "
         "balance on that edge. 3. Measure the angle of the base with a phone.",
         tiltCare,
         {{"Middle to the edge", K::Length, 0.3}, {"Angle at the balance", K::Angle, 0.5}},
         heightOfTip,
         0.05},
        {"balance-edge",
         "along_m",
         "Place of a centre of gravity on a balance edge",
         "1. Lay the item on a round rod or the edge of a ruler. 2. Move it until it stays level. 3. Measure "
         "from the "
         "mount, or from the pivot of the arm, to the edge.",
         "",
         {{"Mount to the edge", K::Length, 0.05}},
         read,
         0.05},
        {"leg-spread",
         "leg_radius_m",
         "Middle to foot from the distance of two feet",
         "1. Set the legs as they will stand. 2. Measure from one foot to the next. 3. Count the legs.",
         "",
         {{"Foot to next foot", K::Length, 1.0}, {"Legs", K::Count, 3.0, "legs"}},
         radiusOfFeet,
         0.02},
        {"head-pull",
         "head_turning_Nm_rad",
         "Stiffness of a head with a luggage scale",
         "1. Clamp rail and head as for work. 2. Pull square to the rail at its end with a luggage scale. 3. "
         "Measure how "
         "far the end moves; the rail's own bend is small against a soft head.",
         tiltCare,
         {{"Pull", K::Force, 10.0},
          {"From head to the pull", K::Length, 0.5},
          {"The end moves", K::Length, 0.003},
          {"From head to that end", K::Length, 0.5}},
         turning,
         0.15},
        {"mast-pull",
         "mast_turning_Nm_rad",
         "Stiffness of mast and pivot with a luggage scale",
         "1. Lock the pivot. 2. Pull down on the arm near the pivot's own height, at a known distance, where "
         "the arm "
         "itself hardly bends. 3. Measure how far a stick fixed to the pivot moves at its end.",
         armCare,
         {{"Pull", K::Force, 20.0},
          {"From pivot to the pull", K::Length, 0.5},
          {"The stick's end moves", K::Length, 0.003},
          {"Length of the stick", K::Length, 1.0}},
         turning,
         0.2},
        {"stand-pull",
         "stand_sway_N_m",
         "Stands against sway with a luggage scale",
         "1. Pull the rail along its own length with the carriage locked. 2. Measure how far the rail moves "
         "against the "
         "floor.",
         "",
         {{"Pull", K::Force, 20.0}, {"It moves", K::Length, 0.0005}},
         spring,
         0.2},
        {"press-pad",
         "pad_stiffness_N_m",
         "Stiffness of a pad by pressing it",
         "1. Stand one pad on a hard floor with a flat plate on it. 2. Put on about what one foot carries, "
         "measure "
         "its height at three places with a caliper. 3. Put on as much again, known from a scale, wait a "
         "minute, "
         "measure again. 4. Only the added weight and what it squashed count; pads stiffen with their load.",
         "Weights stacked on a pad roll off: keep toes and fingers out from under them.",
         {{"Weight added", K::Force, 20.0}, {"It squashed", K::PartLength, 0.0005}},
         spring,
         0.15},
    };
}

} // namespace gantry::recipes
