// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/near_people.h"

#include <algorithm>
#include <cmath>

namespace gantry {

bool movesNearPeople(const Axis& axis) {
    return axis.role == Role::Swing || axis.role == Role::BoomTilt || axis.role == Role::Slide ||
           axis.role == Role::Lift;
}

double farthestReach(const Axis& axis, const AxisEvaluation& e) {
    const auto* rotary = std::get_if<RotaryMechanism>(&axis.mechanism);
    if (rotary == nullptr) return 1.0;
    const double known =
        std::max(e.model.farthestItem, rotary->pointMass.value > 0.0 ? rotary->pointRadius : 0.0);
    return known > 0.0 ? known : 1.0;
}

PeopleCaps capsNearPeople(const Project& project, const Axis& axis, const AxisEvaluation& e) {
    PeopleCaps out;
    if (!movesNearPeople(axis)) return out;
    if (const double cap = project.conditions.speedNearPeople; cap > 0.0)
        out.bySpeed = cap / farthestReach(axis, e);
    if (const double cap = project.conditions.energyNearPeople; cap > 0.0) {
        const double unit = e.model.outputPerRad;
        out.byEnergy = (e.inertiaAtMotor / (unit * unit)).then([&](double inertia) {
            return Figure::of(std::sqrt(2.0 * cap / inertia), Reason::Unbounded);
        });
    }
    return out;
}

} // namespace gantry
