// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

#include "core/evaluate/shot/focus_axis.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message sharpText{
    "In “{part}” the target blurs by {0} at {4}, where it is {3} away; up to {1} looks sharp."};
constexpr Message ringText{"In “{part}” the lens is focused at {2} while the target is {3} away, at {4}. It "
                           "blurs by {0}; up to {1} looks sharp."};
constexpr Message noAxisText{"In “{part}” the target comes to {3}, at {4}. Focused where the move begins it "
                             "blurs by {0}; up to {1} looks sharp. Pull focus, by hand or with an axis."};

/// How far the target is out of focus on the way. Without a focus axis somebody can pull it by hand: tight at
/// worst.
static Finding judgeMoveFocus(const RigView& view) {
    const bool hasAxis = focusAxisOf(view.project.axes).has_value();
    const auto ratio = [&](const MoveResults& r) {
        const Figure allowed = allowedOver(criteria::sharpness, r.focusBlur);
        return hasAxis ? allowed : allowed.map([](double x) { return std::max(x, 1.0); });
    };
    const auto worst = worstMove(view, ratio);
    if (!worst) return std::nullopt;
    const MoveResults& r = view.evaluation.moves[*worst];
    const bool soft = less(ratio(r), criteria::moveFocus.value);
    Verdict v = found(nullptr, ratio(r),
                      !soft     ? sharpText
                      : hasAxis ? ringText
                                : noAxisText,
                      {{{Kind::Pixels, r.focusBlur},
                        {Kind::Pixels, criteria::sharpness.value},
                        {Kind::Length, r.focusedAt},
                        {Kind::Length, r.targetAt},
                        {Kind::Time, r.focusAt}}});
    nameMove(v, view.project, *worst, r.focusAt);
    return v;
}

constinit const Rule moveFocus =
    advising({"Pull focus during the take, by hand or with an axis on the ring, or close the aperture."},
             ofAllAxes(judging(criteria::moveFocus, {"Focus along the move"}, judgeMoveFocus,
                               words::listOf<sharpText, ringText, noAxisText>,
                               tries<&fixes::pullFocus, &fixes::focusAtPoses>)));

} // namespace gantry::rules
