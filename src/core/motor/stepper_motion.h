// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::motor {

/// Natural frequency [Hz] of the rotor held by its field: √(Nr Ta cos(asin(T/Ta)) / J) / 2π.
/// @param torqueAmplitude Ta [N·m] static torque at the set current; @param load |T| [N·m] < Ta;
/// @param inertia [kg·m²] everything seen at the shaft. Zero when the load reaches Ta (no restoring torque
/// left). Acarnley, Stepping Motors. Swings of 90° electrical lie 15 % lower.
double naturalFrequency(int rotorTeeth, double torqueAmplitude, double load, double inertia);

/// Rotor lag [rad, mechanical] behind the field under a load [N·m]: asin(T/Ta)/Nr. A load beyond Ta gives the
/// lag at pull-out, π/(2 Nr).
double rotorLag(int rotorTeeth, double torqueAmplitude, double load);

} // namespace gantry::motor
