// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/describe_base.h"
#include "core/model/move_parts.h"

namespace gantry {

template <>
struct ChoiceNames<PlaceFrom> {
    static constexpr std::array<std::string_view, 3> keys{"low_end", "high_end", "pose_before"};
    static constexpr std::array<std::string_view, 3> labels{"from the low end", "from the high end",
                                                            "from the pose before"};
};
template <>
struct ChoiceNames<SegmentKind> {
    static constexpr std::array<std::string_view, 2> keys{"straight", "aimed"};
    static constexpr std::array<std::string_view, 2> labels{"straight", "aimed"};
};
template <>
struct ChoiceNames<SegmentPace> {
    static constexpr std::array<std::string_view, 3> keys{"time", "speed", "fastest"};
    static constexpr std::array<std::string_view, 3> labels{"in a time", "at a speed", "as fast as it may"};
};
template <>
struct ChoiceNames<EaseKind> {
    static constexpr std::array<std::string_view, 3> keys{"linear", "s", "cosine"};
    static constexpr std::array<std::string_view, 3> labels{"even acceleration", "S-shaped", "cosine"};
};
template <>
struct ChoiceNames<EvenSpeed> {
    static constexpr std::array<std::string_view, 3> keys{"axes", "lens", "picture"};
    static constexpr std::array<std::string_view, 3> labels{"of the axes", "of the lens in space",
                                                            "of the target in the picture"};
};
template <>
struct KindName<AxisPlace<AxisKind::Linear>> {
    static constexpr std::string_view key = "linear";
};
template <>
struct KindName<AxisPlace<AxisKind::Rotary>> {
    static constexpr std::string_view key = "rotary";
};

template <class V, Of<AxisPlace<AxisKind::Linear>> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"at_m", "Place", K::Length, -1e3, 1e3, -12, 12}, s.at);
    v.choice(textField("from", "Counted"), s.from);
}

template <class V, Of<AxisPlace<AxisKind::Rotary>> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"at_rad", "Angle", K::Angle, -1e4, 1e4, -13, 13}, s.at);
    v.choice(textField("from", "Counted"), s.from);
}

template <class V, Of<PosePlace> S>
void describe(V& v, S& s) {
    v.field(textField("axis", "Axis"), s.axis);
    v.either("place", s.place);
}

template <class V, Of<MoveSegment> S>
void describe(V& v, S& s) {
    v.choice(textField("kind", "Way"), s.kind);
    v.field(textField("target", "Aimed at"), s.target);
    v.field(FieldInfo{"place_right_px", "Held to the right", K::Pixels, -1e5, 1e5, -2000, 2000},
            s.placeRight);
    v.field(FieldInfo{"place_up_px", "Held upwards", K::Pixels, -1e5, 1e5, -1200, 1200}, s.placeUp);
    v.choice(textField("pace", "Runs"), s.pace);
    v.field(FieldInfo{"time_s", "Time", K::Time, 1e-3, 1e7, 0.2, 4e5}, s.time);
    v.field(textField("speed_of", "Axis of the speed"), s.speedOf);
    v.field(FieldInfo{"speed_m_s", "Its top speed", K::Speed, 1e-9, 100, 1e-6, 3}, s.speed);
    v.field(FieldInfo{"speed_rad_s", "Its top speed", K::AngularSpeed, 1e-9, 1e3, 1e-6, 7}, s.angularSpeed);
    v.choice(textField("ease", "Ease"), s.ease);
    v.field(FieldInfo{"ease_in", "Ease in", K::Percentage, 0, 1, 0, 0.5}, s.easeIn);
    v.field(FieldInfo{"ease_out", "Ease out", K::Percentage, 0, 1, 0, 0.5}, s.easeOut);
    v.choice(textField("even_speed", "Even speed"), s.even);
    v.field(textField("pulls_focus", "Pulls focus"), s.pullsFocus);
}

template <class V, Of<AxisBlock> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("axis", "Axis"), s.axis);
    v.field(FieldInfo{"start_s", "Starts at", K::Time, 0, 1e7, 0, 4e5}, s.start);
    v.field(FieldInfo{"length_s", "Lasts", K::Time, 1e-3, 1e7, 0.2, 4e5}, s.length);
    v.field(FieldInfo{"by_m", "Goes by", K::Length, -1e3, 1e3, -12, 12}, s.by);
    v.field(FieldInfo{"by_rad", "Turns by", K::Angle, -1e4, 1e4, -13, 13}, s.byAngle);
    v.choice(textField("ease", "Ease"), s.ease);
    v.field(FieldInfo{"ease_in", "Ease in", K::Percentage, 0, 1, 0, 0.5}, s.easeIn);
    v.field(FieldInfo{"ease_out", "Ease out", K::Percentage, 0, 1, 0, 0.5}, s.easeOut);
}

template <class V, Of<KeyPose> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Pose"), s.name);
    v.field(textField("note", "Note"), s.note);
    v.field(textField("passes", "Goes through"), s.passes);
    v.field(FieldInfo{"wait_s", "Waits", K::Time, 0, 1e6, 0, 600}, s.wait);
    v.field(FieldInfo{"focus_m", "Focused at", K::Length, 0, 1e5, 0, 100}, s.focus);
    v.field(FieldInfo{"focal_m", "Zoomed to", K::PartLength, 0, 10, 0, 1.0}, s.focal);
    v.parts("places", s.places);
    v.part("arrive", s.arrive);
}

template <class V, Of<AimTarget> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Target"), s.name);
    v.field(FieldInfo{"x_m", "Ahead", K::Length, -1e4, 1e4, -50, 50}, s.x);
    v.field(FieldInfo{"y_m", "To the left", K::Length, -1e4, 1e4, -50, 50}, s.y);
    v.field(FieldInfo{"z_m", "Above the floor", K::Length, -1e4, 1e4, -5, 20}, s.z);
    v.field(FieldInfo{"deviation_m", "Known within", K::Length, 0, 1e3, 0, 0.5}, s.deviation);
    v.field(textField("rides_on", "Rides on"), s.rides);
    v.field(FieldInfo{"about_x_m", "Table ahead", K::Length, -1e4, 1e4, -50, 50}, s.aboutX);
    v.field(FieldInfo{"about_y_m", "Table to the left", K::Length, -1e4, 1e4, -50, 50}, s.aboutY);
}

template <class V, Of<RigMove> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Move"), s.name);
    v.field(textField("shot", "Taken as shot"), s.shot);
    v.field(textField("realises", "Shot goes by it"), s.realises);
    v.parts("poses", s.poses);
    v.parts("blocks", s.blocks);
    v.parts("targets", s.targets);
    v.field(FieldInfo{"pre_roll_s", "Recorded before", K::Time, 0, 1e4, 0, 30}, s.preRoll);
    v.field(FieldInfo{"post_roll_s", "Recorded after", K::Time, 0, 1e4, 0, 30}, s.postRoll);
    v.field(FieldInfo{"repeats", "Passes", K::Count, 1, 1000, 1, 12}, s.repeats);
    v.field(textField("comes_back", "Comes back"), s.comesBack);
    v.field(textField("takes_up_backlash", "Backlash taken up"), s.takesUpBacklash);
    v.field(textField("overshoots", "Overshoot allowed"), s.overshoots);
}

} // namespace gantry
