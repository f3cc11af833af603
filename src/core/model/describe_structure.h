// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/describe_base.h"
#include "core/model/structure_parts.h"

namespace gantry {

template <>
struct ChoiceNames<SectionShape> {
    static constexpr std::array<std::string_view, 8> keys{"not_given",
                                                          "slotted_profile",
                                                          "solid_rectangle",
                                                          "hollow_rectangle",
                                                          "round_tube",
                                                          "rod_pair",
                                                          "tee",
                                                          "own"};
    static constexpr std::array<std::string_view, 8> labels{"not given", "slotted profile", "solid bar",
                                                            "box tube",  "round tube",      "two rods",
                                                            "T section", "own figures"};
};
template <>
struct ChoiceNames<BeamMaterial> {
    static constexpr std::array<std::string_view, 8> keys{"aluminium",   "steel",       "carbon_tube",
                                                          "plywood",     "softwood",    "hardwood",
                                                          "printed_pla", "printed_petg"};
    static constexpr std::array<std::string_view, 8> labels{"aluminium",   "steel",       "carbon tube",
                                                            "plywood",     "softwood",    "hardwood",
                                                            "printed PLA", "printed PETG"};
};
template <>
struct ChoiceNames<RailSupport> {
    static constexpr std::array<std::string_view, 3> keys{"two_stands", "one_head", "bedded"};
    static constexpr std::array<std::string_view, 3> labels{"two stands", "one head", "bedded all along"};
};
template <>
struct ChoiceNames<ArmKind> {
    static constexpr std::array<std::string_view, 2> keys{"plain", "parallel_links"};
    static constexpr std::array<std::string_view, 2> labels{"plain arm", "parallel links"};
};
template <>
struct ChoiceNames<BaseKind> {
    static constexpr std::array<std::string_view, 5> keys{"not_given", "legs", "rectangle", "wall_bracket",
                                                          "overhead"};
    static constexpr std::array<std::string_view, 5> labels{"not given", "legs", "plate, stool",
                                                            "wall bracket", "hangs overhead"};
};

template <class V, Of<Section> S>
void describe(V& v, S& s) {
    v.choice(textField("shape", "Section"), s.shape);
    v.choice(textField("material", "Material"), s.material);
    v.field(FieldInfo{"width_m", "Section width", K::PartLength, 1e-4, 5, 0.006, 0.3}, s.width);
    v.field(FieldInfo{"height_m", "Section height", K::PartLength, 1e-4, 5, 0.006, 0.3}, s.height);
    v.field(FieldInfo{"wall_m", "Wall or web", K::PartLength, 1e-5, 1, 5e-4, 0.03}, s.wall);
    v.field(FieldInfo{"flange_m", "Flange", K::PartLength, 1e-5, 1, 1e-3, 0.03}, s.flange);
    v.field(FieldInfo{"spacing_m", "Rods apart", K::PartLength, 0, 5, 0.02, 0.3}, s.spacing);
    v.field(textField("on_edge", "On edge"), s.onEdge);
    v.field(FieldInfo{"own_inertia_m4", "Bending, upright", K::SecondMoment, 1e-14, 1, 1e-10, 1e-5},
            s.ownInertia);
    v.field(FieldInfo{"own_sideways_m4", "Bending, sideways", K::SecondMoment, 1e-14, 1, 1e-10, 1e-5},
            s.ownSideways);
    v.field(FieldInfo{"own_torsion_m4", "Torsion", K::SecondMoment, 1e-16, 1, 1e-11, 1e-5}, s.ownTorsion);
    v.field(FieldInfo{"own_mass_kg_m", "Own weight", K::MassPerLength, 0, 1e4, 0.1, 20}, s.ownMass);
    v.field(FieldInfo{"price_per_m", "Price a metre", K::Money, 0, 1e6, 0, 500}, s.price);
    v.field(FieldInfo{"stiffness_factor", "Stiffness factor", K::Ratio, 0.01, 100, 0.5, 1.5},
            s.stiffnessFactor);
}

/// How long, wide and high a body is.
template <class V, class S>
void describeSize(V& v, S& s) {
    v.field(FieldInfo{"length_m", "Long", K::Length, 1e-3, 100, 0.02, 0.5}, s.length);
    v.field(FieldInfo{"width_m", "Wide", K::Length, 1e-3, 100, 0.02, 0.5}, s.width);
    v.field(FieldInfo{"height_m", "High", K::Length, 1e-3, 100, 0.02, 0.5}, s.height);
}

template <class V, Of<PlacedBody> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Sticks out"), s.name);
    v.field(FieldInfo{"along_m", "Along", K::Length, -100, 100, -1, 1}, s.along);
    v.field(FieldInfo{"left_m", "To the left", K::Length, -100, 100, -0.5, 0.5}, s.left);
    v.field(FieldInfo{"above_m", "Above", K::Length, -100, 100, -0.5, 0.5}, s.above);
    describeSize(v, s);
}

