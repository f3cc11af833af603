// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message beltPreloadText{"The {part} is tensioned with {0} in each span and pulls {1} at its "
                                  "hardest; beyond twice the tension one span hangs slack."};

/// Tension [N] of the belt that a part is, for one of two belts side by side; nothing for other parts.
static std::optional<double> tensionOf(const Axis& axis, const PartCheck& part) {
    if (part.link >= 0) {
        const auto* stage = std::get_if<BeltStage>(&axis.links[static_cast<std::size_t>(part.link)]);
        return stage != nullptr ? std::optional(stage->preload.value) : std::nullopt;
    }
    const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism);
    const auto* belt = linear != nullptr ? std::get_if<BeltOutput>(&linear->output) : nullptr;
    if (belt == nullptr) return std::nullopt;
    return belt->preload.value * (belt->doubled ? 2.0 : 1.0);
}

/// Twice the tension over the pull, where both spans share it: a slack span jumps teeth, and is half as
/// stiff.
static Finding judgeBeltPreload(const AxisView& view) {
    const PartCheck* worst = nullptr;
    Figure least;
    for (const PartCheck& part : view.evaluation.checks.parts) {
        const auto tension = tensionOf(view.axis, part);
        if (!tension || !(*tension > 0.0)) continue;
        const Figure ratio = allowedOver(2.0 * *tension, part.load);
        if (worst != nullptr && !less(ratio, least)) continue;
        worst = &part;
        least = ratio;
    }
    if (worst == nullptr) return std::nullopt;
    return view.naming(found(nullptr, least, beltPreloadText,
                             {{{Kind::Force, *tensionOf(view.axis, *worst)}, {Kind::Force, worst->load}}}),
                       *worst);
}

constinit const Rule beltPreload = advising(
    {"Tension the belt until no span goes slack, within what the shaft is rated for."},
    judging(
        criteria::beltPreload, {"Belt tension"}, judgeBeltPreload, words::listOf<beltPreloadText>,
        tries<&fixes::balanceHead, &fixes::counterweight, &fixes::beltTension, &fixes::shotAcceleration>));

} // namespace gantry::rules
