// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message roomText{"“{part}” begins with {axis} {0} from its soft limit; {1} of room are needed to "
                           "take up its backlash. What is missing is seen at the first pose."};
constexpr Message fromText{
    "{axis} comes to the first pose of “{part}” from {2}, so that its backlash of {1} is taken up."};

/// Room before the first pose to take up the backlash on the way to it. Without it the first pose is off by
/// what is left: no more.
static Finding judge(const RigView& view) {
    std::optional<std::size_t> move;
    std::size_t axis = 0;
    Figure least;
    const std::vector<MoveResults>& moves = view.evaluation.moves;
    for (std::size_t m = 0; m < moves.size(); ++m)
        for (std::size_t a = 0; a < moves[m].axes.size(); ++a) {
            const Figure room = moves[m].axes[a].approachRoom;
            if (!room || (move && !less(room, least))) continue;
            move = m;
            axis = a;
            least = room;
        }
    if (!move) return std::nullopt;
    const Kind kind = kindOf(view.project.axes[axis]) == AxisKind::Linear ? Kind::Length : Kind::Angle;
    // Ranges move the rig without its axes, and look at the ratio alone.
    const std::vector<AxisEvaluation>& axes = view.evaluation.axes;
    const double backlash = axis < axes.size() ? axes[axis].model.backlash : 0.0;
    Verdict v =
        found(nullptr, least.map([](double r) { return std::clamp(r, 1.0, plenty); }),
              less(least, 1.0) ? roomText : fromText,
              {{{kind, least * backlash}, {kind, backlash}, {kind, moves[*move].axes[axis].approachFrom}}});
    if (less(least, 1.0)) v.ceiling = State::Tight;
    v.axis = static_cast<int>(axis);
    nameMove(v, view.project, *move);
    return v;
}

constinit const Rule moveApproach =
    advising({"Begin farther from the limit, or come to the first pose by hand from the other side."},
             ofAllAxes(namingAxis(harmless(judging(criteria::moveApproach, {"Way to the first pose"}, judge,
                                                   words::listOf<roomText, fromText>,
                                                   tries<&fixes::startFarther, &fixes::noPlay>)))));

} // namespace gantry::rules
