// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

#include "core/evaluate/move/move_scene.h"

namespace gantry::rules {

constexpr Message insideText{"“{part}” takes {axis} from {0} to {1}; it can go from {2} to {3}."};

/// Places that a move reaches, between poses too, against the soft limits. One that ends exactly at one
/// holds.
static Finding judgeMoveTravel(const RigView& view) {
    constexpr double exact = 1e-9;
    const MoveResults* worst = nullptr;
    std::size_t index = 0;
    for (std::size_t m = 0; m < view.evaluation.moves.size(); ++m) {
        const MoveResults& r = view.evaluation.moves[m];
        if (!r.travelRoom || (worst != nullptr && !less(r.travelRoom, worst->travelRoom))) continue;
        worst = &r;
        index = m;
    }
    if (worst == nullptr) return std::nullopt;
    const auto axis = static_cast<std::size_t>(worst->travelAxis);
    const Kind kind = kindOf(view.project.axes[axis]) == AxisKind::Linear ? Kind::Length : Kind::Angle;
    const Figure room = worst->travelRoom;
    const Figure ratio = less(room, 1.0) && !less(room, 1.0 - exact) ? Figure(1.0) : room;
    const MoveAxisResults& a = worst->axes[axis];
    const SoftEnds ends = softEnds(view.project.axes[axis]);
    Verdict v = found(nullptr, ratio, insideText,
                      {{{kind, a.lowest}, {kind, a.highest}, {kind, ends.low}, {kind, ends.high}}});
    v.axis = worst->travelAxis;
    nameMove(v, view.project, index);
    return v;
}

constinit const Rule moveTravel =
    advising({"A pose or the way between two lies beyond an axis' travel: move the pose, or stop at it."},
             ofAllAxes(namingAxis(judging(
                 criteria::moveTravel, {"Travel of the move"}, judgeMoveTravel, words::listOf<insideText>,
                 tries<&fixes::posesIntoTravel, &fixes::keepBetweenPoses, &fixes::stopAtPoses>))));

} // namespace gantry::rules
