// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/move/plan_move.h"

#include "core/evaluate/move/aimed_run.h"
#include "core/trajectory/ease.h"
#include "core/trajectory/through_keys.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace gantry {
namespace {

using kinematics::Aimed;
using trajectory::Quintic;
using trajectory::Trajectory;

trajectory::EaseShape shapeOf(EaseKind kind) {
    switch (kind) {
    case EaseKind::Linear:
        return trajectory::EaseShape::Linear;
    case EaseKind::Cosine:
        return trajectory::EaseShape::Cosine;
    case EaseKind::S:
        break;
    }
    return trajectory::EaseShape::S;
}

/// Ramps of a time [s]. Shares that do not fit beside each other share it as they can; what is to start at
/// once takes a thousandth of it, since nothing gets to its speed in no time at all.
trajectory::Ease easeOf(EaseKind kind, double in, double out, double time) {
    constexpr double least = 1e-3;
    in = std::max(in, least);
    out = std::max(out, least);
    const double all = std::max(1.0, in + out);
    return {shapeOf(kind), in / all * time, out / all * time};
}

class Planner {
public:
    Planner(const RigMove& move, const MoveScene& scene)
        : move_(move), scene_(scene), aims_(scene, move), axes_(scene.axes.size()) {}

    MovePlan run() {
        place();
        if (move_.poses.size() < 2) {
            trouble(MoveTroubleKind::TooFewPoses, 0);
            if (!out_.poses.empty()) out_.poseTimes.push_back(0.0);
            return std::move(out_);
        }
        out_.poseTimes.push_back(0.0);
        for (std::size_t first = 0; first + 1 < move_.poses.size();) {
            wait(first);
            std::size_t last = first + 1;
            while (goesThrough(move_, last)) ++last;
            runBetween(first, last);
            first = last;
        }
        wait(move_.poses.size() - 1);
        const std::vector<std::size_t> blocks = takeBlocks();
        if (move_.comesBack) {
            // From where the blocks leave it, too.
            std::vector<double> home = out_.poses.front();
            for (const std::size_t b : blocks)
                home[axisOf(move_.blocks[b].axis)] -= wayOfBlock(move_.blocks[b]);
            const Trajectory back = trajectory::straight(out_.poses.back(), home, scene_.limits);
            if (!back.empty()) out_.trajectory.append(back);
        }
        if (!blocks.empty()) addBlocks(blocks);
        return std::move(out_);
    }

private:
    void trouble(MoveTroubleKind kind, std::size_t pose, int axis = -1, double value = 0.0,
                 double limit = 0.0) {
        const bool said = std::any_of(out_.troubles.begin(), out_.troubles.end(), [&](const MoveTrouble& t) {
            return t.kind == kind && t.pose == pose && t.axis == axis;
        });
        if (!said) out_.troubles.push_back({kind, pose, axis, value, limit});
    }
    const MoveSegment& segment(std::size_t pose) const { return move_.poses[pose].arrive; }
    /// Places of all axes in all poses.
    void place() {
        std::vector<double> now = scene_.shown;
        for (std::size_t i = 0; i < move_.poses.size(); ++i) {
            const std::vector<double> before = now;
            for (const PosePlace& p : move_.poses[i].places) {
                const std::size_t axis = axisOf(p.axis);
                if (axis >= axes_) continue;
                double& at = now[axis];
                const double travel = scene_.travels[axis];
                std::visit(
                    [&](const auto& set) {
                        switch (set.from) {
                        case PlaceFrom::LowEnd:
                            at = set.at;
                            break;
                        case PlaceFrom::HighEnd:
                            at = travel - set.at;
                            break;
                        case PlaceFrom::PoseBefore:
                            at = (i == 0 ? 0.0 : at) + set.at;
                            break;
                        }
                    },
                    p.place);
            }
            if (move_.poses[i].focus > 0.0) {
                if (scene_.focus)
                    now[scene_.focus->axis] = scene_.focus->ring.at(move_.poses[i].focus).angle;
                else
                    trouble(MoveTroubleKind::NoFocusScale, i);
            }
            if (move_.poses[i].focal > 0.0) zoom(i, now);
            if (i > 0 && segment(i).kind == SegmentKind::Aimed && aims_.target(i) == nullptr)
                trouble(!aims_.hasHead() ? MoveTroubleKind::NoHead : MoveTroubleKind::NoTarget, i);
            if (aims_.target(i) != nullptr)
                aimAlong(i, before, now);
            else if (aims_.target(i + 1) != nullptr)
                beginAimed(i, now);
            out_.poses.push_back(now);
            if (aims_.target(i + 1) == nullptr) endAimed(i, now);
        }
        for (std::size_t a = 0; a < axes_; ++a)
            for (std::size_t i = 1; i < out_.poses.size(); ++i)
                if (const auto wrong = wrongOf(a, i)) {
                    trouble(*wrong, i, static_cast<int>(a));
                    break;
                }
        for (std::size_t i = 0; i < out_.poses.size(); ++i)
            for (std::size_t a = 0; a < axes_; ++a) {
                const double at = out_.poses[i][a], slack = 1e-9 * (1.0 + scene_.travels[a]);
                const SoftEnds& ends = scene_.ends[a];
                if (at < ends.low - slack || at > ends.high + slack)
                    trouble(MoveTroubleKind::OutsideTravel, i, static_cast<int>(a), at,
                            at < ends.low ? ends.low : ends.high);
            }
    }
    void zoom(std::size_t pose, std::vector<double>& now) {
        if (!scene_.zoom) return trouble(MoveTroubleKind::NoZoomScale, pose);
        const double wanted = move_.poses[pose].focal;
        double& at = now[scene_.zoom->axis];
        at = scene_.zoom->ring.angleAt(wanted);
        const double reached = scene_.zoom->ring.focalAt(at);
        constexpr double same = 1e-6; // of it
        if (std::abs(reached - wanted) > same * wanted)
            trouble(MoveTroubleKind::NoSuchZoom, pose, -1, wanted, reached);
    }
    /// What keeps an axis from moving in a segment as that has it.
    std::optional<MoveTroubleKind> wrongOf(std::size_t axis, std::size_t pose) const {
        if (out_.poses[pose][axis] == out_.poses[pose - 1][axis]) return std::nullopt;
        if (!scene_.axes[axis].hasFixedSpeeds)
            return scene_.axes[axis].startsAtOnce ? std::optional(MoveTroubleKind::NotSteered) : std::nullopt;
        const bool changes = (aims_.target(pose) != nullptr && aims_.leads(pose, axis)) ||
                             goesThrough(move_, pose - 1) || goesThrough(move_, pose) ||
                             segment(pose).even != EvenSpeed::Axes;
        return changes ? std::optional(MoveTroubleKind::CannotFollow) : std::nullopt;
    }
    /// A pose from which an aimed segment sets off looks where that does.
    void beginAimed(std::size_t pose, std::vector<double>& now) {
        const kinematics::Point point = pointOf(scene_, *aims_.target(pose + 1), {now, {}, {}});
        const Aimed aimed =
            kinematics::aimAt(scene_.links, scene_.head, now, point.at, aims_.aim(pose + 1, now));
        if (!aimed) return notAimed(aimed.no, pose);
        aims_.turnHead(now, aimed);
        aims_.focusOn(pose + 1, now);
        course_.assign(1, now);
        chain_ = pose;
    }
    /// A pose to which an aimed segment comes: the head as it gets there, unwrapped.
    void aimAlong(std::size_t pose, const std::vector<double>& before, std::vector<double>& now) {
        constexpr int steps = 24;
        if (course_.empty()) chain_ = pose;
        const std::vector<double> wanted = now;
        now = before;
        for (int i = 1; i <= steps; ++i) {
            std::vector<double> next = now;
            for (std::size_t a = 0; a < axes_; ++a)
                if (!aims_.leads(pose, a)) next[a] = before[a] + (wanted[a] - before[a]) * i / steps;
            const kinematics::Point point = pointOf(scene_, *aims_.target(pose), {next, {}, {}});
            const Aimed aimed =
                kinematics::aimAt(scene_.links, scene_.head, next, point.at, aims_.aim(pose, next));
            if (!aimed) {
                now = wanted;
                return notAimed(aimed.no, pose);
            }
            aims_.turnHead(next, aimed);
            now = next;
            course_.push_back(now);
        }
        for (std::size_t a = 0; a < axes_; ++a)
            if (!aims_.leads(pose, a)) now[a] = wanted[a];
        aims_.focusOn(pose, now);
    }
    void notAimed(kinematics::NoAim no, std::size_t pose) {
        trouble(no == kinematics::NoAim::Blind    ? MoveTroubleKind::BlindTarget
                : no == kinematics::NoAim::NoHead ? MoveTroubleKind::NoHead
                                                  : MoveTroubleKind::NotReached,
                pose);
        course_.clear();
    }
    /// One count of whole turns for all that was aimed one after the other, so that it stays in the range.
    void endAimed(std::size_t pose, std::vector<double>& now) {
        if (course_.empty()) return;
        for (const int link : aims_.headLinks()) {
            const std::size_t a = aims_.axisOf(link);
            std::vector<double> course;
            for (const std::vector<double>& places : course_) course.push_back(places[a]);
            const SoftEnds& ends = scene_.ends[a];
            const kinematics::Turns t = kinematics::turnsInto(course, ends.low, ends.high, course.front());
            for (std::size_t i = chain_; i <= pose; ++i) out_.poses[i][a] += t.by;
            now[a] += t.by;
            if (!t.fits)
                trouble(MoveTroubleKind::LeavesRange, pose, static_cast<int>(a), course[t.leavesAt] + t.by,
                        course[t.leavesAt] + t.by < ends.low ? ends.low : ends.high);
        }
        course_.clear();
    }
    /// Its index; one past the last where the rig has none of that name.
    std::size_t axisOf(const std::string& id) const {
        const auto it = std::find_if(scene_.axes.begin(), scene_.axes.end(),
                                     [&](const PlannedAxis& a) { return a.id == id; });
        return static_cast<std::size_t>(it - scene_.axes.begin());
    }
    double wayOfBlock(const AxisBlock& b) const { return isLinear(axisOf(b.axis)) ? b.by : b.byAngle; }
    bool isLinear(std::size_t axis) const { return scene_.axes[axis].kind == AxisKind::Linear; }
    /// Whether the poses move an axis, or an aimed segment leads or leans on it.
    bool movedByPoses(std::size_t axis) const {
        for (std::size_t i = 1; i < out_.poses.size(); ++i) {
            if (out_.poses[i][axis] != out_.poses[i - 1][axis]) return true;
            if (aims_.target(i) != nullptr && scene_.linkOf[axis] >= 0) return true;
            if (aims_.target(i) != nullptr &&
                (aims_.leads(i, axis) || aims_.target(i)->rides == scene_.axes[axis].id))
                return true;
        }
        return false;
    }
    /// The blocks that can run, in order of their start; what is wrong with the others is said.
    std::vector<std::size_t> takeBlocks() {
        std::vector<std::size_t> order(move_.blocks.size()), out;
        for (std::size_t b = 0; b < order.size(); ++b) order[b] = b;
        std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
            return move_.blocks[a].start < move_.blocks[b].start;
        });
        std::vector<double> until(axes_, 0.0);
        for (const std::size_t b : order) {
            const AxisBlock& block = move_.blocks[b];
            const std::size_t a = axisOf(block.axis);
            if (a >= axes_) continue; // the project names no such axis, and is refused for it
            const double end = block.start + block.length, slack = 1e-9 * (1.0 + end);
            const auto refuse = [&](MoveTroubleKind kind, double value, double limit) {
                trouble(kind, b, static_cast<int>(a), value, limit);
            };
            if (movedByPoses(a)) {
                refuse(MoveTroubleKind::BlockOnMoved, block.start, 0.0);
            } else if (block.start < until[a] - slack) {
                refuse(MoveTroubleKind::BlocksOverlap, block.start, until[a]);
            } else if (end > out_.trajectory.duration() + slack) {
                refuse(MoveTroubleKind::BlockPastEnd, end, out_.trajectory.duration());
            } else {
                until[a] = end;
                out.push_back(b);
            }
        }
        return out;
    }
    void addBlocks(std::span<const std::size_t> blocks) {
        for (const std::size_t b : blocks) {
            const AxisBlock& block = move_.blocks[b];
            const std::size_t a = axisOf(block.axis);
            const double way = wayOfBlock(block);
            if (way == 0.0) continue;
            if (scene_.axes[a].startsAtOnce) trouble(MoveTroubleKind::NotSteered, 1, static_cast<int>(a));
            const auto profile = trajectory::planEased(
                1.0, block.length, easeOf(block.ease, block.easeIn, block.easeOut, block.length));
            if (!profile) continue;
            const double from[]{0.0}, to[]{way};
            out_.trajectory =
                out_.trajectory.withAdded(a, trajectory::along(from, to, *profile), block.start);
        }
        const Trajectory& t = out_.trajectory;
        for (SegmentPlan& s : out_.segments) {
            const double slack = 1e-9 * (s.to - s.from);
            s.firstPiece = t.pieceAt(s.from + slack);
            s.lastPiece = t.pieceAt(s.to - slack) + 1;
            s.binds = trajectory::binding(t, scene_.limits, s.firstPiece, s.lastPiece);
            s.least = (s.to - s.from) * s.binds.stretch;
            s.drift = s.driftAt = 0.0;
            drift(s);
        }
        for (std::size_t i = 0; i < out_.poses.size(); ++i)
            for (std::size_t a = 0; a < axes_; ++a) out_.poses[i][a] = t.at(a, out_.poseTimes[i]).place;
    }

    void wait(std::size_t pose) {
        const double time = move_.poses[pose].wait;
        if (time > 0.0) out_.trajectory.append(trajectory::standing(out_.poses[pose], time));
    }

    /// Time of one segment from rest to rest, as it is asked for.
    double timeOf(std::size_t pose) {
        const MoveSegment& s = segment(pose);
        switch (s.pace) {
        case SegmentPace::Time:
            return s.time;
        case SegmentPace::Speed: {
            if (const int axis = leadingAxis(scene_, out_, pose, s); axis >= 0) {
                const auto a = static_cast<std::size_t>(axis);
                const double way = std::abs(out_.poses[pose][a] - out_.poses[pose - 1][a]);
                const double speed = isLinear(a) ? s.speed : s.angularSpeed;
                const double ramps = std::min(1.0, s.easeIn + s.easeOut);
                return way / (speed * (1.0 - 0.5 * ramps));
            }
            trouble(MoveTroubleKind::NoSpeedAxis, pose);
            return s.time;
        }
        case SegmentPace::Fastest:
            break;
        }
        const double least = leastStraight(pose);
        return least > 0.0 ? least : s.time;
    }
    double leastStraight(std::size_t pose) const {
        return trajectory::straight(out_.poses[pose - 1], out_.poses[pose], scene_.limits).duration();
    }

    /// From one stop to the next, through the poses between.
    void runBetween(std::size_t first, std::size_t last) {
        std::vector<double> times{0.0};
        for (std::size_t i = first + 1; i <= last; ++i) times.push_back(times.back() + timeOf(i));
        const double from = out_.trajectory.duration();
        const std::size_t before = out_.trajectory.pieceCount();
        Trajectory run = last == first + 1 ? single(last, times.back()) : through(first, last, times);
        if (last == first + 1) {
            if (segment(last).even != EvenSpeed::Axes) run = even(last, times.back(), run);
            times.back() = run.duration();
        } else {
            for (std::size_t i = first + 1; i <= last; ++i)
                if (segment(i).even != EvenSpeed::Axes) trouble(MoveTroubleKind::EvenPassing, i);
        }
        AimedRun aimed = aimedRun(scene_, aims_, out_.poses, first, last, times, run);
        for (const AimFailure& f : aimed.failures) notAimed(f.no, f.pose);
        run = std::move(aimed.run);
        // A time that somebody gave is kept; only a run that is all to be fast is run as fast as it may.
        bool asFast = true;
        for (std::size_t i = first + 1; i <= last; ++i)
            asFast = asFast && segment(i).pace == SegmentPace::Fastest;
        if (asFast && !run.empty()) {
            // Not the least time of such a run, but the same form as fast as it may go.
            const double by = trajectory::binding(run, scene_.limits).stretch;
            const bool own = last == first + 1 && aims_.target(last) == nullptr &&
                             segment(last).even == EvenSpeed::Axes; // planned by its limits already
            if (by > 0.0 && (by > 1.0 || !own)) {
                run = run.slower(by);
                for (double& t : times) t *= by;
            }
        }
        out_.trajectory.append(run);
        for (std::size_t i = first + 1; i <= last; ++i) {
            SegmentPlan s;
            s.pose = i;
            s.from = from + times[i - first - 1];
            s.to = from + times[i - first];
            s.aimed = aims_.target(i) != nullptr;
            s.firstPiece = before + run.pieceAt(times[i - first - 1] * (1.0 + 1e-12) + 1e-12);
            s.lastPiece = i == last ? before + run.pieceCount()
                                    : before + run.pieceAt(times[i - first] * (1.0 + 1e-12) + 1e-12);
            s.binds = trajectory::binding(out_.trajectory, scene_.limits, s.firstPiece, s.lastPiece);
            s.least = (s.to - s.from) * s.binds.stretch;
            // Where it stops at both ends the closed form says how soon it can be there at best.
            if (last == first + 1 && !s.aimed) s.quickest = leastStraight(i);
            out_.segments.push_back(s);
            out_.poseTimes.push_back(s.to);
            drift(out_.segments.back());
        }
    }

    Trajectory single(std::size_t pose, double time) {
        const MoveSegment& s = segment(pose);
        const std::vector<double>&from = out_.poses[pose - 1], &to = out_.poses[pose];
        if (from == to) {
            trouble(MoveTroubleKind::NothingMoves, pose);
            return trajectory::standing(to, time);
        }
        if (s.pace == SegmentPace::Fastest) return trajectory::straight(from, to, scene_.limits);
        if (s.easeIn + s.easeOut > 1.0 + 1e-12)
            trouble(MoveTroubleKind::RampsTooLong, pose, -1, s.easeIn + s.easeOut, 1.0);
        const auto profile = trajectory::planEased(1.0, time, easeOf(s.ease, s.easeIn, s.easeOut, time));
        return profile ? trajectory::along(from, to, *profile) : trajectory::standing(to, time);
    }

    /// The same way as `run`, with an even speed of the lens in space or of the target in the picture.
    Trajectory even(std::size_t pose, double time, const Trajectory& run) {
        const MoveSegment& s = segment(pose);
        const AimTarget* target = targetOf(move_, s);
        const bool picture = s.even == EvenSpeed::Picture;
        // Held at its place, or with none there is, nothing crosses the picture.
        if (picture && (aims_.target(pose) != nullptr || target == nullptr)) {
            trouble(MoveTroubleKind::StandsInPicture, pose);
            return run;
        }
        if (out_.poses[pose] == out_.poses[pose - 1]) return run; // said already
        std::vector<std::vector<Quintic>> ways(axes_);
        for (std::size_t a = 0; a < axes_; ++a) {
            const double from = out_.poses[pose - 1][a];
            ways[a] = {Quintic({from, out_.poses[pose][a] - from, 0.0, 0.0, 0.0, 0.0}, 1.0)};
        }
        const Trajectory path({0.0, 1.0}, std::move(ways));
        const auto rate = [&](double at) {
            const AxisStates states = statesAt(scene_, path, at);
            if (!picture) {
                const kinematics::Moving camera = cameraAt(scene_, states.motion());
                return std::hypot(camera.velocity.x, camera.velocity.y, camera.velocity.z);
            }
            const kinematics::InPicture p = targetSeen(scene_, *target, states.motion());
            return p.inFront ? std::hypot(p.uSpeed, p.vSpeed) : 0.0;
        };
        // Where what shall be even nearly stands, no axis could be quick enough.
        constexpr int looks = 64;
        double least = 1e300, sum = 0.0;
        for (int i = 0; i <= looks; ++i) {
            // Just inside: at its ends a course stands.
            const double r = rate(std::clamp(static_cast<double>(i) / looks, 1e-9, 1.0 - 1e-9));
            least = std::min(least, r);
            sum += r;
        }
        if (!(least > 0.02 * sum / (looks + 1))) {
            trouble(picture ? MoveTroubleKind::StandsInPicture : MoveTroubleKind::LensStands, pose);
            return run;
        }
        const auto inside = [&](double at) { return rate(std::clamp(at, 1e-9, 1.0 - 1e-9)); };
        auto out = trajectory::evenly(path, inside, time, easeOf(s.ease, s.easeIn, s.easeOut, time));
        if (!out) return run;
        const int axis = s.pace == SegmentPace::Speed ? leadingAxis(scene_, out_, pose, s) : -1;
        if (axis < 0) return std::move(*out);
        // The axis of the speed is quickest elsewhere now.
        const auto a = static_cast<std::size_t>(axis);
        const double asked = isLinear(a) ? s.speed : s.angularSpeed;
        return out->slower(out->extremes(a, trajectory::Order::Speed).largest() / asked);
    }

    Trajectory through(std::size_t first, std::size_t last, std::span<const double> times) {
        const std::vector<trajectory::Key> keys(out_.poses.begin() + static_cast<std::ptrdiff_t>(first),
                                                out_.poses.begin() + static_cast<std::ptrdiff_t>(last) + 1);
        for (std::size_t i = first + 1; i <= last; ++i)
            if (keys[i - first] == keys[i - first - 1]) trouble(MoveTroubleKind::NothingMoves, i);
        const std::vector<bool> stops(keys.size(), false);
        std::vector<trajectory::Through> ways(axes_, trajectory::Through::Smooth);
        Trajectory smooth = trajectory::throughKeys(keys, times, stops, ways);
        if (move_.overshoots) return smooth;
        for (std::size_t a = 0; a < axes_; ++a)
            for (std::size_t i = first + 1; i <= last && ways[a] == trajectory::Through::Smooth; ++i)
                if (!(aims_.target(i) != nullptr && aims_.leads(i, a)) &&
                    pastPoses(smooth, out_.poses, a, i, i - first - 1, i - first).by > 0.0)
                    ways[a] = trajectory::Through::Within;
        return trajectory::throughKeys(keys, times, stops, ways);
    }

    /// By how much the target leaves the straight way between where the ends of a segment show it.
    void drift(SegmentPlan& s) const {
        const MoveSegment& of = segment(s.pose);
        const AimTarget* target = targetOf(move_, of);
        if (target == nullptr) return;
        const auto way = wayInPicture(scene_, out_, s, *target);
        if (!way) return;
        constexpr int looks = 64;
        for (int i = 1; i < looks; ++i) {
            const double t = s.from + (s.to - s.from) * i / looks;
            const kinematics::InPicture p = targetSeen(scene_, *target, out_.trajectory, t);
            if (!p.inFront) return;
            if (const double off = way->off(p.u, p.v); off > s.drift) {
                s.drift = off;
                s.driftAt = t;
            }
        }
        // What is left of an aimed segment is rounding.
        constexpr double nothing = 1e-3;
        if (s.drift < nothing) s.drift = 0.0;
        s.targetSeen = true;
    }

    const RigMove& move_;
    const MoveScene& scene_;
    SegmentAims aims_;
    std::size_t axes_;
    MovePlan out_;
    std::vector<std::vector<double>> course_; ///< places along what is being aimed one after the other …
    std::size_t chain_ = 0;                   ///< … from this pose on
};

} // namespace

