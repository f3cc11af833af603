// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/describe_brief.h"
#include "core/model/describe_intervals.h"
#include "core/model/describe_links.h"
#include "core/model/describe_motors.h"
#include "core/model/describe_moves.h"
#include "core/model/describe_outputs.h"
#include "core/model/describe_structure.h"
#include "core/model/project.h"

/// One description of every field of a Project. Reader, writer, schema, editors, locks, ranges and random
/// projects are visitors of it, so a field is added in its struct and in one line here.
///
/// A visitor V has
///   v.field(FieldInfo, T&)            T: double, Estimate, int, bool, std::string
///   v.choice(FieldInfo, E&)           E: an enum with a ChoiceNames table
///   v.part(key, T&)                   T: a struct with a describe overload
///   v.parts(key, std::vector<T>&)     T: a struct with an id, or a variant of such
///   v.either(key, std::variant<…>&)   stored as an object with "kind"
///   v.texts(key, std::vector<std::string>&)
namespace gantry {

template <>
struct ChoiceNames<Source> {
    static constexpr std::array<std::string_view, 6> keys{"measured", "counted", "data_sheet",
                                                          "label",    "guess",   "assumed"};
    static constexpr std::array<std::string_view, 6> labels{"measured", "counted", "data sheet",
                                                            "label",    "guess",   "assumed"};
};
template <>
struct ChoiceNames<RampKind> {
    static constexpr std::array<std::string_view, 3> keys{"none", "trapezoid", "s_curve"};
    static constexpr std::array<std::string_view, 3> labels{"no ramp", "trapezoid", "limited jerk"};
};
template <>
struct ChoiceNames<SpeedUnit> {
    static constexpr std::array<std::string_view, 2> keys{"per_second", "per_minute"};
    static constexpr std::array<std::string_view, 2> labels{"per second", "per minute"};
};
template <>
struct ChoiceNames<HomeEnd> {
    static constexpr std::array<std::string_view, 2> keys{"low", "high"};
    static constexpr std::array<std::string_view, 2> labels{"low end", "high end"};
};
template <>
struct ChoiceNames<Role> {
    static constexpr std::array<std::string_view, 11> keys{
        "slide", "lift", "swing", "boom_tilt", "pan", "tilt", "roll", "focus", "zoom", "turntable", "other"};
    static constexpr std::array<std::string_view, 11> labels{
        "slide", "lift", "swing (vertical axis)", "boom tilt", "pan", "tilt", "roll",
        "focus", "zoom", "subject turntable",     "other"};
};
template <>
struct ChoiceNames<OnStop> {
    static constexpr std::array<std::string_view, 4> keys{"not_asked", "keeps_holding", "cuts_current",
                                                          "ramps_down"};
    static constexpr std::array<std::string_view, 4> labels{"not known yet", "keeps holding",
                                                            "cuts the current", "ramps down, holds"};
};
template <>
struct ChoiceNames<Silence> {
    static constexpr std::array<std::string_view, 3> keys{"any", "quiet", "silent"};
    static constexpr std::array<std::string_view, 3> labels{"no sound", "quiet", "silent"};
};
template <>
struct ChoiceNames<GuideKind> {
    static constexpr std::array<std::string_view, 5> keys{"wheels", "plain_rods", "ball_rods", "telescope",
                                                          "ball_rail"};
    static constexpr std::array<std::string_view, 5> labels{"wheels on profile", "rods, plain bearings",
                                                            "rods, ball bearings", "telescoping runner",
                                                            "ball rail"};
};
template <>
struct KindName<LinearMechanism> {
    static constexpr std::string_view key = "linear", label = "linear";
};
template <>
struct KindName<RotaryMechanism> {
    static constexpr std::string_view key = "rotary", label = "rotary";
};
template <>
struct KindName<BySpeed<AxisKind::Linear>> {
    static constexpr std::string_view key = "linear_by_speed";
};
template <>
struct KindName<ByTime<AxisKind::Linear>> {
    static constexpr std::string_view key = "linear_by_time";
};
template <>
struct KindName<BySpeed<AxisKind::Rotary>> {
    static constexpr std::string_view key = "rotary_by_speed";
};
template <>
struct KindName<ByTime<AxisKind::Rotary>> {
    static constexpr std::string_view key = "rotary_by_time";
};

template <class V, Of<Camera> S>
void describe(V& v, S& s) {
    v.field(textField("name", "Camera"), s.name);
    v.field(FieldInfo{"sensor_width_m", "Sensor width", K::PartLength, 1e-4, 1.0, 4e-3, 0.06}, s.sensorWidth);
    v.field(FieldInfo{"pixels_across", "Pixels across", K::Count, 16, 100000, 640, 12000}, s.pixelsAcross);
    v.field(FieldInfo{"delivered_width", "Delivered width", K::Count, 16, 100000, 640, 12000},
            s.deliveredWidth);
}

template <class V, Of<ErrorLimits> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"drift_px_per_frame", "Slow drift limit", K::PixelsPerFrame, 1e-6, 1e4, 0.05, 3},
            s.drift);
    v.field(FieldInfo{"jitter_px", "Jitter limit", K::Pixels, 1e-6, 1e4, 0.1, 5}, s.jitter);
    v.field(FieldInfo{"repeat_px", "Repeat limit", K::Pixels, 1e-6, 1e4, 0.1, 20}, s.repeat);
    v.field(FieldInfo{"framing_share", "Framing limit", K::Percentage, 1e-6, 1.0, 0.002, 0.1}, s.framing);
    v.field(FieldInfo{"crossing_time_s", "Min. crossing time", K::Time, 1e-3, 1e4, 1, 20}, s.crossingTime);
}

