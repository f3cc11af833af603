// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message backlashMomentText{
    "The load reverses in shot “{shot}”, first {3} after its start, and lets go {0}, seen as {1}; {2} is "
    "allowed. Gravity on one side all the time would hold it."};
constexpr Message backlashText{"The load reverses in shot “{shot}” somewhere on its range and lets go {0}, "
                               "seen as {1}; {2} is allowed."};

/// Speaks only where the load reverses within a shot; gravity often keeps the play on one side.
static Finding judge(const AxisView& view) {
    const auto ratio = [&](const ShotEvaluation& s) {
        return s.loadReverses ? allowedOver(view.shot(s).limits.jitter, s.errors.backlash) : plenty;
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr || !e->loadReverses) return std::nullopt;
    return found(e, ratio(*e), e->letsGoAt ? backlashMomentText : backlashText,
                 {{{view.travelKind(), view.evaluation.model.backlash},
                   {Kind::Pixels, e->errors.backlash},
                   {Kind::Pixels, view.shot(*e).limits.jitter},
                   {Kind::Time, e->letsGoAt}}});
}

constinit const Rule backlash =
    judging(criteria::backlash, {"Backlash let go"}, judge, words::listOf<backlashMomentText, backlashText>);

} // namespace gantry::rules