PastPoses pastPoses(const trajectory::Trajectory& t, std::span<const std::vector<double>> poses,
                    std::size_t axis, std::size_t pose, std::size_t firstPiece, std::size_t lastPiece) {
    const double from = poses[pose - 1][axis], to = poses[pose][axis];
    const trajectory::Extremes e = t.extremes(axis, trajectory::Order::Place, firstPiece, lastPiece);
    const double below = std::min(from, to) - e.least, above = e.greatest - std::max(from, to);
    const double rounding = 1e-9 * (1.0 + std::abs(from) + std::abs(to));
    if (!(std::max(below, above) > rounding)) return {};
    return below > above ? PastPoses{below, e.leastAt} : PastPoses{above, e.greatestAt};
}

MovePlan planMove(const RigMove& move, const MoveScene& scene) {
    return Planner(move, scene).run();
}

int leadingAxis(const MoveScene& scene, const MovePlan& plan, std::size_t pose, const MoveSegment& segment) {
    if (pose == 0 || pose >= plan.poses.size()) return -1;
    for (std::size_t a = 0; a < scene.axes.size(); ++a)
        if ((segment.speedOf.empty() || segment.speedOf == scene.axes[a].id) &&
            plan.poses[pose][a] != plan.poses[pose - 1][a])
            return static_cast<int>(a);
    return -1;
}

double PictureWay::off(double u, double v) const {
    const double du = to.u - from.u, dv = to.v - from.v, length = std::hypot(du, dv);
    const double x = u - from.u, y = v - from.v;
    const double share = length > 0.0 ? std::clamp((x * du + y * dv) / (length * length), 0.0, 1.0) : 0.0;
    return std::hypot(x - share * du, y - share * dv);
}

std::optional<PictureWay> wayInPicture(const MoveScene& scene, const MovePlan& plan,
                                       const SegmentPlan& segment, const AimTarget& target) {
    const auto from = shownAt(scene, plan.poses[segment.pose - 1], target),
               to = shownAt(scene, plan.poses[segment.pose], target);
    if (!from || !to) return std::nullopt;
    return PictureWay{*from, *to};
}

} // namespace gantry
