// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/drivetrain/chain.h"
#include "core/drivetrain/ratio.h"
#include "core/model/link_parts.h"

#include <optional>

namespace gantry {

/// A link as a stage of the chain. A link kind is added by one viewOf overload in stage_view.cpp.
struct StageView {
    drivetrain::Stage stage;
    std::optional<drivetrain::Ratio> ratio; ///< exact, where teeth make it so
    double stiffness = 0.0;                 ///< [N·m/rad] at the stage's output, 0 not given
    double backlash = 0.0;                  ///< [rad] at the stage's output
};

StageView stageView(const Link& link);

/// Torque [N·m] at its wheel at which a friction roller slips.
double rollerGrip(const RollerStage& roller);

} // namespace gantry