template <class V, Of<Head> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"stand_m", "Rail to head", K::Length, 0, 10, 0.01, 0.3}, s.stand);
    v.field(FieldInfo{"pan_height_m", "Pan, height", K::Length, 0, 10, 0.02, 0.3}, s.panHeight);
    v.field(FieldInfo{"tilt_height_m", "Pan to tilt axis", K::Length, 0, 10, 0.02, 0.4}, s.tiltHeight);
    v.field(FieldInfo{"tilt_ahead_m", "Tilt before pan", K::Length, -10, 10, -0.2, 0.2}, s.tiltAhead);
    v.field(FieldInfo{"roll_height_m", "Tilt to roll axis", K::Length, -10, 10, -0.1, 0.2}, s.rollHeight);
    v.field(FieldInfo{"plate_below_m", "Plate below axis", K::Length, -10, 10, -0.1, 0.2}, s.plateBelow);
    v.field(FieldInfo{"lens_height_m", "Plate to lens", K::Length, 0, 10, 0.02, 0.2}, s.lensHeight);
    v.field(FieldInfo{"lens_left_m", "Lens beside pan", K::Length, -10, 10, -0.2, 0.2}, s.lensLeft);
    v.field(FieldInfo{"lens_front_m", "Axes to lens front", K::Length, -10, 10, 0.03, 0.5}, s.lensFront);
    v.field(FieldInfo{"pupil_back_m", "Pupil behind front", K::Length, -10, 10, 0, 0.3}, s.pupilBack);
    v.field(FieldInfo{"lens_diameter_m", "Lens, diameter", K::PartLength, 1e-3, 2, 0.03, 0.2},
            s.lensDiameter);
    v.field(FieldInfo{"camera_back_m", "Back behind axis", K::Length, -10, 10, 0.02, 0.4}, s.cameraBack);
    v.field(FieldInfo{"camera_depth_m", "Camera, deep", K::Length, 1e-3, 10, 0.03, 0.4}, s.cameraDepth);
    v.field(FieldInfo{"camera_width_m", "Camera, wide", K::Length, 1e-3, 10, 0.04, 0.4}, s.cameraWidth);
    v.field(FieldInfo{"camera_height_m", "Camera, high", K::Length, 1e-3, 10, 0.04, 0.4}, s.cameraHeight);
}

template <class V, Of<Profile> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Compared"), s.name);
    v.part("section", s.section);
}

template <class V, Of<RailLoad> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Sits on the rail"), s.name);
    v.field(FieldInfo{"mass_kg", "Its mass", K::Mass, 0, 1e4, 0.05, 30}, s.mass);
    v.field(FieldInfo{"at_m", "From the low end", K::Length, -100, 1e3, -0.3, 12}, s.at);
    v.field(FieldInfo{"left_m", "Beside the rail", K::Length, -10, 10, -0.3, 0.3}, s.left);
    v.field(FieldInfo{"above_m", "Above the rail", K::Length, -10, 10, -0.3, 0.3}, s.above);
    describeSize(v, s);
}

template <class V, Of<Rail> S>
void describe(V& v, S& s) {
    v.part("section", s.section);
    v.choice(textField("support", "Rail stands on"), s.support);
    v.field(FieldInfo{"first_stand_m", "First stand", K::Length, 0, 1e3, 0, 12}, s.firstStand);
    v.field(FieldInfo{"second_stand_m", "Second stand", K::Length, 0, 1e3, 0, 12}, s.secondStand);
    v.field(FieldInfo{"head_at_m", "Head at", K::Length, 0, 1e3, 0, 12}, s.headAt);
    v.field(FieldInfo{"head_turning_Nm_rad", "Head stiffness", K::AngularStiffness, 1, 1e9, 300, 1e6},
            s.headTurning);
    v.field(FieldInfo{"stand_sway_N_m", "Stands, sway", K::Stiffness, 0, 1e12, 0, 1e8}, s.standSway);
    v.field(FieldInfo{"stand_mass_kg", "Mass of each stand", K::Mass, 0, 1e4, 0, 30}, s.standMass);
    v.field(FieldInfo{"clamp_bolts", "Bolts in a clamp", K::Count, 0, 100, 0, 12}, s.clampBolts);
    v.field(FieldInfo{"clamp_spacing_m", "Clamp bolts apart", K::PartLength, 1e-3, 10, 0.01, 0.5},
            s.clampSpacing);
    v.field(FieldInfo{"clamp_bolt_limit_N", "Clamp bolt rating", K::Force, 1, 1e7, 100, 5e4},
            s.clampBoltLimit);
    v.field(FieldInfo{"camera_side_m", "Camera beside rail", K::Length, -10, 10, -0.3, 0.3}, s.cameraSide);
    v.field(FieldInfo{"shown_at_m", "Drawn at", K::Length, 0, 1e3, 0, 12}, s.shownAt);
    v.parts("loads", s.loads);
}

