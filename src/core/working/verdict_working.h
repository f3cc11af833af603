// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/verdict.h"
#include "core/working/working.h"

namespace gantry::working {

/// Whether a verdict's ratio may be explained; cheap, so that it may still turn out that it cannot.
bool hasWorking(const Verdict& verdict);

/// The figure that a verdict judges, where its working is shown: of "jitter" the jitter of its shot. Nothing
/// where it has none.
std::optional<PlacedFigure> judgedFigure(const Project& project, const Evaluation& evaluation,
                                         const Verdict& verdict);

/// The working of a verdict's ratio, there over needed, up to what is allowed over the figure that it judges.
/// Nothing where the ratio is another than that.
std::optional<Working> workingOf(const Project& project, const Evaluation& evaluation,
                                 const Verdict& verdict);

} // namespace gantry::working
