// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/kinematics/views.h"
#include "core/model/project.h"

#include <span>
#include <string>

namespace gantry {

/// What stored views tell of the place that all of them have in the middle of the picture.
struct TargetFromViews {
    std::string why; ///< in words, where they tell none; then the rest is nothing
    geometry::Place at;
    double deviation = 0.0; ///< [m] standard deviation in the direction that is known least
    double range = 0.0;     ///< [m] from the nearest view
};

/// How well views are known is taken from the rig: their directions within three pixels of the first shot's
/// picture, a sixth of the backlash of pan and tilt besides, and their places within 2 mm and a sixth of the
/// backlash of what carries the head. The least squares are those of kinematics::pointFrom().
TargetFromViews targetFromViews(const Project& project, const Evaluation& evaluation,
                                std::span<const kinematics::View> views);

} // namespace gantry
