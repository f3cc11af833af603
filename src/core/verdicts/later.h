// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/ranges.h"

namespace gantry {

/// A verdict that would change its state.
struct LaterChange {
    Verdict before, after;
};

/// What adding something at the camera's end would change now: its mass is put where the payload is (or on
/// every lowest carriage and the end of every arm where no axis carries a payload) and the whole rig is
/// judged again. Worst first.
std::vector<LaterChange> whatChanges(const Project& project, const Assessment& now, const LaterAxis& later);

} // namespace gantry
