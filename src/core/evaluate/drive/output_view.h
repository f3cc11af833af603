// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/drive/drive_model.h"
#include "core/evaluate/rig_setup.h"

namespace gantry {

/// Springs and plays in series, all brought to the output.
struct Series {
    double compliance = 0.0; ///< [U/N] or [rad/(N·m)]
    double backlash = 0.0;   ///< [U]

    void addSpring(double stiffness) {
        if (stiffness > 0.0) compliance += 1.0 / stiffness;
    }
};

/// Adds what lies behind the last shaft, with the load; returns the travel of one turn of that shaft (or of
/// the axis), exactly where it is exact: [mm] or [°]. An output kind is added by one overload in
/// output_view.cpp.
std::optional<drivetrain::Ratio> addOutput(DriveModel& model, Series& series, const Axis& axis,
                                           const AxisMasses& masses, double windSpeed);

drivetrain::Drum drumOf(const WinchOutput& winch);

/// Force [N] at which driven wheels slip under `mass` [kg] on a track of `slope` [rad].
double wheelGrip(const WheelOutput& wheel, double mass, double slope);

} // namespace gantry
