// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/interval/interval_course.h"

#include "core/criteria/criteria.h"
#include "core/evaluate/move/planned_move.h"
#include "core/evaluate/shot/evaluate_shot.h"
#include "core/evaluate/shot/plan.h"
#include "core/intervals/blur.h"
#include "core/intervals/facts.h"
#include "core/intervals/pulses.h"
#include "core/intervals/wholes.h"
#include "core/model/kind_traits.h"
#include "core/motion/friction_settling.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

intervals::GapLaw lawOf(GapsGo gaps) {
    switch (gaps) {
    case GapsGo::Linear:
        return intervals::GapLaw::Linear;
    case GapsGo::Geometric:
        return intervals::GapLaw::Geometric;
    case GapsGo::Even:
        break;
    }
    return intervals::GapLaw::Even;
}

/// Amplitude [U] that is left of a swing after a time [s], about where it comes to rest.
double swingLeft(const motion::DyingSwing& swing, double time) {
    if (swing.held()) return 0.0;
    if (!(time > 0.0)) return swing.amplitude;
    double low = 0.0, high = swing.amplitude + swing.band;
    constexpr int halvings = 24;
    for (int i = 0; i < halvings; ++i) {
        const double middle = 0.5 * (low + high);
        const auto within = swing.timeWithin(swing.rest(), middle);
        (within && *within <= time ? high : low) = middle;
    }
    return high;
}

} // namespace

const Shot* shotOf(std::span<const Shot> shots, std::span<const RigMove> moves, const IntervalPlan& plan) {
    for (const Shot& s : shots)
        if (s.id == plan.shot) return &s;
    for (const RigMove& m : moves)
        if (m.id == plan.move) return shotOf(shots, m);
    return shots.empty() ? nullptr : &shots.front();
}

intervals::PulsedMotor pulsedMotor(const IntervalPlan& plan) {
    const PlanPulses& p = plan.pulses;
    return {p.speed.value, p.deadTime.value, p.runUp.value, p.coastTime.value, p.coastBrake.value};
}

IntervalCourse::IntervalCourse(const RigSetup& rig, const IntervalPlan& plan,
                               const std::vector<AxisEvaluation>& axes)
    : rig_(rig), plan_(plan), axes_(axes), shot_(shotOf(rig.shots, rig.moves, plan)),
      exposures_(plan.exposures), moves_(rig.axes.size(), false), from_(rig.axes.size(), 0.0),
      way_(rig.axes.size(), 0.0), pixels_(rig.axes.size(), 0.0) {
    std::stable_sort(exposures_.begin(), exposures_.end(),
                     [](const ExposureMark& a, const ExposureMark& b) { return a.picture < b.picture; });
    for (const Axis& axis : rig.axes) limits_.push_back(keptLimits(axis, rig.controller.ramps));
    settleFacts();
    wayMoves_ = std::max<std::int64_t>(1, gaps_.count());
    if (!plan_.sensors.empty() && plan_.activeTime > 0.0)
        wayMoves_ = std::clamp<std::int64_t>(intervals::wholes(plan_.activeTime / gaps_.first), 1, wayMoves_);
    settleWay();
    settleClock();
    runs_ = troubles_.empty();
}

void IntervalCourse::settleFacts() {
    gaps_ = {plan_.pictures, plan_.interval, plan_.lastInterval, lawOf(plan_.gaps)};
    const bool even = plan_.gaps == GapsGo::Even;
    const auto fails = [&] {
        troubles_.push_back(PlanTrouble::NoFacts);
        gaps_.pictures = std::max<std::int64_t>(1, plan_.pictures);
    };
    const auto exposure = [&] { return exposureOf(gaps_.pictures - 1); };
    switch (plan_.follows) {
    case FollowingFact::Duration:
        return;
    case FollowingFact::Interval: {
        const double room = plan_.duration - exposure();
        if (gaps_.pictures < 2 || !(room > 0.0)) return fails();
        if (even) {
            gaps_.first = room / static_cast<double>(gaps_.count());
            return;
        }
        // Both ends of the change by as much.
        const double by = room / gaps_.total();
        gaps_.first *= by;
        gaps_.last *= by;
        return;
    }
    case FollowingFact::Pictures: {
        // Exposures may change with the number of pictures, so it is looked for.
        const auto fits = [&](std::int64_t n) {
            gaps_.pictures = n;
            return n == 1 ? exposure() <= plan_.duration
                          : gaps_.total() + exposure() <= plan_.duration * (1.0 + 1e-12);
        };
        if (!fits(1)) return fails();
        std::int64_t low = 1, high = 2;
        while (high < intervals::mostPictures && fits(high)) {
            low = high;
            high *= 2;
        }
        if (high >= intervals::mostPictures) return fails();
        while (high - low > 1) {
            const std::int64_t middle = low + (high - low) / 2;
            (fits(middle) ? low : high) = middle;
        }
        gaps_.pictures = low;
        return;
    }
    }
}

