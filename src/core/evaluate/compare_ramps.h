// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

#include <string_view>
#include <vector>

namespace gantry {

enum class RampShape { Trapezoid, TunedTrapezoid, SCurve, TunedSCurve, HalfSine };

/// "S-curve, tuned"
std::string_view shapeName(RampShape shape);

/// What a shot would be with another shape of ramp, at its own top speed and peak acceleration.
struct RampRow {
    RampShape shape = RampShape::Trapezoid;
    bool offered = false; ///< the controller can do it
    Figure time;          ///< [s]
    Figure speed;         ///< [U/s] reached
    Figure acceleration;  ///< [U/s²] peak
    Figure rocking;       ///< [px] peak to peak left at the stop; NotApplicable where nothing known rocks
    Figure leaning;       ///< [px] largest during the ramps
    Figure settling;      ///< [s] to the jitter limit
};

/// All shapes in order; the tuned ones only where something known rocks. Empty for a shot that cannot be
/// driven.
std::vector<RampRow> compareRamps(const Project& project, const AxisEvaluation& evaluation,
                                  const ShotEvaluation& shot);

} // namespace gantry
