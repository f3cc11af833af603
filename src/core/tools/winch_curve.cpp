// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/winch_curve.h"

#include <cmath>
#include <numbers>

namespace gantry {

std::vector<WinchPoint> winchCurve(const Axis& axis, const AxisEvaluation& e, double motorSpeed) {
    const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism);
    const auto* winch = linear != nullptr ? std::get_if<WinchOutput>(&linear->output) : nullptr;
    std::vector<WinchPoint> out;
    if (winch == nullptr || !(e.model.travel > 0.0) || !std::isfinite(motorSpeed)) return out;
    const double turn = 2.0 * std::numbers::pi * e.model.shaftRatio; // of the drum, in radians of the motor
    constexpr int mostLayers = 1000; // a cord as thin as a hair would only blacken the plot
    double wound = 0.0;
    for (const drivetrain::CordLayer& layer : e.model.layers) {
        const double cord = 2.0 * std::numbers::pi * layer.radius;
        WinchPoint p;
        p.layer = static_cast<int>(out.size() / 2) + 1;
        if (p.layer > mostLayers) break;
        p.speed = motorSpeed / turn * cord;
        p.stepsPerUnit = e.model.pulses && e.model.commandAngle > 0.0
                             ? turn / e.model.commandAngle / (1000.0 * cord)
                             : 0.0;
        p.wound = wound;
        out.push_back(p);
        p.wound = wound = layer.place;
        out.push_back(p);
    }
    return out;
}

} // namespace gantry
