// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluate.h"
#include "core/units/kind.h"

#include <string>
#include <string_view>
#include <vector>

namespace gantry::crosscheck {

/// What somebody said or typed about one axis.
enum class Subject { StepsPerUnit, Current, TopSpeed, Acceleration, OutputTorque, Power, Unknown };
struct Claim {
    Subject subject = Subject::Unknown;
    double value = 0.0; ///< as written, in the unit it is read in: steps per mm or °, A, mm/s or °/s, mm/s²
                        ///< or °/s², N·m, W
    std::string text; ///< the line it came from
};

/// Reads claims from lines like "steps/mm = 80", "current: 1.7 A", "top speed 15000". Lines that say nothing
/// are left out; lines with a number whose subject is not clear come as Unknown.
std::vector<Claim> readClaims(std::string_view text, AxisKind kind);

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
    std::vector<Suspect> suspects; ///< best explanation first
};
StepsFinding explainSteps(const Project& project, const Axis& axis, double entered);

/// A finding about another claim.
struct Finding {
    bool plausible = true;
    std::string sentence; ///< names both numbers
};

/// Judges one claim other than steps per unit against the evaluated axis: peak for rms, per minute for per
/// second, inch or degree mix-ups, torque times ratio without efficiency, torque times speed against power.
Finding judge(const Project& project, const Axis& axis, const AxisEvaluation& evaluation, const Claim& claim);

/// Whether microsteps at the output are finer than play and stiffness leave any use for; empty if all is
/// well.
std::string uselessFineness(const AxisEvaluation& evaluation);

} // namespace gantry::crosscheck
