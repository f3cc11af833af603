// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message servoRangeText{"The axis turns {0}; the servo reaches {1}."};

/// A hobby servo turns only so far.
static Finding judgeServoRange(const AxisView& view) {
    const auto* servo = std::get_if<HobbyServo>(&view.axis.motor);
    if (servo == nullptr) return std::nullopt;
    const double reach = servo->range * view.evaluation.model.outputPerRad;
    const double travel = view.evaluation.model.travel;
    return found(nullptr, allowedOver(reach, travel), servoRangeText,
                 {{{view.travelKind(), travel}, {view.travelKind(), reach}}});
}

constinit const Rule servoRange =
    advising({"The servo turns no farther: a shorter move or another motor is needed."},
             judging(criteria::servoRange, {"Servo range"}, judgeServoRange, words::listOf<servoRangeText>,
                     tries<&fixes::shorterTravel, &fixes::stepperInstead>));

} // namespace gantry::rules
