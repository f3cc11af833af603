// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluate.h"

#include <optional>

namespace gantry {

/// Fills one shot of an axis whose own figures (steps per unit, rounding) are there already.
/// `followsFor`: seconds that the movement takes when it was made from keeping the subject framed; nothing
/// for a movement of its own, which takes what its profile takes.
ShotEvaluation evaluateShot(const Project& project, const Axis& axis, const AxisEvaluation& evaluation,
                            int shotIndex, const Movement& movement, std::optional<double> followsFor,
                            Searches searches);

struct Following {
    Movement movement; ///< largest rate and acceleration, and the whole angle
    double time = 0.0; ///< [s] of the slide that it goes with
};

/// The movement that keeps a shot's subject framed, for a pan or tilt that has none of its own: from the
/// shot's first linear axis that slides past. Nothing if the shot does not ask for it or nothing slides.
std::optional<Following> followingMovement(const Project& project, const Shot& shot, const Axis& axis);

} // namespace gantry
