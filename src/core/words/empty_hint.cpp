// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/words/empty_hint.h"

#include <array>
#include <string>

namespace gantry::words {
namespace {

constexpr std::array table{
    // Brief
    EmptyHint{"weight_budget_kg", "any", {}},
    EmptyHint{"money_budget", "any", {}},
    EmptyHint{"microphone_distance_m", "no microphone", {}},
    EmptyHint{"wind_speed_m_s", "no wind", {}},
    EmptyHint{"speed_near_people_m_s", "nobody near", {}},
    EmptyHint{"energy_near_people_J", "nobody near", {}},
    EmptyHint{"swing_seen_px", "computed", {}},
    // Moves and interval plans
    EmptyHint{"focus_m", "as its axis", {}},
    EmptyHint{"focal_m", "as its axis", {}},
    EmptyHint{"metered_s", "not given", {}},
    EmptyHint{"card_bytes", "any", {}},
    EmptyHint{"warn_V", "none", {}},
    EmptyHint{"park_V", "none", {}},
    EmptyHint{"distance_m", "as the subject", "passer"},
    // Supply
    EmptyHint{"rated_current_A", "not given", "supply"},
    EmptyHint{"cable_length_m", "no cable", "supply"},
    EmptyHint{"capacity_As", "no battery", "supply"},
    // What moves
    EmptyHint{"cable_drag_N", "none", {}},
    EmptyHint{"cable_drag_Nm", "none", {}},
    EmptyHint{"disturbance_N", "none", {}},
    EmptyHint{"disturbance_Nm", "none", {}},
    EmptyHint{"wind_area_m2", "none", {}},
    EmptyHint{"wind_arm_m", "none", {}},
    EmptyHint{"point_mass_kg", "none", {}},
    EmptyHint{"point_radius_m", "none", {}},
    EmptyHint{"unbalance_Nm", "none", {}},
    EmptyHint{"frame_stiffness_N_m", "left out", {}},
    EmptyHint{"torque_at_low_Nm", "no spring", "spring"},
    EmptyHint{"rate_Nm_rad", "none", "spring"},
    EmptyHint{"frequency_hz", "not measured", "vibration"},
    EmptyHint{"price", "not given", {}},
    EmptyHint{"price_per_m", "not given", {}},
    // Drive
    EmptyHint{"inductance_H", "not given", {}},
    EmptyHint{"stiffness_Nm_rad", "left out", {}},
    EmptyHint{"stiffness_N_m", "left out", "output"},
    EmptyHint{"axial_stiffness_N_m", "left out", {}},
    EmptyHint{"belt_teeth", "not chosen", {}},
    EmptyHint{"flange_diameter_m", "not given", {}},
    EmptyHint{"steering_angle_rad", "straight", {}},
    EmptyHint{"pulley_inertia_kgm2", "left out", {}},
    EmptyHint{"drum_inertia_kgm2", "left out", {}},
    EmptyHint{"nut_drag_Nm", "none", {}},
    EmptyHint{"detent_torque_Nm", "none", "motor"},
    EmptyHint{"no_load_current_A", "not given", "motor"},
    EmptyHint{"gearbox_backlash_rad", "none", "motor"},
    EmptyHint{"backlash_m", "none", {}},
    EmptyHint{"backlash_rad", "none", {}},
    // Settings
    EmptyHint{"jerk_m_s3", "no limit", {}},
    EmptyHint{"jerk_rad_s3", "no limit", {}},
    EmptyHint{"instant_speed_step_m_s", "none", {}},
    EmptyHint{"instant_speed_step_rad_s", "none", {}},
    EmptyHint{"soft_limit_margin_m", "none", {}},
    EmptyHint{"soft_limit_margin_rad", "none", {}},
    // Structure
    EmptyHint{"ballast_kg", "none", "base"},
    EmptyHint{"ballast_leg", "behind", "base"},
    EmptyHint{"pad_stiffness_N_m", "stiff feet", "base"},
    EmptyHint{"side_push_N", "none", "base"},
    EmptyHint{"anchor_strength_N", "not known", "base"},
    EmptyHint{"stand_sway_N_m", "stiff", {}},
    EmptyHint{"stand_mass_kg", "none", {}},
    EmptyHint{"clamp_bolts", "not given", {}},
    EmptyHint{"mast_turning_Nm_rad", "stiff", {}},
    EmptyHint{"mass_kg", "none", "counterweight"},
    EmptyHint{"bare_kg", "none", "counterweight"},
    EmptyHint{"pin_diameter_m", "not given", "pivot"},
    EmptyHint{"bearing_rating_N", "not given", "pivot"},
    EmptyHint{"bearing_moment_Nm", "not given", "pivot"},
    EmptyHint{"bolts", "not given", "pivot"},
};

} // namespace

std::string_view emptyHint(std::string_view path) {
    const std::size_t slash = path.rfind('/');
    const std::string_view key = slash == std::string_view::npos ? path : path.substr(slash + 1);
    for (const EmptyHint& h : table) {
        if (h.key != key) continue;
        const std::string_view holder = path.substr(0, slash == std::string_view::npos ? 0 : slash);
        if (h.part.empty() || holder == h.part || holder.ends_with('/' + std::string(h.part))) return h.hint;
    }
    return {};
}

std::span<const EmptyHint> emptyHints() {
    return table;
}

} // namespace gantry::words
