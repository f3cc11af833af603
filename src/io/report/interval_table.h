// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "io/report/results_json.h"

#include <string>

namespace gantry::io {

/// What evaluate says of one plan.
Json planResultsJson(const Project& project, const IntervalPlan& plan, const IntervalResults& results);

/// The same as a document of its own, with its pictures where it runs.
std::string intervalJson(const Project& project, std::size_t plan, const Evaluation& evaluation);

/// The list of its pictures: number, time of day, seconds from the first shutter, exposure, places of all
/// axes (mm or °) and steps from the first picture, and what is to be deleted. RFC 4180. Only the header of a
/// plan that cannot run.
std::string intervalCsv(const Project& project, std::size_t plan, const Evaluation& evaluation);

/// What is wrong with a plan, a sentence each.
std::vector<std::string> planTroubles(const Project& project, std::size_t plan,
                                      const IntervalResults& results);

} // namespace gantry::io
