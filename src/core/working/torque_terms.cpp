// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/axis_sheet.h"

#include "core/words/part_name.h"

#include <cmath>

/// Torque through a chain, the recursion of docs/models/drive-chain.md.
namespace gantry::working {

using units::Kind;

/// Up to the shaft before stage `from`; what turns on that shaft itself comes on top.
Term AxisSheet::throughChain(const Term& acceleration, const Term& steady, double sense, bool starting,
                             std::size_t from) {
    const std::size_t stages = m_.chain.stages.size();
    const std::string suffix = starting ? "start" : "";
    const Term opposes = starting ? breakaway() : opposing();
    const bool turning = !linear();
    const Term carried = acceleration.value() == 0.0 ? Term(0.0)
                                                     : named(turning ? "T_a" : "F_a", "to speed the load up",
                                                             forceKind(), loadInertia() * acceleration);
    Term torque =
        named((turning ? "T_load" : "F_load") + suffix, turning ? "torque at the load" : "force at the load",
              forceKind(), sense < 0.0 ? sum({carried, steady}) - opposes : sum({carried, steady, opposes}));
    // Turns of the shaft in hand per turn of the motor, for what turns with it.
    for (std::size_t i = stages; i-- > from;) {
        const StageTerms s = stage(i);
        const bool coupling = i < axis_.links.size() && std::holds_alternative<Coupling>(axis_.links[i]);
        const bool toLoad = torque.value() * sense >= 0.0;
        Term through = torque;
        if (!coupling) {
            const Term& efficiency = starting && s.start.value() > 0.0 ? s.start : s.efficiency;
            const bool lever = linear() && i + 1 == stages; // the pulley's radius, not its inverse
            const Term moved = lever ? torque * outputRadius() : torque / s.ratio;
            through = toLoad ? moved / efficiency : moved * s.back;
        }
        if (s.inertia.value() != 0.0 && acceleration.value() != 0.0) {
            Term turns = acceleration / travelPerRad();
            for (std::size_t before = 0; before < i; ++before)
                if (!std::holds_alternative<Coupling>(axis_.links[before]))
                    turns = turns / stage(before).ratio;
            through = through + s.inertia * turns;
        }
        const std::string n = i < axis_.links.size() ? std::to_string(i + 1) : "out";
        torque = named("T_" + n + suffix,
                       "torque on the shaft before the " +
                           words::partName(axis_, i < axis_.links.size() ? static_cast<int>(i) : -1),
                       Kind::Torque, through);
    }
    return torque;
}

Term AxisSheet::worst(const Term& acceleration, bool starting) {
    // Both directions, speeding up and braking: the one that asks most.
    drivetrain::Chain chain = m_.chain;
    if (starting) {
        chain.load.coulomb = m_.staticFriction;
        for (drivetrain::Stage& s : chain.stages)
            if (s.startEfficiency > 0.0) s.efficiency = s.startEfficiency;
    }
    const double a = acceleration.value() / m_.outputPerRad;
    double most = -1.0, way = 1.0, sense = 1.0;
    for (const int direction : {1, -1})
        for (const double sign : {1.0, -1.0})
            if (const double t = std::abs(drivetrain::motorTorque(chain, 0.0, sign * a, direction));
                t > most) {
                most = t;
                way = sign;
                sense = direction;
            }
    const Term ramp = way < 0.0 && a != 0.0 ? -acceleration : acceleration;
    Term torque = throughChain(ramp, steadyLoad(), sense, starting, 0);
    if (a != 0.0) torque = torque + motorInertia() * ramp / travelPerRad();
    return torque.value() < 0.0 ? -torque : torque;
}

Term AxisSheet::torqueNeeded(const Term& acceleration) {
    return named("T_need", "torque needed at the motor", Kind::Torque, worst(acceleration, false));
}

Term AxisSheet::breakawayTorque() {
    return named("T_start", "torque to break away from rest", Kind::Torque, worst(0.0, true));
}

Term AxisSheet::forceNeeded(const Term& acceleration) {
    const Term steady = steadyLoad();
    return named(linear() ? "F_need" : "T_needload", "needed at the load", forceKind(),
                 sum({steady.value() < 0.0 ? -steady : steady, opposing(), loadInertia() * acceleration}));
}

Term AxisSheet::hardestRamp() {
    const Term wanted = input("M", at("wanted_margin"));
    const double known = shot_->torque.maxAcceleration.value();
    const Term allowed = named("T_allow", "torque that the margin allows", Kind::Torque,
                               torqueAvailable(motorSpeed()) / wanted);
    // At that ramp: which way, and whether power flows to the load in each stage.
    const double a = known / m_.outputPerRad;
    double most = -1.0, way = 1.0, sense = 1.0;
    for (const int direction : {1, -1})
        for (const double sign : {1.0, -1.0})
            if (const double t = std::abs(drivetrain::motorTorque(m_.chain, 0.0, sign * a, direction));
                t > most) {
                most = t;
                way = sign;
                sense = direction;
            }
    // Torque is straight in the acceleration there: what it is without any, and what each unit of it adds.
    const Term steady = steadyLoad();
    Term still = sense < 0.0 ? steady - opposing() : sum({steady, opposing()});
    Term each = way < 0.0 ? -loadInertia() : loadInertia();
    for (std::size_t i = m_.chain.stages.size(); i-- > 0;) {
        const StageTerms s = stage(i);
        if (i >= axis_.links.size() || !std::holds_alternative<Coupling>(axis_.links[i])) {
            const bool toLoad = (still.value() + each.value() * known) * sense >= 0.0;
            const bool lever = linear() && i + 1 == m_.chain.stages.size();
            const auto through = [&](const Term& torque) {
                const Term moved = lever ? torque * outputRadius() : torque / s.ratio;
                return toLoad ? moved / s.efficiency : moved * s.back;
            };
            still = through(still);
            each = through(each);
        }
        if (s.inertia.value() != 0.0) {
            const Term turns = turnsBefore(i), one = (way < 0.0 ? -s.inertia : s.inertia) / travelPerRad();
            each = each + (turns.text() == "1" ? one : one / turns);
        }
        const std::string n = i < axis_.links.size() ? std::to_string(i + 1) : "out";
        still = named("T_c" + n, "torque on that shaft without a ramp", Kind::Torque, still);
        each =
            named("J_c" + n, "torque on it for each unit of the ramp", linear() ? "N·m·s²/m" : "kg·m²", each);
    }
    each = each + (way < 0.0 ? -motorInertia() : motorInertia()) / travelPerRad();
    const bool backwards = still.value() + each.value() * known < 0.0;
    const Term rest = named("T_c", "torque at the motor without a ramp", Kind::Torque,
                            backwards ? -still : still),
               slope = named("J_c", "torque at it for each unit of the ramp", linear() ? "N·m·s²/m" : "kg·m²",
                             backwards ? -each : each);
    if (known == 0.0) // too little to break away with, or at that speed
        return max(0.0, min(torqueAvailable(0.0) / wanted - breakawayTorque(), allowed - rest)) / slope;
    return (allowed - rest) / slope;
}

Term AxisSheet::fastestByTorque() {
    const double known = e_.torqueLimitSpeed.value();
    const ShotEvaluation* worst = e_.worst();
    const Figure ramp = worst != nullptr ? worst->motion.acceleration : Figure(m_.settings.acceleration);
    const Term acceleration = found("a", "acceleration of the ramps", accelerationKind(), ramp.value(),
                                    worst != nullptr ? "plan of the worst shot" : "set in the controller");
    const Term wanted = named("T_want", "torque wanted, with the margin", Kind::Torque,
                              input("M", at("wanted_margin")) * torqueNeeded(acceleration));
    const Term speed =
        found("ω_max", "speed of the motor up to which it gives that", Kind::RotationRate,
              known / m_.outputPerRad, "where the motor's curve meets it, docs/models/stepper-torque.md");
    foundFrom("ω_max", {wanted.text()});
    return speed * travelPerRad();
}

} // namespace gantry::working
