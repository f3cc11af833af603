// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/verdict.h"

#include <span>

namespace gantry {

/// What some rules alone say, by their places in rules::all(), in that order: as in judgeAxis and judgeRig,
/// whose other verdicts nobody asks for.
void judgeAxisBy(std::span<const int> rules, const Project& project, int axisIndex,
                 const AxisEvaluation& evaluation, std::vector<Verdict>& out);
void judgeRigBy(std::span<const int> rules, const Project& project, const Evaluation& evaluation,
                std::vector<Verdict>& out);

} // namespace gantry
