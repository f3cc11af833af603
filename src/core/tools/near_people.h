// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

namespace gantry {

/// Whether an axis moves enough about the place for people to be hit by it.
bool movesNearPeople(const Axis& axis);

/// Metres that its farthest point moves for one unit [m/U]; a boom that tells no place is taken for a metre
/// long, so that its cap still caps.
double farthestReach(const Axis& axis, const AxisEvaluation& evaluation);

/// Speeds [U/s] at which an axis comes to what Brief allows near people; none where it allows any or nobody
/// is near.
struct PeopleCaps {
    Figure bySpeed = Figure::none(Reason::NotApplicable);
    Figure byEnergy = Figure::none(Reason::NotApplicable);
};
PeopleCaps capsNearPeople(const Project& project, const Axis& axis, const AxisEvaluation& evaluation);

} // namespace gantry
