// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/rig_setup.h"
#include "core/results/shot_results.h"

namespace gantry {

/// Distance [m] from the subject at which a movement along the lens ends; the subject distance of the shot is
/// that at its beginning. Nothing if it would run into the subject or nearer than the lens focuses (1.05 f).
std::optional<double> endDistance(const Shot& shot, const Movement& movement);

/// What a slide that goes along the lens asks of the focus, and what the rig's focus axis gives it in that
/// shot. All without meaning for a shot past the subject. docs/models/picture.md.
FocusPull focusPull(const RigSetup& rig, const Shot& shot, const Movement& movement);

} // namespace gantry
