// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

namespace gantry {

/// Whether limits that need a search are computed too.
enum class Searches { Yes, No };

/// Every nominal number of a project. Pure; throws nothing; every Figure is finite or says why not, for any
/// project whose fields lie within their accepted ranges.
Evaluation evaluate(const Project& project);

/// The same for one axis.
AxisEvaluation evaluateAxis(const Project& project, const Axis& axis, Searches searches = Searches::Yes);

/// The movement of a shot as a profile under the axis' settings.
struct PlannedShot {
    motion::Profile profile;
    Reason problem = Reason::None;
    bool jerkExceeded = false;
};
PlannedShot planShot(const Movement& movement, const motion::Limits& settings);

/// Pixels of the delivered picture per unit of axis travel [px/m] or [px/rad], by the axis' role: sideways
/// motion against the subject, pan and tilt at the picture's centre, roll at its corner, a boom by turning
/// and moving the camera, a turntable by its radius, a focus ring by the blur it makes, a zoom ring by how
/// far the picture's edge moves. The reason where there is none. docs/models/picture.md.
Figure pixelsPerUnit(const Project& project, const Shot& shot, const Axis& axis);

} // namespace gantry
