// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/overload.h"
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message ratingStallText{"Stalled, the motor draws {0}; the driver is rated {1}."};
constexpr Message ratingReversalText{
    "Reversed at speed, the motor draws {0} for a moment; the driver is rated {1}."};
constexpr Message ratingCurrentText{"Set to {0} rms; the driver is rated {1} rms."};
constexpr Message ratingVoltageText{"The supply gives {0}; the driver is rated {1}."};

static Finding judgeDriverRating(const AxisView& view) {
    const Driver& driver = view.axis.driver;
    const auto byStall = [&]() -> Finding {
        const AxisChecks& checks = view.evaluation.checks;
        const auto* geared = std::get_if<GearedDc>(&view.axis.motor);
        const bool reversed = geared != nullptr && geared->stopping == Stopping::Reversed;
        const Figure& most = reversed ? checks.reversalCurrent : checks.stallCurrent;
        return found(nullptr, driver.maxCurrent / most, reversed ? ratingReversalText : ratingStallText,
                     {{{Kind::Current, most}, {Kind::Current, driver.maxCurrent}}});
    };
    const double supply = view.project.supply.voltage.value;
    const double highest = std::max(driver.runCurrent, driver.holdCurrent);
    const double byCurrent = driver.maxCurrent / highest, byVoltage = driver.maxVoltage / supply;
    const auto byBoth = [&](bool currentCounts) -> Finding {
        if (currentCounts && byCurrent <= byVoltage)
            return found(nullptr, byCurrent, ratingCurrentText,
                         {{{Kind::Current, highest}, {Kind::Current, driver.maxCurrent}}});
        return found(nullptr, byVoltage, ratingVoltageText,
                     {{{Kind::Voltage, supply}, {Kind::Voltage, driver.maxVoltage}}});
    };
    return std::visit(
        overload{[&](const Stepper&) { return byBoth(true); }, [&](const DcServo&) { return byBoth(true); },
                 // It comes with a drive that fits its current.
                 [&](const ServoMotor&) { return byBoth(false); }, [&](const GearedDc&) { return byStall(); },
                 // It is its own driver.
                 [](const HobbyServo&) -> Finding { return std::nullopt; }},
        view.axis.motor);
}

constinit const Rule driverRating =
    advising({"The driver needs a higher rating, or the motor less voltage or current."},
             judging(criteria::driverRating, {"Driver ratings"}, judgeDriverRating,
                     words::listOf<ratingStallText, ratingReversalText, ratingCurrentText, ratingVoltageText>,
                     tries<&fixes::gentlerStop, &fixes::lowerRunCurrent, &fixes::driverExchange>));

} // namespace gantry::rules
