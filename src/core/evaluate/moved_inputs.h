// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/fields.h"
#include "core/model/project.h"

#include <algorithm>

namespace gantry {

/// Calls f() once for each uncertain input of an axis, of the supply and of the pads under it, with that
/// input moved by its tolerance inside `project` and put back afterwards. One side only: more of it, or less
/// of a share between one half and one, whose field ends there. Inputs without tolerance, and zeros, are left
/// out.
namespace detail {
/// Moves one input by its tolerance, calls f() and puts it back; see forEachMovedInput.
template <class F>
void withMoved(Estimate& input, F f) {
    if (input.tolerance <= 0.0 || input.value == 0.0) return;
    const double before = input.value;
    const bool share = before > 0.5 && before <= 1.0;
    input.value = before * (share ? 1.0 - std::min(input.tolerance, 0.9) : 1.0 + input.tolerance);
    f();
    input.value = before;
}
} // namespace detail

template <class F>
void forEachMovedInput(Project& project, std::size_t axis, F f) {
    for (Estimate* input : estimatesOf(project.axes[axis])) detail::withMoved(*input, f);
    if (project.axes[axis].carriesPayload)
        for (MassItem& item : project.payload) detail::withMoved(item.mass, f);
    detail::withMoved(project.supply.voltage, f);
    detail::withMoved(project.supply.sourceResistance, f);
    if (project.base.padStiffness.value > 0.0)
        for (Estimate* pads : {&project.base.padStiffness, &project.base.padDamping})
            detail::withMoved(*pads, f);
}

/// The same for what the whole rig weighs and is pushed with: masses, the base and the payload.
template <class F>
void forEachMovedRigInput(Project& project, F f) {
    for (Axis& axis : project.axes) {
        if (auto* linear = std::get_if<LinearMechanism>(&axis.mechanism)) {
            detail::withMoved(linear->movingMass, f);
            detail::withMoved(linear->slope, f);
            for (MassItem& item : linear->items) detail::withMoved(item.mass, f);
        } else {
            auto& r = std::get<RotaryMechanism>(axis.mechanism);
            detail::withMoved(r.boom.counterweight.mass, f);
            for (MassItem& item : r.items) detail::withMoved(item.mass, f);
        }
    }
    for (MassItem& item : project.payload) detail::withMoved(item.mass, f);
    Base& base = project.base;
    for (Estimate* input :
         {&base.mass, &base.groundSlope, &base.ballast, &base.sidePush, &base.anchorStrength})
        detail::withMoved(*input, f);
}

} // namespace gantry
