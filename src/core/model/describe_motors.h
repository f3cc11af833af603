// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/describe_base.h"
#include "core/model/motor_parts.h"

namespace gantry {

template <>
struct ChoiceNames<MountMaterial> {
    static constexpr std::array<std::string_view, 6> keys{"metal",        "plywood",     "printed_pla",
                                                          "printed_petg", "printed_abs", "printed_nylon"};
    static constexpr std::array<std::string_view, 6> labels{
        "metal", "plywood", "printed, PLA", "printed, PETG", "printed, ABS", "printed, nylon"};
};
template <>
struct ChoiceNames<Winding> {
    static constexpr std::array<std::string_view, 2> keys{"bipolar", "unipolar"};
    static constexpr std::array<std::string_view, 2> labels{"bipolar, chopper", "unipolar, switched"};
};
template <>
struct ChoiceNames<SpeedControl> {
    static constexpr std::array<std::string_view, 3> keys{"knob", "supply_voltage", "linear_regulator"};
    static constexpr std::array<std::string_view, 3> labels{"speed knob", "chosen voltage",
                                                            "linear regulator"};
};
template <>
struct ChoiceNames<Stopping> {
    static constexpr std::array<std::string_view, 3> keys{"switched_off", "shorted", "reversed"};
    static constexpr std::array<std::string_view, 3> labels{"switching off, runs out", "shorting the motor",
                                                            "reversing at speed"};
};
template <>
struct KindName<Stepper> {
    static constexpr std::string_view key = "stepper", label = "Stepper";
};
template <>
struct KindName<ServoMotor> {
    static constexpr std::string_view key = "servo", label = "Servo, step and direction";
};
template <>
struct KindName<DcServo> {
    static constexpr std::string_view key = "dc_servo", label = "Brushed DC servo";
};
template <>
struct KindName<GearedDc> {
    static constexpr std::string_view key = "geared_dc", label = "Geared DC motor";
};
template <>
struct KindName<HobbyServo> {
    static constexpr std::string_view key = "hobby_servo", label = "Hobby servo";
};

/// Stands among the motor's own fields.
template <class V, Of<MotorBody> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"mass_kg", "Motor mass", K::Mass, 0, 1000, 0.005, 10}, s.mass);
    v.field(FieldInfo{"length_m", "Motor length", K::PartLength, 0, 10, 0.01, 0.3}, s.length);
    v.field(
        FieldInfo{"thermal_resistance_K_W", "Thermal resistance", K::ThermalResistance, 0.01, 1000, 0.8, 40},
        s.thermalResistance);
    v.field(FieldInfo{"radial_rating_N", "Shaft load, radial", K::Force, 0, 1e6, 2, 500, Certainty::Rating},
            s.radialRating);
    v.field(FieldInfo{"axial_rating_N", "Shaft load, axial", K::Force, 0, 1e6, 1, 300, Certainty::Rating},
            s.axialRating);
    v.choice(textField("mount", "Mounted on"), s.mount);
}

template <class V, Of<StepperEncoder> S>
void describe(V& v, S& s) {
    v.field(textField("fitted", "Encoder fitted"), s.fitted);
    v.field(FieldInfo{"counts_per_turn", "Encoder counts", K::Count, 4, 10000000, 200, 100000},
            s.countsPerTurn);
    v.field(textField("corrects", "Recovers steps"), s.corrects);
    v.field(FieldInfo{"following_limit_rad", "Following limit", K::Angle, 1e-6, 10, 1e-3, 0.5},
            s.followingLimit);
}

template <class V, Of<ElectronicGear> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"numerator", "Gear numerator", K::Count, 1, 100000000, 1, 100000}, s.numerator);
    v.field(FieldInfo{"denominator", "Gear denominator", K::Count, 1, 100000000, 1, 100000}, s.denominator);
}

template <class V, Of<PositionLoop> S>
void describe(V& v, S& s) {
    v.field(FieldInfo{"counts_per_turn", "Encoder counts", K::Count, 4, 100000000, 100, 10000000},
            s.countsPerTurn);
    v.part("electronic_gear", s.gear);
    v.field(FieldInfo{"bandwidth_hz", "Position bandwidth", K::Frequency, 0.01, 10000, 1, 200}, s.bandwidth);
    v.field(FieldInfo{"feedforward", "Speed fed forward", K::Percentage, 0, 1, 0, 1}, s.feedforward);
    v.field(FieldInfo{"following_limit_rad", "Following limit", K::Angle, 1e-6, 100, 1e-3, 1},
            s.followingLimit);
}

