// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message handText{
    "Pushed by hand at {0}, the motor feeds {1} back into the driver, which is rated for "
    "{2}. Unplug the motor before moving it by hand, or push it no faster than {3}."};
constexpr Message handAnyText{
    "Pushed by hand at {0}, the motor feeds {1} back into the driver, which is rated for {2}."};

/// Voltage that the driver stands over what a motor gives back when somebody pushes the axis.
static Finding judgeHandDriven(const AxisView& view) {
    const Figure& volts = view.evaluation.handVoltage;
    if (!volts || volts.value() <= 0.0) return std::nullopt;
    const Figure ratio = lesser(view.axis.driver.maxVoltage / volts, plenty);
    const bool asks = view.evaluation.handSpeedLimit && less(ratio, criteria::handDriven.value);
    return found(nullptr, ratio, asks ? handText : handAnyText,
                 {{{Kind::Speed, view.project.conditions.handSpeed},
                   {Kind::Voltage, volts},
                   {Kind::Voltage, view.axis.driver.maxVoltage},
                   {Kind::Speed, view.evaluation.handSpeedLimit}}});
}

constinit const Rule handDriven =
    advising({"Unplug the motor before it is moved by hand, or fit a clamp for the supply voltage."},
             judging(criteria::handDriven, {"Pushed by hand"}, judgeHandDriven,
                     words::listOf<handText, handAnyText>, tries<&fixes::handSpeed, &fixes::driverExchange>));

} // namespace gantry::rules