template <class V, Of<Disc> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Disc"), s.name);
    v.field(FieldInfo{"mass_kg", "Disc mass", K::Mass, 1e-3, 1e3, 0.1, 25}, s.mass);
    v.field(FieldInfo{"count", "On hand", K::Count, 0, 100, 0, 20}, s.count);
    v.field(FieldInfo{"price", "Price of a disc", K::Money, 0, 1e6, 0, 500}, s.price);
}

template <class V, Of<Counterweight> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"mass_kg", "Counterweight", K::Mass, 0, 1e4, 0, 60}, s.mass);
    v.field(FieldInfo{"behind_m", "Behind the pivot", K::Length, 0.001, 100, 0.05, 3}, s.behind);
    v.field(FieldInfo{"above_m", "Above arm line", K::Length, -10, 10, -0.5, 0.5}, s.above);
    v.field(FieldInfo{"nearest_m", "Bar from", K::Length, 0.001, 100, 0.05, 3}, s.nearest);
    v.field(FieldInfo{"farthest_m", "Bar to", K::Length, 0.001, 100, 0.05, 3}, s.farthest);
    v.field(FieldInfo{"bare_kg", "Bar without discs", K::Mass, 0, 1e3, 0, 10}, s.bare);
    v.field(FieldInfo{"size_m", "Across the discs", K::PartLength, 0.001, 5, 0.05, 0.4}, s.size);
}

template <class V, Of<Pivot> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"pin_diameter_m", "Pivot pin", K::PartLength, 0, 1, 0, 0.06}, s.pinDiameter);
    v.field(FieldInfo{"cheek_gap_m", "Cheeks apart", K::PartLength, 0, 10, 0.01, 0.3}, s.cheekGap);
    v.field(FieldInfo{"pin_limit_Pa", "Pin stress limit", K::Stress, 1e5, 1e10, 1e7, 1e9}, s.pinLimit);
    v.field(FieldInfo{"bearing_rating_N", "Pivot bearings", K::Force, 0, 1e7, 0, 1e5, Certainty::Rating},
            s.bearingRating);
    v.field(FieldInfo{"bearing_moment_Nm", "Bearing moment", K::Torque, 0, 1e6, 0, 2000, Certainty::Rating},
            s.bearingMoment);
    v.field(FieldInfo{"bolts", "Bolts on a circle", K::Count, 0, 100, 0, 12}, s.bolts);
    v.field(FieldInfo{"bolt_circle_m", "Radius of bolts", K::PartLength, 1e-3, 10, 0.01, 0.3}, s.boltCircle);
    v.field(FieldInfo{"bolt_limit_N", "Bolt rating", K::Force, 1, 1e7, 100, 5e4}, s.boltLimit);
}

template <class V, Of<Boom> S>
void describe(V& v, S& s) {
    v.part("section", s.section);
    v.choice(textField("arm", "Arm"), s.arm);
    v.field(FieldInfo{"reach_m", "Reach", K::Length, 0.01, 100, 0.1, 6}, s.reach);
    v.field(FieldInfo{"rear_m", "Behind the pivot", K::Length, 0, 100, 0, 3}, s.rear);
    v.field(FieldInfo{"tip_offset_m", "Camera past end", K::Length, -10, 10, -0.5, 0.5}, s.tipOffset);
    v.field(FieldInfo{"tip_above_m", "Camera above arm", K::Length, -10, 10, -1, 1}, s.tipAbove);
    v.field(FieldInfo{"tip_side_m", "Camera beside arm", K::Length, -10, 10, -0.5, 0.5}, s.tipSide);
    v.field(FieldInfo{"mast_turning_Nm_rad", "Mast stiffness", K::AngularStiffness, 0, 1e9, 0, 1e6},
            s.mastTurning);
    v.part("counterweight", s.counterweight);
    v.parts("discs", s.discs);
    v.part("pivot", s.pivot);
    v.field(textField("hangs", "Hangs upside down"), s.hangs);
    v.field(FieldInfo{"shown_at_rad", "Drawn at", K::Angle, -1e5, 1e5, -3.2, 13}, s.shownAt);
}

