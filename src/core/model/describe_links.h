// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/describe_base.h"
#include "core/model/link_parts.h"

namespace gantry {

template <>
struct ChoiceNames<BeltProfile> {
    static constexpr std::array<std::string_view, 3> keys{"trapezoid", "round", "modified_round"};
    static constexpr std::array<std::string_view, 3> labels{"trapezoid tooth", "round tooth",
                                                            "modified round tooth"};
};
template <>
struct ChoiceNames<GearMaterial> {
    static constexpr std::array<std::string_view, 9> keys{"steel",        "brass",   "aluminium",
                                                          "acetal",       "nylon",   "printed_pla",
                                                          "printed_petg", "plywood", "hardwood"};
    static constexpr std::array<std::string_view, 9> labels{"steel",         "brass",   "aluminium",
                                                            "acetal",        "nylon",   "printed, PLA",
                                                            "printed, PETG", "plywood", "hardwood"};
};
template <>
struct KindName<Coupling> {
    static constexpr std::string_view key = "coupling", label = "Coupling";
};
template <>
struct KindName<BeltStage> {
    static constexpr std::string_view key = "belt_stage", label = "Belt stage";
};
template <>
struct KindName<GearStage> {
    static constexpr std::string_view key = "gear_stage", label = "Gear pair";
};
template <>
struct KindName<PlanetaryStage> {
    static constexpr std::string_view key = "planetary", label = "Planetary gearhead";
};
template <>
struct KindName<StrainWaveStage> {
    static constexpr std::string_view key = "strain_wave", label = "Strain-wave gear";
};
template <>
struct KindName<WormStage> {
    static constexpr std::string_view key = "worm", label = "Worm and wheel";
};
template <>
struct KindName<ReducerStage> {
    static constexpr std::string_view key = "reducer", label = "Closed reducer";
};
template <>
struct KindName<RollerStage> {
    static constexpr std::string_view key = "roller", label = "Friction roller";
};

/// Stands among the stage's own fields.
template <class V, Of<StageFigures> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"efficiency", "Efficiency", K::Percentage, 0.01, 1, 0.4, 0.99}, s.efficiency);
    v.field(FieldInfo{"backlash_rad", "Backlash", K::Angle, 0, 3, 0, 0.05}, s.backlash);
    v.field(FieldInfo{"stiffness_Nm_rad", "Stiffness", K::AngularStiffness, 0, 1e9, 0, 1e5}, s.stiffness);
    v.field(FieldInfo{"inertia_kgm2", "Inertia", K::Inertia, 0, 100, 0, 1e-2}, s.inertia);
}

template <class V, Of<Coupling> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"stiffness_Nm_rad", "Stiffness", K::AngularStiffness, 0, 1e9, 0, 1e4}, s.stiffness);
    v.field(FieldInfo{"inertia_kgm2", "Inertia", K::Inertia, 0, 100, 0, 1e-3}, s.inertia);
}

template <class V, Of<BeltStage> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"motor_teeth", "Teeth, motor side", K::Count, 1, 100000, 8, 400}, s.motorTeeth);
    v.field(FieldInfo{"load_teeth", "Teeth, load side", K::Count, 1, 100000, 8, 400}, s.loadTeeth);
    v.field(FieldInfo{"pitch_m", "Belt pitch", K::PartLength, 1e-5, 0.2, 9e-4, 0.02}, s.pitch);
    v.choice(textField("profile", "Tooth shape"), s.profile);
    v.field(FieldInfo{"belt_teeth", "Teeth of the belt", K::Count, 0, 100000, 0, 3000}, s.beltTeeth);
    v.field(FieldInfo{"width_m", "Belt width", K::PartLength, 1e-4, 1, 0.003, 0.05}, s.width);
    v.field(FieldInfo{"preload_N", "Belt preload", K::Force, 0, 1e6, 2, 500}, s.preload);
    describe(v, s.figures);
}