void IntervalCourse::settleWay() {
    slide_ = rig_.axes.size();
    if (shot_ != nullptr)
        for (std::size_t a = 0; a < rig_.axes.size(); ++a)
            pixels_[a] = std::abs(
                gantry::pixelsPerUnit(rig_.camera, *shot_, rig_.axes[a], rig_.masses[a].reach).valueOr(0.0));
    for (std::size_t m = 0; m < rig_.moves.size() && rig_.planned != nullptr; ++m)
        if (rig_.moves[m].id == plan_.move) {
            move_ = &(*rig_.planned)[m];
            if (!rig_.moves[m].targets.empty()) target_ = &rig_.moves[m].targets.front();
        }
    if (move_ != nullptr) {
        const trajectory::Trajectory& t = move_->plan.trajectory;
        if (t.empty()) {
            troubles_.push_back(PlanTrouble::NoPlan);
            return;
        }
        for (std::size_t a = 0; a < t.axisCount(); ++a) {
            const trajectory::Extremes e = t.extremes(a, trajectory::Order::Place);
            moves_[a] = e.greatest - e.least > 1e-9;
        }
    } else if (shot_ != nullptr) {
        for (const ShotMove& m : shot_->moves)
            for (std::size_t a = 0; a < rig_.axes.size(); ++a) {
                if (rig_.axes[a].id != m.axis) continue;
                way_[a] = distanceOf(m.movement);
                moves_[a] = way_[a] != 0.0;
            }
    } else {
        troubles_.push_back(PlanTrouble::NoPath);
        return;
    }
    // In the middle of the travel, as shots are, with what does not move.
    for (std::size_t a = 0; a < rig_.axes.size(); ++a)
        from_[a] = 0.5 * (usableTravel(rig_.axes[a]) - way_[a]);
    for (std::size_t a = rig_.axes.size(); a-- > 0;)
        if (moves_[a] && kindOf(rig_.axes[a]) == AxisKind::Linear) slide_ = a;
    if (std::none_of(moves_.begin(), moves_.end(), [](bool m) { return m; }))
        troubles_.push_back(PlanTrouble::NothingMoves);
    const bool wantsSlide = plan_.mode == IntervalMode::Pulses || plan_.mode == IntervalMode::SeparateHead;
    if (wantsSlide && slide_ == rig_.axes.size()) troubles_.push_back(PlanTrouble::NoSlide);
    if (plan_.mode == IntervalMode::Pulses)
        pulseWay_ = intervals::wayOf(pulsedMotor(plan_), plan_.pulses.pulse).way();
}

void IntervalCourse::settleClock() {
    if (!plan_.hours.kept) return;
    if (plan_.gaps != GapsGo::Even) {
        troubles_.push_back(PlanTrouble::HoursNeedEven);
        return;
    }
    const bool everyDay =
        std::all_of(plan_.hours.days.begin(), plan_.hours.days.end(), [](bool b) { return b; });
    if (!everyDay) days_ = plan_.hours.days;
    const double open = plan_.hours.open, close = plan_.hours.close;
    const intervals::WorkingHours hours{open, close, days_, static_cast<int>(plan_.startDay)};
    if (!(close > open)) {
        troubles_.push_back(PlanTrouble::NoPictureADay);
        return;
    }
    schedule_ = intervals::scheduleOf(gaps_.pictures, gaps_.first, longestExposure(), hours);
    if (schedule_->perDay == 0) {
        troubles_.push_back(PlanTrouble::NoPictureADay);
        schedule_.reset();
    }
}

