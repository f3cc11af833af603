// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"
#include "core/structure/balance.h"

#include <span>
#include <vector>

namespace gantry {

/// Everything that a turning axis carries as an arm: its own weight from the section (first, if given),
/// listed items, the payload where the axis carries it, and the counterweight (last, if there is one). A
/// point mass without a direction is not among them.
std::vector<structure::ArmMass> armMasses(std::span<const MassItem> payload, const Axis& axis);

/// Index of the boom tilt that stands on a swing; −1 if there is none.
int boomOn(std::span<const Axis> axes, std::size_t swing);

/// An arm's masses as a swing under it feels them: turned to the elevation of its range that reaches farthest
/// out.
std::vector<structure::ArmMass> atItsWidest(std::span<const structure::ArmMass> masses, const Axis& boom);

/// How far out the camera, or the farthest item, hangs on an axis or on the boom that stands on it [m]; 0
/// where nothing says.
double armReach(std::span<const Axis> axes, std::size_t axis);

} // namespace gantry
