// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::motor {

/// Two-phase hybrid stepper with its driver and supply, as far as torque against speed needs it.
/// Domain: all values finite and positive, peakCurrent and supplyVoltage may be zero.
struct StepperParams {
    int rotorTeeth = 50;
    double holdingTorque = 0.0;   ///< [N·m] both phases at rated rms current
    double ratedCurrentRms = 0.0; ///< [A]
    double resistance = 0.0;      ///< [ohm] per phase, with bridge, cable and source
    double inductance = 0.0;      ///< [H] per phase
    double supplyVoltage = 0.0;   ///< [V]
    double peakCurrent = 0.0;     ///< [A] chopper limit, √2 times the rms setting

    friend bool operator==(const StepperParams&, const StepperParams&) = default;
};

/// Torque per peak ampere of one phase [N·m/A]; also the peak back-EMF constant of one phase [V·s/rad].
/// kt = Th / (√2 Ir) (Acarnley, Stepping Motors).
double torqueConstant(const StepperParams& p);

/// Pull-out torque [N·m] at motor speed `speed` [rad/s] ≥ 0: the largest quadrature current that both the
/// voltage disc and the current circle allow, times kt. The sizing curve; never negative. Derivation and the
/// agreement with time simulation: docs/models/stepper-torque.md.
double pullOutTorque(const StepperParams& p, double speed);

/// The same with 4/π of the voltage: what a saturated chopper, which behaves like a square wave, gives at
/// best.
double pullOutTorqueAtBest(const StepperParams& p, double speed);

/// Speed [rad/s] up to which the full current limit can be driven; 0 if the supply cannot drive it at rest.
double cornerSpeed(const StepperParams& p);

/// Least peak current [A] with which the pull-out torque at `speed` reaches `torque` [N·m]; infinity if the
/// voltage does not allow it at any current.
double leastPeakCurrent(const StepperParams& p, double torque, double speed);

} // namespace gantry::motor
