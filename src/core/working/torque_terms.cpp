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
        const bool coupling = isCoupling(i);
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
                if (!isCoupling(before)) turns = turns / stage(before).ratio;
            through = through + s.inertia * turns;
        }
        std::string symbol = "T_";
        symbol += i < axis_.links.size() ? std::to_string(i + 1) : "out";
        torque = named(symbol + suffix,
                       "torque on the shaft before the " +
                           words::partName(axis_, i < axis_.links.size() ? static_cast<int>(i) : -1),
                       Kind::Torque, through);
    }
    return torque;
}

AxisSheet::Corner AxisSheet::hardestCorner(const drivetrain::Chain& chain, double acceleration) const {
    double most = -1.0;
    Corner out;
    for (const double sense : {1.0, -1.0})
        for (const double way : {1.0, -1.0})
            if (const double t = std::abs(drivetrain::motorTorque(
                    chain, 0.0, way * acceleration / m_.outputPerRad, static_cast<int>(sense)));
                t > most) {
                most = t;
                out = {way, sense};
            }
    return out;
}

drivetrain::Chain AxisSheet::atRest(drivetrain::Chain chain) const {
    chain.load.coulomb = m_.staticFriction;
    for (drivetrain::Stage& s : chain.stages)
        if (s.startEfficiency > 0.0) s.efficiency = s.startEfficiency;
    return chain;
}

Term AxisSheet::worst(const Term& acceleration, bool starting) {
    const Corner corner = hardestCorner(starting ? atRest(m_.chain) : m_.chain, acceleration.value());
    const bool moves = acceleration.value() != 0.0;
    const Term ramp = corner.way < 0.0 && moves ? -acceleration : acceleration;
    Term torque = throughChain(ramp, steadyLoad(), corner.sense, starting, 0);
    if (moves) torque = torque + motorInertia() * ramp / travelPerRad();
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

AxisSheet::Straight AxisSheet::straightThroughChain(Straight line, const Straight& shafts, double x,
                                                    double sense, bool starting, const char* unit,
                                                    const std::string& suffix) {
    for (std::size_t i = m_.chain.stages.size(); i-- > 0;) {
        const StageTerms s = stage(i);
        if (!isCoupling(i)) {
            const bool toLoad = (line.rest.value() + line.each.value() * x) * sense >= 0.0;
            const bool lever = linear() && i + 1 == m_.chain.stages.size();
            const Term& efficiency = starting && s.start.value() > 0.0 ? s.start : s.efficiency;
            const auto through = [&](const Term& torque) {
                if (torque.value() == 0.0) return Term(0.0);
                const Term moved = lever ? torque * outputRadius() : torque / s.ratio;
                return toLoad ? moved / efficiency : moved * s.back;
            };
            line = {through(line.rest), through(line.each)};
        }
        if (s.inertia.value() != 0.0) {
            const Term turns = turnsBefore(i);
            const auto turning = [&](const Term& acceleration) {
                if (acceleration.value() == 0.0) return Term(0.0);
                const Term own = s.inertia * acceleration / travelPerRad();
                return turns.text() == "1" ? own : own / turns;
            };
            line = {sum({line.rest, turning(shafts.rest)}), sum({line.each, turning(shafts.each)})};
        }
        const std::string n = (i < axis_.links.size() ? std::to_string(i + 1) : "out") + suffix;
        line.rest = named("T_w" + n, "constant part of the torque on that shaft", Kind::Torque, line.rest);
        line.each = named("K_c" + n, "torque on that shaft per unit of what is sought", unit, line.each);
    }
    const auto rotor = [&](const Term& acceleration) {
        return acceleration.value() == 0.0 ? Term(0.0) : motorInertia() * acceleration / travelPerRad();
    };
    line = {sum({line.rest, rotor(shafts.rest)}), sum({line.each, rotor(shafts.each)})};
    const bool backwards = line.rest.value() + line.each.value() * x < 0.0;
    return {named("T_w" + suffix, "constant part of the torque at the motor", Kind::Torque,
                  backwards ? -line.rest : line.rest),
            named("K_c" + suffix, "torque at the motor per unit of what is sought", unit,
                  backwards ? -line.each : line.each)};
}

Term AxisSheet::allowedAt(const Term& motorSpeed) {
    const bool still = motorSpeed.value() == 0.0;
    return named(still ? "T_allow0" : "T_allow",
                 still ? "torque that the margin allows at rest" : "torque that the margin allows",
                 Kind::Torque, torqueAvailable(motorSpeed) / input("M", at("wanted_margin")));
}

Term AxisSheet::hardestRamp(const Term& steady, double known) {
    // Torque is straight in the acceleration there: what it is without any, and what each unit of it adds.
    drivetrain::Chain chain = m_.chain;
    chain.load.steady = steady.value();
    const Corner corner = hardestCorner(chain, known);
    const Term one = corner.way < 0.0 ? Term(-1.0) : Term(1.0);
    const Straight line =
        straightThroughChain({corner.sense < 0.0 ? steady - opposing() : sum({steady, opposing()}),
                              corner.way < 0.0 ? -loadInertia() : loadInertia()},
                             {0.0, one}, known, corner.sense, false, linear() ? "N·m·s²/m" : "kg·m²", {});
    const Term allowed = allowedAt(motorSpeed());
    if (known == 0.0) // too little to break away with, or at that speed
        return max(0.0, min(allowedAt(0.0) - breakawayTorque(), allowed - line.rest)) / line.each;
    return (allowed - line.rest) / line.each;
}

Term AxisSheet::hardestRamp() {
    return hardestRamp(steadyLoad(), shot_->torque.maxAcceleration.value());
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
