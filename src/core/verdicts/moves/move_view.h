// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/rules.h"

#include <optional>
#include <string>

namespace gantry::rules {

/// A segment of a move, as rules about moves and what mends them see it.
struct SegmentView {
    std::size_t move = 0; ///< index in Project::moves
    const MoveSegmentResults* results = nullptr;
    explicit operator bool() const { return results != nullptr; }
};

/// Over all moves the segment of which a ratio is least; nothing where none has one.
template <class F>
SegmentView worstSegment(const Evaluation& evaluation, F ratioOf) {
    SegmentView out;
    for (std::size_t m = 0; m < evaluation.moves.size(); ++m)
        for (const MoveSegmentResults& s : evaluation.moves[m].segments) {
            const Figure ratio = ratioOf(m, s);
            if (ratio && (!out || less(ratio, ratioOf(out.move, *out.results)))) out = {m, &s};
        }
    return out;
}

/// The move of an axis in which a ratio, a Figure, is least; null where none has one that means anything.
template <class F>
const AxisMoveResults* worstAxisMove(const AxisView& view, F ratioOf) {
    const AxisMoveResults* worst = nullptr;
    for (const AxisMoveResults& r : view.evaluation.moves) {
        if (ratioOf(r).reason() == Reason::NotApplicable) continue;
        if (worst == nullptr || less(ratioOf(r), ratioOf(*worst))) worst = &r;
    }
    return worst;
}

/// One axis in one move.
struct MoveAxisView {
    std::size_t move = 0, axis = 0; ///< indices in Project::moves and Project::axes
    const MoveAxisResults* results = nullptr;
    explicit operator bool() const { return results != nullptr; }
};
/// Over all moves and axes the one of which a ratio, a Figure, is least; nothing where none has one.
template <class F>
MoveAxisView worstMoveAxis(const RigView& view, F ratioOf) {
    MoveAxisView out;
    for (std::size_t m = 0; m < view.evaluation.moves.size(); ++m) {
        const std::vector<MoveAxisResults>& axes = view.evaluation.moves[m].axes;
        for (std::size_t a = 0; a < axes.size(); ++a)
            if (const Figure ratio = ratioOf(axes[a]); ratio && (!out || less(ratio, ratioOf(*out.results))))
                out = {m, a, &axes[a]};
    }
    return out;
}

/// Place of the move of the rig in which a ratio is least; nothing where none has one that means anything.
template <class F>
std::optional<std::size_t> worstMove(const RigView& view, F ratioOf) {
    std::optional<std::size_t> worst;
    const std::vector<MoveResults>& moves = view.evaluation.moves;
    for (std::size_t m = 0; m < moves.size(); ++m) {
        const Figure ratio = ratioOf(moves[m]);
        if (ratio.reason() == Reason::NotApplicable || ratio.reason() == Reason::NoDistance) continue;
        if (!worst || less(ratio, ratioOf(moves[*worst]))) worst = m;
    }
    return worst;
}

/// Time of a segment over the least that the limits allow, eased as it is; what lacks of 1 by rounding alone
/// is 1.
Figure limitRatio(const MoveSegmentResults& segment);

/// Drift that the shot of a move allows [px]; nothing where it has no shot.
Figure driftAllowed(const Project& project, std::size_t move);

/// Jitter that it allows [px].
Figure jitterAllowed(const Project& project, std::size_t move);

/// A verdict that is about a move, and where a moment of it is known, about that.
void nameMove(Verdict& verdict, const Project& project, std::size_t move,
              const Figure& moment = Figure::none(Reason::NotApplicable));

/// "Reveal, A to B".
std::string segmentName(const Project& project, std::size_t move, std::size_t pose);

/// What is wrong with a move, in words.
words::Message troubleMessage(MoveTroubleKind kind);
/// The same rendered: "Pose C: Slide would stand at 1.2 m; its travel ends at 1.1 m."
std::string troubleText(const Project& project, const RigMove& move, const MoveTrouble& trouble,
                        units::System system);

} // namespace gantry::rules
