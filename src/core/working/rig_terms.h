// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/working/sheet.h"

namespace gantry::working {

/// Stabilising over overturning moment about the edge over which the rig goes first, planned stop, each body
/// and each push that counts by itself. Nothing where it stands on no feet.
std::optional<Term> tippingRatio(Sheet& sheet, const Evaluation& evaluation);

} // namespace gantry::working
