// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/solve/crew.h"
#include "core/verdicts/low_end.h"
#include "core/verdicts/verdict.h"

#include <functional>
#include <memory>

namespace gantry {

/// Gives each verdict the low end of its range, and what is at risk there its deciding inputs; what can fall,
/// tip or break also its worst case.
///
/// Every uncertain input of the axis, of the supply and of the payload is moved to the ends of its range, and
/// the falls of a ratio add as squares (low_end.h). One input is one coordinate: what hangs on it twice is
/// computed with both. Searches are not repeated. Verdicts without a number stay. The verdicts stand in the
/// order in which `judge` gives them.
/// @param each gets every axis as it is with one of its inputs at the farther end of its range; may be empty.
/// From a crew different axes may come at once, and one axis from one thread alone.
using EachMoved = std::function<void(std::size_t axis, AxisEvaluation&& moved)>;
void applyRanges(const Project& project, const Evaluation& evaluation, std::vector<Verdict>& verdicts,
                 const EachMoved& each = {}, const Crew& crew = {});

/// What the low ends of an assessment were found from, for one that follows.
struct Ranged {
    Project of;                           ///< but for its moves
    bool shotsByMoves = false;            ///< a move says how a shot is taken
    std::vector<std::vector<Fall>> falls; ///< of each verdict
};

/// evaluate, judge and applyRanges in one.
struct Assessment {
    Evaluation evaluation;
    std::vector<Verdict> verdicts;
    std::shared_ptr<const Ranged> ranged; ///< null where no assessment was given to start from
};
///
/// @param poses, known as for evaluate()
/// @param before an earlier assessment, perhaps an empty one: where nothing but moves has changed since, only
/// what is about moves is looked for again. Inputs of an axis that nothing is looked for of are not moved,
/// and `each` does not get it.
Assessment assess(const Project& project, const EachMoved& each = {}, Poses poses = Poses::Search,
                  const Known& known = {}, const Crew& crew = {}, const Assessment* before = nullptr);

} // namespace gantry
