// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

namespace gantry::rules {

constexpr Message steppingText{
    "In “{part}” it shows {0} of stepping from {2} on, at no more than {3}; {1} is allowed."};

/// Jitter that the shot allows over the stepping that lasts long enough to be seen.
static Finding judgeMoveStepping(const AxisView& view) {
    const auto ratio = [&](const AxisMoveResults& r) {
        return allowedOver(jitterAllowed(view.project, r.move), r.stepping);
    };
    const AxisMoveResults* m = worstAxisMove(view, ratio);
    if (m == nullptr) return std::nullopt;
    Verdict v = found(nullptr, ratio(*m), steppingText,
                      {{{Kind::Pixels, m->stepping},
                        {Kind::Pixels, jitterAllowed(view.project, m->move)},
                        {Kind::Time, m->steppingAt},
                        {view.speedKind(), m->steppingSpeed}}});
    nameMove(v, view.project, m->move, m->steppingAt);
    return v;
}

constinit const Rule moveStepping = advising(
    {"Steps show less with more ratio, finer microsteps, another pace, a wider lens or more distance."},
    judgingMoves(
        criteria::moveStepping, {"Steps in the move"}, judgeMoveStepping, words::listOf<steppingText>,
        tries<&fixes::finerMicrosteps, &fixes::outputTeeth, &fixes::reduction, &fixes::reducerInFront,
              &fixes::moveFaster, &fixes::moveSlower, &fixes::stepperInstead>));

} // namespace gantry::rules
