// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

#include <string_view>

namespace gantry {

enum class Binding { Torque, Standing, PulseRate, Nothing };
std::string_view bindingName(Binding binding); ///< "torque", "holding at standstill", …

/// One of the things a drive can do, the others held.
struct CapabilityFigure {
    Figure value;
    Binding binding = Binding::Torque;
};

/// What a drive manages at the target margin in its worst shot, moving and standing still. A figure that has
/// no number because it fails even without load is FailsUnloaded. On rotary axes `load` is an inertia [kg·m²]
/// and `slope` has no meaning; on linear ones it is a mass [kg] and an angle [rad].
struct Capability {
    double margin = 2.0;
    ShotIndex shot; ///< none: from the controller's settings
    CapabilityFigure load;
    CapabilityFigure slope;
    CapabilityFigure acceleration;
    CapabilityFigure speed;
};

template <class V, Of<Capability>... S>
void describe(V& v, S&... s) {
    v.figure(result("mass_kg", K::Mass, "inertia_kgm2", K::LoadInertia, "heaviest load at the target margin"),
             s.load.value...);
    v.figure(result("slope_rad", "steepest slope at the target margin", K::Angle), s.slope.value...);
    v.figure(result("acceleration_m_s2", K::Acceleration, "acceleration_rad_s2", K::AngularAcceleration,
                    "hardest ramp at the target margin"),
             s.acceleration.value...);
    v.figure(
        result("speed_m_s", K::Speed, "speed_rad_s", K::AngularSpeed, "highest speed at the target margin"),
        s.speed.value...);
}

/// The worst shot of one axis, or its controller settings if no shot moves it. Bisection on the full model;
/// each figure is exact to 1e-9 relative.
Capability capability(const Axis& axis, const AxisEvaluation& evaluation);

} // namespace gantry
