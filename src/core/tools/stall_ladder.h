// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

#include <optional>
#include <span>
#include <vector>

namespace gantry {

/// One test of a stall ladder.
struct Rung {
    double speed = 0.0;        ///< [U/s]
    double acceleration = 0.0; ///< [U/s²]
    double distance = 0.0;     ///< [U] that its ramps and a short cruise take
    double margin = 0.0;       ///< [1] that the model foresees

    friend bool operator==(const Rung&, const Rung&) = default;
};

/// Rungs from easy to hopeless: first harder ramps to the speed that the shots use, then faster with gentle
/// ramps, each step taking about a fifth of the margin. Only what fits into the usable travel. Empty where
/// the motor's data is incomplete or nothing can move.
std::vector<Rung> stallLadder(const AxisEvaluation& evaluation);

enum class Outcome { NotRun, Passed, LostSteps };

/// What the outcomes say of the torque that there really is, over what the model takes it for.
struct TorqueFactor {
    bool contradictory = false;   ///< something harder passed than what failed
    double low = 0.0, high = 0.0; ///< [1]; high is infinite while nothing failed
    bool known() const { return !contradictory && low > 0.0; }
};

/// A pass at a foreseen margin m says that the factor is at least 1/m, a loss that it is less.
TorqueFactor torqueFactor(std::span<const Rung> ladder, std::span<const Outcome> outcomes);

/// Brings the axis' motor to the factor: holding, peak or stall torque scaled to the middle of the bounds,
/// measured, with a tolerance that spans them; without a failure the lower bound is taken, which is on the
/// safe side. Returns false where nothing is known.
bool applyTorqueFactor(Axis& axis, const TorqueFactor& factor);

} // namespace gantry
