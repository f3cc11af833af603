// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

namespace gantry::rules {

constexpr Message stayText{
    "“{part}” stays {0} within the rotor's resonance ({1} to {2}) from {3} on; {4} is passed without harm."};

/// How long a move stays at a speed at which full steps meet the rotor's natural frequency. Ramps that cross
/// it quickly do no harm. While the motor has its margin it shakes there, but loses no steps.
static Finding judgeMoveResonance(const AxisView& view) {
    const auto ratio = [&](const AxisMoveResults& r) {
        const Figure stay = allowedOver(criteria::resonanceStay, r.stay);
        return less(r.margin, view.evaluation.model.wantedMargin) ? stay : greater(stay, 1.0);
    };
    const AxisMoveResults* m = worstAxisMove(view, ratio);
    if (m == nullptr) return std::nullopt;
    const RotorResonance& r = view.evaluation.resonance;
    Verdict v = found(nullptr, ratio(*m), stayText,
                      {{{Kind::Time, m->stay},
                        {view.speedKind(), r.low},
                        {view.speedKind(), r.high},
                        {Kind::Time, m->stayAt},
                        {Kind::Time, criteria::resonanceStay}}});
    nameMove(v, view.project, m->move, m->stayAt);
    return v;
}

constinit const Rule moveResonance =
    advising({"Cross the band faster, or stay out of it: another time, current or ratio, or a damper on the "
              "shaft."},
             harmless(judgingMoves(criteria::moveResonance, {"Resonance in the move"}, judgeMoveResonance,
                                   words::listOf<stayText>,
                                   tries<&fixes::lowerRunCurrent, &fixes::moveFaster, &fixes::moveSlower,
                                         &fixes::outputTeeth, &fixes::reduction, &fixes::reducerInFront>)));

} // namespace gantry::rules
