// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/describe_base.h"
#include "core/model/output_parts.h"

namespace gantry {

template <>
struct ChoiceNames<EndFixity> {
    static constexpr std::array<std::string_view, 4> keys{"fixed_free", "simple_simple", "fixed_simple",
                                                          "fixed_fixed"};
    static constexpr std::array<std::string_view, 4> labels{"held at one end", "both ends pivot",
                                                            "one held, one pivots", "both ends held"};
};
template <>
struct ChoiceNames<BrakePlace> {
    static constexpr std::array<std::string_view, 2> keys{"motor_shaft", "load_side"};
    static constexpr std::array<std::string_view, 2> labels{"motor shaft", "load side"};
};
template <>
struct KindName<BeltOutput> {
    static constexpr std::string_view key = "belt", label = "Belt and pulley";
};
template <>
struct KindName<ScrewOutput> {
    static constexpr std::string_view key = "screw", label = "Lead screw";
};
template <>
struct KindName<RackOutput> {
    static constexpr std::string_view key = "rack", label = "Rack and pinion";
};
template <>
struct KindName<WheelOutput> {
    static constexpr std::string_view key = "wheel", label = "Drive wheel";
};
template <>
struct KindName<WinchOutput> {
    static constexpr std::string_view key = "winch", label = "Winch and cord";
};
template <>
struct KindName<DirectOutput> {
    static constexpr std::string_view key = "direct", label = "Direct";
};
template <>
struct KindName<RingOutput> {
    static constexpr std::string_view key = "ring", label = "Ring gear";
};
template <>
struct KindName<LensRingOutput> {
    static constexpr std::string_view key = "lens_ring", label = "Lens ring";
};

template <class V, Of<BeltOutput> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"teeth", "Teeth", K::Count, 1, 100000, 9, 120}, s.teeth);
    v.field(FieldInfo{"pitch_m", "Belt pitch", K::PartLength, 1e-5, 0.2, 9e-4, 0.02}, s.pitch);
    v.field(FieldInfo{"efficiency", "Belt efficiency", K::Percentage, 0.01, 1, 0.5, 0.99}, s.efficiency);
    v.field(FieldInfo{"tensile_stiffness_N", "Belt stiffness EA", K::Force, 1, 1e9, 1e3, 1e6},
            s.tensileStiffness);
    v.field(FieldInfo{"backlash_m", "Backlash", K::Length, 0, 1, 0, 2e-3}, s.backlash);
    v.field(FieldInfo{"pulley_inertia_kgm2", "Pulley inertia", K::Inertia, 0, 100, 0, 1e-3}, s.pulleyInertia);
    v.field(FieldInfo{"preload_N", "Belt preload", K::Force, 0, 1e6, 2, 500}, s.preload);
    v.field(textField("motor_rides", "Motor on carriage"), s.motorRides);
    v.field(textField("doubled", "Belt doubled, 2:1"), s.doubled);
    v.field(FieldInfo{"motors", "Motors on axis", K::Count, 1, 4, 1, 2}, s.motors);
}

template <class V, Of<ScrewOutput> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"lead_m", "Lead", K::PartLength, 1e-5, 1, 5e-4, 0.05}, s.lead);
    v.field(FieldInfo{"starts", "Starts", K::Count, 1, 20, 1, 8}, s.starts);
    v.field(FieldInfo{"pitch_diameter_m", "Pitch diameter", K::PartLength, 1e-4, 1, 0.003, 0.04},
            s.pitchDiameter);
    v.field(FieldInfo{"root_diameter_m", "Root diameter", K::PartLength, 1e-4, 1, 0.002, 0.04},
            s.rootDiameter);
    v.field(FieldInfo{"friction", "Thread friction", K::Ratio, 0, 2, 0.002, 0.35}, s.friction);
    v.field(FieldInfo{"thread_half_angle_rad", "Thread half angle", K::Angle, 0, 1.3, 0, 0.6},
            s.threadHalfAngle);
    v.choice(textField("ends", "Screw ends"), s.ends);
    v.field(FieldInfo{"nut_drag_Nm", "Nut, bearing drag", K::Torque, 0, 100, 0, 0.2}, s.nutDrag);
    v.field(FieldInfo{"backlash_m", "Backlash", K::Length, 0, 1, 0, 2e-3}, s.backlash);
    v.field(FieldInfo{"axial_stiffness_N_m", "Axial stiffness", K::Stiffness, 0, 1e12, 0, 1e9},
            s.axialStiffness);
}