template <class V, Of<BySpeed<AxisKind::Linear>> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"distance_m", "Distance", K::Length, -1e3, 1e3, -12, 12}, s.distance);
    v.field(FieldInfo{"speed_m_s", "Speed", K::Speed, 1e-9, 100, 1e-6, 3}, s.speed);
    v.field(FieldInfo{"acceleration_m_s2", "Acceleration", K::Acceleration, 1e-9, 1e4, 1e-3, 10},
            s.acceleration);
    v.field(textField("placed", "Begins at a place"), s.placed);
    v.field(FieldInfo{"start_m", "Begins at", K::Length, 0, 1e3, 0, 12}, s.start);
}

template <class V, Of<ByTime<AxisKind::Linear>> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"distance_m", "Distance", K::Length, -1e3, 1e3, -12, 12}, s.distance);
    v.field(FieldInfo{"time_s", "Time", K::Time, 1e-3, 1e7, 0.2, 4e5}, s.time);
    v.field(FieldInfo{"ease_in_s", "Ease in", K::Time, 0, 1e6, 0, 600}, s.easeIn);
    v.field(FieldInfo{"ease_out_s", "Ease out", K::Time, 0, 1e6, 0, 600}, s.easeOut);
    v.field(textField("placed", "Begins at a place"), s.placed);
    v.field(FieldInfo{"start_m", "Begins at", K::Length, 0, 1e3, 0, 12}, s.start);
}

template <class V, Of<BySpeed<AxisKind::Rotary>> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"distance_rad", "Angle", K::Angle, -1e4, 1e4, -13, 13}, s.distance);
    v.field(FieldInfo{"speed_rad_s", "Speed", K::AngularSpeed, 1e-9, 1e3, 1e-6, 7}, s.speed);
    v.field(FieldInfo{"acceleration_rad_s2", "Acceleration", K::AngularAcceleration, 1e-9, 1e5, 1e-3, 30},
            s.acceleration);
    v.field(textField("placed", "Begins at a place"), s.placed);
    v.field(FieldInfo{"start_rad", "Begins at", K::Angle, 0, 1e4, 0, 13}, s.start);
}

template <class V, Of<ByTime<AxisKind::Rotary>> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"distance_rad", "Angle", K::Angle, -1e4, 1e4, -13, 13}, s.distance);
    v.field(FieldInfo{"time_s", "Time", K::Time, 1e-3, 1e7, 0.2, 4e5}, s.time);
    v.field(FieldInfo{"ease_in_s", "Ease in", K::Time, 0, 1e6, 0, 600}, s.easeIn);
    v.field(FieldInfo{"ease_out_s", "Ease out", K::Time, 0, 1e6, 0, 600}, s.easeOut);
    v.field(textField("placed", "Begins at a place"), s.placed);
    v.field(FieldInfo{"start_rad", "Begins at", K::Angle, 0, 1e4, 0, 13}, s.start);
}

template <class V, Of<ShotMove> S>
void describe(V& v, S& s) {
    v.field(textField("axis", "Axis"), s.axis);
    v.either("movement", s.movement);
}

