// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {
namespace {

constexpr Message title{"Slow drift"};
constexpr Message driftText{
    "Shot “{shot}”: stretch of {2} between speeding up and braking drifts {0} where {1} is allowed."};
constexpr std::array sentences{driftText};
constexpr std::array tries{&fixes::shotAcceleration, &fixes::slowerShot};

Finding judge(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return allowedOver(view.shot(s).limits.drift, s.errors.drift.value());
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), e->errors.drift.reason(), driftText,
                 {{{Kind::PixelsPerFrame, e->errors.drift.value()},
                   {Kind::PixelsPerFrame, view.shot(*e).limits.drift},
                   {Kind::Pixels, e->errors.stretch.value()}}});
}

} // namespace

constinit const Rule drift{
    .wants = criteria::drift, .title = title, .sentences = sentences, .judge = judge, .fixes = tries};

} // namespace gantry::rules