double IntervalCourse::duration() const {
    if (schedule_) return schedule_->last - clockAt(0) + exposureOf(pictures() - 1);
    return gaps_.total() + exposureOf(pictures() - 1);
}

double IntervalCourse::exposureOf(std::int64_t picture) const {
    const auto at = static_cast<double>(picture);
    double before = 0.0, exposure = plan_.exposure;
    for (const ExposureMark& m : exposures_) {
        const double mark = m.picture - 1.0;
        if (at >= mark) {
            before = mark;
            exposure = m.exposure;
            continue;
        }
        // Stops run evenly.
        const double share = mark > before ? (at - before) / (mark - before) : 1.0;
        return exposure * std::pow(m.exposure / exposure, share);
    }
    return exposure;
}

double IntervalCourse::longestExposure() const {
    // Between its marks it runs one way.
    double longest = std::max(exposureOf(0), exposureOf(pictures() - 1));
    for (const ExposureMark& m : plan_.exposures)
        if (m.picture <= pictures()) longest = std::max(longest, m.exposure);
    return longest;
}

std::vector<std::int64_t> IntervalCourse::samples() const {
    constexpr std::int64_t most = 120;
    std::vector<std::int64_t> out;
    const std::int64_t last = pictures() - 1, steps = std::min(last, most);
    for (std::int64_t i = 0; i <= steps; ++i) out.push_back(steps > 0 ? last * i / steps : 0);
    // Where the way is gone sooner than the run is over, it is looked at as closely by itself.
    const std::int64_t moves = std::min(last, wayMoves()), close = std::min(moves, most);
    for (std::int64_t i = 0; i <= close && moves < last; ++i) out.push_back(moves * i / close);
    for (const ExposureMark& m : plan_.exposures)
        if (m.picture >= 1 && m.picture <= pictures()) out.push_back(m.picture - 1);
    std::sort(out.begin(), out.end());
    out.erase(std::unique(out.begin(), out.end()), out.end());
    return out;
}

intervals::Shape IntervalCourse::shape() const {
    switch (plan_.steps) {
    case StepsGo::Smooth:
        return intervals::Shape::Smooth;
    case StepsGo::Ramps:
        return intervals::Shape::Ramps;
    case StepsGo::Even:
        break;
    }
    return intervals::Shape::Linear;
}

std::int64_t IntervalCourse::alongWay(std::int64_t picture) const {
    if (plan_.atEnd == AtWayEnd::Stays || plan_.sensors.empty())
        return std::clamp<std::int64_t>(picture, 0, wayMoves_);
    const std::int64_t within = std::max<std::int64_t>(0, picture) % (2 * wayMoves_);
    return std::min(within, 2 * wayMoves_ - within);
}

double IntervalCourse::shareAt(std::int64_t picture) const {
    const double u = static_cast<double>(alongWay(picture)) / static_cast<double>(wayMoves());
    return intervals::shareDone(shape(), plan_.ramp, u);
}

double IntervalCourse::driven(std::int64_t picture) const {
    return pulseWay_ * static_cast<double>(alongWay(picture));
}

std::vector<double> IntervalCourse::placesAt(std::int64_t picture) const {
    std::vector<double> out(rig_.axes.size());
    placesAt(picture, out);
    return out;
}

void IntervalCourse::placesAt(std::int64_t picture, std::span<double> out) const {
    const double share = shareAt(picture);
    if (move_ != nullptr && !move_->plan.trajectory.empty()) {
        const trajectory::Trajectory& t = move_->plan.trajectory;
        for (std::size_t a = 0; a < out.size(); ++a) out[a] = t.at(a, share * t.duration()).place;
    } else {
        for (std::size_t a = 0; a < out.size(); ++a) out[a] = from_[a] + share * way_[a];
    }
    // What is driven by pulses goes as far as they take it.
    if (plan_.mode == IntervalMode::Pulses && slide_ < out.size()) {
        const double sense = move_ == nullptr && way_[slide_] < 0.0 ? -1.0 : 1.0;
        const double begins = move_ != nullptr ? move_->plan.trajectory.at(slide_, 0.0).place : from_[slide_];
        out[slide_] = begins + sense * driven(picture);
    }
}

