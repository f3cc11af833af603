// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message movingMassText{
    "The moving mass is entered as {0}, but what is listed on it weighs {1}. Weigh everything that travels, "
    "camera and head included, and enter that."};

/// A carriage cannot weigh less than what stands on it.
static Finding judgeMovingMass(const AxisView& view) {
    const Figure& on = view.evaluation.checks.massOn;
    const double moving = view.evaluation.model.chain.load.inertia;
    if (!on || !(moving < on.value() * (1.0 - 1e-9))) return std::nullopt;
    return found(nullptr, Figure::of(moving / on.value()), movingMassText,
                 {{{Kind::Mass, moving}, {Kind::Mass, on}}});
}

constinit const Rule movingMass =
    advising({"Weigh what moves, with everything that stands on it."},
             judging(criteria::movingMass, {"Moving mass"}, judgeMovingMass, words::listOf<movingMassText>,
                     tries<&fixes::massOfParts>));

} // namespace gantry::rules
