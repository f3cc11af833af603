// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/figure.h"
#include "core/model/project.h"
#include "core/motion/profile.h"

#include <optional>

namespace gantry {

/// The movement of a shot as a profile under the axis' settings.
struct PlannedShot {
    motion::Profile profile;
    Reason problem = Reason::None;
    bool jerkExceeded = false;
};
/// The movement at one speed all the way, for a drive that starts and stops at once.
PlannedShot planAtOnce(const Movement& movement);

/// Whether an axis starts and stops without a ramp: by a switch, or because the controller makes none. Drives
/// that hold a place by a loop of their own always need one.
bool startsAtOnce(const Axis& axis, RampKind ramps);

PlannedShot planShot(const Movement& movement, const motion::Limits& settings);

/// What a controller's ramps make of an axis' settings: a jerk that it cannot keep to limits nothing.
motion::Limits keptLimits(const Axis& axis, RampKind ramps);

struct Following {
    Movement movement; ///< largest rate and acceleration, and the whole angle
    double time = 0.0; ///< [s] of the slide that it goes with
};

/// The movement that keeps a shot's subject framed while a slide passes it with this profile, for a pan or
/// tilt that has none of its own; nothing where none is needed.
std::optional<Following> followingMovement(const Shot& shot, Role role, const motion::Profile& slide);

} // namespace gantry
