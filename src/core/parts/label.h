// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/motor_parts.h"

namespace gantry::parts {

/// What stands on a stepper or can be measured with a rule. A zero means "not given".
struct StepperLabel {
    double frame = 0.042;  ///< [m] across the flange
    double length = 0.040; ///< [m] of the body
    double current = 0.0;  ///< [A] a phase
    double voltage = 0.0;  ///< [V] label volts: what drives that current through the winding at rest
    double stepAngle = 0.0314159265358979; ///< [rad]
};

/// A stepper from its label: resistance V/I at once, the rest estimated from its size and marked so with wide
/// tolerances.
///
/// Torque per active volume of hybrid steppers (end bells, 0.28 of the frame, taken off) rises with the frame
/// and levels off near 11 kN·m/m³ (a fit to typical motors of size 8 to 34, ±40 %); the rotor is taken as a
/// steel cylinder of 0.54 of the frame's width over two thirds of the body (±35 %); the winding's time
/// constant goes with the frame, 1.9 ms at 42 mm (±45 %); density of the whole 3900 kg/m³.
Stepper stepperFromLabel(const StepperLabel& label);

} // namespace gantry::parts
