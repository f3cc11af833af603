// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motor/curve.h"

#include <cmath>

namespace gantry::motor {
namespace {

template <class... F>
struct Overloaded : F... {
    using F::operator()...;
};
template <class... F>
Overloaded(F...) -> Overloaded<F...>;

} // namespace

double peakTorque(const Curve& curve, double speed) {
    return std::visit(Overloaded{[&](const StepperParams& p) { return pullOutTorque(p, speed); },
                                 [&](const ServoParams& p) { return peakTorque(p, speed); },
                                 [&](const DcParams& p) { return peakTorque(p, speed); }},
                      curve);
}

double continuousTorque(const Curve& curve, double speed) {
    return std::visit(Overloaded{[&](const StepperParams& p) { return pullOutTorque(p, speed); },
                                 [&](const ServoParams& p) { return continuousTorque(p, speed); },
                                 [&](const DcParams& p) { return continuousTorque(p, speed); }},
                      curve);
}

double torqueAtBest(const Curve& curve, double speed) {
    if (const auto* p = std::get_if<StepperParams>(&curve)) return pullOutTorqueAtBest(*p, speed);
    return peakTorque(curve, speed);
}

Curve atVoltage(Curve curve, double voltage) {
    std::visit(Overloaded{[&](StepperParams& p) { p.supplyVoltage = voltage; },
                          [&](ServoParams& p) { p.voltage = voltage; },
                          [&](DcParams& p) { p.voltage = voltage; }},
               curve);
    return curve;
}

double RmsTorque::value() const {
    return time_ > 0.0 ? std::sqrt(squares_ / time_) : 0.0;
}

double stepperHeat(double peakCurrent, double resistance) {
    return peakCurrent * peakCurrent * resistance;
}

} // namespace gantry::motor
