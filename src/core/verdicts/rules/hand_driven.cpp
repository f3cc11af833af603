// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// Voltage that the driver stands over what a motor gives back when somebody pushes the axis.
Finding handDriven(const AxisView& view) {
    const Figure& volts = view.evaluation.handVoltage;
    if (!volts || volts.value() <= 0.0) return std::nullopt;
    return found(nullptr, std::min(view.axis.driver.maxVoltage / volts.value(), 1e6), Reason::None,
                 M::HandText,
                 {{{Kind::Speed, view.project.conditions.handSpeed},
                   {Kind::Voltage, volts.value()},
                   {Kind::Voltage, view.axis.driver.maxVoltage}}});
}

} // namespace gantry::rules