template <class V, Of<Shot> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Shot"), s.name);
    v.field(FieldInfo{"focal_length_m", "Lens", K::PartLength, 1e-4, 10, 4e-3, 1.0}, s.focalLength);
    v.field(FieldInfo{"subject_distance_m", "Subject distance", K::Length, 1e-3, 1e5, 0.02, 200},
            s.subjectDistance);
    v.field(FieldInfo{"frame_rate_hz", "Frame rate", K::Frequency, 1e-6, 1e5, 1e-3, 1000}, s.frameRate);
    v.field(FieldInfo{"exposure_s", "Shutter", K::Time, 1e-6, 1e5, 1e-4, 60}, s.exposure);
    v.field(FieldInfo{"f_number", "Aperture", K::Ratio, 0.5, 128, 1.2, 22}, s.fNumber);
    v.choice(textField("kind", "Taken as"), s.kind);
    v.field(FieldInfo{"frames", "Pictures", K::Count, 2, 1000000, 10, 20000}, s.frames);
    v.field(FieldInfo{"interval_s", "Interval", K::Time, 1e-3, 1e6, 0.5, 3600}, s.interval);
    v.field(FieldInfo{"clip_time_s", "Clip, as shown", K::Time, 1e-2, 1e5, 0.5, 600}, s.clipTime);
    v.field(FieldInfo{"step_time_s", "Time for a step", K::Time, 1e-3, 1e5, 0.05, 60}, s.stepTime);
    v.field(FieldInfo{"passes", "Passes", K::Count, 1, 1000, 2, 12}, s.passes);
    v.field(FieldInfo{"settle_s", "Settle within", K::Time, 1e-3, 1e5, 0.1, 30}, s.settle);
    v.field(FieldInfo{"swing_seen_px", "Vibration seen", K::Pixels, 0, 1e5, 0, 50}, s.swingSeen);
    v.field(textField("there_and_back", "There and back"), s.thereAndBack);
    v.field(textField("keep_framed", "Subject framed"), s.keepFramed);
    v.field(textField("towards_subject", "Towards subject"), s.towards);
    v.field(FieldInfo{"subject_place", "Passes subject at", K::Percentage, -20, 20, 0, 1}, s.subjectPlace);
    v.field(FieldInfo{"subject_height_m", "Subject above lens", K::Length, -1e4, 1e4, -5, 5},
            s.subjectHeight);
    v.part("limits", s.limits);
    v.parts("moves", s.moves);
}

template <class V, Of<Driver> S>
void describe(V& v, S& s) {
    v.field(textField("name", "Driver"), s.name);
    v.field(FieldInfo{"microsteps", "Microsteps", K::Count, 1, 1024, 1, 256}, s.microsteps);
    v.field(FieldInfo{"run_current_rms_A", "Run current, rms", K::Current, 1e-3, 100, 0.05, 8}, s.runCurrent);
    v.field(FieldInfo{"hold_current_rms_A", "Hold current, rms", K::Current, 0, 100, 0, 8}, s.holdCurrent);
    v.field(FieldInfo{"max_current_rms_A", "Driver rating, rms", K::Current, 1e-3, 100, 0.3, 12},
            s.maxCurrent);
    v.field(FieldInfo{"max_voltage_V", "Voltage rating", K::Voltage, 1, 1000, 5, 90}, s.maxVoltage);
    v.field(FieldInfo{"idle_delay_s", "Idle delay", K::Time, 0, 1e5, 0, 60}, s.idleDelay);
    v.field(FieldInfo{"shortest_pulse_s", "Shortest pulse", K::ShortTime, 1e-9, 1, 1e-7, 2e-5},
            s.shortestPulse);
    v.field(textField("enable_active_low", "Enable active low"), s.enableActiveLow);
    v.field(FieldInfo{"bridge_resistance_ohm", "Bridge and cable", K::Resistance, 0, 1e3, 0.02, 3},
            s.bridgeResistance);
}

