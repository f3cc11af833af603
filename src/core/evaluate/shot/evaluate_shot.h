// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/evaluate/rig_setup.h"

namespace gantry {

/// Fills one shot of an axis whose own figures (steps per unit, rounding, structure) are there already.
/// Without searches the largest acceleration is left out.
ShotEvaluation evaluateShot(const RigSetup& rig, std::size_t axis, const AxisEvaluation& evaluation,
                            const Course& course, bool searches);

/// Pixels of the delivered picture per unit of axis travel [px/m] or [px/rad], by the axis' role: sideways
/// motion against the subject, pan and tilt at the picture's centre, roll at its corner, a boom by turning
/// and moving the camera, a turntable by its radius, a focus ring by the blur it makes, a zoom ring by how
/// far the picture's edge moves. `reach` [m] is that of AxisMasses. The reason where there is none.
/// docs/models/picture.md.
Figure pixelsPerUnit(const Camera& camera, const Shot& shot, const Axis& axis, double reach);

} // namespace gantry
