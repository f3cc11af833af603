// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {
namespace {

constexpr Message title{"Driver ratings"};
constexpr Message ratingStallText{
    "Stalled, the motor draws {0}, reversed at speed {2} for a moment; the driver is rated {1}."};
constexpr Message ratingCurrentText{"Set to {0} rms; the driver is rated {1} rms."};
constexpr Message ratingVoltageText{"The supply gives {0}; the driver is rated {1}."};
constexpr std::array sentences{ratingStallText, ratingCurrentText, ratingVoltageText};

Finding judge(const AxisView& view) {
    if (std::holds_alternative<HobbyServo>(view.axis.motor)) return std::nullopt; // it is its own driver
    if (std::holds_alternative<GearedDc>(view.axis.motor)) {
        const double stall = view.evaluation.checks.stallCurrent.value();
        return found(nullptr, view.axis.driver.maxCurrent / stall,
                     view.evaluation.checks.stallCurrent.reason(), ratingStallText,
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
        return found(nullptr, byCurrent, Reason::None, ratingCurrentText,
                     {{{Kind::Current, highest}, {Kind::Current, driver.maxCurrent}}});
    return found(nullptr, byVoltage, Reason::None, ratingVoltageText,
                 {{{Kind::Voltage, supply}, {Kind::Voltage, driver.maxVoltage}}});
}

} // namespace

constinit const Rule driverRating{
    .wants = criteria::driverRating, .title = title, .sentences = sentences, .judge = judge};

} // namespace gantry::rules
