// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message travelText{"Shot “{shot}” covers {0}; {1} can be used between the soft limits."};

static Finding judge(const AxisView& view) {
    const double margin =
        std::visit([](const auto& m) { return m.motion.softLimitMargin; }, view.axis.mechanism);
    const double room = std::max(0.0, view.evaluation.model.travel - 2.0 * margin);
    const auto ratio = [&](const ShotEvaluation& s) { return allowedOver(room, s.distance); };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), travelText, {{{view.travelKind(), e->distance}, {view.travelKind(), room}}});
}

constinit const Rule travel =
    judging(criteria::travel, {"Room on the axis"}, judge, words::listOf<travelText>);

} // namespace gantry::rules
