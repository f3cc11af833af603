// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

#include <string>
#include <vector>

namespace gantry::crosscheck {

/// A change of one part that would make an entered number right.
struct Suspect {
    std::string what; ///< "16 teeth instead of 20"
    double stepsPerUnit = 0.0;
    double error = 0.0;    ///< [1] left between it and the entered number
    double testMove = 0.0; ///< [mm] or [°] that a commanded 100 really goes if this is true
};

/// An entered steps-per-unit against the parts.
struct StepsFinding {
    Figure computed; ///< per mm or °
    double entered = 0.0;
    double movesForOne = 0.0;      ///< [mm] or [°] that one commanded unit really moves
    std::vector<Suspect> suspects; ///< best explanation first; what could be any number comes last
};

/// @param entered per mm or °
StepsFinding explainSteps(const Axis& axis, const AxisEvaluation& evaluation, double entered);

/// The suspect that explains it best, as words: "a pulley with 16 teeth instead of 20"; empty if none does.
std::string bestSuspect(const Axis& axis, const AxisEvaluation& evaluation, double entered);

} // namespace gantry::crosscheck
