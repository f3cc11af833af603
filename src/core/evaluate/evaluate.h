// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/evaluate/rig_setup.h"
#include "core/solve/crew.h"

#include <cstdint>

namespace gantry {

/// Whether limits that need a search are computed too.
enum class Searches { Yes, No };

/// Every nominal number of a project. Pure; throws nothing; every Figure is finite or says why not, for any
/// project whose fields lie within their accepted ranges.
///
/// @param poses whether a search over all poses is made where none is known; if not, only what is found at
/// once
/// @param known of an earlier evaluation; may be empty
Evaluation evaluate(const Project& project, Poses poses = Poses::Search, const Known& known = {},
                    const Crew& crew = {});

/// The same for one axis of a rig that is set up, its courses planned.
/// @param known of the same axis with moves planned alike: figures along them that come from the same numbers
/// are taken over; may be null
AxisEvaluation evaluateAxis(const RigSetup& rig, std::size_t axis, Searches searches = Searches::Yes,
                            const AxisEvaluation* known = nullptr);

/// The same for one axis of a project, or for another axis in the place of the one with its id.
AxisEvaluation evaluateAxis(const Project& project, const Axis& axis, Searches searches = Searches::Yes);

/// How often this thread has evaluated an axis so far: for tests that count work.
std::uint64_t axisEvaluations();

} // namespace gantry
