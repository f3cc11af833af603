// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/drive/drive_model.h"
#include "core/evaluate/rig_setup.h"

namespace gantry {

/// The drive of one axis of a rig.
DriveModel makeDriveModel(const RigSetup& rig, std::size_t axis);

} // namespace gantry
