// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/parts/part.h"
#include "core/verdicts/ranges.h"

#include <stop_token>

namespace gantry {

/// In the order in which they are offered.
enum class FixCost { Measure, SettingOnly, PartOnHand, ToBuy };
std::string_view
costWords(FixCost cost); ///< "if it proves as entered", "setting only", "part on hand", "to buy"
std::string_view costKey(FixCost cost); ///< as it is written for programs: "part_on_hand"

/// Another verdict that a fix changes for the worse.
struct SideEffect {
    Verdict before, after;
};

/// One change that a fix consists of, in words.
struct FixStep {
    words::Message label;
    words::Arguments arguments{};
    ShotIndex shot;   ///< that the label names
    std::string part; ///< … and the part, as it is sold
};

/// Why a fix that does mend comes last.
enum class Drawback {
    None,
    MuchLonger,  ///< a shot takes more than three times as long; with the factor
    LongWait,    ///< a shot waits for more than ten seconds; with the seconds
    HeavyBallast ///< more ballast than 30 kg, or than the rig weighs; with the kilograms
};

/// A change that was really tried: the project after it and what every verdict says then.
struct Fix {
    FixCost cost = FixCost::SettingOnly;
    std::vector<FixStep> steps; ///< one, or two that only together do it
    Project result;             ///< the whole rig with the fix applied
    Assessment after;           ///< of the result, in full
    State stateAfter = State::Fine;
    double ratioAfter = 0.0;             ///< of the verdict that was to be mended; 0 if it no longer arises
    double lowAfter = 0.0;               ///< low end of it
    std::vector<SideEffect> sideEffects; ///< worst first
    std::string axis;                    ///< id of the axis that it mends
    std::vector<std::string> measures;   ///< paths of what is to be measured; the result has it as entered
    Drawback drawback = Drawback::None;
    double drawbackValue = 0.0;
};

/// Text of a fix: "pulley with 16 teeth", with its drawback where it has one.
std::string describe(const Fix& fix, const Project& project, units::System system);
std::span<const words::Message> fixTexts(); ///< texts that no family has, for the catalogue

/// Tries the declared changes for a verdict by recomputing the whole rig and returns those that bring it to a
/// better state, at most `most`: what is at risk measured first; then settings, parts on hand, parts to buy;
/// of equal cost the one that mends more, with fewer side effects; last what has a drawback. Where no single
/// change does it, two of them are tried together.
///
/// Not offered is what touches a locked field, puts another verdict over or at risk, worsens a hazard, holds
/// with more current than it runs with, or changes the same as another. One that worsens another verdict
/// otherwise lists it. Returns early, with what it has, when a stop is requested. Motors, wheels, brakes and
/// supplies are taken from the stock.
std::vector<Fix> findFixes(const Project& project, const Assessment& now, const Verdict& verdict,
                           const std::stop_token& stop, std::size_t most = 5,
                           const parts::Sources& stock = {});

} // namespace gantry
