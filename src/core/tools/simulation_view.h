// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/simulation/axis_simulation.h"

namespace gantry {

/// A shot of an axis as the time simulation takes it: drive lumped at its output with the efficiency of all
/// stages, the play and spring of all of them in series, gravity at its worst place and against the movement.
/// Drives stiffer than 400 Hz against rotor and load count as 400 Hz, which no picture tells from rigid. The
/// rotor swings with a tenth of critical damping (a guess; docs/models/simulation.md). Of long moves the
/// steady middle is shortened to what `longestSimulated` and `mostPulses` leave, and `leftOut` says by how
/// much. Nothing where data is missing or the ramps alone are longer; `simulationProblem` says why.
inline constexpr double longestSimulated = 60.0; ///< [s]
inline constexpr double mostPulses = 4e6;
std::optional<simulation::AxisSimulation> simulationOf(const Axis& axis, const AxisEvaluation& evaluation,
                                                       const ShotEvaluation& shot);

/// Why a shot cannot be simulated.
Reason simulationProblem(const AxisEvaluation& evaluation, const ShotEvaluation& shot);

/// What a shot may be off its target at the end [px].
inline double framingAllowed(const Camera& camera, const Shot& shot) {
    return shot.limits.framing * camera.deliveredWidth;
}

/// How far behind its command a run was at most: in place, and in time where the command was moving.
struct Lag {
    double place = 0.0;         ///< [U]
    std::optional<double> time; ///< [s]
    bool inSteps = false;       ///< of a motor that takes steps, which keeps them or not and is never late
};
Lag lagOf(const simulation::AxisSimulation& input, const simulation::SimulationResult& result);

/// Why an axis fell out of step: what was asked where it happened.
enum class StallCause { None, Torque, Resonance, Fault };
StallCause stallCause(const AxisEvaluation& evaluation, const simulation::AxisSimulation& input,
                      const simulation::SimulationResult& result);

} // namespace gantry
