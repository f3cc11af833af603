// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message sagText{"In “{shot}” sag and slope shift the picture by {0} over the travel ({1} allowed) "
                          "and by {2} at top speed ({3} allowed)."};

constexpr Message droopText{"The arm deflects {0} at its end; {1} is usual for its length. Framing hides "
                            "that, but an arm so soft vibrates at the least touch."};

/// An arm that droops more than its length excuses is never worse than tight: it stands still.
static Finding droop(const AxisView& view) {
    const auto* rotary = std::get_if<RotaryMechanism>(&view.axis.mechanism);
    if (rotary == nullptr) return std::nullopt;
    const double usual = criteria::droopShare * rotary->boom.reach;
    if (!less(usual, view.evaluation.structure.sag)) return std::nullopt;
    Verdict v = found(nullptr, 1.0, droopText,
                      {{{Kind::Length, view.evaluation.structure.sag}, {Kind::Length, usual}}});
    v.ceiling = State::Tight;
    return v;
}

/// What is allowed of drift and of framing over what bending makes of the picture; the worse of the two.
static Finding judgeSag(const AxisView& view) {
    const AxisStructure& s = view.evaluation.structure;
    if (s.problem != Reason::None) {
        if (s.problem != Reason::SupportsOffRail) return std::nullopt;
        return found(nullptr, Figure::none(s.problem), sagText, {});
    }
    const auto ratio = [&](const ShotEvaluation& e) {
        const ErrorLimits& limits = view.shot(e).limits;
        const double framing = limits.framing * view.project.camera.deliveredWidth;
        return lesser(allowedOver(framing, e.sag.pixels), allowedOver(limits.drift, e.sag.drift));
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr || (e->problem == Reason::None && !e->sag.pixels)) return droop(view);
    if (const Figure least = ratio(*e); least && least.value() >= criteria::sag)
        if (Finding soft = droop(view)) return soft;
    const ErrorLimits& limits = view.shot(*e).limits;
    return found(e, ratio(*e), sagText,
                 {{{Kind::Pixels, e->sag.pixels},
                   {Kind::Pixels, limits.framing * view.project.camera.deliveredWidth},
                   {Kind::PixelsPerFrame, e->sag.drift},
                   {Kind::PixelsPerFrame, limits.drift}}});
}

constinit const Rule sag =
    advising({"It needs a stiffer section, supports nearer to the load, or less weight."},
             judging(criteria::sag, {"Sag and bend"}, judgeSag, words::listOf<sagText, droopText>,
                     tries<&fixes::bestStandPlaces, &fixes::stockSection, &fixes::rib, &fixes::twoStands,
                           &fixes::slowerShot>));

} // namespace gantry::rules
