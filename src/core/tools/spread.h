// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluate.h"
#include "core/tools/capability.h"
#include "core/tools/chain_table.h"

namespace gantry {

/// How far results may lie off for what is not known exactly. In every one of them each Figure is a
/// half-range in the unit of the result it belongs to, by first-order propagation: every uncertain input of
/// the axis and of the supply is moved by its tolerance, the changes add as squares. A result without a
/// number has no range, for the same reason; so has one that is lost when an input moves.

/// Half-ranges of everything that evaluateAxis tells of an axis, in its own shape. With Searches::No the
/// results of searches have none (NotApplicable).
AxisEvaluation axisSpread(const Project& project, std::size_t axis, const AxisEvaluation& nominal,
                          Searches searches);

/// Half-ranges of the drive-train table of a shot, an index into AxisEvaluation::shots.
std::vector<ChainColumn> columnSpread(const Project& project, std::size_t axis, const AxisEvaluation& nominal,
                                      std::size_t shot);

} // namespace gantry
