// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/axis_sheet.h"

#include "core/units/constants.h"

#include <cmath>

/// What a drive can do at the wanted margin, as tools/capability.h has it: everything that hangs on mass or
/// slope is straight in it, so each limit has a closed form.
namespace gantry::working {

using units::Kind;

Term AxisSheet::capableRamp(double known) {
    // What the axes below bring is the shot's own affair.
    return hardestRamp(gravity(), known);
}

Term AxisSheet::capableSpeed(double known) {
    if (m_.pulses) {
        Term byPulses = pulseLimit();
        if (std::abs(byPulses.value() - known) <= 1e-9 * known) return byPulses;
    }
    const Term wanted = named("T_want", "torque wanted, with the margin", Kind::Torque,
                              input("M", at("wanted_margin")) * torqueNeeded(firstAcceleration()));
    const Term speed =
        found("ω_max", "speed of the motor up to which it gives that", Kind::RotationRate,
              known / m_.outputPerRad, "where the motor's curve meets it, docs/models/stepper-torque.md");
    foundFrom("ω_max", {wanted.text()});
    return speed * travelPerRad();
}

Term AxisSheet::pulseLimit() {
    const double ceiling = m_.pulseCeiling;
    const Term rate = input("f_max", "controller/pulse_ceiling_hz");
    const double axes = std::round(rate.value() / ceiling);
    return (axes > 1.0 ? rate / axes : rate) * microstep();
}

Term AxisSheet::capableLoad(bool ofSlope, double known) {
    const Term g = found("g", "standard gravity", "m/s²", units::standardGravity, "ISO 80000-3");
    const Term ramp = firstAcceleration();
    const double x = ofSlope ? std::sin(known) : known;
    // Torque at the load for each unit of it, by gravity; of a turning axis only its inertia is asked for.
    Term pull = 0.0, steady = 0.0;
    if (linear()) {
        const Term slope = input("β", at("mechanism/slope_rad"));
        pull = ofSlope ? loadInertia() * g : slope.value() == 0.0 ? Term(0.0) : g * sin(slope);
    } else {
        steady = gravity();
    }
    drivetrain::Chain chain = m_.chain;
    chain.load.steady = steady.value() + pull.value() * x;
    if (!ofSlope) chain.load.inertia = x;
    const char* unit = ofSlope ? "N·m" : linear() ? "N·m/kg" : "1/s²";

    const Corner corner = hardestCorner(chain, ramp.value());
    const Term signedRamp = corner.way < 0.0 && ramp.value() != 0.0 ? -ramp : ramp;
    const Term opposed = corner.sense < 0.0 ? steady - opposing() : sum({steady, opposing()});
    const Term carried = ramp.value() == 0.0 ? Term(0.0) : signedRamp;
    const Straight moving = straightThroughChain(
        ofSlope ? Straight{sum({opposed, carried.value() == 0.0 ? carried : loadInertia() * carried}), pull}
                : Straight{opposed, sum({carried, pull})},
        {carried, 0.0}, x, corner.sense, false, unit, {});
    Term most = (allowedAt(motorSpeed()) - moving.rest) / moving.each;
    if (pull.value() != 0.0) {
        const drivetrain::Chain still = atRest(chain);
        const Corner start = hardestCorner(still, 0.0);
        const Straight starting = straightThroughChain({start.sense < 0.0 ? -breakaway() : breakaway(), pull},
                                                       {0.0, 0.0}, x, start.sense, true, unit, "start");
        most = min(most, (allowedAt(0.0) - starting.rest) / starting.each);
        if (e_.holdAvailable && !e_.checks.locks) {
            const Term hold = holdTorque();
            most = min(most, hold / (input("M", at("wanted_margin")) * (pull.value() < 0.0 ? -pull : pull) *
                                     travelPerRad()));
        }
    }
    return ofSlope ? asin(min(1.0, most)) : most;
}

} // namespace gantry::working