template <class V, Of<Supply> S>
void describe(V& v, S& s) {
    v.field(textField("name", "Supply"), s.name);
    v.field(FieldInfo{"voltage_V", "Supply voltage", K::Voltage, 0.1, 1000, 4, 90}, s.voltage);
    v.field(FieldInfo{"low_voltage_V", "Lowest voltage", K::Voltage, 0.1, 1000, 3, 90}, s.lowVoltage);
    v.field(FieldInfo{"source_resistance_ohm", "Source resistance", K::Resistance, 0, 1e3, 0, 2},
            s.sourceResistance);
    v.field(FieldInfo{"rated_current_A", "Supply current", K::Current, 0, 1e4, 0, 60}, s.ratedCurrent);
    v.field(FieldInfo{"cable_length_m", "Cable, one way", K::Length, 0, 1e4, 0, 20}, s.cableLength);
    v.field(FieldInfo{"cable_section_m2", "Conductor, copper", K::Section, 1e-9, 1e-2, 1e-7, 1e-5},
            s.cableSection);
    v.field(FieldInfo{"capacity_As", "Battery", K::Charge, 0, 1e9, 0, 1e6}, s.capacity);
    v.field(FieldInfo{"rated_time_s", "Capacity given for", K::Time, 1, 1e7, 1800, 100000}, s.ratedTime);
    v.field(FieldInfo{"peukert", "Peukert exponent", K::Ratio, 1, 3, 1, 1.4}, s.peukert);
    v.field(FieldInfo{"usable", "Usable share", K::Percentage, 0.01, 1, 0.5, 1}, s.usable);
}

template <class V, Of<Controller> S>
void describe(V& v, S& s) {
    v.field(textField("name", "Controller"), s.name);
    v.field(FieldInfo{"pulse_ceiling_hz", "Pulse-rate ceiling", K::Frequency, 1, 1e9, 500, 1e6},
            s.pulseCeiling);
    v.field(textField("pulses_shared", "Pulses shared"), s.pulsesShared);
    v.field(FieldInfo{"decimals_kept", "Decimals kept", K::Count, 0, 9, 0, 6}, s.decimalsKept);
    v.choice(textField("ramps", "Ramps"), s.ramps);
    v.choice(textField("speed_unit", "Speeds are typed"), s.speedUnit);
    v.parts("times", s.times);
}

template <class V, Of<FixedSpeed<AxisKind::Linear>> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"speed_m_s", "Runs at", K::Speed, 1e-9, 100, 1e-4, 3}, s.speed);
}

template <class V, Of<FixedSpeed<AxisKind::Rotary>> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"speed_rad_s", "Runs at", K::AngularSpeed, 1e-9, 1e3, 1e-4, 10}, s.speed);
}

template <class V, Of<FixedTime> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"time_s", "Offers", K::Time, 1e-3, 1e7, 0.2, 4e5}, s.time);
}

template <class V, Of<MotionSettings<AxisKind::Linear>> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"max_speed_m_s", "Top speed", K::Speed, 1e-9, 100, 1e-4, 3}, s.maxSpeed);
    v.field(FieldInfo{"max_acceleration_m_s2", "Top acceleration", K::Acceleration, 1e-9, 1e4, 1e-3, 10},
            s.maxAcceleration);
    v.field(FieldInfo{"jerk_m_s3", "Jerk", K::Jerk, 0, 1e7, 0, 500}, s.jerk);
    v.field(FieldInfo{"instant_speed_step_m_s", "Instant speed step", K::Speed, 0, 10, 0, 0.1},
            s.instantSpeedStep);
    v.field(FieldInfo{"soft_limit_margin_m", "Soft limit margin", K::Length, 0, 100, 0, 0.1},
            s.softLimitMargin);
    v.field(FieldInfo{"homing_speed_m_s", "Homing speed", K::Speed, 1e-9, 100, 1e-3, 0.3}, s.homingSpeed);
    v.field(FieldInfo{"homing_back_off_m", "Homing back-off", K::Length, 0, 10, 5e-4, 0.05}, s.homingBackOff);
    v.choice(textField("home_end", "Homes towards"), s.homeEnd);
    v.field(textField("reversed", "Direction reversed"), s.reversed);
    v.parts("speeds", s.speeds);
}

