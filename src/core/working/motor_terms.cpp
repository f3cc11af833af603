// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/axis_sheet.h"

#include "core/model/describe.h"

#include <algorithm>
#include <cmath>

/// Torque against speed of each kind of motor, as docs/models/stepper-torque.md and the headers of
/// core/motor/ have it.
namespace gantry::working {

using units::Kind;

Term AxisSheet::sourceResistance() {
    const Term source = input("R_src", "supply/source_resistance_ohm"),
               length = input("L_wire", "supply/cable_length_m");
    Term cable = 0.0;
    if (length.value() > 0.0) {
        const Term copper =
            found("ρ_cu", "resistivity of copper", "Ω·m", 1.72e-8, "annealed copper at 20 °C");
        cable = copper * 2.0 * length / input("A_wire", "supply/cable_section_m2");
    }
    return sum({source, cable});
}

Term AxisSheet::torqueConstant() {
    return named("k_t", "torque for an ampere of peak current", "N·m/A",
                 input("T_h", at("motor/holding_torque_Nm")) /
                     (sqrt(2.0) * input("I_r", at("motor/rated_current_A"))));
}

namespace {

/// Peak current of a phase, and its resistance when warm.
struct Winding {
    Term current, resistance;
};

} // namespace

static Winding windingOf(AxisSheet& sheet, const Term& before) {
    const motor::StepperParams& p = *sheet.model().stepper();
    const auto& stepper = std::get<Stepper>(sheet.axis().motor);
    const Term cold = sheet.input("R_20", sheet.at("motor/resistance_ohm")),
               alpha = sheet.found("α_cu", "rise of copper's resistance", "1/K", 0.00393, "IEC 60034-1");
    // The winding settles where its heat gets away; copperResistance solved for the temperature.
    const double factor = (p.resistance - before.value()) / cold.value();
    const Term warm = sheet.found("θ_w", "temperature of the winding after hours", Kind::Celsius,
                                  20.0 + (factor - 1.0) / 0.00393, "docs/models/heat.md");
    const Term resistance =
        sheet.named("R", "resistance of a phase, warm, with all before it", Kind::Resistance,
                    sum({cold * (1.0 + alpha * (warm - 20.0)), before}));
    const Term current = stepper.winding == gantry::Winding::Unipolar
                             ? sqrt(2.0) * sheet.input("V", "supply/voltage_V") / resistance
                             : sqrt(2.0) * sheet.input("I_run", sheet.at("driver/run_current_rms_A"));
    return {sheet.named("I_pk", "peak current of a phase", Kind::Current, current), resistance};
}

Term AxisSheet::stepperTorque(const Term& motorSpeed) {
    const motor::StepperParams& p = *m_.stepper();
    const auto [peak, resistance] =
        windingOf(*this, sum({input("R_b", at("driver/bridge_resistance_ohm")), sourceResistance()}));
    const Term kt = torqueConstant(), volts = input("V", "supply/voltage_V");
    Term current = peak;
    const std::string when = motorSpeed.value() == 0.0 ? "still" : ""; // both may stand on one sheet
    const double reactance = p.rotorTeeth * motorSpeed.value() * p.inductance;
    const double square = p.resistance * p.resistance + reactance * reactance,
                 emf = motor::torqueConstant(p) * motorSpeed.value(), d = -emf * reactance / square,
                 q = -emf * p.resistance / square, radius = p.supplyVoltage / std::sqrt(square);
    const double top = q + radius;
    const bool byVoltage = d * d + top * top <= p.peakCurrent * p.peakCurrent;
    const bool byCurrent = !byVoltage && std::hypot(d, p.peakCurrent - q) <= radius;
    if (!byCurrent) {
        const Term x = named("X" + when, "reactance of a phase at that speed", Kind::Resistance,
                             input("N_r", at("motor/rotor_teeth")) * motorSpeed *
                                 input("L_ph", at("motor/inductance_H"))),
                   z2 = named("Z2" + when, "impedance, squared", "Ω²", squared(resistance) + squared(x)),
                   e = named("E" + when, "back-EMF of a phase", Kind::Voltage, kt * motorSpeed),
                   across = named("i_q0" + when, "middle of what the voltage allows, along the torque",
                                  Kind::Current, -(e * resistance / z2)),
                   along = named("i_d0" + when, "the same across it", Kind::Current, -(e * x / z2)),
                   reach = named("i_V" + when, "current that the voltage allows about that", Kind::Current,
                                 volts / sqrt(z2));
        if (byVoltage) {
            current = across + reach;
        } else {
            const Term centre = named("i_0" + when, "distance of that middle", Kind::Current,
                                      sqrt(squared(along) + squared(across)));
            if (centre.value() == 0.0 || centre.value() > radius + p.peakCurrent) {
                current = 0.0;
            } else {
                const Term cut = named("i_a" + when, "where both limits meet, towards that middle",
                                       Kind::Current,
                                       (squared(peak) - squared(reach) + squared(centre)) / (2.0 * centre)),
                           side = named("i_b" + when, "the same square to it", Kind::Current,
                                        sqrt(max(0.0, squared(peak) - squared(cut))));
                current = (cut * across + side * abs(along)) / centre;
            }
        }
    }
    const Term useful = named("i_q" + when, "largest current that makes torque", Kind::Current, current);
    return times(max(0.0, kt * useful), m_.motors);
}

Term AxisSheet::servoTorque(const Term& motorSpeed) {
    const auto in = [&](const char* symbol, const char* field) {
        return input(symbol, at(std::string("motor/") + field));
    };
    const auto& p = std::get<motor::ServoParams>(m_.curve);
    const Term peak = in("T_peak", "peak_torque_Nm"),
               share =
                   named("v_s", "share of the rated speeds at this voltage", Kind::Ratio,
                         max(0.0, min(1.0, input("V", "supply/voltage_V") / in("V_r", "rated_voltage_V")))),
               rated = named("ω_r", "rated speed at this voltage", Kind::RotationRate,
                             in("ω_rate", "rated_speed_rad_s") * share),
               top = named("ω_top", "top speed at this voltage", Kind::RotationRate,
                           max(in("ω_max", "top_speed_rad_s"), in("ω_rate", "rated_speed_rad_s")) * share);
    if (motorSpeed.value() > top.value()) return times(max(0.0, top - motorSpeed) * 0.0, m_.motors);
    const double hot = p.ratedTorque / std::get<ServoMotor>(axis_.motor).ratedTorque.value;
    const Term lasting =
        in("T_r", "rated_torque_Nm") * found("c_air", "what is left of the rated torque in this air",
                                             Kind::Ratio, hot, "docs/models/heat.md");
    const Term most = max(peak, lasting);
    if (motorSpeed.value() <= rated.value()) return times(most, m_.motors);
    const Term atTop = named("T_top", "torque at top speed", Kind::Torque, lasting * rated / top);
    return times(most + (atTop - most) * (motorSpeed - rated) / (top - rated), m_.motors);
}

/// Voltage at the bridge of a brushed motor.
Term AxisSheet::dcVoltage() {
    const auto* geared = std::get_if<GearedDc>(&axis_.motor);
    Term supply = input("V", "supply/voltage_V");
    if (geared == nullptr || geared->control == SpeedControl::Knob) return supply;
    Term applied = input("V_set", at("motor/applied_voltage_V"));
    if (geared->control == SpeedControl::SupplyVoltage) return applied;
    return named("V_reg", "voltage behind the regulator", Kind::Voltage,
                 max(0.0, min(applied, supply - input("V_drop", at("motor/regulator_dropout_V")))));
}

Term AxisSheet::dcTorque(const Term& motorSpeed) {
    const auto in = [&](const char* symbol, const char* field) {
        return input(symbol, at(std::string("motor/") + field));
    };
    if (std::holds_alternative<HobbyServo>(axis_.motor)) {
        const Term free = named("ω_0", "speed without load at rated voltage", Kind::RotationRate,
                                pi() / 3.0 / in("t_60", "seconds_per_60deg_s"));
        return times(max(0.0, in("T_stall", "stall_torque_Nm") *
                                  (in("V_servo", "supply_voltage_V") / in("V_r", "rated_voltage_V") -
                                   motorSpeed / free)),
                     m_.motors);
    }
    const motor::DcParams& p = *m_.dc();
    const Term nominal = in("V_n", "nominal_voltage_V"), stall = in("I_stall", "stall_current_A"),
               idle = named("I_0", "current that makes no torque", Kind::Current,
                            min(in("I_free", "no_load_current_A"), 0.9 * stall)),
               winding = named("R_w", "resistance of the winding", Kind::Resistance, nominal / stall),
               emf = named("k_e", "back-EMF for a speed", "V·s/rad",
                           (nominal - idle * winding) / in("ω_free", "no_load_speed_rad_s"));
    const Term kt = named("k_t", "torque for an ampere", "N·m/A",
                          p.stallTorque > 0.0 ? in("T_stall", "stall_torque_Nm") / (stall - idle) : emf);
    const auto* geared = std::get_if<GearedDc>(&axis_.motor);
    Term duty = 1.0, source = 0.0;
    if (geared == nullptr)
        source = sum({sourceResistance(), input("R_b", at("driver/bridge_resistance_ohm"))});
    else if (geared->control != SpeedControl::LinearRegulator)
        source = sourceResistance();
    if (geared != nullptr && geared->control == SpeedControl::Knob) duty = in("δ", "knob");
    const bool whole = duty.value() == 1.0;
    const Term loop =
        named("R_loop", "resistance of the loop", Kind::Resistance,
              source.value() == 0.0 ? winding : winding + (whole ? source : source * squared(duty)));
    const Term volts = dcVoltage();
    Term current =
        ((whole ? volts : duty * volts) - (motorSpeed.value() == 0.0 ? Term(0.0) : emf * motorSpeed)) / loop;
    if (p.currentLimit > 0.0) current = min(current, input("I_max", at("driver/run_current_rms_A")));
    return times(max(0.0, kt * (named(motorSpeed.value() == 0.0 ? "I_still" : "I",
                                      "largest current at that speed", Kind::Current, current) -
                                idle)),
                 m_.motors);
}

Term AxisSheet::torqueAvailable(const Term& motorSpeed) {
    const Term torque = std::holds_alternative<motor::StepperParams>(m_.curve) ? stepperTorque(motorSpeed)
                        : std::holds_alternative<motor::ServoParams>(m_.curve) ? servoTorque(motorSpeed)
                                                                               : dcTorque(motorSpeed);
    return named(motorSpeed.value() == 0.0 ? "T_still" : "T_avail",
                 motorSpeed.value() == 0.0 ? "torque available at rest" : "torque available at that speed",
                 Kind::Torque, torque);
}

Term AxisSheet::heldAmplitude() {
    const auto winding =
        windingOf(*this, sum({input("R_b", at("driver/bridge_resistance_ohm")), sourceResistance()}));
    return named("T_field", "static torque of the field at run current", Kind::Torque,
                 times(torqueConstant() * winding.current, m_.motors));
}

Term AxisSheet::holdTorque() {
    const auto* stepper = std::get_if<Stepper>(&axis_.motor);
    if (stepper == nullptr)
        return found("T_hold", "torque that holds at rest, powered", Kind::Torque,
                     m_.motors * m_.holdAmplitude, "rating of the motor");
    if (stepper->winding == gantry::Winding::Unipolar) return heldAmplitude();
    return named(
        "T_hold", "static torque of the field at hold current", Kind::Torque,
        times(torqueConstant() * sqrt(2.0) * input("I_hold", at("driver/hold_current_rms_A")), m_.motors));
}

Term AxisSheet::lag(const Term& torque, const Term& motorSpeed) {
    if (m_.stepper() != nullptr)
        return asin(min(1.0, torque / heldAmplitude())) / input("N_r", at("motor/rotor_teeth"));
    if (std::holds_alternative<HobbyServo>(axis_.motor))
        return input("φ_full", at("motor/full_torque_error_rad")) /
               input("T_stall", at("motor/stall_torque_Nm")) * torque / m_.motors;
    return (1.0 - input("c_ff", at("motor/loop/feedforward"))) /
           (2.0 * pi() * input("f_loop", at("motor/loop/bandwidth_hz"))) * motorSpeed;
}

Term AxisSheet::fieldStiffness() {
    return named("k_f", "stiffness of the motor's field", Kind::AngularStiffness,
                 input("N_r", at("motor/rotor_teeth")) * heldAmplitude());
}

Term AxisSheet::rotorFrequency() {
    const Term all = inertiaAtMotor(), field = fieldStiffness();
    const auto frequency = [&](const Term& square) {
        return named("f_n", "natural frequency of rotor and load", Kind::Frequency,
                     sqrt(square) / (2.0 * pi()));
    };
    const Term first = m_.chain.stages.empty() ? Term(0.0) : stage(0).inertia;
    const Term rotor =
        named("J_rot", "inertia of rotor and first stage", Kind::Inertia, sum({motorInertia(), first}));
    if (!std::isfinite(m_.outputStiffness) || !(all.value() - rotor.value() > 0.0))
        return frequency(field / all);
    const Term load = named("J_rest", "inertia behind the drive's spring, at the motor", Kind::Inertia,
                            all - rotor),
               drive = named("k_d", "stiffness of the drive at the motor", Kind::AngularStiffness,
                             outputStiffness() * squared(travelPerRad()));
    // J_rot J_rest ω⁴ − (J_rot k_d + J_rest (k_f + k_d)) ω² + k_f k_d = 0; the smaller root from the larger.
    const Term b = named("b", "middle coefficient of the equation of both masses", "(N·m)·kg·m²",
                         rotor * drive + load * (field + drive));
    return frequency(2.0 * field * drive /
                     (b + sqrt(max(0.0, squared(b) - 4.0 * rotor * load * field * drive))));
}

Term AxisSheet::outputStiffness() {
    std::vector<Term> gives;
    const auto spring = [&](const Term& stiffness) {
        if (stiffness.value() > 0.0) gives.push_back(1.0 / stiffness);
    };
    const auto out = [&](const char* symbol, const char* field) {
        return input(symbol, at(std::string("mechanism/output/") + field));
    };
    if (const auto* linear = std::get_if<LinearMechanism>(&axis_.mechanism)) {
        const auto length = [&] { return input("L", at("mechanism/rail_length_m")); };
        if (const auto* belt = std::get_if<BeltOutput>(&linear->output))
            spring(Term(belt->doubled ? 8.0 : 4.0) * out("EA", "tensile_stiffness_N") / length());
        else if (std::holds_alternative<ScrewOutput>(linear->output))
            spring(out("k_axial", "axial_stiffness_N_m"));
        else if (std::holds_alternative<RackOutput>(linear->output))
            spring(out("k_rack", "stiffness_N_m"));
        else if (std::holds_alternative<WinchOutput>(linear->output))
            spring(out("EA", "tensile_stiffness_N") / length());
        spring(input("k_frame", at("mechanism/frame_stiffness_N_m")));
    } else {
        spring(out("k_out", "stiffness_Nm_rad"));
    }
    for (std::size_t i = axis_.links.size(); i-- > 0;) {
        const Term own = input("k_" + std::to_string(i + 1),
                               at("links/" + std::string(partId(axis_.links[i])) + "/stiffness_Nm_rad"));
        if (!(own.value() > 0.0)) continue;
        Term turns = 1.0; // of that stage's shaft for a unit of travel
        for (std::size_t behind = i + 1; behind < axis_.links.size(); ++behind)
            if (!isCoupling(behind))
                turns = turns.value() == 1.0 ? linkRatio(behind) : turns * linkRatio(behind);
        if (linear())
            turns = turns / outputRadius();
        else if (m_.chain.stages.size() > axis_.links.size())
            turns = turns.value() == 1.0 ? outputStage().ratio : turns * outputStage().ratio;
        spring(turns.value() == 1.0 && turns.text() == "1" ? own : own * squared(turns));
    }
    return named("k", "stiffness of the drive at the load", stiffnessKind(), 1.0 / sum(gives));
}

Term AxisSheet::backlash() {
    std::vector<Term> parts;
    if (const auto* linear = std::get_if<LinearMechanism>(&axis_.mechanism)) {
        const Term play = input("b_out", at("mechanism/output/backlash_m"));
        const auto* belt = std::get_if<BeltOutput>(&linear->output);
        parts.push_back(belt != nullptr && belt->doubled ? play / 2.0 : play);
    } else if (m_.chain.stages.size() > axis_.links.size()) {
        parts.push_back(input("b_out", at("mechanism/output/backlash_rad")));
    }
    const auto towards = [&](const Term& play, std::size_t from) {
        if (play.value() == 0.0) return;
        Term out = play;
        for (std::size_t behind = from; behind < axis_.links.size(); ++behind)
            if (!isCoupling(behind)) out = out / linkRatio(behind);
        if (linear())
            out = out * outputRadius();
        else if (m_.chain.stages.size() > axis_.links.size())
            out = out / outputStage().ratio;
        parts.push_back(out);
    };
    for (std::size_t i = axis_.links.size(); i-- > 0;) {
        const auto* gear = std::get_if<GearStage>(&axis_.links[i]);
        if (isCoupling(i) || (gear != nullptr && gear->split)) continue;
        towards(input("b_" + std::to_string(i + 1),
                      at("links/" + std::string(partId(axis_.links[i])) + "/backlash_rad")),
                i + 1);
    }
    if (std::holds_alternative<GearedDc>(axis_.motor))
        towards(input("b_box", at("motor/gearbox_backlash_rad")), 0);
    return named("b_play", "backlash at the load", travelKind(), sum(parts));
}

} // namespace gantry::working
