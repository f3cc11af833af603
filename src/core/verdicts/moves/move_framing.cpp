// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

namespace gantry::rules {

constexpr Message leavesWayText{
    "“{part}”: the target leaves its way in the picture by {0} at {2}; {1} is allowed."};

static Finding judgeMoveFraming(const RigView& view) {
    const auto ratioOf = [&](std::size_t move, const MoveSegmentResults& s) {
        return allowedOver(driftAllowed(view.project, move), s.drift);
    };
    const SegmentView s = worstSegment(view.evaluation, ratioOf);
    if (!s) return std::nullopt;
    const MoveSegmentResults& r = *s.results;
    Verdict v = found(nullptr, ratioOf(s.move, r), leavesWayText,
                      {{{Kind::Pixels, r.drift},
                        {Kind::Pixels, driftAllowed(view.project, s.move)},
                        {Kind::Time, r.driftAt}}});
    nameMove(v, view.project, s.move, r.driftAt);
    v.part = segmentName(view.project, s.move, r.pose);
    return v;
}

constinit const Rule moveFraming =
    advising({"The target drifts between the poses: aim at it, or store a pose in between."},
             ofAllAxes(judging(criteria::moveFraming, {"Target along the move"}, judgeMoveFraming,
                               words::listOf<leavesWayText>, tries<&fixes::aimSegment>)));

} // namespace gantry::rules
