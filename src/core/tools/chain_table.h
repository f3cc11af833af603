// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/units/kind.h"

#include <vector>

namespace gantry {

enum class ChainPart { Driver, Motor, Link, Output, Belt, Load, Picture };

/// A figure with the kind it is shown in; NotApplicable where a part has none.
struct Cell {
    Figure figure;
    units::Kind kind = units::Kind::Ratio;
};

/// One part of a drive, pulse to picture, in one shot.
struct ChainColumn {
    ChainPart part = ChainPart::Motor;
    int link = -1;  ///< index in Axis::links for ChainPart::Link
    Cell speed;     ///< pulse rate, shaft speed, travel speed, pixels per frame
    Cell needed;    ///< torque or force on the ramp; for the driver the least current that gives the wanted
                    ///< margin
    Cell available; ///< what is left of the motor's torque there; for the driver the current that is set
    Cell inertia; ///< own, at its shaft; the load's as the motor feels it; for the picture the load to rotor
                  ///< ratio
    Cell microstep; ///< one microstep
    Cell lag;       ///< rotor lag
    Cell stretch;   ///< between speeding up and braking
    Cell play;      ///< backlash
};

template <class V, Of<ChainColumn>... S>
void describe(V& v, S&... s) {
    const auto cell = [](std::string_view key, std::string_view label) {
        return result(key, label, units::Kind::Ratio);
    };
    v.figure(cell("speed", "speed"), s.speed.figure...);
    v.figure(cell("needed", "torque or force needed"), s.needed.figure...);
    v.figure(cell("available", "torque or force available"), s.available.figure...);
    v.figure(cell("inertia", "inertia"), s.inertia.figure...);
    v.figure(cell("microstep", "one microstep"), s.microstep.figure...);
    v.figure(cell("lag", "rotor lag"), s.lag.figure...);
    v.figure(cell("stretch", "elastic travel"), s.stretch.figure...);
    v.figure(cell("play", "backlash"), s.play.figure...);
}

/// The drive of an axis from the driver to the picture. Links in order; a linear axis ends in pulley, belt
/// and carriage, a rotary one in its output and load. Pure; cheap enough for every edit.
std::vector<ChainColumn> chainColumns(const Axis& axis, const AxisEvaluation& evaluation,
                                      const ShotEvaluation& shot);

} // namespace gantry
