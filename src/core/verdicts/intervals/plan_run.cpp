// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/intervals/plan_view.h"

namespace gantry::rules {

constexpr Message noFactsText{
    "“{part}”: its duration leaves no time between the pictures. Give it longer, or "
    "let the duration follow."};
constexpr Message noPathText{"“{part}” has neither a move nor a shot whose way it goes. Choose one."};
constexpr Message stillText{"“{part}”: no axis moves on its way. Give the shot distances, or choose a move."};
constexpr Message noMoveText{"“{part}” goes the way of a move that cannot be planned. Mend the move first."};
constexpr Message unevenText{
    "“{part}” keeps working hours, and for these the interval has to stay the same. Keep it even."};
constexpr Message closedText{
    "“{part}”: not one picture fits between opening and closing. Open longer, or expose for less time."};
constexpr Message noSlideText{
    "“{part}” needs an axis that slides for this way of working. Choose another way, or another move."};

Message planTroubleMessage(PlanTrouble trouble) {
    switch (trouble) {
    case PlanTrouble::NoFacts:
        break;
    case PlanTrouble::NoPath:
        return noPathText;
    case PlanTrouble::NothingMoves:
        return stillText;
    case PlanTrouble::NoPlan:
        return noMoveText;
    case PlanTrouble::HoursNeedEven:
        return unevenText;
    case PlanTrouble::NoPictureADay:
        return closedText;
    case PlanTrouble::NoSlide:
        return noSlideText;
    }
    return noFactsText;
}

static Finding judgePlanRun(const RigView& view) {
    for (std::size_t i = 0; i < view.evaluation.plans.size(); ++i)
        for (const PlanTrouble trouble : view.evaluation.plans[i].troubles) {
            Verdict v = found(nullptr, Figure(0.0), planTroubleMessage(trouble), {});
            namePlan(v, view.project, i);
            return v;
        }
    return std::nullopt;
}

constinit const Rule planRun = advising(
    {"The plan cannot run as it is meant; the sentence says what it lacks."},
    ofAllAxes(judging(
        criteria::planRun, {"Plan of the run"}, judgePlanRun,
        words::listOf<noFactsText, noPathText, stillText, noMoveText, unevenText, closedText, noSlideText>,
        tries<&fixes::mendRun>)));

} // namespace gantry::rules
