// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/words/messages.h"

#include <span>
#include <vector>

namespace gantry {

enum class Completeness { There, Missing, NotNeeded };

/// One thing that a rig may need, and whether this one has it. The need is found from the project: travels
/// that can run into something, weights that can fall, turns that wind up cables.
struct CompletenessLine {
    words::Message what; ///< its name
    words::Message why;  ///< why it is needed, or why not
    Completeness state = Completeness::NotNeeded;
};

std::vector<CompletenessLine> completeness(const Project& project, const Evaluation& evaluation);

/// Everything that such lines can say.
std::span<const words::Message> completenessTexts();

} // namespace gantry
