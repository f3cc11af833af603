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

/// What a drive manages at the wanted margin in its worst shot, moving and standing still. A figure that has
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

/// The worst shot of one axis, or its controller settings if no shot moves it. Bisection on the full model;
/// each figure is exact to 1e-9 relative.
Capability capability(const Axis& axis, const AxisEvaluation& evaluation);

} // namespace gantry
