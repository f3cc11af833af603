// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message currentText{
    "Set to {0} rms; the motor is rated {1} rms. Drivers and motors run hot: let them cool before touching."};

static Finding judgeMotorCurrent(const AxisView& view) {
    const motor::StepperParams* stepper = view.evaluation.model.stepper();
    // A switched winding takes what the supply drives through it; there is nothing to set.
    if (stepper == nullptr || std::get<Stepper>(view.axis.motor).winding == Winding::Unipolar)
        return std::nullopt;
    const double rated = stepper->ratedCurrentRms;
    return found(nullptr, Figure::of(rated / view.axis.driver.runCurrent, view.evaluation.model.missing),
                 currentText, {{{Kind::Current, view.axis.driver.runCurrent}, {Kind::Current, rated}}});
}

constinit const Rule motorCurrent =
    advising({"Set the current to what the motor is rated for."},
             judging(criteria::motorCurrent, {"Motor current"}, judgeMotorCurrent, words::listOf<currentText>,
                     tries<&fixes::lowerRunCurrent, &fixes::largerMotor>));

} // namespace gantry::rules
