// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message strengthText{"The {part} carries {0} at most; it is rated for {1}."};

/// Teeth (Lewis), belts and gearheads: what each stands over what the worst shot asks of it.
static Finding judgeToothStrength(const AxisView& view) {
    const PartCheck* worst = worstPart(view, &PartCheck::strength);
    if (worst == nullptr) return std::nullopt;
    const bool force = view.partKind(*worst) == Kind::Force;
    const Kind kind = force ? Kind::Force : Kind::Torque;
    Verdict v = view.naming(
        found(nullptr, worst->strength, strengthText, {{{kind, worst->load}, {kind, worst->allowed}}}),
        *worst);
    if (view.printed(*worst)) v.ceiling = State::Tight; // printed parts in a load path are tight at best
    return v;
}

constinit const Rule toothStrength = advising(
    {"The part that carries it needs a higher rating, or the load to be balanced."},
    judging(criteria::toothStrength, {"Strength of the parts"}, judgeToothStrength,
            words::listOf<strengthText>,
            tries<&fixes::shotAcceleration, &fixes::counterweight, &fixes::balanceHead, &fixes::balanceWeight,
                  &fixes::gearMaterial, &fixes::faceWidth, &fixes::stifferDrive, &fixes::otherGearhead>));

} // namespace gantry::rules
