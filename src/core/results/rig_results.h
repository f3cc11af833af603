// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/results/describe_figures.h"

#include <optional>
#include <string>
#include <utility>
#include <vector>

/// What is true of the rig as a whole.
namespace gantry {

/// What the supply gives with every axis at its worst at once.
struct SupplyEvaluation {
    Figure power;        ///< [W]
    Figure current;      ///< [A]
    Figure voltage;      ///< [V] that arrives at the drivers
    Figure drop;         ///< [V] in source and cable
    Figure startCurrent; ///< [A] while brushed motors without a ramp start, stop or stall; none without such
    Figure runTime;      ///< [s] of a battery; NotApplicable on mains
};
template <class V, Of<SupplyEvaluation>... S>
void describe(V& v, S&... s) {
    v.figure(result("power_W", "maximum power of all drives together", K::Power), s.power...);
    v.figure(result("current_A", "current", K::Current), s.current...);
    v.figure(result("voltage_at_drivers_V", "voltage that arrives at the drivers", K::Voltage), s.voltage...);
    v.figure(result("voltage_drop_V", "voltage lost in source and cable", K::Voltage), s.drop...);
    v.figure(result("start_current_A", "highest current for a moment", K::Current), s.startCurrent...);
    v.figure(result("battery_time_s", "battery run time at that power", K::Time), s.runTime...);
}

/// Where over all ranges something comes nearest to something else, beside the room that is wanted there.
struct ClearanceResults {
    Figure distance = Figure::none(Reason::NotApplicable); ///< [m] the nearest seen
    Figure wanted;                                         ///< [m]
    Figure atLeast;           ///< [m] no pose comes nearer than this; the search is not finer
    std::vector<double> pose; ///< where that is, as in rig_layout.h
    std::string body;         ///< what comes near …
    std::string with;         ///< … to what
    int keepOut = -1;         ///< index in Project::keepOut of the nearest; −1: none of these
    int axis = -1;            ///< index of the axis nearest to the lens that brings them together …
    double place = 0.0;       ///< [m] or [rad] … and where it is then, as people count it
    std::optional<std::pair<double, double>> clearRange; ///< from where to where it keeps clear
};
template <class V, Of<ClearanceResults>... S>
void describe(V& v, S&... s) {
    v.figure(result("clearance_m", "minimum clearance found", K::Length), s.distance...);
    v.figure(result("clearance_wanted_m", "clearance wanted there", K::Length), s.wanted...);
    v.figure(result("clearance_at_least_m", "guaranteed clearance over all poses", K::Length), s.atLeast...);
}

/// Weight, what it stands on, what it may run into.
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
    int tippingAxis = 0;  ///< index of the axis that turns it there
    Figure ballastNeeded; ///< [kg] in the middle for a ratio of 1.5 in that pose
    Figure anchors;       ///< [1] strength of anchors over their pull
    Figure anchorPull;    ///< [N]
    ClearanceResults clearance;
};
template <class V, Of<RigStructure>... S>
void describe(V& v, S&... s) {
    v.figure(result("mass_kg", "mass", K::Mass), s.mass...);
    v.figure(result("centre_along_m", "centre of gravity along the rig", K::Length), s.centreAlong...);
    v.figure(result("centre_across_m", "centre of gravity across it", K::Length), s.centreAcross...);
    v.figure(result("centre_height_m", "centre of gravity above the feet", K::Length), s.centreHeight...);
    v.figure(result("price", "price", K::Money), s.price...);
    v.figure(result("tipping_ratio", "safety against tipping, planned stop", K::Ratio), s.tipping...);
    v.figure(result("tipping_ratio_hardest_stop", "safety against tipping, hardest stop", K::Ratio),
             s.tippingEmergency...);
    v.figure(result("tipping_direction_rad", "direction of the boom in that case", K::Angle),
             s.tippingDirection...);
    v.figure(result("ballast_needed_kg", "ballast needed in the middle", K::Mass), s.ballastNeeded...);
    v.figure(result("anchor_ratio", "anchor rating over pull", K::Ratio), s.anchors...);
    v.figure(result("anchor_pull_N", "maximum pull on an anchor", K::Force), s.anchorPull...);
    describe(v, s.clearance...);
}

} // namespace gantry