double IntervalCourse::stepAt(std::int64_t picture, std::size_t axis) const {
    if (!moves_[axis] || picture + 1 >= pictures()) return 0.0;
    if (move_ == nullptr && !(plan_.mode == IntervalMode::Pulses && axis == slide_))
        return (shareAt(picture + 1) - shareAt(picture)) * way_[axis];
    return placesAt(picture + 1)[axis] - placesAt(picture)[axis];
}

double IntervalCourse::wayOf(std::size_t axis) const {
    if (move_ == nullptr) return std::abs(way_[axis]);
    const trajectory::Trajectory& t = move_->plan.trajectory;
    return std::abs(t.at(axis, t.duration()).place - t.at(axis, 0.0).place);
}

bool IntervalCourse::stopsForPictures() const {
    return plan_.mode != IntervalMode::Runs;
}

IntervalCourse::Step IntervalCourse::step(std::int64_t picture) const {
    Step out;
    out.picture = picture;
    out.here = placesAt(picture);
    out.next = placesAt(std::min(picture + 1, pictures() - 1));
    out.inPicture = inPicture(out);
    if (!stopsForPictures()) return out;
    std::vector<motion::AxisMove> moves;
    for (std::size_t a = 0; a < out.here.size(); ++a)
        moves.push_back({std::abs(out.next[a] - out.here[a]), limits_[a]});
    out.profiles = motion::synchronise(moves);
    if (plan_.mode == IntervalMode::Pulses)
        out.moveTime = plan_.pulses.pulse + intervals::wayOf(pulsedMotor(plan_), plan_.pulses.pulse).coasting;
    else
        for (const motion::Profile& p : out.profiles) out.moveTime = std::max(out.moveTime, p.time());
    out.swings = swingsOf(out);
    settle(out);
    return out;
}

double IntervalCourse::inPicture(const Step& step) const {
    if (target_ != nullptr) {
        const kinematics::InPicture a = targetSeen(move_->scene, *target_, {step.here, {}, {}}),
                                    b = targetSeen(move_->scene, *target_, {step.next, {}, {}});
        if (a.inFront && b.inFront) return std::hypot(b.u - a.u, b.v - a.v);
    }
    double sum = 0.0, most = 0.0;
    for (std::size_t a = 0; a < step.here.size(); ++a) {
        const double way = std::abs(step.next[a] - step.here[a]) * pixels_[a];
        sum += way;
        most = std::max(most, way);
    }
    return shot_ != nullptr && shot_->keepFramed ? most : sum;
}

std::vector<IntervalCourse::Swing> IntervalCourse::swingsOf(const Step& step) const {
    std::vector<Swing> out;
    for (std::size_t a = 0; a < step.profiles.size(); ++a) {
        const DriveModel& m = axes_[a].model;
        if (!m.mode || !(step.profiles[a].distance > 0.0) || !(pixels_[a] > 0.0)) continue;
        const bool measured = rig_.axes[a].vibration.frequency.value > 0.0;
        const double left = measured ? motion::rockingAfter(step.profiles[a], *m.mode)
                                     : motion::mostRockingAfter(step.profiles[a], *m.mode);
        const double amplitude = std::max(0.0, left - m.swingBand);
        if (amplitude > m.swingBand) out.push_back({a, amplitude, 2.0 * amplitude * pixels_[a], amplitude});
    }
    return out;
}

double IntervalCourse::swingAfter(const Step& step, double time) const {
    double sum = 0.0;
    for (const Swing& s : step.swings) {
        const DriveModel& m = axes_[s.axis].model;
        const motion::DyingSwing swing{s.amplitude, m.swingBand, *m.mode};
        sum += time > 0.0 ? 2.0 * pixels_[s.axis] * swingLeft(swing, time) : s.pixels;
    }
    return sum;
}

double IntervalCourse::leftOf(const Step& step) const {
    double sum = 0.0;
    for (const Swing& s : step.swings) sum += 2.0 * pixels_[s.axis] * s.left;
    return sum;
}