template <class V, Of<MotionSettings<AxisKind::Rotary>> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"max_speed_rad_s", "Top speed", K::AngularSpeed, 1e-9, 1e3, 1e-4, 10}, s.maxSpeed);
    v.field(FieldInfo{"max_acceleration_rad_s2", "Top acceleration", K::AngularAcceleration, 1e-9, 1e5, 1e-3,
                      100},
            s.maxAcceleration);
    v.field(FieldInfo{"jerk_rad_s3", "Jerk", K::AngularJerk, 0, 1e8, 0, 2000}, s.jerk);
    v.field(FieldInfo{"instant_speed_step_rad_s", "Instant speed step", K::AngularSpeed, 0, 100, 0, 1},
            s.instantSpeedStep);
    v.field(FieldInfo{"soft_limit_margin_rad", "Soft limit margin", K::Angle, 0, 1e3, 0, 0.3},
            s.softLimitMargin);
    v.field(FieldInfo{"homing_speed_rad_s", "Homing speed", K::AngularSpeed, 1e-9, 1e3, 1e-3, 2},
            s.homingSpeed);
    v.field(FieldInfo{"homing_back_off_rad", "Homing back-off", K::Angle, 0, 100, 1e-3, 0.3},
            s.homingBackOff);
    v.choice(textField("home_end", "Homes towards"), s.homeEnd);
    v.field(textField("reversed", "Direction reversed"), s.reversed);
    v.parts("speeds", s.speeds);
}

template <class V, Of<MassItem> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Item"), s.name);
    v.field(FieldInfo{"mass_kg", "Mass", K::Mass, 0, 1e5, 0.01, 80}, s.mass);
    v.field(FieldInfo{"along_m", "Along", K::Length, -100, 100, -3, 3}, s.along);
    v.field(FieldInfo{"above_m", "Above", K::Length, -100, 100, -2, 2}, s.above);
}

template <class V, Of<Guide> S>
void describe(V& v, S& s) {
    v.choice(textField("kind", "Runs on"), s.kind);
    v.field(FieldInfo{"play_m", "Bearing play", K::PartLength, 0, 1, 0, 1e-3}, s.play);
    v.field(FieldInfo{"wheelbase_m", "Wheelbase", K::Length, 1e-4, 100, 0.02, 2}, s.wheelbase);
    v.field(FieldInfo{"track_m", "Track", K::Length, 1e-4, 100, 0.015, 1}, s.track);
    v.field(FieldInfo{"push_offset_m", "Drive off centre", K::Length, -10, 10, -0.3, 0.3}, s.pushOffset);
    v.field(FieldInfo{"friction", "Guide friction", K::Ratio, 0, 5, 0.001, 0.4}, s.friction);
    v.field(FieldInfo{"mass_height_m", "Height of mass", K::Length, -100, 100, -1, 2}, s.massHeight);
    v.field(FieldInfo{"bearing_rating_N", "Bearing rating", K::Force, 0, 1e7, 5, 5000, Certainty::Rating},
            s.bearingRating);
}

template <class V, Of<PanBar> S>
void describe(V& v, S& s) {
    v.field(textField("fitted", "Pan bar fitted"), s.fitted);
    v.field(FieldInfo{"arm_length_m", "Pan bar arm", K::Length, 1e-3, 100, 0.05, 2}, s.armLength);
    v.field(FieldInfo{"offset_m", "Bar offset", K::Length, -100, 100, -1, 1}, s.offset);
    v.field(FieldInfo{"angle_rad", "Bar angle", K::Angle, -1.5, 1.5, -0.6, 0.6}, s.angle);
}

template <class V, Of<Counterspring> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"torque_at_low_Nm", "Spring at low end", K::Torque, -1e5, 1e5, -50, 50}, s.torqueAtLow);
    v.field(FieldInfo{"rate_Nm_rad", "Spring rate", K::AngularStiffness, -1e5, 1e5, -100, 100}, s.rate);
}

template <class V, Of<LinearMechanism> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"rail_length_m", "Rail length", K::Length, 1e-3, 1e3, 0.1, 12}, s.railLength);
    v.field(FieldInfo{"carriage_length_m", "Carriage length", K::Length, 0, 100, 0.03, 1}, s.carriageLength);
    v.field(FieldInfo{"bumper_length_m", "Bumper, each end", K::Length, 0, 10, 0, 0.1}, s.bumperLength);
    v.field(FieldInfo{"slope_rad", "Slope", K::Angle, -1.5707963267948966, 1.5707963267948966, -1.0,
                      1.5707963267948966},
            s.slope);
    v.field(FieldInfo{"moving_mass_kg", "Moving mass", K::Mass, 1e-4, 1e5, 0.05, 80}, s.movingMass);
    v.field(FieldInfo{"running_friction_N", "Running friction", K::Force, 0, 1e6, 0.05, 100},
            s.runningFriction);
    v.field(FieldInfo{"static_friction_N", "Static friction", K::Force, 0, 1e6, 0.05, 150}, s.staticFriction);
    v.field(FieldInfo{"frame_stiffness_N_m", "Mount stiffness", K::Stiffness, 0, 1e12, 0, 1e8},
            s.frameStiffness);
    v.parts("items", s.items);
    v.parts("bodies", s.bodies);
    v.field(FieldInfo{"cable_drag_N", "Cable drag", K::Force, 0, 1e6, 0, 30}, s.cableDrag);
    v.field(FieldInfo{"disturbance_N", "Disturbance", K::Force, 0, 1e6, 0, 10}, s.disturbance);
    v.field(FieldInfo{"wind_area_m2", "Wind area", K::Area, 0, 1e4, 0, 2}, s.windArea);
    v.part("guide", s.guide);
    v.part("rail", s.rail);
    v.part("pan_bar", s.panBar);
    v.either("output", s.output);
    v.part("motion", s.motion);
}

