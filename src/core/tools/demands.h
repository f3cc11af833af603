// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

namespace gantry {

/// The most that any shot asks of an axis in one respect, and which shot it is.
struct Demand {
    Figure value = Figure::none(Reason::NoShot);
    ShotIndex shot;
};

/// What the brief asks of one axis. U is m or rad.
struct AxisDemands {
    Demand fastest;  ///< [U/s] top speed
    Demand slowest;  ///< [U/s] least top speed
    Demand steepest; ///< [U/s²] acceleration
    Demand finest;   ///< [U] least movement from one picture to the next, at cruise
};
AxisDemands demandsOf(const Project& project, const AxisEvaluation& evaluation);

} // namespace gantry