template <class V, Of<GearStage> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"motor_teeth", "Teeth, motor side", K::Count, 1, 100000, 8, 400}, s.motorTeeth);
    v.field(FieldInfo{"load_teeth", "Teeth, load side", K::Count, 1, 100000, 8, 400}, s.loadTeeth);
    v.field(FieldInfo{"module_m", "Module", K::PartLength, 1e-5, 0.1, 3e-4, 0.01}, s.module);
    v.field(FieldInfo{"face_width_m", "Face width", K::PartLength, 1e-4, 1, 0.002, 0.05}, s.faceWidth);
    v.choice(textField("material", "Material"), s.material);
    v.field(textField("split", "Anti-backlash gear"), s.split);
    describe(v, s.figures);
}

template <class V, Of<PlanetaryStage> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"sun_teeth", "Sun teeth", K::Count, 1, 100000, 8, 400}, s.sunTeeth);
    v.field(FieldInfo{"ring_teeth", "Ring teeth", K::Count, 1, 100000, 8, 400}, s.ringTeeth);
    v.field(FieldInfo{"stages", "Stages", K::Count, 1, 6, 1, 4}, s.stages);
    v.field(FieldInfo{"rated_torque_Nm", "Rated torque", K::Torque, 1e-6, 1e6, 0.1, 200, Certainty::Rating},
            s.ratedTorque);
    describe(v, s.figures);
}

template <class V, Of<StrainWaveStage> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"flex_teeth", "Flex ring teeth", K::Count, 2, 100000, 60, 400}, s.flexTeeth);
    v.field(FieldInfo{"rated_torque_Nm", "Rated torque", K::Torque, 1e-6, 1e6, 0.1, 200, Certainty::Rating},
            s.ratedTorque);
    describe(v, s.figures);
}

template <class V, Of<WormStage> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"starts", "Starts", K::Count, 1, 50, 1, 6}, s.starts);
    v.field(FieldInfo{"wheel_teeth", "Wheel teeth", K::Count, 1, 100000, 8, 400}, s.wheelTeeth);
    v.field(FieldInfo{"lead_angle_rad", "Lead angle", K::Angle, 1e-3, 1.4, 0.03, 0.6}, s.leadAngle);
    v.field(FieldInfo{"friction", "Flank friction", K::Ratio, 0, 1, 0.02, 0.2}, s.friction);
    v.field(FieldInfo{"start_friction", "Friction at rest", K::Ratio, 0, 1, 0, 0.3}, s.startFriction);
    v.field(FieldInfo{"backlash_rad", "Backlash", K::Angle, 0, 3, 0, 0.05}, s.backlash);
    v.field(FieldInfo{"stiffness_Nm_rad", "Stiffness", K::AngularStiffness, 0, 1e9, 0, 1e5}, s.stiffness);
    v.field(FieldInfo{"inertia_kgm2", "Inertia", K::Inertia, 0, 100, 0, 1e-2}, s.inertia);
}

template <class V, Of<ReducerStage> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"ratio_numerator", "Turns in", K::Count, 1, 100000000, 1, 1000}, s.numerator);
    v.field(FieldInfo{"ratio_denominator", "per turns out", K::Count, 1, 100000000, 1, 1000}, s.denominator);
    v.field(FieldInfo{"rated_torque_Nm", "Rated torque", K::Torque, 1e-6, 1e6, 0.1, 200, Certainty::Rating},
            s.ratedTorque);
    describe(v, s.figures);
}

template <class V, Of<RollerStage> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"roller_diameter_m", "Roller diameter", K::Length, 1e-4, 10, 0.004, 0.1,
                      Certainty::SteelRule},
            s.rollerDiameter);
    v.field(
        FieldInfo{"wheel_diameter_m", "Wheel diameter", K::Length, 1e-4, 100, 0.02, 3, Certainty::SteelRule},
        s.wheelDiameter);
    v.field(FieldInfo{"friction", "Friction", K::Ratio, 1e-3, 5, 0.1, 1.2}, s.friction);
    v.field(FieldInfo{"pressure_N", "Pressing force", K::Force, 0, 1e6, 1, 300}, s.pressure);
    describe(v, s.figures);
}

} // namespace gantry
