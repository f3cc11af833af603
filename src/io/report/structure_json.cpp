// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/report/structure_json.h"

#include "core/words/messages.h"

#include <nlohmann/json.hpp>

namespace gantry::io {

using Json = nlohmann::ordered_json;

void put(Json& j, const std::string& key, const Figure& f, double unit) {
    if (f) {
        j[key] = f.value() / unit;
    } else {
        putNone(j, key, words::reasonText(f.reason()));
    }
}

void putNone(Json& j, const std::string& key, std::string_view why) {
    j[key] = nullptr;
    j[key + "_why"] = why;
}

Json structureJson(const AxisStructure& s, const std::string& u) {
    Json j;
    if (s.problem != Reason::None) {
        j["why"] = words::reasonText(s.problem);
        return j;
    }
    const auto add = [&](const std::string& key, const Figure& f) {
        if (f.reason() != Reason::NotApplicable) put(j, key, f);
    };
    add("own_mass_kg", s.ownMass);
    add("sag_m", s.sag);
    add("slope_rad", s.slope);
    add("twist_rad", s.twist);
    add("sag_change_m", s.sagShift);
    add("slope_change_rad", s.slopeShift);
    add("sag_change_m_per_" + u, s.sagRate);
    add("slope_change_rad_per_" + u, s.slopeRate);
    add("bounce_hz", s.bounce);
    add("stress_ratio", s.stressRatio);
    add("tipping_ratio", s.tippingRatio);
    add("tipping_at_m", s.tippingAt);
    add("clamp_bolt_ratio", s.clampRatio);
    add("gravity_worst_Nm", s.gravityWorst);
    add("gravity_worst_at_rad", s.gravityWorstAt);
    add("off_line_m", s.offLine);
    add("unbalanceable_Nm", s.unbalanceable);
    add("balancing_mass_kg", s.balancingMass);
    add("balancing_place_m", s.balancingPlace);
    add("counterweight_inertia_share", s.weightInertia);
    add("drop_energy_J", s.dropEnergy);
    add("pin_ratio", s.pinRatio);
    add("bearing_ratio", s.bearingRatio);
    add("bearing_moment_ratio", s.momentRatio);
    add("bolt_ratio", s.boltRatio);
    add("frequency_hz", s.frequency);
    add("damping", s.damping);
    return j;
}

Json softestJson(const AxisStructure& s) {
    Json list = Json::array();
    for (const SoftEntry& e : s.soft)
        list.push_back({{"part", softName(e.cause)},
                        {"frequency_hz", e.part.frequency},
                        {"damping", e.part.damping},
                        {"share", structure::shareOf(e.part, s.all)}});
    return list;
}

Json rigJson(const Project& project, const RigStructure& rig) {
    Json j;
    put(j, "mass_kg", rig.mass);
    put(j, "centre_along_m", rig.centreAlong);
    put(j, "centre_across_m", rig.centreAcross);
    put(j, "centre_height_m", rig.centreHeight);
    put(j, "price", rig.price);
    put(j, "tipping_ratio", rig.tipping);
    put(j, "tipping_ratio_hardest_stop", rig.tippingEmergency);
    put(j, "tipping_direction_rad", rig.tippingDirection);
    put(j, "ballast_needed_kg", rig.ballastNeeded);
    put(j, "anchor_ratio", rig.anchors);
    put(j, "anchor_pull_N", rig.anchorPull);
    put(j, "clearance_m", rig.clearance);
    put(j, "clearance_at_least_m", rig.clearanceAtLeast);
    if (rig.keepOut >= 0) j["nearest"] = project.keepOut[static_cast<std::size_t>(rig.keepOut)].id;
    return j;
}

} // namespace gantry::io
