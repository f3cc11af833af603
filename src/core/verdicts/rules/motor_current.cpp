// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding motorCurrent(const AxisView& view) {
    const motor::StepperParams* stepper = view.evaluation.model.stepper();
    // A switched winding takes what the supply drives through it; there is nothing to set.
    if (stepper == nullptr || std::get<Stepper>(view.axis.motor).winding == Winding::Unipolar)
        return std::nullopt;
    const double rated = stepper->ratedCurrentRms;
    return found(nullptr, rated / view.axis.driver.runCurrent, view.evaluation.model.missing, M::CurrentText,
                 {{{Kind::Current, view.axis.driver.runCurrent}, {Kind::Current, rated}}});
}

} // namespace gantry::rules
