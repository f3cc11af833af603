// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/axis_sheet.h"

#include "core/evaluate/rig/beam_view.h"
#include "core/model/kind_traits.h"
#include "core/units/constants.h"

#include <algorithm>
#include <cmath>
#include <numbers>

/// Masses, gravity and friction of an axis, from what is listed on it.
namespace gantry::working {

using units::Kind;

namespace {

constexpr const char* listed = "Σ over what is listed, docs/models/beams.md";

Term standardGravityOn(Sheet& sheet) {
    return sheet.found("g", "standard gravity", "m/s²", units::standardGravity, "ISO 80000-3");
}

} // namespace

std::vector<AxisSheet::Weight> AxisSheet::weights() {
    std::vector<Weight> out;
    const auto& r = std::get<RotaryMechanism>(axis_.mechanism);
    const Boom& boom = r.boom;
    const bool given = boom.section.shape != SectionShape::NotGiven;
    const bool levelled = boom.arm == ArmKind::ParallelLinks;
    const auto in = [&](const std::string& symbol, const std::string& field) {
        return input(symbol, at("mechanism/" + field));
    };
    if (given) {
        const Term metre = found("m_metre", "mass of the arm for a metre", "kg/m",
                                 beamView(boom.section).massPerMetre, "section and material");
        const Term reach = in("L_front", "boom/reach_m"), rear = in("L_rear", "boom/rear_m");
        const Term length =
            rear.value() == 0.0 ? reach : named("L_arm", "length of the arm", Kind::Length, reach + rear);
        const Term mass = named("m_arm", "mass of the arm", Kind::Mass, metre * length);
        out.push_back({mass, rear.value() == 0.0 ? 0.5 * reach : 0.5 * (reach - rear), 0.0,
                       mass * squared(length) / 12.0, 0.0, false});
    }
    const auto place = [&](const std::string& symbol, const std::string& path) {
        return input(symbol, path);
    };
    for (std::size_t i = 0; i < r.items.size(); ++i) {
        const std::string n = std::to_string(i + 1), path = at("mechanism/items/" + r.items[i].id + "/");
        const Term along = place("x_" + n, path + "along_m");
        out.push_back({input("m_" + n, path + "mass_kg"), along, place("h_" + n, path + "above_m"), 0.0, 0.0,
                       levelled && along.value() > 0.0});
    }
    if (axis_.carriesPayload)
        for (std::size_t i = 0; i < project().payload.size(); ++i) {
            const std::string n = "p" + std::to_string(i + 1),
                              path = "payload/" + project().payload[i].id + "/";
            const Term mass = input("m_" + n, path + "mass_kg"), along = place("x_" + n, path + "along_m"),
                       above = place("h_" + n, path + "above_m");
            const Term end = given ? in("L_front", "boom/reach_m") : Term(0.0);
            const Term beyond = sum({given ? in("x_tip", "boom/tip_offset_m") : Term(0.0), along});
            const Term height = sum({in("h_tip", "boom/tip_above_m"), above});
            if (levelled && given)
                out.push_back({mass, end, height, 0.0, beyond, true});
            else
                out.push_back({mass, sum({end, beyond}), height, 0.0, 0.0, levelled});
        }
    if (given && boom.counterweight.mass.value > 0.0)
        out.push_back({in("m_cw", "boom/counterweight/mass_kg"), -in("x_cw", "boom/counterweight/behind_m"),
                       in("h_cw", "boom/counterweight/above_m"), 0.0, 0.0, false});
    return out;
}

Term AxisSheet::loadInertia() {
    const auto in = [&](const std::string& symbol, const std::string& field) {
        return input(symbol, at("mechanism/" + field));
    };
    if (const auto* linear = std::get_if<LinearMechanism>(&axis_.mechanism)) {
        std::vector<Term> masses{in("m_0", "moving_mass_kg")};
        if (axis_.carriesPayload)
            for (std::size_t i = 0; i < project().payload.size(); ++i)
                masses.push_back(
                    input("m_p" + std::to_string(i + 1), "payload/" + project().payload[i].id + "/mass_kg"));
        for (std::size_t i = 0; i < linear->items.size(); ++i)
            masses.push_back(in("m_" + std::to_string(i + 1), "items/" + linear->items[i].id + "/mass_kg"));
        if (const auto* belt = std::get_if<BeltOutput>(&linear->output); belt != nullptr && belt->motorRides)
            masses.push_back(times(input("m_motor", at("motor/mass_kg")), belt->motors));
        return named("m", "moving mass", Kind::Mass, sum(masses));
    }
    std::vector<Term> parts{in("J_0", "inertia_kgm2")};
    if (const Term mass = in("m_0", "point_mass_kg"); mass.value() > 0.0)
        parts.push_back(mass * squared(in("x_0", "point_radius_m")));
    const bool upright = !gravityTurns(axis_.role);
    if (!rig_.masses[index_].own.empty()) {
        for (const Weight& w : weights()) {
            // To an upright axis a height is no distance.
            const Term& high = upright || w.levelled ? Term(0.0) : w.above;
            const Term out = sum({w.along.value() == 0.0 ? Term(0.0) : squared(w.along),
                                  high.value() == 0.0 ? Term(0.0) : squared(high)});
            parts.push_back(w.mass.value() * out.value() == 0.0 ? Term(0.0) : w.mass * out);
            parts.push_back(w.own);
        }
    } else if (!rig_.masses[index_].boom.empty()) {
        const auto& boom = rig_.masses[index_].boom;
        parts.push_back(found(
            "J_arm", "inertia of the arm that stands on it, at its widest", Kind::LoadInertia,
            upright ? structure::inertiaAboutUpright(boom) : structure::inertiaAboutPivot(boom), listed));
    }
    return named("J_load", "inertia of the load", Kind::LoadInertia, sum(parts));
}

Term AxisSheet::armGravity(const std::vector<Weight>& weights) {
    const auto& r = std::get<RotaryMechanism>(axis_.mechanism);
    std::vector<Term> along, above;
    for (const Weight& w : weights) {
        if (w.along.value() != 0.0) along.push_back(w.mass * w.along);
        if (!w.levelled && w.above.value() != 0.0) above.push_back(w.mass * w.above);
    }
    const Term alongSum = named("M_x", "moment of the masses along the arm", "kg·m", sum(along)),
               aboveSum = named("M_h", "moment of the masses above the arm", "kg·m", sum(above));
    // The same places that are looked at over the range, docs/models/beams.md.
    const double slope = rig_.masses[index_].slopeBelow, low = r.lowAngle - slope,
                 high = r.lowAngle + r.range + slope, span = std::min(high - low, 2.0 * std::numbers::pi);
    double at = low, most = -1.0;
    const auto look = [&](double angle) {
        const double torque = std::abs(armTorque(rig_.masses[index_].own, r, angle));
        if (torque > most) {
            most = torque;
            at = angle;
        }
    };
    look(low);
    look(high);
    constexpr int samples = 48;
    for (int i = 1; i < samples; ++i) look(low + span * i / samples);
    const Term angle = found("φ", "angle above level in the range at which gravity pulls most", Kind::Angle,
                             at, "48 places over the range");
    const Term weight =
        standardGravityOn(*this) * sum({alongSum.value() == 0.0 ? Term(0.0) : alongSum * cos(angle),
                                        aboveSum.value() == 0.0 ? Term(0.0) : -(aboveSum * sin(angle))});
    const Term spring = input("T_s", this->at("mechanism/spring/torque_at_low_Nm")),
               rate = input("k_s", this->at("mechanism/spring/rate_Nm_rad"));
    Term torque = weight;
    if (spring.value() != 0.0 || rate.value() != 0.0)
        torque = weight - (spring + rate * (angle - input("φ_low", this->at("mechanism/low_angle_rad"))));
    const Term unbalance = input("T_u", this->at("mechanism/unbalance_Nm"));
    return sum({abs(torque), unbalance});
}

Term AxisSheet::gravity() {
    const double signedValue = e_.model.chain.load.steady;
    if (linear()) {
        const Term slope = input("β", at("mechanism/slope_rad"));
        if (slope.value() == 0.0) return 0.0;
        return named("F_g", "weight along the rail", Kind::Force,
                     loadInertia() * standardGravityOn(*this) * sin(slope));
    }
    if (signedValue == 0.0) return 0.0;
    const auto& r = std::get<RotaryMechanism>(axis_.mechanism);
    const char* label = "gravity torque, largest over the range";
    if (gravityTurns(axis_.role)) {
        const Term torque =
            rig_.masses[index_].own.empty() && r.spring.torqueAtLow.value == 0.0 && r.spring.rate.value == 0.0
                ? input("T_u", at("mechanism/unbalance_Nm"))
                : armGravity(weights());
        if (std::abs(torque.value() - signedValue) <= 1e-9 * signedValue)
            return named("T_g", label, Kind::Torque, torque);
    } else if (!r.leanKnown && r.spring.torqueAtLow.value == 0.0 && r.spring.rate.value == 0.0) {
        if (m_.carriedAlong == 0.0 || rig_.masses[index_].slopeBelow == 0.0)
            return input("T_u", at("mechanism/unbalance_Nm"));
        const Term weight = found("m_on", "mass that turns with it", Kind::Mass, m_.carriedMass, listed),
                   off = found("x_on", "its centre of gravity off the axis", Kind::Length, m_.carriedAlong,
                               listed),
                   slope = found("β", "slope of what carries it", Kind::Angle, rig_.masses[index_].slopeBelow,
                                 "slopes of the linear axes below");
        return named("T_g", label, Kind::Torque,
                     sum({weight * standardGravityOn(*this) * off * sin(slope),
                          input("T_u", at("mechanism/unbalance_Nm"))}));
    }
    return found("T_g", label, Kind::Torque, signedValue, "48 places over the range, docs/models/beams.md");
}

Term AxisSheet::steadyLoad() {
    Term own = gravity();
    if (shot_ == nullptr || shot_->carried.valueOr(0.0) <= 0.0) return own;
    const Term below = found(linear() ? "F_below" : "T_below", "from the axes below, moving in the same shot",
                             forceKind(), shot_->carried.value(), "docs/models/drive-chain.md");
    return sum({own.value() < 0.0 ? -own : own, below});
}

Term AxisSheet::windForce(const std::string& areaPath) {
    const Term area = input("A", at("mechanism/" + areaPath)),
               speed = input("v_wind", "conditions/wind_speed_m_s");
    if (area.value() == 0.0 || speed.value() == 0.0) return 0.0;
    const Term density = found("ρ_air", "density of air", "kg/m³", 1.2, "usual value"),
               drag = found("c_w", "drag coefficient of a boxy camera", Kind::Ratio, 1.2, "usual value");
    return 0.5 * density * drag * area * squared(speed);
}

Term AxisSheet::friction() {
    const auto in = [&](const char* symbol, const char* field) {
        return input(symbol, at(std::string("mechanism/") + field));
    };
    if (!linear()) return sum({in("T_run", "friction_Nm"), in("T_cable", "cable_drag_Nm")});
    std::vector<Term> parts{in("F_run", "running_friction_N"), in("F_cable", "cable_drag_N")};
    const auto& mechanism = std::get<LinearMechanism>(axis_.mechanism);
    if (std::holds_alternative<ScrewOutput>(mechanism.output))
        if (const Term drag = in("T_nut", "output/nut_drag_Nm"); drag.value() > 0.0)
            parts.push_back(named("F_nut", "drag of nut and bearings, at the carriage", Kind::Force,
                                  drag / outputRadius() * outputStage().efficiency));
    return named("F_f", "running friction", Kind::Force, sum(parts));
}

namespace {
Term pushing(AxisSheet& sheet, const Term& wind) {
    const bool linear = sheet.linear();
    return sum(
        {wind, sheet.input(linear ? "F_dist" : "T_dist",
                           sheet.at(linear ? "mechanism/disturbance_N" : "mechanism/disturbance_Nm"))});
}
} // namespace

Term AxisSheet::opposing() {
    const Term wind = windForce("wind_area_m2");
    const Term turned =
        linear() || wind.value() == 0.0 ? wind : wind * input("x_wind", at("mechanism/wind_arm_m"));
    return named(linear() ? "F_c" : "T_c", "friction and what pushes against the movement", forceKind(),
                 sum({friction(), pushing(*this, turned)}));
}

Term AxisSheet::breakaway() {
    const auto in = [&](const char* symbol, const char* field) {
        return input(symbol, at(std::string("mechanism/") + field));
    };
    const Term wind = windForce("wind_area_m2");
    const Term turned = linear() || wind.value() == 0.0 ? wind : wind * in("x_wind", "wind_arm_m");
    Term still = 0.0;
    if (linear()) {
        const Term running = sum({in("F_run", "running_friction_N"), in("F_cable", "cable_drag_N")});
        const Term rest = sum({in("F_rest", "static_friction_N"), in("F_cable", "cable_drag_N")});
        const auto nut = known("F_nut");
        friction(); // writes the nut's drag down, if there is any
        still = sum({max(rest, running), known("F_nut").value_or(nut.value_or(0.0))});
    } else {
        still = max(sum({in("T_rest", "static_friction_Nm"), in("T_cable", "cable_drag_Nm")}), friction());
    }
    return named(linear() ? "F_0" : "T_0", "what has to be overcome at rest", forceKind(),
                 sum({still, pushing(*this, turned)}));
}

Term AxisSheet::worstGravity() {
    const double most = std::max(std::abs(m_.gravityLow), std::abs(m_.gravityHigh));
    if (most == 0.0) return 0.0;
    const Term own = gravity();
    if (std::abs(std::abs(own.value()) - most) <= 1e-12 * most) return own.value() < 0.0 ? -own : own;
    return found("T_gmax", "gravity, largest over the travel", forceKind(), most, "docs/models/beams.md");
}

} // namespace gantry::working
