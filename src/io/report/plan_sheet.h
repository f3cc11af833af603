// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/units/kind.h"

#include <string>

namespace gantry::io {

/// What a plan is run by on paper, in Markdown (CommonMark): its facts, one interval, where the axes begin
/// and end, what was found wrong, and what to tick before and after. Without anything that a screen would
/// have to explain.
std::string planSheet(const Project& project, std::size_t plan, const Evaluation& evaluation,
                      units::System system);

/// How to go on from a picture (from 0) after an interruption: where the axes have to stand and from which
/// side to come, and what is lost in the clip. Plain sentences, one a line.
std::string goingOn(const Project& project, std::size_t plan, const Evaluation& evaluation,
                    std::int64_t picture, units::System system);

} // namespace gantry::io
