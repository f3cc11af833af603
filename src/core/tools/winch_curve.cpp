// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/winch_curve.h"

#include "core/drivetrain/winch.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {

std::vector<WinchPoint> winchCurve(const Axis& axis, const AxisEvaluation& e, double motorSpeed) {
    const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism);
    const auto* winch = linear != nullptr ? std::get_if<WinchOutput>(&linear->output) : nullptr;
    std::vector<WinchPoint> out;
    if (winch == nullptr || !(e.model.travel > 0.0) || !std::isfinite(motorSpeed)) return out;
    const drivetrain::Drum drum{winch->drumDiameter.value, winch->cordDiameter.value, winch->drumWidth, 1.0};
    const drivetrain::Winding whole = drivetrain::windingOf(drum, e.model.travel);
    const double turn = 2.0 * std::numbers::pi * e.model.shaftRatio; // of the drum, in radians of the motor
    constexpr int mostLayers = 1000; // a cord as thin as a hair would only blacken the plot
    double wound = 0.0;
    for (int layer = 1; layer <= std::min(whole.layers, mostLayers) && wound < e.model.travel; ++layer) {
        const double radius = whole.firstRadius + (layer - 1) * drum.cordDiameter * drum.nesting;
        const double cord = std::hypot(2.0 * std::numbers::pi * radius, drum.cordDiameter);
        WinchPoint p;
        p.layer = layer;
        p.speed = motorSpeed / turn * cord;
        p.stepsPerUnit = e.model.pulses && e.model.commandAngle > 0.0
                             ? turn / e.model.commandAngle / (1000.0 * cord)
                             : 0.0;
        p.wound = wound;
        out.push_back(p);
        wound = std::min(e.model.travel, wound + cord * whole.turnsPerLayer);
        p.wound = wound;
        out.push_back(p);
    }
    return out;
}

} // namespace gantry