template <class V, Of<RackOutput> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"teeth", "Pinion teeth", K::Count, 1, 100000, 8, 400}, s.teeth);
    v.field(FieldInfo{"module_m", "Module", K::PartLength, 1e-5, 0.1, 3e-4, 0.01}, s.module);
    v.field(FieldInfo{"efficiency", "Efficiency", K::Percentage, 0.01, 1, 0.4, 0.99}, s.efficiency);
    v.field(FieldInfo{"backlash_m", "Backlash", K::Length, 0, 1, 0, 2e-3}, s.backlash);
    v.field(FieldInfo{"pinion_inertia_kgm2", "Pinion inertia", K::Inertia, 0, 100, 0, 1e-3}, s.pinionInertia);
    v.field(FieldInfo{"stiffness_N_m", "Stiffness", K::Stiffness, 0, 1e12, 0, 1e9}, s.stiffness);
}

template <class V, Of<WheelOutput> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"diameter_m", "Wheel diameter", K::Length, 1e-3, 10, 0.01, 0.5, Certainty::SteelRule},
            s.diameter);
    v.field(FieldInfo{"friction", "Track friction", K::Ratio, 1e-3, 5, 0.1, 1.2}, s.friction);
    v.field(FieldInfo{"driven_share", "Driven wheel share", K::Percentage, 1e-3, 1, 0.1, 1}, s.drivenShare);
    v.field(FieldInfo{"efficiency", "Efficiency", K::Percentage, 0.01, 1, 0.4, 0.99}, s.efficiency);
    v.field(FieldInfo{"wheel_inertia_kgm2", "Wheel inertia", K::Inertia, 0, 100, 0, 1e-2}, s.wheelInertia);
    v.field(FieldInfo{"backlash_m", "Backlash", K::Length, 0, 1, 0, 2e-3}, s.backlash);
    v.field(FieldInfo{"wheelbase_m", "Wheelbase", K::Length, 1e-3, 100, 0.1, 3}, s.wheelbase);
    v.field(FieldInfo{"steering_angle_rad", "Steering angle", K::Angle, -1.4, 1.4, -0.8, 0.8},
            s.steeringAngle);
}

template <class V, Of<WinchOutput> S>
void describe(V& v, S& s) {
    v.field(
        FieldInfo{"drum_diameter_m", "Drum diameter", K::Length, 1e-3, 10, 0.008, 0.3, Certainty::SteelRule},
        s.drumDiameter);
    v.field(FieldInfo{"cord_diameter_m", "Cord diameter", K::PartLength, 1e-5, 0.2, 3e-4, 0.01},
            s.cordDiameter);
    v.field(FieldInfo{"drum_width_m", "Drum width", K::PartLength, 1e-3, 10, 0.004, 0.3}, s.drumWidth);
    v.field(FieldInfo{"layer_height", "Layer height ratio", K::Ratio, 0.5, 1.5, 0.85, 1.05}, s.layerHeight);
    v.field(FieldInfo{"turns_on", "Turns left on drum", K::Ratio, 0, 1e6, 0, 20}, s.turnsOn);
    v.field(FieldInfo{"flange_diameter_m", "Cheek diameter", K::PartLength, 0, 20, 0, 0.6}, s.flangeDiameter);
    v.field(textField("closed_loop", "Closed cord loop"), s.closedLoop);
    v.field(FieldInfo{"efficiency", "Efficiency", K::Percentage, 0.01, 1, 0.4, 0.99}, s.efficiency);
    v.field(FieldInfo{"drum_inertia_kgm2", "Drum inertia", K::Inertia, 0, 100, 0, 1e-2}, s.drumInertia);
    v.field(FieldInfo{"breaking_load_N", "Breaking load", K::Force, 1, 1e7, 50, 20000}, s.breakingLoad);
    v.field(FieldInfo{"tensile_stiffness_N", "Cord stiffness EA", K::Force, 1, 1e9, 500, 1e6},
            s.tensileStiffness);
    v.field(FieldInfo{"backlash_m", "Backlash", K::Length, 0, 1, 0, 2e-3}, s.backlash);
}

