// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/verdict.h"

#include <functional>

namespace gantry {

/// Lowers each verdict to the low end of its range, which then decides its state, as guessed inputs deserve.
///
/// First-order propagation: every uncertain input of the axis and of the supply is moved by its tolerance,
/// one side only, and the changes of a ratio add as squares. Searches are not repeated. Verdicts without a
/// number stay. The verdicts stand in the order in which `judge` gives them.
/// @param each gets every axis as it is with one of its inputs moved; may be empty
using EachMoved = std::function<void(std::size_t axis, AxisEvaluation&& moved)>;
void applyRanges(const Project& project, const Evaluation& evaluation, std::vector<Verdict>& verdicts,
                 const EachMoved& each = {});

/// evaluate, judge and applyRanges in one.
struct Assessment {
    Evaluation evaluation;
    std::vector<Verdict> verdicts;
};
Assessment assess(const Project& project, const EachMoved& each = {});

} // namespace gantry
