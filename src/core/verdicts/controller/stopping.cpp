// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {
namespace {

constexpr Message title{"Stopping distance"};
constexpr Message stoppingText{"Stopping from {0} takes {1}; shot “{shot}” leaves {2} of travel."};
constexpr std::array sentences{stoppingText};
constexpr std::array tries{&fixes::slowerShot};

double leftBehind(const AxisView& view, const ShotEvaluation& s) {
    return view.evaluation.model.travel - s.distance.value();
}

/// Whether a stop begun where the shot ends still finds room. Only the shot's own ramp counts, not an end
/// switch.
Finding judge(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return std::clamp(leftBehind(view, s) / s.motion.stoppingDistance.value(), 0.0, 1e6);
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, e->motion.stoppingDistance ? ratio(*e) : e->motion.stoppingDistance.value(),
                 e->motion.stoppingDistance.reason(), stoppingText,
                 {{{view.speedKind(), e->motion.topSpeed.value()},
                   {view.travelKind(), e->motion.stoppingDistance.value()},
                   {view.travelKind(), std::max(0.0, leftBehind(view, *e))}}});
}

} // namespace

constinit const Rule stopping{
    .wants = criteria::stopping, .title = title, .sentences = sentences, .judge = judge, .fixes = tries};

} // namespace gantry::rules
