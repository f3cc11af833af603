// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluate.h"

namespace gantry {

/// Fills one shot of an axis whose own figures (steps per unit, rounding) are there already.
ShotEvaluation evaluateShot(const Project& project, const AxisEvaluation& axis, int shotIndex,
                            const Movement& movement, Searches searches);

} // namespace gantry
