// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"
#include "core/units/kind.h"

#include <array>
#include <concepts>
#include <string_view>

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

/// A field: its key in the file (the unit in it), its name on screen, its kind, the range that is accepted
/// and the range that is usual (outside of it the program asks back). All in SI.
struct FieldInfo {
    std::string_view key;
    std::string_view label;
    units::Kind kind = units::Kind::Count;
    double min = 0.0;
    double max = 0.0;
    double usualMin = 0.0;
    double usualMax = 0.0;
};

template <class E>
struct ChoiceNames;
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
    static constexpr std::array<std::string_view, 3> labels{"no ramp", "constant acceleration",
                                                            "limited jerk"};
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

/// The "kind" that a variant's alternative has in the file.
template <class T>
struct KindName;
template <>
struct KindName<Stepper> {
    static constexpr std::string_view key = "stepper";
};
template <>
struct KindName<Coupling> {
    static constexpr std::string_view key = "coupling";
};
template <>
struct KindName<BeltStage> {
    static constexpr std::string_view key = "belt_stage";
};
template <>
struct KindName<GearStage> {
    static constexpr std::string_view key = "gear_stage";
};
template <>
struct KindName<DirectOutput> {
    static constexpr std::string_view key = "direct";
};
template <>
struct KindName<RingOutput> {
    static constexpr std::string_view key = "ring";
};
template <>
struct KindName<LinearMechanism> {
    static constexpr std::string_view key = "linear";
};
template <>
struct KindName<RotaryMechanism> {
    static constexpr std::string_view key = "rotary";
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

/// S is T or const T: one description serves readers and writers.
template <class S, class T>
concept Of = std::same_as<std::remove_const_t<S>, T>;

using K = units::Kind;
constexpr FieldInfo textField(std::string_view key, std::string_view label) {
    return {key, label, K::Count, 0, 0, 0, 0};
}

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
    v.field(FieldInfo{"crossing_time_s", "Least crossing time", K::Time, 1e-3, 1e4, 1, 20}, s.crossingTime);
}

template <class V, Of<BySpeed<AxisKind::Linear>> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"distance_m", "Distance", K::Length, -1e3, 1e3, -12, 12}, s.distance);
    v.field(FieldInfo{"speed_m_s", "Speed", K::Speed, 1e-9, 100, 1e-6, 3}, s.speed);
    v.field(FieldInfo{"acceleration_m_s2", "Acceleration", K::Acceleration, 1e-9, 1e4, 1e-3, 10},
            s.acceleration);
}

template <class V, Of<ByTime<AxisKind::Linear>> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"distance_m", "Distance", K::Length, -1e3, 1e3, -12, 12}, s.distance);
    v.field(FieldInfo{"time_s", "Time", K::Time, 1e-3, 1e7, 0.2, 4e5}, s.time);
    v.field(FieldInfo{"ease_in_s", "Ease in", K::Time, 0, 1e6, 0, 600}, s.easeIn);
    v.field(FieldInfo{"ease_out_s", "Ease out", K::Time, 0, 1e6, 0, 600}, s.easeOut);
}

template <class V, Of<BySpeed<AxisKind::Rotary>> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"distance_rad", "Angle", K::Angle, -1e4, 1e4, -13, 13}, s.distance);
    v.field(FieldInfo{"speed_rad_s", "Speed", K::AngularSpeed, 1e-9, 1e3, 1e-6, 7}, s.speed);
    v.field(FieldInfo{"acceleration_rad_s2", "Acceleration", K::AngularAcceleration, 1e-9, 1e5, 1e-3, 30},
            s.acceleration);
}

template <class V, Of<ByTime<AxisKind::Rotary>> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"distance_rad", "Angle", K::Angle, -1e4, 1e4, -13, 13}, s.distance);
    v.field(FieldInfo{"time_s", "Time", K::Time, 1e-3, 1e7, 0.2, 4e5}, s.time);
    v.field(FieldInfo{"ease_in_s", "Ease in", K::Time, 0, 1e6, 0, 600}, s.easeIn);
    v.field(FieldInfo{"ease_out_s", "Ease out", K::Time, 0, 1e6, 0, 600}, s.easeOut);
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
    v.part("limits", s.limits);
    v.parts("moves", s.moves);
}

