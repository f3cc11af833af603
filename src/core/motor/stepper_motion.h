// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::motor {

/// Stiffness [N·m/rad] of the field that holds a rotor: Nr Ta cos(asin(T/Ta)).
/// @param torqueAmplitude Ta [N·m] static torque at the set current; @param load |T| [N·m]. Zero when the
/// load reaches Ta (no restoring torque left). Acarnley, Stepping Motors. Swings of 90° electrical feel a
/// third less.
double fieldStiffness(int rotorTeeth, double torqueAmplitude, double load);

/// Rotor lag [rad, mechanical] behind the field under a load [N·m]: asin(T/Ta)/Nr. A load beyond Ta gives the
/// lag at pull-out, π/(2 Nr).
double rotorLag(int rotorTeeth, double torqueAmplitude, double load);

} // namespace gantry::motor
