// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message gripText{"The drive must push {0}; friction gives {1} before it slips."};

/// Friction wheels and rollers: grip over pull.
static Finding judgeGrip(const AxisView& view) {
    const PartCheck* worst = worstPart(view, &PartCheck::slip);
    if (worst == nullptr) return std::nullopt;
    const bool force = view.partKind(*worst) == Kind::Force;
    return found(nullptr, worst->slip, gripText,
                 {{{force ? Kind::Force : Kind::Torque, worst->load},
                   {force ? Kind::Force : Kind::Torque, worst->allowed}}});
}

constinit const Rule grip =
    advising({"It slips: more pressure, a better surface, or gentler ramps is needed."},
             judging(criteria::grip, {"Grip"}, judgeGrip, words::listOf<gripText>,
                     tries<&fixes::shotAcceleration, &fixes::slowerShot, &fixes::grippingForce>));

} // namespace gantry::rules
