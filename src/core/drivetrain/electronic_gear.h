// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/drivetrain/ratio.h"

#include <optional>

namespace gantry::drivetrain {

struct GearSetting {
    std::int64_t numerator = 1;
    std::int64_t denominator = 1;
    bool exact = true;
};

/// Electronic gear (counts per pulse) that makes `stepsPerUnit` pulses move one unit: counts per unit over
/// steps per unit. Exact if both terms fit below `largestTerm`, else the nearest fraction that does (by
/// continued fractions) with exact false. nullopt if nothing fits.
/// @param countsPerTurn of the encoder; @param turnsPerUnit motor turns for one unit of travel, exactly
std::optional<GearSetting> solveElectronicGear(std::int64_t countsPerTurn, const Ratio& turnsPerUnit,
                                               const Ratio& stepsPerUnit, std::int64_t largestTerm);

/// The fraction with terms up to `largestTerm` that is nearest to a positive value; nullopt if that would be
/// zero.
std::optional<Ratio> nearestFraction(double value, std::int64_t largestTerm);

} // namespace gantry::drivetrain
