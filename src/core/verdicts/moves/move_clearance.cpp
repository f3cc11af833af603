// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message nearText{"{part} comes within {0} of {room} at {2} of the move; {1} is needed there."};
constexpr Message touchesText{"{part} runs into {room} at {2} of the move; {1} of room is needed there."};

/// Least distance on the way itself; nothing thin is missed between two moments.
static Finding judgeMoveClearance(const RigView& view) {
    const auto ratio = [](const MoveResults& r) { return r.search.clearance / r.search.wanted; };
    const auto worst = worstMove(view, ratio);
    if (!worst) return std::nullopt;
    const MoveSearchResults& s = view.evaluation.moves[*worst].search;
    const double distance = std::max(0.0, s.clearance.valueOr(0.0));
    Verdict v = found(nullptr, s.clearance ? Figure(distance) / s.wanted : s.clearance,
                      distance > 0.0 ? nearText : touchesText,
                      {{{Kind::Length, distance}, {Kind::Length, s.wanted}, {Kind::Time, s.clearanceAt}}});
    nameMove(v, view.project, *worst, s.clearanceAt);
    v.part = "“" + view.project.moves[*worst].name + "”: " + s.body;
    v.with = s.with;
    return v;
}

constinit const Rule moveClearance =
    advising({"Move a pose, or what is in the way: the way between the poses passes too near to it."},
             ofAllAxes(judging(criteria::moveClearance, {"Room along the move"}, judgeMoveClearance,
                               words::listOf<nearText, touchesText>,
                               tries<&fixes::spacer, &fixes::cameraBack, &fixes::higherColumn>)));

} // namespace gantry::rules
