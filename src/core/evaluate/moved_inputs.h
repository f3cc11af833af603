// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/fields.h"
#include "core/model/project.h"

#include <algorithm>

namespace gantry {

/// Calls f() once for each uncertain input of an axis and of the supply, with that input moved by its
/// tolerance inside `project` and put back afterwards. One side only: more of it, or less of a share between
/// one half and one, whose field ends there. Inputs without tolerance, and zeros, are left out.
template <class F>
void forEachMovedInput(Project& project, std::size_t axis, F f) {
    const auto move = [&](Estimate& input) {
        if (input.tolerance <= 0.0 || input.value == 0.0) return;
        const double before = input.value;
        const bool share = before > 0.5 && before <= 1.0;
        input.value = before * (share ? 1.0 - std::min(input.tolerance, 0.9) : 1.0 + input.tolerance);
        f();
        input.value = before;
    };
    for (Estimate* input : estimatesOf(project.axes[axis])) move(*input);
    move(project.supply.voltage);
    move(project.supply.sourceResistance);
}

} // namespace gantry
