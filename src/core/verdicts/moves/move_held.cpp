// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

namespace gantry::rules {

constexpr Message heldText{
    "While {axis} only stands in “{part}”, it is pushed with {0} at {2}; its drive holds {1}."};

/// What holds an axis that stands while others move, over its weight and what they push at it.
static Finding judgeMoveHeld(const AxisView& view) {
    const AxisMoveResults* m = worstAxisMove(view, [](const AxisMoveResults& r) { return r.held; });
    if (m == nullptr) return std::nullopt;
    const Kind kind = view.evaluation.model.kind == AxisKind::Linear ? Kind::Force : Kind::Torque;
    Verdict v =
        found(nullptr, m->held, heldText, {{{kind, m->pushed}, {kind, m->holds}, {Kind::Time, m->at}}});
    nameMove(v, view.project, m->move, m->at);
    return v;
}

constinit const Rule moveHeld = advising(
    {"Hold it with more current, balance what hangs on it, or give the move more time."},
    judgingMoves(criteria::moveHeld, {"Holding in the move"}, judgeMoveHeld, words::listOf<heldText>,
                 tries<&fixes::moveSlower, &fixes::holdCurrent, &fixes::runCurrent, &fixes::counterweight,
                       &fixes::balanceHead, &fixes::balanceWeight, &fixes::outputTeeth, &fixes::reduction,
                       &fixes::reducerInFront, &fixes::largerMotor>));

} // namespace gantry::rules
