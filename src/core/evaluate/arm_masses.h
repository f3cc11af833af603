// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"
#include "core/structure/balance.h"

#include <vector>

namespace gantry {

/// Everything that a turning axis carries as an arm: its own weight from the section (first, if given),
/// listed items, the payload where the axis carries it, and the counterweight (last, if there is one). A
/// point mass without a direction is not among them.
std::vector<structure::ArmMass> armMasses(const Project& project, const Axis& axis);

/// The same as this axis feels it: a swing that lists nothing itself carries the arm of the boom tilt that
/// stands on it, at the elevation of its range that reaches farthest out.
std::vector<structure::ArmMass> carriedMasses(const Project& project, const Axis& axis);

/// How far out the camera, or the farthest item, hangs [m]; 0 where nothing says.
double armReach(const Project& project, const Axis& axis);

} // namespace gantry
