// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/fix.h"

#include <string>
#include <vector>

namespace gantry {

/// What a fix does to other verdicts, as it is said: once for all axes of which the same is to be said.
struct SaidEffect {
    std::string title; ///< "Resonance in the move", or of several "Resonance in the move of 3 axes"
    State before = State::Fine, after = State::Fine;
};
std::vector<SaidEffect> saidEffects(const Fix& fix);

} // namespace gantry