template <class V, Of<DcFigures> S>
void describe(V& v, S& s) {
    v.field(
        FieldInfo{"nominal_voltage_V", "Nominal voltage", K::Voltage, 0.1, 1000, 3, 48, Certainty::Rating},
        s.nominalVoltage);
    v.field(FieldInfo{"no_load_speed_rad_s", "No-load speed", K::RotationRate, 1e-4, 1e5, 0.01, 2000},
            s.noLoadSpeed);
    v.field(FieldInfo{"no_load_current_A", "No-load current", K::Current, 0, 1000, 0.005, 3},
            s.noLoadCurrent);
    v.field(FieldInfo{"stall_current_A", "Stall current", K::Current, 1e-4, 1000, 0.1, 60}, s.stallCurrent);
    v.field(FieldInfo{"stall_torque_Nm", "Stall torque", K::Torque, 1e-6, 1e5, 0.005, 50}, s.stallTorque);
    v.field(FieldInfo{"rated_torque_Nm", "Rated torque", K::Torque, 1e-6, 1e5, 0.002, 20, Certainty::Rating},
            s.ratedTorque);
}

template <class V, Of<Stepper> S>
void describe(V& v, S& s) {
    v.field(textField("name", "Motor"), s.name);
    v.field(FieldInfo{"rotor_teeth", "Rotor teeth", K::Count, 1, 1000, 8, 200}, s.rotorTeeth);
    v.choice(textField("winding", "Winding"), s.winding);
    v.field(FieldInfo{"holding_torque_Nm", "Holding torque", K::Torque, 0, 1000, 0.005, 30}, s.holdingTorque);
    v.field(
        FieldInfo{"rated_current_A", "Rated current, rms", K::Current, 0, 100, 0.05, 10, Certainty::Rating},
        s.ratedCurrent);
    v.field(FieldInfo{"resistance_ohm", "Phase resistance", K::Resistance, 0, 1e4, 0.1, 150}, s.resistance);
    v.field(FieldInfo{"inductance_H", "Phase inductance", K::Inductance, 0, 10, 1e-4, 0.3}, s.inductance);
    v.field(FieldInfo{"rotor_inertia_kgm2", "Rotor inertia", K::Inertia, 1e-12, 10, 1e-8, 5e-3},
            s.rotorInertia);
    v.field(FieldInfo{"detent_torque_Nm", "Detent torque", K::Torque, 0, 100, 0, 1}, s.detentTorque);
    v.field(FieldInfo{"step_accuracy", "Step accuracy", K::Percentage, 0, 1, 0.01, 0.15}, s.stepAccuracy);
    v.field(FieldInfo{"rotor_damping", "Rotor damping", K::Percentage, 0, 1, 0.02, 0.4}, s.rotorDamping);
    describe(v, s.body);
    v.part("encoder", s.encoder);
}

template <class V, Of<ServoMotor> S>
void describe(V& v, S& s) {
    v.field(textField("name", "Motor"), s.name);
    v.field(FieldInfo{"rated_torque_Nm", "Rated torque", K::Torque, 1e-6, 1e5, 0.02, 50}, s.ratedTorque);
    v.field(FieldInfo{"peak_torque_Nm", "Peak torque", K::Torque, 1e-6, 1e5, 0.05, 150}, s.peakTorque);
    v.field(FieldInfo{"rated_speed_rad_s", "Rated speed", K::RotationRate, 1e-3, 1e5, 50, 700}, s.ratedSpeed);
    v.field(FieldInfo{"top_speed_rad_s", "Top speed", K::RotationRate, 1e-3, 1e5, 60, 1000}, s.topSpeed);
    v.field(FieldInfo{"rated_voltage_V", "Rated voltage", K::Voltage, 0.1, 1000, 12, 400, Certainty::Rating},
            s.ratedVoltage);
    v.field(FieldInfo{"rotor_inertia_kgm2", "Rotor inertia", K::Inertia, 1e-12, 10, 1e-8, 5e-3},
            s.rotorInertia);
    v.field(FieldInfo{"cogging_torque_Nm", "Cogging torque", K::Torque, 0, 100, 0, 1}, s.coggingTorque);
    describe(v, s.body);
    v.part("loop", s.loop);
}

