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

template <class V, Of<RampRow>... S>
void describe(V& v, S&... s) {
    v.flag(mark("offered", "offered by the controller"), s.offered...);
    v.figure(result("time_s", "time of the shot", K::Time), s.time...);
    v.figure(result("speed_m_s", K::Speed, "speed_rad_s", K::AngularSpeed, "speed reached"), s.speed...);
    v.figure(result("acceleration_m_s2", K::Acceleration, "acceleration_rad_s2", K::AngularAcceleration,
                    "peak acceleration"),
             s.acceleration...);
    v.figure(result("left_px", "residual vibration, peak to peak", K::Pixels), s.rocking...);
    v.figure(result("leaning_px", "maximum deflection during the ramps", K::Pixels), s.leaning...);
    v.figure(result("settling_s", "settling time to the jitter limit", K::Time), s.settling...);
}

/// All shapes in order; the tuned ones only where something known rocks. Empty for a shot that cannot be
/// driven.
std::vector<RampRow> compareRamps(const Project& project, const AxisEvaluation& evaluation,
                                  const ShotEvaluation& shot);

} // namespace gantry
