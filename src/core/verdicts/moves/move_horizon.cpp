// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

namespace gantry::rules {

constexpr Message offText{"In “{part}” the horizon is off level by {0} at {2}; up to {1} goes unseen."};

/// How far the horizon leans where no roll is part of the move: a head that nods with its arm and pans, or a
/// base that is not level.
static Finding judgeMoveHorizon(const RigView& view) {
    const auto ratio = [](const MoveResults& r) { return allowedOver(criteria::horizonLean, r.horizon); };
    const auto worst = worstMove(view, ratio);
    if (!worst) return std::nullopt;
    const MoveResults& r = view.evaluation.moves[*worst];
    Verdict v =
        found(nullptr, ratio(r), offText,
              {{{Kind::Angle, r.horizon}, {Kind::Angle, criteria::horizonLean}, {Kind::Time, r.horizonAt}}});
    nameMove(v, view.project, *worst, r.horizonAt);
    return v;
}

constinit const Rule moveHorizon =
    advising({"Keep the head level on the arm, pan less while the arm is off level, or add a roll axis. It "
              "can be turned "
              "straight afterwards, at the cost of some picture."},
             ofAllAxes(judging(criteria::moveHorizon, {"Horizon in the move"}, judgeMoveHorizon,
                               words::listOf<offText>, tries<&fixes::headOnLinks>)));

} // namespace gantry::rules
