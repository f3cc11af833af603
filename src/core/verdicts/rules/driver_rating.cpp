// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding driverRating(const AxisView& view) {
    if (std::holds_alternative<HobbyServo>(view.axis.motor)) return std::nullopt; // it is its own driver
    if (std::holds_alternative<GearedDc>(view.axis.motor)) {
        const double stall = view.evaluation.checks.stallCurrent.value();
        return found(nullptr, view.axis.driver.maxCurrent / stall,
                     view.evaluation.checks.stallCurrent.reason(), M::RatingStallText,
                     {{{Kind::Current, stall},
                       {Kind::Current, view.axis.driver.maxCurrent},
                       {Kind::Current, view.evaluation.checks.reversalCurrent.value()}}});
    }
    const Driver& driver = view.axis.driver;
    const double supply = view.project.supply.voltage.value;
    const double highest = std::max(driver.runCurrent, driver.holdCurrent);
    const double byCurrent = driver.maxCurrent / highest, byVoltage = driver.maxVoltage / supply;
    // A servo comes with a drive that fits its current.
    if (byCurrent <= byVoltage && !std::holds_alternative<ServoMotor>(view.axis.motor))
        return found(nullptr, byCurrent, Reason::None, M::RatingCurrentText,
                     {{{Kind::Current, highest}, {Kind::Current, driver.maxCurrent}}});
    return found(nullptr, byVoltage, Reason::None, M::RatingVoltageText,
                 {{{Kind::Voltage, supply}, {Kind::Voltage, driver.maxVoltage}}});
}

} // namespace gantry::rules
