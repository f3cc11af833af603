// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/moves/move_view.h"

#include <algorithm>
#include <cmath>

namespace gantry::rules {

constexpr Message speedLateText{
    "“{part}” needs {axis} at {0}; its nearest speed is {1}. It ends {2} late, or {3} short if it is stopped "
    "in time."};
constexpr Message speedEarlyText{
    "“{part}” needs {axis} at {0}; its nearest speed is {1}. It ends {2} early, or {3} too far if it is "
    "stopped in time."};
constexpr Message timeLateText{
    "“{part}” takes {0}; the nearest time that the controller offers makes it {1}. It ends {2} late."};
constexpr Message timeEarlyText{
    "“{part}” takes {0}; the nearest time that the controller offers makes it {1}. It ends {2} early."};

static Figure size(const Figure& f) {
    return f.map([](double x) { return std::abs(x); });
}

/// The nearest fixed speed or time against what a segment needs, where it misses that by most. It runs all
/// the same, only not in its time.
static Finding judgeMoveChoices(const RigView& view) {
    const auto roomOf = [](const Figure& late, const Figure& choice) {
        if (!late) return late;
        const double time = choice.value() - late.value();
        return allowedOver(Figure::of(criteria::choiceMiss), Figure::of(std::abs(late.value()) / time));
    };
    const MoveAxisView byAxis =
        worstMoveAxis(view, [&](const MoveAxisResults& r) { return roomOf(r.choiceLate, r.choiceTime); });
    const SegmentView byTime = worstSegment(view.evaluation, [&](std::size_t, const MoveSegmentResults& s) {
        return roomOf(s.choiceLate, s.choice);
    });
    if (!byAxis && !byTime) return std::nullopt;
    const Figure axisRoom = byAxis ? roomOf(byAxis.results->choiceLate, byAxis.results->choiceTime)
                                   : Figure::none(Reason::NotApplicable);
    const auto tightAtWorst = [&](Figure room, const Message& text, const words::Arguments& said,
                                  std::size_t move, std::size_t pose) {
        Verdict v = found(nullptr, room.map([](double r) { return std::max(r, 1.0); }), text, said);
        if (less(room, 1.0)) v.ceiling = State::Tight;
        nameMove(v, view.project, move);
        v.part = segmentName(view.project, move, pose);
        return v;
    };
    if (byTime && (!byAxis || less(roomOf(byTime.results->choiceLate, byTime.results->choice), axisRoom))) {
        const MoveSegmentResults& s = *byTime.results;
        return tightAtWorst(
            roomOf(s.choiceLate, s.choice), s.choiceLate.value() < 0.0 ? timeEarlyText : timeLateText,
            {{{Kind::Time, s.time}, {Kind::Time, s.choice}, {Kind::Time, size(s.choiceLate)}}}, byTime.move,
            s.pose);
    }
    const MoveAxisResults& r = *byAxis.results;
    const bool linear = kindOf(view.project.axes[byAxis.axis]) == AxisKind::Linear;
    const Kind speed = linear ? Kind::Speed : Kind::AngularSpeed, way = linear ? Kind::Length : Kind::Angle;
    Verdict v = tightAtWorst(axisRoom, r.choiceLate.value() < 0.0 ? speedEarlyText : speedLateText,
                             {{{speed, r.choiceWanted},
                               {speed, r.choiceSpeed},
                               {Kind::Time, size(r.choiceLate)},
                               {way, size(r.choiceShort)}}},
                             byAxis.move, r.choicePose);
    v.axis = static_cast<int>(byAxis.axis);
    return v;
}

constinit const Rule moveChoices =
    advising({"Give the segment the time that a speed or a time of the rig makes of it, or cut it to fit."},
             ofAllAxes(namingAxis(
                 harmless(judging(criteria::moveChoices, {"Fixed speeds and times"}, judgeMoveChoices,
                                  words::listOf<speedLateText, speedEarlyText, timeLateText, timeEarlyText>,
                                  tries<&fixes::moveToChoice>)))));

} // namespace gantry::rules
