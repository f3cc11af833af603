// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message backlashHeldText{
    "In “{shot}” at least {0} keep the backlash on one side; ramps and disturbances pull with {1} at most."};
constexpr Message backlashPlaceText{
    "In “{shot}” the backlash opens at {3} from the low end: {0}, or {1} in the picture; {2} is allowed. A "
    "spring of {4} to one side would hold it."};
constexpr Message backlashMomentText{
    "In “{shot}” the backlash opens {3} after the start, when it brakes: {0}, or {1} in the picture; {2} is "
    "allowed. A spring of {4} to one side would hold it."};
constexpr Message backlashTurnText{"In “{shot}” the backlash opens where it turns round: {0}, or {1} in the "
                                   "picture; {2} is allowed. A spring of {3} to one side would hold it."};

constexpr Message backlashSmallText{
    "In “{shot}” the backlash opens: {0}, or {1} in the picture; {2} is allowed."};

/// More than this [1] is not told apart.
constexpr double amply = 100.0;

/// What keeps the play on one side over what takes it off; where nothing does, the allowed error over what
/// shows.
static Figure ratioIn(const AxisView& view, const ShotEvaluation& s) {
    const Figure seen = lesser(allowedOver(view.shot(s).limits.repeat, s.errors.backlash), amply);
    return s.loadReverses ? seen : lesser(s.flank.ratio, amply);
}
static const ShotEvaluation* shotThatBinds(const AxisView& view) {
    if (view.evaluation.model.backlash <= 0.0) return nullptr;
    return bindingShot(view, [&](const ShotEvaluation& s) { return ratioIn(view, s); });
}

/// Speaks of drives that have play, in the shot in which it is held least.
static Finding judgeBacklash(const AxisView& view) {
    const ShotEvaluation* e = shotThatBinds(view);
    if (e == nullptr) return std::nullopt;
    const FlankHold& f = e->flank;
    const words::Argument play{view.travelKind(), f.play}, seen{Kind::Pixels, e->errors.backlash},
        allowed{Kind::Pixels, view.shot(*e).limits.repeat}, spring{view.forceKind(), f.missing};
    if (!e->loadReverses)
        return found(e, ratioIn(view, *e), backlashHeldText,
                     {{{view.forceKind(), f.holding}, {view.forceKind(), f.disturbing}}});
    if (!less(ratioIn(view, *e), criteria::backlash.value))
        return found(e, ratioIn(view, *e), backlashSmallText, {{play, seen, allowed}});
    if (f.place)
        return found(e, ratioIn(view, *e), backlashPlaceText,
                     {{play, seen, allowed, {view.travelKind(), f.place}, spring}});
    if (f.moment)
        return found(e, ratioIn(view, *e), backlashMomentText,
                     {{play, seen, allowed, {Kind::Time, f.moment}, spring}});
    return found(e, ratioIn(view, *e), backlashTurnText, {{play, seen, allowed, spring}});
}

constinit const Rule backlash = advising(
    {"The backlash needs a spring, a drive without backlash, or a take that never reverses its load."},
    judging(criteria::backlash, {"Backlash"}, judgeBacklash,
            words::listOf<backlashHeldText, backlashSmallText, backlashPlaceText, backlashMomentText,
                          backlashTurnText>,
            tries<&fixes::balanceHead, &fixes::hungLower, &fixes::shotAcceleration, &fixes::oneWay,
                  &fixes::preloadSpring, &fixes::feltWasher, &fixes::noPlay>,
            [](const AxisView& view) {
                const ShotEvaluation* e = shotThatBinds(view);
                return e != nullptr && !e->loadReverses ? criteria::flank.value : criteria::backlash.value;
            }));

} // namespace gantry::rules
