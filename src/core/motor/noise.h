// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::motor {

/// How loud a drive is to a microphone a metre away; a rank, not a measurement.
enum class NoiseRank { Silent = 1, Quiet = 2, Audible = 3, Loud = 4 };

enum class NoiseReason { Nothing, StepFrequency, CoarseSteps, Commutation, GearWhine, Switching };

struct Noise {
    NoiseRank rank = NoiseRank::Silent;
    NoiseReason reason = NoiseReason::Nothing;
    double frequency = 0.0; ///< [Hz] where it sounds
};

/// The louder of two.
Noise louder(const Noise& a, const Noise& b);

/// Full steps of a stepper shake its frame. Finer than 1/8 they are soft, coarser hard; heard from about 100
/// Hz to 5 kHz.
Noise stepperNoise(double fullStepRate, int microsteps);

/// Teeth meeting at `frequency` [Hz]. `soft`: belts, plastic, wood.
Noise meshNoise(double frequency, bool soft);

/// Brushes at `rotorSpeed` [rad/s]: three commutator bars, as small motors have.
Noise brushNoise(double rotorSpeed);

/// Brushless servo: hum of its switching, and of its rotor at speed.
Noise servoNoise(double rotorSpeed);

/// Hobby servo: straight-cut gears behind a fast small motor, and holding corrections at the update rate.
Noise hobbyServoNoise(double updateRate);

} // namespace gantry::motor
