// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

namespace gantry::drivetrain {

/// One stage of a drive, seen from its input (motor side).
struct Stage {
    double ratio = 1.0;           ///< [1] input speed over output speed; into a linear output [rad/m]
    double efficiency = 1.0;      ///< [1] power to the load, in (0, 1]
    double backEfficiency = 1.0;  ///< [1] power from the load; zero or less: locks
    double inputInertia = 0.0;    ///< [kg·m²] turning with the input
    double startEfficiency = 0.0; ///< [1] at break-away, where it is worse than running; 0: as running

    friend bool operator==(const Stage&, const Stage&) = default;
};

/// What hangs on the last stage. Units are those of its output: [kg] and [N], or [kg·m²] and [N·m].
struct Load {
    double inertia = 0.0;
    double steady = 0.0;  ///< constant, positive: resists positive motion (gravity on a slope)
    double coulomb = 0.0; ///< friction against the motion
    double viscous = 0.0; ///< friction per speed

    friend bool operator==(const Load&, const Load&) = default;
};

/// Motor side to load side.
struct Chain {
    double motorInertia = 0.0; ///< [kg·m²]
    std::vector<Stage> stages;
    Load load;

    friend bool operator==(const Chain&, const Chain&) = default;
};

/// Efficiency when the load drives, from the efficiency when the motor does: losses of equal size both ways
/// (Shigley, power screws; for trains the usual estimate). May be zero or negative: self-locking.
constexpr double backEfficiencyOf(double efficiency) {
    return 2.0 - 1.0 / efficiency;
}

/// Motor turns [rad] per unit of output.
double totalRatio(const Chain& chain);

/// Σ J n², without losses, at the motor shaft [kg·m²]. The steady state of a lossless drive; sizing uses
/// motorTorque, since leaving efficiency out of the accelerating share is 4 to 10 % low.
double inertiaAtMotor(const Chain& chain);

/// Torque [N·m] that the motor must give, signed like the speed axis.
///
/// Recursion from the load to the motor: at each stage T/(n η) while power flows to the load and T ηb/n while
/// it flows back. `direction` (+1 or −1) is the sense of motion and decides at standstill, where the speed
/// cannot.
/// @param motorSpeed [rad/s], magnitude; used for viscous friction only
/// @param motorAcceleration [rad/s²], signed in the same axis as direction
/// Derivation: docs/models/drive-chain.md.
double motorTorque(const Chain& chain, double motorSpeed, double motorAcceleration, int direction);

/// Larger of |motorTorque| when speeding up and when braking at |motorAcceleration|, over both directions.
double worstTorque(const Chain& chain, double motorSpeed, double motorAcceleration);

/// Largest motor acceleration [rad/s²] for which worstTorque stays within `allowedTorque` [N·m] at that
/// speed. Zero if even a = 0 needs more. Illinois iteration on a bracket grown from a = 0, relative error
/// below 1e-9; infinity if no acceleration up to 1e15 reaches the torque.
double largestAcceleration(const Chain& chain, double motorSpeed, double allowedTorque);

} // namespace gantry::drivetrain
