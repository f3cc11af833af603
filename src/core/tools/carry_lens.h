// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/move/move_scene.h"

#include <span>
#include <vector>

namespace gantry {

/// Which directions of space matter.
struct Directions {
    bool x = true, y = true, z = true;
};

/// Indices of the axes that carry the lens about without pointing it, in the rig's order.
std::vector<std::size_t> carriers(std::span<const Axis> axes, const MoveScene& scene);

/// Places [U] at which the lens stands where it is wanted [m], or as near as the soft limits let it: damped
/// steps of least squares on the axes that carry it; the others stay. To 1e-6 m where it can be reached.
std::vector<double> carryLens(std::span<const Axis> axes, const MoveScene& scene, std::vector<double> places,
                              geometry::Place to, Directions matter = {});

} // namespace gantry