template <class V, Of<Stepper> S>
void describe(V& v, S& s) {
    v.field(textField("name", "Motor"), s.name);
    v.field(FieldInfo{"rotor_teeth", "Rotor teeth", K::Count, 1, 1000, 12, 200}, s.rotorTeeth);
    v.field(FieldInfo{"holding_torque_Nm", "Holding torque", K::Torque, 0, 1000, 0.005, 30}, s.holdingTorque);
    v.field(FieldInfo{"rated_current_A", "Rated current, rms", K::Current, 0, 100, 0.05, 10}, s.ratedCurrent);
    v.field(FieldInfo{"resistance_ohm", "Phase resistance", K::Resistance, 0, 1e4, 0.1, 150}, s.resistance);
    v.field(FieldInfo{"inductance_H", "Phase inductance", K::Inductance, 0, 10, 1e-4, 0.3}, s.inductance);
    v.field(FieldInfo{"rotor_inertia_kgm2", "Rotor inertia", K::Inertia, 1e-12, 10, 1e-8, 5e-3},
            s.rotorInertia);
    v.field(FieldInfo{"detent_torque_Nm", "Detent torque", K::Torque, 0, 100, 0, 1}, s.detentTorque);
    v.field(FieldInfo{"step_accuracy", "Step accuracy", K::Percentage, 0, 1, 0.01, 0.15}, s.stepAccuracy);
    v.field(FieldInfo{"mass_kg", "Motor mass", K::Mass, 0, 1000, 0.02, 10}, s.mass);
    v.field(FieldInfo{"length_m", "Motor length", K::PartLength, 0, 10, 0.015, 0.3}, s.length);
}

template <class V, Of<Driver> S>
void describe(V& v, S& s) {
    v.field(textField("name", "Driver"), s.name);
    v.field(FieldInfo{"microsteps", "Microsteps", K::Count, 1, 1024, 1, 256}, s.microsteps);
    v.field(FieldInfo{"run_current_rms_A", "Run current, rms", K::Current, 1e-3, 100, 0.05, 8}, s.runCurrent);
    v.field(FieldInfo{"hold_current_rms_A", "Hold current, rms", K::Current, 0, 100, 0, 8}, s.holdCurrent);
    v.field(FieldInfo{"max_current_rms_A", "Driver rating, rms", K::Current, 1e-3, 100, 0.3, 12},
            s.maxCurrent);
    v.field(FieldInfo{"max_voltage_V", "Driver voltage rating", K::Voltage, 1, 1000, 5, 90}, s.maxVoltage);
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
}

template <class V, Of<Controller> S>
void describe(V& v, S& s) {
    v.field(textField("name", "Controller"), s.name);
    v.field(FieldInfo{"pulse_ceiling_hz", "Pulse-rate ceiling", K::Frequency, 1, 1e9, 500, 1e6},
            s.pulseCeiling);
    v.field(FieldInfo{"decimals_kept", "Decimals kept", K::Count, 0, 9, 0, 6}, s.decimalsKept);
    v.choice(textField("ramps", "Ramps"), s.ramps);
    v.choice(textField("speed_unit", "Speeds are typed"), s.speedUnit);
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
    v.field(FieldInfo{"motor_teeth", "Teeth, motor side", K::Count, 1, 100000, 9, 200}, s.motorTeeth);
    v.field(FieldInfo{"load_teeth", "Teeth, load side", K::Count, 1, 100000, 9, 400}, s.loadTeeth);
    v.field(FieldInfo{"pitch_m", "Belt pitch", K::PartLength, 1e-5, 0.2, 9e-4, 0.02}, s.pitch);
    v.field(FieldInfo{"efficiency", "Efficiency", K::Percentage, 0.01, 1, 0.5, 0.99}, s.efficiency);
    v.field(FieldInfo{"backlash_rad", "Backlash", K::Angle, 0, 3, 0, 0.05}, s.backlash);
    v.field(FieldInfo{"stiffness_Nm_rad", "Stiffness", K::AngularStiffness, 0, 1e9, 0, 1e5}, s.stiffness);
    v.field(FieldInfo{"inertia_kgm2", "Inertia", K::Inertia, 0, 100, 0, 1e-2}, s.inertia);
}