template <class V, Of<DcServo> S>
void describe(V& v, S& s) {
    v.field(textField("name", "Motor"), s.name);
    describe(v, s.figures);
    v.field(FieldInfo{"rotor_inertia_kgm2", "Rotor inertia", K::Inertia, 1e-12, 10, 1e-8, 5e-3},
            s.rotorInertia);
    describe(v, s.body);
    v.part("loop", s.loop);
}

template <class V, Of<GearedDc> S>
void describe(V& v, S& s) {
    v.field(textField("name", "Motor"), s.name);
    describe(v, s.figures);
    v.field(FieldInfo{"gear_numerator", "Gearbox, turns in", K::Count, 1, 100000000, 1, 10000},
            s.gearNumerator);
    v.field(FieldInfo{"gear_denominator", "per turns out", K::Count, 1, 100000000, 1, 10000},
            s.gearDenominator);
    v.choice(textField("control", "Speed set by"), s.control);
    v.field(FieldInfo{"knob", "Knob, highest", K::Percentage, 0.01, 1, 0.1, 1}, s.knob);
    v.field(FieldInfo{"applied_voltage_V", "Applied voltage", K::Voltage, 0.1, 1000, 2, 48},
            s.appliedVoltage);
    v.field(FieldInfo{"regulator_dropout_V", "Regulator dropout", K::Voltage, 0, 100, 0.2, 3},
            s.regulatorDropout);
    v.field(
        FieldInfo{"regulator_resistance_K_W", "Regulator to air", K::ThermalResistance, 0.01, 1000, 1, 90},
        s.regulatorResistance);
    v.choice(textField("stopped_by", "Stopped by"), s.stopping);
    v.field(FieldInfo{"inductance_H", "Winding inductance", K::Inductance, 0, 10, 0, 0.1}, s.inductance);
    v.field(FieldInfo{"pulse_frequency_hz", "Switching rate", K::Frequency, 10, 1e6, 50, 1e5},
            s.pulseFrequency);
    v.field(FieldInfo{"lowest_steady", "Lowest steady", K::Percentage, 0, 1, 0.02, 0.5}, s.lowestSteady);
    v.field(FieldInfo{"rotor_inertia_kgm2", "Rotor inertia", K::Inertia, 1e-12, 10, 1e-9, 5e-3},
            s.rotorInertia);
    v.field(FieldInfo{"gearbox_backlash_rad", "Gearbox backlash", K::Angle, 0, 3, 0, 0.1}, s.gearboxBacklash);
    describe(v, s.body);
}

template <class V, Of<HobbyServo> S>
void describe(V& v, S& s) {
    v.field(textField("name", "Motor"), s.name);
    v.field(FieldInfo{"range_rad", "Servo range", K::Angle, 1e-3, 1000, 0.8, 7}, s.range);
    v.field(FieldInfo{"pulse_span_s", "Pulse span", K::ShortTime, 1e-6, 0.1, 5e-4, 3e-3}, s.pulseSpan);
    v.field(FieldInfo{"pulse_step_s", "Pulse step", K::ShortTime, 1e-9, 0.01, 1e-7, 1e-5}, s.pulseStep);
    v.field(FieldInfo{"dead_band_s", "Dead band", K::ShortTime, 0, 0.01, 0, 2e-5}, s.deadBand);
    v.field(FieldInfo{"update_rate_hz", "Update rate", K::Frequency, 1, 100000, 40, 400}, s.updateRate);
    v.field(FieldInfo{"rated_voltage_V", "Rated voltage", K::Voltage, 0.1, 100, 4, 9, Certainty::Rating},
            s.ratedVoltage);
    v.field(FieldInfo{"supply_voltage_V", "Given voltage", K::Voltage, 0.1, 100, 4, 9}, s.supplyVoltage);
    v.field(FieldInfo{"seconds_per_60deg_s", "Time for 60°", K::Time, 1e-3, 100, 0.04, 0.6}, s.secondsPer60);
    v.field(FieldInfo{"stall_torque_Nm", "Stall torque", K::Torque, 1e-6, 1000, 0.1, 6}, s.stallTorque);
    v.field(FieldInfo{"full_torque_error_rad", "Full-torque error", K::Angle, 1e-6, 10, 0.005, 0.2},
            s.fullTorqueError);
    v.field(FieldInfo{"output_inertia_kgm2", "Inertia at horn", K::Inertia, 1e-12, 10, 1e-6, 0.01},
            s.outputInertia);
    describe(v, s.body);
}

} // namespace gantry
