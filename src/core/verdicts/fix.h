// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/parts/part.h"
#include "core/verdicts/ranges.h"

#include <stop_token>

namespace gantry {

enum class FixCost { Measure, SettingOnly, PartOnHand, ToBuy };
std::string_view
costWords(FixCost cost); ///< "if it proves as entered", "setting only", "part on hand", "to buy"

/// Another verdict that a fix changes for the worse.
struct SideEffect {
    Verdict before, after;
};

/// A change that was really tried: the project after it and what every verdict says then.
struct Fix {
    FixCost cost = FixCost::SettingOnly;
    words::Message label;
    words::Arguments arguments{};
    ShotIndex shot;   ///< that the label names
    Project result;   ///< the whole rig with the fix applied
    Assessment after; ///< of the result, in full
    State stateAfter = State::Fine;
    double ratioAfter = 0.0;             ///< of the verdict that was to be mended; 0 if it no longer arises
    std::vector<SideEffect> sideEffects; ///< worst first
    std::string axis;                    ///< id of the axis that it mends
    std::vector<std::string> measures;   ///< paths of what is to be measured; the result has it as entered
};

/// Text of a fix: "pulley with 16 teeth".
std::string describe(const Fix& fix, const Project& project, units::System system);
std::span<const words::Message> measuringTexts(); ///< labels that no family has, for the catalogue

/// Tries the declared changes for a verdict by recomputing the whole rig and returns those that bring it to a
/// better state, best first, at most `most`. For what is at risk, measuring what decides comes before all. A
/// change that touches a locked field, puts another verdict over, or worsens a hazard is not offered; one
/// that worsens another verdict otherwise lists it. Returns early, with what it has, when a stop is
/// requested. Wheels, brakes and supplies are taken from the stock.
std::vector<Fix> findFixes(const Project& project, const Assessment& now, const Verdict& verdict,
                           const std::stop_token& stop, std::size_t most = 5,
                           const parts::Sources& stock = {});

} // namespace gantry
