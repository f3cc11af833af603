// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding driverRating(const AxisView& view) {
    const Driver& driver = view.axis.driver;
    const double supply = view.project.supply.voltage.value;
    const double highest = std::max(driver.runCurrent, driver.holdCurrent);
    const double byCurrent = driver.maxCurrent / highest, byVoltage = driver.maxVoltage / supply;
    if (byCurrent <= byVoltage)
        return found(nullptr, byCurrent, Reason::None, M::RatingCurrentText,
                     {{{Kind::Current, highest}, {Kind::Current, driver.maxCurrent}}});
    return found(nullptr, byVoltage, Reason::None, M::RatingVoltageText,
                 {{{Kind::Voltage, supply}, {Kind::Voltage, driver.maxVoltage}}});
}

} // namespace gantry::rules
