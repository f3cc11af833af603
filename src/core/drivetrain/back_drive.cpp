// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/back_drive.h"

#include <limits>

namespace gantry::drivetrain {

std::optional<std::size_t> lockedBy(const Chain& chain) {
    for (std::size_t i = 0; i < chain.stages.size(); ++i)
        if (chain.stages[i].backEfficiency <= 0.0) return i;
    return std::nullopt;
}

double forceToBackDrive(const Chain& chain, const BackDriven& pushed) {
    if (lockedBy(chain)) return std::numeric_limits<double>::infinity();
    double acceleration = pushed.acceleration * totalRatio(chain);
    double torque = pushed.motorTorque + chain.motorInertia * acceleration;
    for (const Stage& s : chain.stages) {
        torque = (torque + s.inputInertia * acceleration) * s.ratio / s.backEfficiency;
        acceleration /= s.ratio;
    }
    return torque + pushed.friction + chain.load.inertia * pushed.acceleration;
}

} // namespace gantry::drivetrain
