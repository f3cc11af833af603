// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

Finding shaftLoad(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    const MotorBody& body = bodyOf(view.axis.motor);
    const double radial = allowedOver(body.radialRating.value, e.checks.shaftRadial.value());
    const double axial = allowedOver(body.axialRating.value, e.checks.shaftAxial.value());
    if (axial < radial)
        return found(nullptr, axial, e.checks.shaftAxial.reason(), M::ShaftAxialText,
                     {{{Kind::Force, e.checks.shaftAxial.value()}, {Kind::Force, body.axialRating.value}}});
    if (e.checks.shaftRadial && e.checks.shaftRadial.value() == 0.0) return std::nullopt;
    return found(nullptr, radial, e.checks.shaftRadial.reason(), M::ShaftRadialText,
                 {{{Kind::Force, e.checks.shaftRadial.value()}, {Kind::Force, body.radialRating.value}}});
}

} // namespace gantry::rules
