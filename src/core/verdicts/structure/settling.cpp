// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/shot/shot_steps.h"
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message settlingText{
    "After “{shot}” it vibrates at {0} for {1}; the shot waits {2}. {3} of it comes from: {part}."};
constexpr Message settlingLongText{
    "After “{shot}” it vibrates at {0} without damping; the shot waits {2}. {3} of it comes from: {part}."};

constexpr Message settlingPlainText{"After “{shot}” it vibrates at {0} for {1}; the shot waits {2}."};

/// Time that a shot leaves over the time until only its jitter limit is left. The frequency is that of what
/// is entered as soft, or the measured one.
static Finding judgeSettling(const AxisView& view) {
    const AxisStructure& s = view.evaluation.structure;
    const bool parts = s.problem == Reason::None && !s.soft.empty();
    // What nobody entered a structure of swings as it was measured.
    if (!parts && !(view.axis.vibration.frequency.value > 0.0)) return std::nullopt;
    const auto ratio = [&](const ShotEvaluation& e) {
        if (e.rocking.settling.reason() == Reason::Unbounded) return Figure(0.0); // nothing damps it
        if (!parts && !stepwise(view.shot(e))) return Figure(criteria::settlingPlenty);
        return lesser(allowedOver(view.shot(e).settle, e.rocking.settling), criteria::settlingPlenty);
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr || e->rocking.settling.reason() == Reason::NotApplicable) return std::nullopt;
    if (!parts) {
        if (!stepwise(view.shot(*e)) || !e->rocking.settling) return std::nullopt;
        return found(e, ratio(*e), settlingPlainText,
                     {{{Kind::Frequency, view.evaluation.model.mode->frequency},
                       {Kind::Time, e->rocking.settling},
                       {Kind::Time, view.shot(*e).settle}}});
    }
    Verdict v = found(e, ratio(*e), e->rocking.settling ? settlingText : settlingLongText,
                      {{{Kind::Frequency, view.evaluation.model.mode->frequency},
                        {Kind::Time, e->rocking.settling},
                        {Kind::Time, view.shot(*e).settle},
                        {Kind::Percentage, structure::shareOf(s.soft.front().part, s.all)}}});
    v.part = softName(s.soft.front().cause);
    return v;
}

constinit const Rule settling =
    advising({"It needs to wait longer, move more gently, or a stiffer and lighter structure."},
             judging(criteria::settling, {"Settling time"}, judgeSettling,
                     words::listOf<settlingText, settlingLongText, settlingPlainText>,
                     tries<&fixes::slowerSteps, &fixes::tunedRamps, &fixes::shotAcceleration,
                           &fixes::longerSettle, &fixes::rib, &fixes::stifferPads, &fixes::stockSection>));

} // namespace gantry::rules
