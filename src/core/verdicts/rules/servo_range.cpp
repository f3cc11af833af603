// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

/// A hobby servo turns only so far.
Finding servoRange(const AxisView& view) {
    const auto* servo = std::get_if<HobbyServo>(&view.axis.motor);
    if (servo == nullptr) return std::nullopt;
    const double reach = servo->range * view.evaluation.model.outputPerRad;
    const double travel = view.evaluation.model.travel;
    return found(nullptr, allowedOver(reach, travel), Reason::None, M::ServoRangeText,
                 {{{view.travelKind(), travel}, {view.travelKind(), reach}}});
}

} // namespace gantry::rules