template <class V, Of<RotaryMechanism> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"range_rad", "Usable range", K::Angle, 1e-4, 1e5, 0.3, 13}, s.range);
    v.field(FieldInfo{"inertia_kgm2", "Load inertia", K::LoadInertia, 0, 1e5, 1e-4, 30}, s.inertia);
    v.field(FieldInfo{"point_mass_kg", "Further mass", K::Mass, 0, 1e5, 0, 30}, s.pointMass);
    v.field(FieldInfo{"point_radius_m", "Its radius", K::Length, 0, 100, 0, 3}, s.pointRadius);
    v.field(FieldInfo{"friction_Nm", "Running friction", K::Torque, 0, 1e5, 0.001, 5}, s.friction);
    v.field(FieldInfo{"static_friction_Nm", "Static friction", K::Torque, 0, 1e5, 0.001, 8},
            s.staticFriction);
    v.field(FieldInfo{"unbalance_Nm", "Unbalance", K::Torque, 0, 1e5, 0, 20}, s.unbalance);
    v.field(textField("lean_known", "Lean measured"), s.leanKnown);
    v.field(FieldInfo{"lean_rad", "Lean from upright", K::Angle, 0, 1.5707963267948966, 0, 0.5}, s.lean);
    v.field(FieldInfo{"downhill_rad", "Downhill at", K::Angle, -1e4, 1e4, -6, 6}, s.downhill);
    v.field(FieldInfo{"low_angle_rad", "Angle at low end", K::Angle, -1e3, 1e3, -3.2, 3.2}, s.lowAngle);
    v.parts("items", s.items);
    v.parts("bodies", s.bodies);
    v.part("spring", s.spring);
    v.part("boom", s.boom);
    v.field(FieldInfo{"cable_drag_Nm", "Cable drag", K::Torque, 0, 1e5, 0, 5}, s.cableDrag);
    v.field(FieldInfo{"disturbance_Nm", "Disturbance", K::Torque, 0, 1e5, 0, 2}, s.disturbance);
    v.field(FieldInfo{"wind_area_m2", "Wind area", K::Area, 0, 1e4, 0, 2}, s.windArea);
    v.field(FieldInfo{"wind_arm_m", "Distance to axis", K::Length, 0, 100, 0, 5}, s.windArm);
    v.either("output", s.output);
    v.part("motion", s.motion);
}

template <class V, Of<DriveCandidate> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("note", "Note"), s.note);
    v.field(FieldInfo{"price", "Price", K::Money, 0, 1e9, 0, 5000}, s.price);
    v.either("motor", s.motor);
    v.part("driver", s.driver);
    v.parts("links", s.links);
    v.part("brake", s.brake);
    v.either("output", s.output);
}

template <class V, Of<Vibration> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"frequency_hz", "Natural frequency", K::Frequency, 0, 1000, 1, 40}, s.frequency);
    v.field(FieldInfo{"damping", "Damping", K::Percentage, 0, 0.7, 0.005, 0.15}, s.damping);
}

