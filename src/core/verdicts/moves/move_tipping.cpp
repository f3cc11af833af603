// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

namespace gantry::rules {

constexpr Message overturnsText{
    "In “{part}” the base holds {0} times what tips it at {2}; {1} is the usual floor. A tipping rig hurts "
    "people: weigh it down, and keep clear."};

/// What keeps the rig on its feet against the weights where they are at each moment, what speeds them up,
/// wind and pushes. Hard stops are judged for the rig as a whole.
static Finding judgeMoveTipping(const RigView& view) {
    const auto worst = worstMove(view, [](const MoveResults& r) { return r.tipping; });
    if (!worst) return std::nullopt;
    const MoveResults& r = view.evaluation.moves[*worst];
    if (!r.tipping) return std::nullopt; // what it lacks is said for the rig
    Verdict v =
        found(nullptr, r.tipping, overturnsText,
              {{{Kind::Ratio, r.tipping}, {Kind::Ratio, criteria::moveTipping}, {Kind::Time, r.tippingAt}}});
    nameMove(v, view.project, *worst, r.tippingAt);
    v.hazard = true;
    return v;
}

constinit const Rule moveTipping =
    advising({"Widen or weigh down the base, or give the move more time. Keep clear until then."},
             ofAllAxes(judging(criteria::moveTipping, {"Tipping in the move"}, judgeMoveTipping,
                               words::listOf<overturnsText>,
                               tries<&fixes::moveSlower, &fixes::counterweightHeight, &fixes::ballast,
                                     &fixes::ballastOnLeg, &fixes::widerFeet, &fixes::lowerColumn>)));

} // namespace gantry::rules
