// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/matters.h"

#include <optional>
#include <string>

namespace gantry {

/// How well the inputs of an axis are known.
struct Knowledge {
    int inputs = 0;  ///< those that carry a source and are not nothing
    int guessed = 0; ///< of these, guessed or assumed
};
Knowledge knowledgeOf(const Project& project, int axis);
std::string sentence(const Knowledge& knowledge);

/// What decides about some matters, and what to do about it first.
struct NextStep {
    std::optional<Verdict> verdict; ///< the worst that is not set aside; a copy, which outlives the matters
    /// Path of the input to measure first, of what is at risk: the one that decides most of these matters.
    std::string measure;
    int decided = 0; ///< matters at risk that hang on it
};

/// @param own worst first
NextStep nextStep(const Project& project, std::span<const Matter> own);

/// The guess that counts most where nothing is to be mended: what decides most of the verdict of an axis that
/// is nearest to its target, if nobody has measured it yet. Empty: there is none.
std::string guessThatCounts(const Project& project, std::span<const Verdict> verdicts, int axis);
/// "measure the running friction, the guess that counts most"
std::string measureGuessSentence(const Project& project, const std::string& path, int axis);

/// "decided by Power-off holding: over ×0.36"; empty where nothing is judged.
std::string decidesSentence(const NextStep& step, units::System system);
/// "choose a fix for it", "measure the running friction: it decides 2 verdicts"; empty where nothing is to be
/// done.
std::string toDoSentence(const NextStep& step, const Project& project);

std::span<const words::Message> nextStepTexts();

} // namespace gantry
