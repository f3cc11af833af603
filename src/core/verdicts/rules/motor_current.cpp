// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding motorCurrent(const AxisView& view) {
    const double rated = view.evaluation.model.stepper.ratedCurrentRms;
    return found(nullptr, rated / view.axis.driver.runCurrent, view.evaluation.model.missing, M::CurrentText,
                 {{{Kind::Current, view.axis.driver.runCurrent}, {Kind::Current, rated}}});
}

} // namespace gantry::rules
