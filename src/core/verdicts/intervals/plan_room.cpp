// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/intervals/plan_view.h"

namespace gantry::rules {

constexpr Message roomText{
    "At picture {0} of “{part}”, moving for {1}, settling for {2} and the camera's {3} "
    "need an interval of {4}; there are {5}."};
constexpr Message cameraRoomText{
    "At picture {0} of “{part}” the camera by itself needs {3} and an interval of {4}; there are {5}."};

static Finding judgePlanRoom(const RigView& view) {
    const auto worst = worstPlan(view, [](const IntervalResults& r) { return r.lanes.room; });
    if (!worst) return std::nullopt;
    const PlanLanes& l = view.evaluation.plans[*worst].lanes;
    Verdict v = found(nullptr, l.room, l.camera ? cameraRoomText : roomText,
                      {{{Kind::Count, l.picture, 7},
                        {Kind::Time, l.move},
                        {Kind::Time, l.settle},
                        {Kind::Time, l.focus + l.lag + l.exposure + l.write},
                        {Kind::Time, l.least},
                        {Kind::Time, l.gap}}});
    namePlan(v, view.project, *worst);
    return v;
}

constinit const Rule planRoom =
    advising({"Only a longer interval, a shorter exposure or smaller steps make room."},
             ofAllAxes(judging(criteria::planRoom, {"Room in the interval"}, judgePlanRoom,
                               words::listOf<roomText, cameraRoomText>,
                               tries<&fixes::longerInterval, &fixes::focusByHand, &fixes::writesInMoves,
                                     &fixes::evenSteps, &fixes::morePictures>)));

} // namespace gantry::rules
