// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message shaftAxialText{"The screw thrusts {0} along the motor shaft, which is rated for {1}. A "
                                 "thrust bearing at the screw takes that load."};
constexpr Message shaftRadialText{
    "Belt, gear or wheel pull {0} sideways on the motor shaft; it is rated for {1}."};

static Finding judgeShaftLoad(const AxisView& view) {
    const AxisEvaluation& e = view.evaluation;
    const MotorBody& body = bodyOf(view.axis.motor);
    const Figure radial = allowedOver(body.radialRating.value, e.checks.shaftRadial);
    const Figure axial = allowedOver(body.axialRating.value, e.checks.shaftAxial);
    if (less(axial, radial))
        return found(nullptr, axial, shaftAxialText,
                     {{{Kind::Force, e.checks.shaftAxial}, {Kind::Force, body.axialRating.value}}});
    if (e.checks.shaftRadial && e.checks.shaftRadial.value() == 0.0) return std::nullopt;
    return found(nullptr, radial, shaftRadialText,
                 {{{Kind::Force, e.checks.shaftRadial}, {Kind::Force, body.radialRating.value}}});
}

constinit const Rule shaftLoad = advising({"Take the load off the motor shaft with bearings of its own."},
                                          judging(criteria::shaftLoad, {"Motor shaft load"}, judgeShaftLoad,
                                                  words::listOf<shaftAxialText, shaftRadialText>,
                                                  tries<&fixes::lessTension, &fixes::shaftBearing>));

} // namespace gantry::rules