double IntervalCourse::smearOf(const Step& step) const {
    double sum = 0.0;
    for (const Swing& s : step.swings) {
        const motion::Mode& mode = modeOf(s.axis);
        sum += intervals::blurStopped({pixels_[s.axis] * s.left, mode.frequency, mode.damping, 0.0},
                                      exposureOf(step.picture));
    }
    return sum;
}

std::optional<double> IntervalCourse::settleWithin(const Step& step, double limit) const {
    double sum = 0.0;
    for (const Swing& s : step.swings) sum += s.pixels;
    if (sum <= limit) return 0.0;
    // What may be left is shared out as the swings are, so that no axis waits for nothing.
    double longest = 0.0;
    for (const Swing& s : step.swings) {
        const DriveModel& m = axes_[s.axis].model;
        const motion::DyingSwing swing{s.amplitude, m.swingBand, *m.mode};
        const auto time = swing.settled(2.0 * s.amplitude * limit / sum);
        if (!time) return std::nullopt;
        longest = std::max(longest, *time);
    }
    return longest;
}

void IntervalCourse::settle(Step& step) const {
    const auto dieDown = [&](double time) {
        for (Swing& s : step.swings) {
            const DriveModel& m = axes_[s.axis].model;
            s.left = swingLeft({s.amplitude, m.swingBand, *m.mode}, time);
        }
    };
    if (plan_.settleBy == SettleBy::Entered) {
        step.settle = plan_.settle;
        // Taken first, a picture has all that is left of the interval before it to come to rest.
        double rests = step.settle;
        if (plan_.order == PictureOrder::PictureFirst && plan_.mode != IntervalMode::Timers)
            rests = std::max(rests, gaps_.gap(step.picture) - step.moveTime - standsFor(step.picture));
        return dieDown(rests);
    }
    constexpr double never = 600.0;  // [s] what does not come to rest is said by its own rule
    constexpr double surely = 1.001; // so that rounding leaves it on the right side
    const double limit =
        (shot_ != nullptr ? shot_->limits.jitter : 0.0) / (surely * criteria::planStill.value);
    const auto time = settleWithin(step, limit);
    step.settle = time.value_or(never);
    if (!time) return dieDown(never);
    // By then each has come down to its share of what may be left.
    double sum = 0.0;
    for (const Swing& s : step.swings) sum += s.pixels;
    if (sum > limit)
        for (Swing& s : step.swings) s.left = s.amplitude * limit / sum;
}

std::vector<intervals::CameraTimes> IntervalCourse::cameraTimesAt(std::int64_t picture) const {
    std::vector<intervals::CameraTimes> out;
    const double exposure = exposureOf(picture);
    for (const PlanCamera& c : plan_.cameras) out.push_back({c.focus, c.lag, exposure, c.write});
    if (out.empty()) out.push_back({0.0, 0.0, exposure, 0.0});
    return out;
}

double IntervalCourse::standsFor(std::int64_t picture) const {
    double stands = 0.0;
    for (const intervals::CameraTimes& c : cameraTimesAt(picture))
        stands = std::max(stands, plan_.writesWhileMoving ? c.toClosed() : c.toReady());
    return stands;
}

intervals::BudgetResults IntervalCourse::budgetOf(const Step& step) const {
    intervals::Budget b;
    b.order =
        plan_.order == PictureOrder::MoveFirst ? intervals::Order::MoveFirst : intervals::Order::PictureFirst;
    // Free timers do not wait for each other, and what runs on needs no time of its own.
    if (stopsForPictures() && plan_.mode != IntervalMode::Timers) {
        b.move = step.moveTime;
        b.settle = step.settle;
    }
    b.spare = plan_.spare;
    b.writesWhileMoving = plan_.writesWhileMoving;
    return intervals::budgetOf(b, cameraTimesAt(step.picture));
}

double IntervalCourse::clockAt(std::int64_t picture) const {
    if (!schedule_) return plan_.startClock + gaps_.timeOf(picture);
    const intervals::WorkingHours hours{plan_.hours.open, plan_.hours.close, days_,
                                        static_cast<int>(plan_.startDay)};
    return intervals::scheduledTime(picture, schedule_->perDay, gaps_.first, hours);
}

} // namespace gantry
