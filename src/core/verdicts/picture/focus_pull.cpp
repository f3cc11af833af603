// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message focusNoAxisText{
    "In shot “{shot}” the subject comes as near as {0}. With the focus left alone it blurs by {1}; up to {2} "
    "looks sharp. Pull focus, by hand or with an axis."};
constexpr Message focusRingText{
    "In shot “{shot}” the subject comes as near as {0}. With this focus movement it "
    "blurs by {1}; up to {2} looks sharp. The ring needs to turn by {3}."};
constexpr Message focusSharpText{
    "In shot “{shot}” the subject comes as near as {0} and blurs by {1}; up to {2} looks sharp."};

/// Whether the focus goes with a slide along the lens. Without a focus axis somebody can pull it by hand:
/// tight at worst.
static Finding judgeFocusPull(const AxisView& view) {
    const auto ratio = [](const ShotEvaluation& s) { return allowedOver(criteria::sharpness, s.focus.left); };
    const ShotEvaluation* worst = nullptr;
    for (const ShotEvaluation& s : view.evaluation.shots)
        if (s.focus.left.reason() != Reason::NotApplicable &&
            (worst == nullptr || less(ratio(s), ratio(*worst))))
            worst = &s;
    if (worst == nullptr) return std::nullopt;
    const FocusPull& f = worst->focus;
    Figure allowed = ratio(*worst);
    if (!f.turn) allowed = allowed.map([](double r) { return std::max(r, 1.0); });
    const bool soft = less(allowed, criteria::focusPull.value);
    return found(worst, allowed,
                 !soft    ? focusSharpText
                 : f.turn ? focusRingText
                          : focusNoAxisText,
                 {{{Kind::Length, f.nearest},
                   {Kind::Pixels, f.left},
                   {Kind::Pixels, criteria::sharpness.value},
                   {Kind::Angle, f.turn}}});
}

constinit const Rule focusPull =
    advising({"Pull focus during the take, by hand or with an axis on the ring, or close the aperture."},
             judging(criteria::focusPull, {"Focus along the lens"}, judgeFocusPull,
                     words::listOf<focusNoAxisText, focusRingText, focusSharpText>));

} // namespace gantry::rules
