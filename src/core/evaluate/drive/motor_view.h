// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/drive/drive_model.h"

namespace gantry {

/// Fills what a drive model knows of its motor. A motor kind is added by one overload in motor_view.cpp.
void fillMotor(DriveModel& model, const Supply& supply, const Axis& axis, double ambient);

} // namespace gantry