template <class V, Of<Base> S>
void describe(V& v, S& s) {
    v.choice(textField("kind", "Stands on"), s.kind);
    v.field(FieldInfo{"legs", "Legs", K::Count, 3, 12, 3, 5}, s.legs);
    v.field(FieldInfo{"leg_radius_m", "Middle to foot", K::Length, 1e-3, 100, 0.1, 2}, s.legRadius);
    v.field(FieldInfo{"first_leg_rad", "First leg points", K::Angle, -7, 7, -3.2, 3.2}, s.firstLeg);
    v.field(FieldInfo{"length_m", "Feet apart, along", K::Length, 1e-3, 100, 0.1, 6}, s.length);
    v.field(FieldInfo{"width_m", "Feet apart, across", K::Length, 1e-3, 100, 0.1, 3}, s.width);
    v.field(FieldInfo{"height_m", "Column height", K::Length, 0, 100, 0, 4}, s.height);
    v.field(FieldInfo{"column_ahead_m", "Column ahead", K::Length, -100, 100, -0.5, 0.5}, s.columnAhead);
    v.field(FieldInfo{"mount_m", "Mount to pivot", K::Length, 0.001, 100, 0.05, 1}, s.mount);
    v.field(FieldInfo{"mass_kg", "Mass of the base", K::Mass, 0, 1e5, 0.5, 200}, s.mass);
    v.field(FieldInfo{"mass_height_m", "Its gravity centre", K::Length, 0, 100, 0, 2}, s.massHeight);
    v.field(FieldInfo{"ground_slope_rad", "Ground slopes", K::Angle, 0, 0.7, 0, 0.35}, s.groundSlope);
    v.field(FieldInfo{"downhill_rad", "Falls towards", K::Angle, -7, 7, -3.2, 3.2}, s.downhill);
    v.field(FieldInfo{"ballast_kg", "Ballast", K::Mass, 0, 1e5, 0, 200}, s.ballast);
    v.field(FieldInfo{"ballast_out_m", "Ballast behind", K::Length, -100, 100, -2, 2}, s.ballastOut);
    v.field(FieldInfo{"ballast_leg", "Ballast on leg", K::Count, 0, 12, 0, 5}, s.ballastLeg);
    v.field(FieldInfo{"pad_stiffness_N_m", "Pad of a foot", K::Stiffness, 0, 1e12, 0, 1e8}, s.padStiffness);
    v.field(FieldInfo{"pad_damping", "Damping of pads", K::Percentage, 0, 0.7, 0.02, 0.3}, s.padDamping);
    v.field(FieldInfo{"side_push_N", "Push from the side", K::Force, 0, 1e5, 0, 200}, s.sidePush);
    v.field(FieldInfo{"push_height_m", "Pushed at", K::Length, 0, 100, 0, 3}, s.pushHeight);
    v.field(FieldInfo{"anchor_strength_N", "Anchors stand", K::Force, 0, 1e7, 0, 1e5}, s.anchorStrength);
    v.field(FieldInfo{"anchor_spread_m", "Anchors apart", K::Length, 1e-3, 100, 0.05, 2}, s.anchorSpread);
    v.field(textField("tethered", "Second tether"), s.tethered);
    v.parts("bodies", s.bodies);
}

template <class V, Of<KeepOut> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Keep out of"), s.name);
    v.field(FieldInfo{"x_m", "Along the rig", K::Length, -1e3, 1e3, -10, 10}, s.x);
    v.field(FieldInfo{"y_m", "To its left", K::Length, -1e3, 1e3, -10, 10}, s.y);
    v.field(FieldInfo{"z_m", "Above the feet", K::Length, -1e3, 1e3, -10, 10}, s.z);
    v.field(FieldInfo{"length_m", "Long", K::Length, 1e-3, 1e3, 0.05, 5}, s.length);
    v.field(FieldInfo{"width_m", "Wide", K::Length, 1e-3, 1e3, 0.05, 5}, s.width);
    v.field(FieldInfo{"height_m", "High", K::Length, 1e-3, 1e3, 0.05, 5}, s.height);
}

template <class V, Of<Kit> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Kit"), s.name);
    v.field(FieldInfo{"mass_kg", "Kit mass", K::Mass, 1e-3, 1e4, 0.2, 40}, s.mass);
    v.field(FieldInfo{"above_m", "Kit above arm", K::Length, -10, 10, -1, 1}, s.above);
}

} // namespace gantry