template <class V, Of<DirectOutput> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"stiffness_Nm_rad", "Stiffness", K::AngularStiffness, 0, 1e9, 0, 1e5}, s.stiffness);
}

template <class V, Of<RingOutput> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"pinion_teeth", "Pinion teeth", K::Count, 1, 100000, 8, 400}, s.pinionTeeth);
    v.field(FieldInfo{"ring_teeth", "Ring teeth", K::Count, 1, 100000, 20, 600}, s.ringTeeth);
    v.field(FieldInfo{"module_m", "Module", K::PartLength, 1e-5, 0.1, 3e-4, 0.01}, s.module);
    v.field(FieldInfo{"efficiency", "Efficiency", K::Percentage, 0.01, 1, 0.4, 0.99}, s.efficiency);
    v.field(FieldInfo{"backlash_rad", "Backlash", K::Angle, 0, 3, 0, 0.05}, s.backlash);
    v.field(FieldInfo{"stiffness_Nm_rad", "Stiffness", K::AngularStiffness, 0, 1e9, 0, 1e5}, s.stiffness);
}

template <class V, Of<RingMark> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"angle_rad", "Ring angle", K::Angle, -1e3, 1e3, 0, 7}, s.angle);
    v.field(FieldInfo{"reading_m", "Reading", K::Length, 1e-4, 1e6, 0.01, 200}, s.reading);
}

template <class V, Of<LensRingOutput> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"pinion_teeth", "Pinion teeth", K::Count, 1, 100000, 8, 400}, s.pinionTeeth);
    v.field(FieldInfo{"ring_teeth", "Ring teeth", K::Count, 1, 100000, 20, 600}, s.ringTeeth);
    v.field(FieldInfo{"module_m", "Module", K::PartLength, 1e-5, 0.1, 3e-4, 0.01}, s.module);
    v.field(FieldInfo{"ring_throw_rad", "Ring throw", K::Angle, 1e-3, 1000, 0.3, 7}, s.ringThrow);
    v.field(textField("hard_stops", "Hard stops"), s.hardStops);
    v.field(textField("steady_electronics", "Reading by angle"), s.steadyElectronics);
    v.field(FieldInfo{"efficiency", "Efficiency", K::Percentage, 0.01, 1, 0.4, 0.99}, s.efficiency);
    v.field(FieldInfo{"backlash_rad", "Backlash", K::Angle, 0, 3, 0, 0.05}, s.backlash);
    v.field(FieldInfo{"stiffness_Nm_rad", "Stiffness", K::AngularStiffness, 0, 1e9, 0, 1e5}, s.stiffness);
    v.parts("marks", s.marks);
}

template <class V, Of<Brake> S>
void describe(V& v, S& s) {
    v.field(textField("fitted", "Power-off brake"), s.fitted);
    v.choice(textField("place", "Brake sits on"), s.place);
    v.field(FieldInfo{"holding_torque_Nm", "Brake torque", K::Torque, 0, 1000, 0.05, 20}, s.holdingTorque);
}

} // namespace gantry
