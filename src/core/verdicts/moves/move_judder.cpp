// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

#include "core/evaluate/move/plan_move.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message judderText{
    "In “{part}” the target crosses the frame as if in {0}, at {2}, and smears by {3} in "
    "each exposure. Below {1} it judders."};
constexpr Message judderOfSinglesText{
    "In “{part}” the target crosses the frame as if in {0}, at {2}. Below {1} it judders."};

/// Pace of the target in the picture, as the time in which it would cross the frame; see judder of a shot.
static Finding judgeMoveJudder(const RigView& view) {
    const auto wanted = [&](std::size_t move) {
        const Shot* shot = shotOf(view.project.shots, view.project.moves[move]);
        return shot != nullptr
                   ? shot->limits.crossingTime * std::min(1.0, criteria::judderRate / shot->frameRate)
                   : 1.0;
    };
    std::optional<std::size_t> worst;
    const auto ratio = [&](std::size_t move) {
        return lesser(view.evaluation.moves[move].crossing / wanted(move), plenty);
    };
    for (std::size_t m = 0; m < view.evaluation.moves.size(); ++m)
        if (view.evaluation.moves[m].crossing && (!worst || less(ratio(m), ratio(*worst)))) worst = m;
    if (!worst) return std::nullopt;
    const MoveResults& r = view.evaluation.moves[*worst];
    Verdict v = found(nullptr, ratio(*worst), r.motionBlur ? judderText : judderOfSinglesText,
                      {{{Kind::Time, r.crossing},
                        {Kind::Time, wanted(*worst)},
                        {Kind::Time, r.crossingAt},
                        {Kind::Pixels, r.motionBlur}}});
    nameMove(v, view.project, *worst, r.crossingAt);
    return v;
}

constinit const Rule moveJudder =
    advising({"Only a slower move, a wider lens, more distance or a higher frame rate takes judder away."},
             ofAllAxes(judging(criteria::moveJudder, {"Judder in the move"}, judgeMoveJudder,
                               words::listOf<judderText, judderOfSinglesText>,
                               tries<&fixes::aimSegment, &fixes::moveSlower>)));

} // namespace gantry::rules
