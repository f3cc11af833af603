// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message seenText{
    "In “{part}” {room} is in the picture from {1} to {2}; at {3} the rig's own parts cover {0} of it."};

/// The rig's own parts in the picture, by their outlines.
static Finding judgeMoveOwnParts(const RigView& view) {
    const auto ratio = [](const MoveResults& r) { return allowedOver(criteria::ownParts, r.search.view); };
    const auto worst = worstMove(view, ratio);
    if (!worst) return std::nullopt;
    const MoveSearchResults& s = view.evaluation.moves[*worst].search;
    Verdict v = found(nullptr, ratio(view.evaluation.moves[*worst]), seenText,
                      {{{Kind::Percentage, s.view},
                        {Kind::Time, s.viewFrom},
                        {Kind::Time, s.viewTo},
                        {Kind::Time, s.viewAt}}});
    nameMove(v, view.project, *worst, s.viewAt);
    v.with = s.inView;
    return v;
}

constinit const Rule moveOwnParts =
    advising({"Turn the camera away from it, take a longer lens, or move the part out of the picture."},
             ofAllAxes(judging(criteria::moveOwnParts, {"Rig in the picture"}, judgeMoveOwnParts,
                               words::listOf<seenText>, tries<&fixes::longerLens>)));

} // namespace gantry::rules
