// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/move/move_scene.h"
#include "core/verdicts/moves/move_view.h"

namespace gantry::rules {

constexpr Message driftText{
    "In “{part}” the drive's springs give at {2} as its load changes, and the picture drifts by {0}; {1} is "
    "allowed."};

static Finding judgeMoveDrift(const AxisView& view) {
    const auto allowed = [&](std::size_t move) {
        const Shot* shot = shotOf(view.project.shots, view.project.moves[move]);
        return shot != nullptr ? Figure::of(shot->limits.drift) : Figure::none(Reason::NoShot);
    };
    const auto ratio = [&](const AxisMoveResults& r) { return allowedOver(allowed(r.move), r.drift); };
    const AxisMoveResults* m = worstAxisMove(view, ratio);
    if (m == nullptr) return std::nullopt;
    Verdict v = found(nullptr, ratio(*m), driftText,
                      {{{Kind::PixelsPerFrame, m->drift},
                        {Kind::PixelsPerFrame, allowed(m->move)},
                        {Kind::Time, m->driftAt}}});
    nameMove(v, view.project, m->move, m->driftAt);
    return v;
}

constinit const Rule moveDrift = advising(
    {"Drift comes from forces that change on the way: longer ramps, less weight to one side, or a stiffer "
     "drive."},
    judgingMoves(criteria::moveDrift, {"Drift in the move"}, judgeMoveDrift, words::listOf<driftText>,
                 tries<&fixes::moveSlower, &fixes::counterweight, &fixes::balanceHead, &fixes::stifferDrive,
                       &fixes::cordStiffness, &fixes::balanceWeight>));

} // namespace gantry::rules
