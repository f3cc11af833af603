// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluate.h"
#include "core/tools/capability.h"
#include "core/tools/chain_table.h"

#include <span>

namespace gantry {

/// How far results may lie off for what is not known exactly. In every one of them each Figure is a
/// half-range in the unit of the result it belongs to, by first-order propagation: every uncertain input of
/// the axis and of the supply is moved by its tolerance, the changes add as squares. A result without a
/// number has no range, for the same reason; so has one that is lost when an input moves.

/// Half-ranges of everything that evaluateAxis tells of an axis, in its own shape. With Searches::No the
/// results of searches have none (NotApplicable).
AxisEvaluation axisSpread(const Project& project, std::size_t axis, const AxisEvaluation& nominal,
                          Searches searches);

/// An axis with each of its inputs moved in turn, as assess() shows it to who asks. Results of searches have
/// none.
std::vector<AxisEvaluation> movedEvaluations(const Project& project, std::size_t axis);

/// Half-ranges of the drive-train table of a shot, an index into AxisEvaluation::shots.
/// @param moved the axis with each of its inputs moved in turn
std::vector<ChainColumn> columnSpread(const Axis& axis, const AxisEvaluation& nominal,
                                      std::span<const AxisEvaluation> moved, std::size_t shot);

} // namespace gantry