template <class V, Of<GearStage> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(FieldInfo{"motor_teeth", "Teeth, motor side", K::Count, 1, 100000, 8, 200}, s.motorTeeth);
    v.field(FieldInfo{"load_teeth", "Teeth, load side", K::Count, 1, 100000, 8, 400}, s.loadTeeth);
    v.field(FieldInfo{"efficiency", "Efficiency", K::Percentage, 0.01, 1, 0.4, 0.99}, s.efficiency);
    v.field(FieldInfo{"backlash_rad", "Backlash", K::Angle, 0, 3, 0, 0.05}, s.backlash);
    v.field(FieldInfo{"stiffness_Nm_rad", "Stiffness", K::AngularStiffness, 0, 1e9, 0, 1e5}, s.stiffness);
    v.field(FieldInfo{"inertia_kgm2", "Inertia", K::Inertia, 0, 100, 0, 1e-2}, s.inertia);
}

template <class V, Of<BeltOutput> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"teeth", "Teeth", K::Count, 1, 100000, 9, 120}, s.teeth);
    v.field(FieldInfo{"pitch_m", "Belt pitch", K::PartLength, 1e-5, 0.2, 9e-4, 0.02}, s.pitch);
    v.field(FieldInfo{"efficiency", "Belt efficiency", K::Percentage, 0.01, 1, 0.5, 0.99}, s.efficiency);
    v.field(FieldInfo{"tensile_stiffness_N", "Belt stiffness EA", K::Force, 1, 1e9, 1e3, 1e6},
            s.tensileStiffness);
    v.field(FieldInfo{"backlash_m", "Backlash", K::Length, 0, 1, 0, 2e-3}, s.backlash);
    v.field(FieldInfo{"pulley_inertia_kgm2", "Pulley inertia", K::Inertia, 0, 100, 0, 1e-3}, s.pulleyInertia);
}

template <class V, Of<DirectOutput> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"stiffness_Nm_rad", "Stiffness", K::AngularStiffness, 0, 1e9, 0, 1e5}, s.stiffness);
}

template <class V, Of<RingOutput> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"pinion_teeth", "Pinion teeth", K::Count, 1, 100000, 8, 100}, s.pinionTeeth);
    v.field(FieldInfo{"ring_teeth", "Ring teeth", K::Count, 1, 100000, 20, 600}, s.ringTeeth);
    v.field(FieldInfo{"efficiency", "Efficiency", K::Percentage, 0.01, 1, 0.4, 0.99}, s.efficiency);
    v.field(FieldInfo{"backlash_rad", "Backlash", K::Angle, 0, 3, 0, 0.05}, s.backlash);
    v.field(FieldInfo{"stiffness_Nm_rad", "Stiffness", K::AngularStiffness, 0, 1e9, 0, 1e5}, s.stiffness);
}

template <class V, Of<Brake> S>
void describe(V& v, S& s) {
    v.field(textField("fitted", "Power-off brake fitted"), s.fitted);
    v.field(FieldInfo{"holding_torque_Nm", "Brake torque", K::Torque, 0, 1000, 0.05, 20}, s.holdingTorque);
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
    v.part("output", s.output);
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
    v.either("output", s.output);
    v.part("motion", s.motion);
}

template <class V, Of<Axis> S>
void describe(V& v, S& s) {
    v.field(textField("id", "Id"), s.id);
    v.field(textField("name", "Axis"), s.name);
    v.field(FieldInfo{"wanted_margin", "Wanted margin", K::Ratio, 1, 100, 1.5, 4}, s.wantedMargin);
    v.either("motor", s.motor);
    v.part("driver", s.driver);
    v.parts("links", s.links);
    v.part("brake", s.brake);
    v.either("mechanism", s.mechanism);
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
    v.part("supply", s.supply);
    v.part("controller", s.controller);
    v.parts("axes", s.axes);
    v.parts("shots", s.shots);
    v.texts("locked_fields", s.lockedFields);
    v.parts("set_aside", s.setAside);
}

/// Key of the text by which paths name an element of a list: its id, else the rule or the axis it is about.
template <class T>
constexpr std::string_view idKeyOf() {
    if constexpr (
        requires(T t) { t.id; } || requires(T t) { t.index(); })
        return "id";
    else if constexpr (requires(T t) { t.rule; })
        return "rule";
    else
        return "axis";
}

/// That text of one element.
template <class T>
std::string_view partId(const T& part) {
    if constexpr (requires { part.id; })
        return part.id;
    else if constexpr (requires { part.rule; })
        return part.rule;
    else if constexpr (requires { part.axis; })
        return part.axis;
    else
        return std::visit([](const auto& p) { return partId(p); }, part);
}

} // namespace gantry
