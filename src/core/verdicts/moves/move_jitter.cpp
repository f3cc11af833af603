// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

namespace gantry::rules {

constexpr Message backlashText{
    "In “{part}” the load lets go of its backlash at {2} and the picture jumps by {0}; {1} is allowed."};
constexpr Message slipText{
    "In “{part}” the load sticks and slips from {2} on: {0} peak to peak, {3} of it by "
    "jumps; {1} is allowed. Above {4} it runs evenly."};

static Finding judgeMoveJitter(const AxisView& view) {
    const auto ratio = [&](const AxisMoveResults& r) {
        return allowedOver(jitterAllowed(view.project, r.move), r.jitter);
    };
    const AxisMoveResults* m = worstAxisMove(view, ratio);
    // What is stepping alone is said as such.
    if (m == nullptr || !less(0.0, m->letGo + m->slip)) return std::nullopt;
    Verdict v = found(nullptr, ratio(*m), less(0.0, m->letGo) ? backlashText : slipText,
                      {{{Kind::Pixels, m->jitter},
                        {Kind::Pixels, jitterAllowed(view.project, m->move)},
                        {Kind::Time, m->jitterAt},
                        {Kind::Pixels, m->slip},
                        {view.speedKind(), Figure::of(view.evaluation.smoothFrom, Reason::Unbounded)}}});
    nameMove(v, view.project, m->move, m->jitterAt);
    return v;
}

constinit const Rule moveJitter = advising(
    {"Less friction that sticks, less backlash, a stiffer drive or more ratio is needed."},
    judgingMoves(
        criteria::moveJitter, {"Jitter in the move"}, judgeMoveJitter, words::listOf<backlashText, slipText>,
        tries<&fixes::moveSlower, &fixes::moveFaster, &fixes::balanceHead, &fixes::hungLower,
              &fixes::finerMicrosteps, &fixes::outputTeeth, &fixes::reduction, &fixes::reducerInFront,
              &fixes::ballWheels, &fixes::stifferDrive, &fixes::cordStiffness, &fixes::closedCord,
              &fixes::preloadSpring, &fixes::noPlay, &fixes::stepperInstead>));

} // namespace gantry::rules
