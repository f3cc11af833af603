// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::drivetrain {

/// Spur gears of 20° pressure angle and full depth. Lengths [m].

/// Distance of the shafts [m].
double centreDistance(int teethA, int teethB, double module);

/// Least pinion teeth, not rounded, that are not undercut by a mate of so many teeth: Shigley, Mechanical
/// Engineering Design, equation 13-11.
double leastTeethAgainst(int mateTeeth);

/// Mean number of tooth pairs in contact. Below about 1.2 the mesh runs rough.
double contactRatio(int teethA, int teethB);

/// Lewis form factor Y (Shigley, table 14-2), interpolated in 1/z; below 12 teeth extended straight, never
/// below 0.1.
double lewisFormFactor(int teeth);

/// Bending stress [Pa] at the root: W Kv / (F m Y), Kv = (6.1 + v)/6.1 for cut teeth. `force` [N] at the
/// pitch circle, `pitchSpeed` [m/s].
double lewisStress(double force, double faceWidth, double module, int teeth, double pitchSpeed);

} // namespace gantry::drivetrain