template <class V, Of<Axis> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Axis"), s.name);
    v.choice(textField("role", "Role"), s.role);
    v.field(FieldInfo{"wanted_margin", "Target margin", K::Ratio, 1, 100, 1.5, 4}, s.wantedMargin);
    v.either("motor", s.motor);
    v.part("driver", s.driver);
    v.parts("links", s.links);
    v.part("brake", s.brake);
    v.choice(textField("on_stop", "Emergency stop"), s.onStop);
    v.either("mechanism", s.mechanism);
    v.part("vibration", s.vibration);
    v.texts("told", s.told);
    v.field(textField("carries_payload", "Payload on top"), s.carriesPayload);
    v.field(textField("candidate", "Drive in use"), s.candidate);
    v.field(textField("candidate_note", "Note"), s.candidateNote);
    v.field(FieldInfo{"price", "Price", K::Money, 0, 1e9, 0, 5000}, s.price);
    v.field(textField("fitted_today", "Fitted today"), s.fittedToday);
    v.parts("candidates", s.candidates);
}

template <class V, Of<Conditions> S>
void describe(V& v, S& s) {
    v.choice(textField("silence", "Sound"), s.silence);
    v.field(FieldInfo{"wind_speed_m_s", "Wind", K::Speed, 0, 100, 0, 20}, s.windSpeed);
    v.field(FieldInfo{"ambient_C", "Air temperature", K::Celsius, -60, 80, -20, 45}, s.ambient);
    v.field(FieldInfo{"speed_near_people_m_s", "Cap near people", K::Speed, 0, 100, 0, 2}, s.speedNearPeople);
    v.field(FieldInfo{"energy_near_people_J", "Energy near people", K::Energy, 0, 1e6, 0, 50},
            s.energyNearPeople);
    v.field(FieldInfo{"microphone_distance_m", "Nearest microphone", K::Length, 0, 1e3, 0, 20},
            s.microphoneDistance);
    v.field(FieldInfo{"weight_budget_kg", "Weight limit", K::Mass, 0, 1e5, 0, 300}, s.weightBudget);
    v.field(FieldInfo{"money_budget", "Budget", K::Money, 0, 1e9, 0, 20000}, s.moneyBudget);
    v.field(FieldInfo{"hand_speed_m_s", "Pushed by hand at", K::Speed, 0, 20, 0.1, 3}, s.handSpeed);
}

template <class V, Of<SetAside> S>
void describe(V& v, S& s) {
    v.field(textField("rule", "Rule"), s.rule);
    v.field(textField("axis", "Axis"), s.axis);
    v.field(textField("shot", "Shot"), s.shot);
    v.field(textField("reason", "Reason"), s.reason);
}

template <class V, Of<Project> S>
void describe(V& v, S& s) {
    v.field(textField("name", "Project"), s.name);
    v.field(textField("notes", "Notes"), s.notes);
    v.part("camera", s.camera);
    v.part("conditions", s.conditions);
    v.part("supply", s.supply);
    v.part("controller", s.controller);
    v.part("base", s.base);
    v.part("head", s.head);
    v.part("equipment", s.equipment);
    v.parts("payload", s.payload);
    v.parts("keep_out", s.keepOut);
    v.parts("kits", s.kits);
    v.parts("profiles", s.profiles);
    v.parts("later", s.later);
    v.parts("tests", s.tests);
    v.parts("axes", s.axes);
    v.parts("shots", s.shots);
    v.parts("moves", s.moves);
    v.parts("plans", s.plans);
    v.texts("locked_fields", s.lockedFields);
    v.parts("set_aside", s.setAside);
    v.texts("retired_ids", s.retiredIds);
}

/// Describes a part, or what a variant of parts holds.
template <class V, class T>
void describeElement(V& visitor, T& element) {
    if constexpr (requires { element.index(); })
        std::visit([&](auto& held) { describe(visitor, held); }, element);
    else
        describe(visitor, element);
}

/// Keys of the texts by which paths name an element of a list: its id, else the axis it is about, else all
/// that tells one verdict that was set aside from another.
template <class T>
constexpr auto idKeysOf() {
    if constexpr (
        requires(T t) { t.id; } || requires(T t) { t.index(); })
        return std::array<std::string_view, 1>{"id"};
    else if constexpr (requires(T t) { t.rule; })
        return std::array<std::string_view, 3>{"rule", "axis", "shot"};
    else
        return std::array<std::string_view, 1>{"axis"};
}

/// A rule may be set aside for several axes and shots.
inline std::string partId(const SetAside& part) {
    return part.rule + '@' + part.axis + '@' + part.shot;
}

/// That text of one element.
template <class T>
std::string_view partId(const T& part) {
    if constexpr (requires { part.id; })
        return part.id;
    else if constexpr (requires { part.axis; })
        return part.axis;
    else
        return std::visit([](const auto& p) { return partId(p); }, part);
}

} // namespace gantry
