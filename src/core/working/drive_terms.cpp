// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/axis_sheet.h"

#include "core/criteria/criteria.h"
#include "core/drivetrain/screw.h"
#include "core/model/describe.h"
#include "core/words/part_name.h"

#include <cmath>

/// Ratios, efficiencies and inertias of a drive, part by part, as docs/models/drive-chain.md has them.
namespace gantry::working {

using units::Kind;

AxisSheet::AxisSheet(const Project& project, const Evaluation& evaluation, std::size_t axis,
                     const ShotEvaluation* shot, Drum drum)
    : Sheet(project, project.axes[axis].id), whole_(evaluation), index_(axis), axis_(project.axes[axis]),
      e_(evaluation.axes[axis]), shot_(shot), drum_(drum), rig_(setupOf(project)), m_(e_.model) {
    if (drum == Drum::Bare) m_ = m_.withBareDrum();
    if (shot != nullptr && shot->carried.valueOr(0.0) > 0.0)
        m_.chain.load.steady = std::abs(m_.chain.load.steady) + shot->carried.value();
}

Term AxisSheet::linkRatio(std::size_t i) {
    const std::string n = std::to_string(i + 1);
    const std::string path = at("links/" + std::string(partId(axis_.links[i])) + "/");
    const auto quotient = [&](const char* over, const char* under) {
        return input("z_" + n + "b", path + over) / input("z_" + n + "a", path + under);
    };
    Term ratio = std::visit(
        [&]<class L>(const L& link) -> Term {
            if constexpr (std::is_same_v<L, Coupling>) return 1.0;
            if constexpr (std::is_same_v<L, BeltStage> || std::is_same_v<L, GearStage>)
                return quotient("load_teeth", "motor_teeth");
            if constexpr (std::is_same_v<L, PlanetaryStage>) {
                const Term once = 1.0 + quotient("ring_teeth", "sun_teeth");
                return link.stages == 1 ? once : power(once, input("q_" + n, path + "stages"));
            }
            if constexpr (std::is_same_v<L, StrainWaveStage>)
                return input("z_" + n + "b", path + "flex_teeth") / 2.0;
            if constexpr (std::is_same_v<L, WormStage>) return quotient("wheel_teeth", "starts");
            if constexpr (std::is_same_v<L, ReducerStage>)
                return quotient("ratio_numerator", "ratio_denominator");
            if constexpr (std::is_same_v<L, RollerStage>)
                return input("D_" + n, path + "wheel_diameter_m") /
                       input("d_" + n, path + "roller_diameter_m");
        },
        axis_.links[i]);
    if (isCoupling(i)) return ratio;
    return named("n_" + n, "ratio of the " + words::partName(axis_, static_cast<int>(i)), Kind::Ratio, ratio);
}

AxisSheet::StageTerms AxisSheet::linkStage(std::size_t i) {
    const std::string n = std::to_string(i + 1);
    const std::string path = at("links/" + std::string(partId(axis_.links[i])) + "/");
    StageTerms out;
    out.ratio = linkRatio(i);
    const Term inertia = input("J_" + n, path + "inertia_kgm2");
    out.inertia = inertia.value() == 0.0 ? Term(0.0) : times(inertia, m_.motors);
    if (isCoupling(i)) return out;
    if (const auto* worm = std::get_if<WormStage>(&axis_.links[i])) {
        // Flanks press at 20° square to the thread (ISO 54).
        const Term lead = input("λ_" + n, path + "lead_angle_rad"),
                   flank = found("α_" + n, "pressure angle of the flanks", Kind::Angle, std::acos(-1.0) / 9.0,
                                 "ISO 54");
        const auto angle = [&](const std::string& symbol, const char* label, const Term& friction) {
            return named(symbol, label, Kind::Angle, atan(friction / cos(flank)));
        };
        const auto efficiencyAt = [&](const Term& rub) -> Term {
            if (lead.value() + rub.value() >= 1.5) return 0.01;
            return max(0.01, tan(lead) / tan(lead + rub));
        };
        const Term running = input("μ_" + n, path + "friction"),
                   rub = angle("ρ_" + n, "friction angle", running);
        out.efficiency = named("η_" + n, "efficiency of the " + words::partName(axis_, static_cast<int>(i)),
                               Kind::Percentage, efficiencyAt(rub));
        out.back = named("η_" + n + "back", "the same with the load driving", Kind::Percentage,
                         tan(lead - rub) / tan(lead));
        const Term still = worm->startFriction.value > 0.0
                               ? input("μ_" + n + "start", path + "start_friction")
                               : found("c_start", "friction at rest over running friction, of a worm",
                                       Kind::Ratio, criteria::startFriction, "docs/models/criteria.md") *
                                     running;
        out.start =
            named("η_" + n + "start", "the same at break-away", Kind::Percentage,
                  efficiencyAt(angle("ρ_" + n + "start", "friction angle at rest", max(still, running))));
        return out;
    }
    out.efficiency = input("η_" + n, path + "efficiency");
    out.back = 2.0 - 1.0 / out.efficiency;
    return out;
}

Term AxisSheet::outputRadius() {
    const auto& linear = std::get<LinearMechanism>(axis_.mechanism);
    const auto in = [&](const char* symbol, const char* field) {
        return input(symbol, at(std::string("mechanism/output/") + field));
    };
    const Term radius = std::visit(
        [&]<class O>(const O& output) -> Term {
            if constexpr (std::is_same_v<O, BeltOutput>)
                return in("z", "teeth") * in("p", "pitch_m") / (Term(output.doubled ? 4.0 : 2.0) * pi());
            if constexpr (std::is_same_v<O, ScrewOutput>) return in("p", "lead_m") / (2.0 * pi());
            if constexpr (std::is_same_v<O, RackOutput>)
                return in("z", "teeth") * in("m_z", "module_m") / 2.0;
            if constexpr (std::is_same_v<O, WheelOutput>) return in("D", "diameter_m") / 2.0;
            if constexpr (std::is_same_v<O, WinchOutput>) {
                Term bare = (in("D", "drum_diameter_m") + in("d", "cord_diameter_m")) / 2.0;
                if (m_.layers.empty()) return bare;
                // Counted from the drum, those that stay on it with them.
                const double at = (drum_ == Drum::Full ? m_.layers.back() : m_.layers.front()).radius;
                const Term step = in("h", "layer_height") * in("d", "cord_diameter_m");
                const double under = std::round((at - bare.value()) / step.value());
                return under > 0.0 ? bare + Term(under) * step : bare;
            }
        },
        linear.output);
    return named("r_out", "travel for one radian of the last shaft", "m/rad", radius);
}

AxisSheet::StageTerms AxisSheet::outputStage() {
    StageTerms out;
    const auto in = [&](const char* symbol, const char* field) {
        return input(symbol, at(std::string("mechanism/output/") + field));
    };
    const auto even = [&] {
        out.efficiency = in("η_out", "efficiency");
        out.back = 2.0 - 1.0 / out.efficiency;
    };
    if (const auto* rotary = std::get_if<RotaryMechanism>(&axis_.mechanism)) {
        if (std::holds_alternative<DirectOutput>(rotary->output)) return out;
        even();
        out.ratio = named("n_out", "ratio of ring and pinion", Kind::Ratio,
                          in("z_ring", "ring_teeth") / in("z", "pinion_teeth"));
        return out;
    }
    const auto& linear = std::get<LinearMechanism>(axis_.mechanism);
    out.ratio = 1.0 / outputRadius();
    if (std::holds_alternative<ScrewOutput>(linear.output)) {
        const Term diameter = in("d", "pitch_diameter_m"), lead = in("p", "lead_m"),
                   climb = named("λ", "lead angle", Kind::Angle, atan(lead / (pi() * diameter))),
                   normal = named("β_n", "half angle of the thread, square to it", Kind::Angle,
                                  atan(tan(in("β_t", "thread_half_angle_rad")) * cos(climb))),
                   rub =
                       named("ρ_out", "friction angle", Kind::Angle, atan(in("μ", "friction") / cos(normal)));
        const bool turns = climb.value() + rub.value() < std::acos(-1.0) / 2.0;
        out.efficiency = named("η_out", "efficiency of the screw", Kind::Percentage,
                               turns ? max(0.001, tan(climb) / tan(climb + rub)) : Term(0.001));
        out.back = named("η_back", "efficiency of the screw, load driving", Kind::Percentage,
                         tan(climb - rub) / tan(climb));
        const Term density = found("ρ_steel", "density of steel", "kg/m³", 7850.0, "usual value");
        out.inertia =
            named("J_out", "inertia of the screw", Kind::Inertia,
                  density * pi() * power(diameter, 4.0) * input("L", at("mechanism/rail_length_m")) / 32.0);
        return out;
    }
    even();
    const auto* belt = std::get_if<BeltOutput>(&linear.output);
    const char* field = belt != nullptr                                      ? "pulley_inertia_kgm2"
                        : std::holds_alternative<RackOutput>(linear.output)  ? "pinion_inertia_kgm2"
                        : std::holds_alternative<WheelOutput>(linear.output) ? "wheel_inertia_kgm2"
                                                                             : "drum_inertia_kgm2";
    const Term inertia = in("J_out", field);
    out.inertia = inertia.value() == 0.0 ? Term(0.0) : times(inertia, belt != nullptr ? m_.motors : 1);
    return out;
}

AxisSheet::StageTerms AxisSheet::stage(std::size_t i) {
    return i < axis_.links.size() ? linkStage(i) : outputStage();
}

Term AxisSheet::shaftRatio() {
    std::optional<Term> ratio;
    for (std::size_t i = 0; i < axis_.links.size(); ++i)
        if (!isCoupling(i)) ratio = ratio ? *ratio * linkRatio(i) : linkRatio(i);
    if (!linear())
        if (const Term ring = outputStage().ratio; m_.chain.stages.size() > axis_.links.size())
            ratio = ratio ? *ratio * ring : ring;
    return ratio ? named("n", "ratio, motor to last shaft or axis", Kind::Ratio, *ratio) : Term(1.0);
}

Term AxisSheet::travelPerRad() {
    const Term ratio = shaftRatio();
    if (ratio.text() == "1") return linear() ? outputRadius() : ratio;
    if (!linear()) return named("r", "turn of the axis for one radian of the motor", "rad/rad", 1.0 / ratio);
    return named("r", "travel for one radian of the motor", "m/rad", outputRadius() / ratio);
}

Term AxisSheet::commandAngle() {
    const char* label = "motor angle of the finest command";
    const auto in = [&](const char* symbol, const char* field) {
        return input(symbol, at(std::string("motor/") + field));
    };
    if (const auto* stepper = std::get_if<Stepper>(&axis_.motor)) {
        const Term full =
            named("θ_full", "full step of the motor", Kind::Angle, pi() / (2.0 * in("N_r", "rotor_teeth")));
        const Term micro = input("k_micro", at("driver/microsteps"));
        return named("θ", label, Kind::Angle,
                     full / (stepper->winding == Winding::Unipolar ? min(micro, 2.0) : micro));
    }
    if (std::holds_alternative<HobbyServo>(axis_.motor))
        return named("θ", label, Kind::Angle,
                     in("φ_range", "range_rad") * in("t_step", "pulse_step_s") /
                         in("t_span", "pulse_span_s"));
    return named("θ", label, Kind::Angle,
                 2.0 * pi() / in("N_enc", "loop/counts_per_turn") *
                     in("g_num", "loop/electronic_gear/numerator") /
                     in("g_den", "loop/electronic_gear/denominator"));
}

Term AxisSheet::microstep() {
    return named("s", "travel of the finest command", travelKind(), commandAngle() * travelPerRad());
}

/// From whole numbers, so that nothing is lost on the way.
Term AxisSheet::exactSteps() {
    const auto in = [&](const char* symbol, const char* field) {
        return input(symbol, at(std::string("motor/") + field));
    };
    std::vector<Term> over, under;
    if (const auto* stepper = std::get_if<Stepper>(&axis_.motor)) {
        const Term micro = input("k_micro", at("driver/microsteps"));
        over = {4.0, in("N_r", "rotor_teeth"),
                stepper->winding == Winding::Unipolar ? min(micro, 2.0) : micro};
    } else {
        over = {in("N_enc", "loop/counts_per_turn"), in("g_den", "loop/electronic_gear/denominator")};
        under = {in("g_num", "loop/electronic_gear/numerator")};
    }
    for (std::size_t i = 0; i < axis_.links.size(); ++i) {
        if (isCoupling(i)) continue;
        const std::string n = std::to_string(i + 1);
        linkRatio(i); // writes its numbers down
        const auto* planetary = std::get_if<PlanetaryStage>(&axis_.links[i]);
        if (std::holds_alternative<StrainWaveStage>(axis_.links[i])) {
            over.push_back(*known("z_" + n + "b"));
            under.push_back(2.0);
        } else if (planetary != nullptr) {
            const Term sun = *known("z_" + n + "a"), all = sun + *known("z_" + n + "b");
            const auto stages = known("q_" + n);
            over.push_back(stages ? power(all, *stages) : all);
            under.push_back(stages ? power(sun, *stages) : sun);
        } else {
            over.push_back(*known("z_" + n + "b"));
            under.push_back(*known("z_" + n + "a"));
        }
    }
    if (!linear()) {
        if (m_.chain.stages.size() > axis_.links.size()) {
            outputStage();
            over.push_back(*known("z_ring"));
            under.push_back(*known("z"));
        }
        under.push_back(360.0);
    } else {
        outputRadius();
        const auto& linear = std::get<LinearMechanism>(axis_.mechanism);
        const auto* belt = std::get_if<BeltOutput>(&linear.output);
        if (belt != nullptr) under.push_back(*known("z"));
        if (belt != nullptr && belt->doubled) over.push_back(2.0);
        under.push_back(1000.0 * *known("p"));
    }
    const auto product = [](const std::vector<Term>& terms) {
        Term out = terms.front();
        for (std::size_t i = 1; i < terms.size(); ++i) out = out * terms[i];
        return out;
    };
    return product(over) / product(under);
}

Term AxisSheet::stepsPerUnit() {
    const Term unit = linear() ? Term(1e-3) : pi() / 180.0;
    const char* label = linear() ? "steps per mm" : "steps per degree";
    if (m_.exactStepsPerUnit) return named("N", label, Kind::Ratio, exactSteps());
    if (m_.layers.size() < 2) return named("N", label, Kind::Ratio, unit / microstep());
    const Term turn = found("p_cord", "travel for one turn that errs least over the layers", Kind::Length,
                            m_.cordScale.perTurn, "minimax over the layers, docs/models/elements.md");
    return named("N", label, Kind::Ratio, 2.0 * pi() * shaftRatio() / commandAngle() * unit / turn);
}

Term AxisSheet::stepsKept() {
    const Term grid = power(10.0, input("k_dec", "controller/decimals_kept"));
    return named("N_kept", "steps as the controller keeps them", Kind::Ratio,
                 round(stepsPerUnit() * grid) / grid);
}

Term AxisSheet::motorInertia() {
    const char* field = std::holds_alternative<HobbyServo>(axis_.motor) ? "motor/output_inertia_kgm2"
                                                                        : "motor/rotor_inertia_kgm2";
    Term one = input("J_m", at(field));
    if (std::holds_alternative<GearedDc>(axis_.motor))
        one = one * squared(input("g_in", at("motor/gear_numerator")) /
                            input("g_out", at("motor/gear_denominator")));
    return named("J_motor", "inertia of the motor", Kind::Inertia, times(one, m_.motors));
}

Term AxisSheet::inertiaAtMotor() {
    std::vector<Term> parts{motorInertia()};
    Term turns = 1.0;
    for (std::size_t i = 0; i < m_.chain.stages.size(); ++i) {
        const StageTerms s = stage(i);
        if (s.inertia.value() != 0.0)
            parts.push_back(turns.value() == 1.0 ? s.inertia : s.inertia / squared(turns));
        if (isCoupling(i)) continue;
        turns = turns.value() == 1.0 ? s.ratio : turns * s.ratio;
    }
    parts.push_back(loadInertia() * squared(travelPerRad()));
    return named("J", "inertia at the motor", Kind::Inertia, sum(parts));
}

} // namespace gantry::working
