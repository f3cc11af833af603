// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

/// By how much the springs of a drive wind up under friction and gravity. U is m with N, or rad with N·m, all
/// at the load. Derivation: docs/models/wind-up.md (Armstrong-Hélouvry, Dupont and Canudas de Wit 1994, A
/// survey of models for machines with friction).
namespace gantry::drivetrain {

/// Domain: stiffness > 0, static friction ≥ sliding friction ≥ 0.
struct Sprung {
    double stiffness = 0.0; ///< [N/m] or [N·m/rad] of the drive
    double friction = 0.0;  ///< sliding
    double breakaway = 0.0; ///< static
    double gravity = 0.0;   ///< positive: pulls back when moving forward
};

double lagForward(const Sprung& s);   ///< [U] the load behind the motor in steady motion
double reversalLost(const Sprung& s); ///< [U] between passing a place forward and back, whatever gravity does
/// Jump [U] by which the load breaks away, undamped: no smaller move is made reliably.
double breakawayJump(const Sprung& s);

/// Speed [U/s] above which the load, once away, does not stick again; friction falls at once from static to
/// sliding. From the trough that a damped swing about steady motion leaves (the same with the damping in the
/// drive or at the guide), to 1e-6.
/// @param inertia [kg] or [kg·m²]; @param damping [1] of critical, of the load on the drive's spring, < 1.
/// Infinite without damping; 0 where static friction is no higher.
double smoothFrom(const Sprung& s, double inertia, double damping);

} // namespace gantry::drivetrain
