// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluate.h"

#include <optional>

namespace gantry {

/// Fills one shot of an axis whose own figures (steps per unit, rounding) are there already.
/// `follows`: the movement was made from keeping the subject framed and takes as long as the shot's other
/// movements.
ShotEvaluation evaluateShot(const Project& project, const Axis& axis, const AxisEvaluation& evaluation,
                            int shotIndex, const Movement& movement, bool follows, Searches searches);

/// The movement that keeps a shot's subject framed, for a pan or tilt that has none of its own: from the
/// shot's first linear axis that slides past. Nothing if the shot does not ask for it or nothing slides.
std::optional<Movement> followingMovement(const Project& project, const Shot& shot, const Axis& axis);

} // namespace gantry
