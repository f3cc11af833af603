// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/move/evaluate_move.h"

#include "core/evaluate/move/move_choices.h"
#include "core/evaluate/move/move_picture.h"
#include "core/evaluate/move/move_search.h"
#include "core/evaluate/move/segment_aims.h"
#include "core/evaluate/rig/rig_structure.h"
#include "core/evaluate/shot/shot_steps.h"
#include "core/trajectory/passes.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>
#include <set>

namespace gantry {
namespace {

using trajectory::Order;

double limitOf(const motion::Limits& l, Order order) {
    return order == Order::Speed ? l.speed : order == Order::Acceleration ? l.acceleration : l.jerk;
}

MoveSegmentResults segmentOf(const MoveScene& scene, const MovePlan& plan, const SegmentPlan& s) {
    MoveSegmentResults out;
    out.pose = s.pose;
    out.aimed = s.aimed;
    out.start = Figure::of(s.from);
    out.time = Figure::of(s.to - s.from);
    if (s.binds.stretch > 0.0) {
        out.axis = static_cast<int>(s.binds.axis);
        out.binds = s.binds.order == Order::Speed          ? MoveBinds::Speed
                    : s.binds.order == Order::Acceleration ? MoveBinds::Acceleration
                                                           : MoveBinds::Jerk;
        const double limit = limitOf(scene.limits[s.binds.axis], s.binds.order);
        const double asked =
            plan.trajectory.extremes(s.binds.axis, s.binds.order, s.firstPiece, s.lastPiece).largest();
        out.limit = Figure::of(limit);
        out.asked = Figure::of(asked);
        out.room = Figure::of(limit / asked);
        out.at = Figure::of(s.binds.at);
        out.least = Figure::of(s.least);
        out.quickest = s.quickest > 0.0 ? Figure::of(s.quickest) : Figure::none(Reason::NotApplicable);
    } else {
        out.quickest = out.limit = out.asked = out.room = out.at = out.least =
            Figure::none(Reason::NoDistance);
    }
    out.drift = s.targetSeen ? Figure::of(s.drift) : Figure::none(Reason::NotApplicable);
    out.driftAt = s.targetSeen ? Figure::of(s.driftAt) : Figure::none(Reason::NotApplicable);
    return out;
}

/// What a rig stands on and what pushes it all the time, on its way.
struct Footing {
    structure::Footprint footprint;
    std::vector<structure::Push> lasting;
};
/// Nothing where it stands on no feet.
std::optional<Footing> footingOf(const RigSetup& rig, const RigChain& chain, const MovePlan& plan,
                                 const std::vector<AxisEvaluation>& axes) {
    if (rig.base.kind != BaseKind::Legs && rig.base.kind != BaseKind::Rectangle) return std::nullopt;
    Loads loads = loadsOn(rig, axes, layRig(rig, chain, plan.poses.front()));
    return Footing{std::move(loads.footprint), std::move(loads.lasting)};
}

/// Least ratio just before and just after a moment, since acceleration may jump there: weights, and what
/// speeding up and slowing down their masses takes.
std::optional<double> tippingAt(const RigChain& chain, const trajectory::Trajectory& t, const Footing& on,
                                double at) {
    const std::size_t axes = t.axisCount();
    std::vector<double> places(axes), speeds(axes), rises(axes);
    std::vector<kinematics::Moving> links(chain.links.size());
    std::vector<structure::Weight> weights;
    std::vector<structure::InSpace> accelerations;
    std::optional<double> least;
    const double nudge = 1e-9 * t.duration();
    for (const double moment : {at - nudge, at + nudge}) {
        bool jumps = false;
        for (std::size_t a = 0; a < axes; ++a) {
            const trajectory::State s = t.at(a, moment);
            places[a] = s.place;
            speeds[a] = s.speed;
            jumps = jumps || std::abs(s.acceleration - rises[a]) > 1e-6 * std::abs(s.acceleration);
            rises[a] = s.acceleration;
        }
        if (least && !jumps) break;
        kinematics::forwardMotion(chain.links, {places, speeds, rises}, links);
        weights.clear();
        accelerations.clear();
        for (const ChainBody& b : chain.bodies) {
            if (!(b.mass > 0.0)) continue;
            const kinematics::Moving m =
                b.link < 0 ? kinematics::Moving{} : links[static_cast<std::size_t>(b.link)];
            const Place way = m.frame.along(b.centre), place = geometry::plus(m.frame.at, way),
                        a = m.accelerationOf(way);
            weights.push_back({b.mass, {place.x, place.y}, place.z});
            accelerations.push_back({a.x, a.y, a.z});
        }
        const auto found = structure::tippingMoving(on.footprint, weights, accelerations, on.lasting);
        if (found && (!least || found->ratio < *least)) least = found->ratio;
    }
    return least;
}

/// Whether an axis turns about where the lens looks in the move on purpose: a pose or a block of it rolls.
bool rollsOnPurpose(const RigSetup& rig, const RigMove& move) {
    const auto rolls = [&](const std::string& id) {
        return std::any_of(rig.axes.begin(), rig.axes.end(),
                           [&](const Axis& a) { return a.role == Role::Roll && a.id == id; });
    };
    return std::any_of(move.blocks.begin(), move.blocks.end(),
                       [&](const AxisBlock& b) { return rolls(b.axis); }) ||
           std::any_of(move.poses.begin(), move.poses.end(), [&](const KeyPose& pose) {
               return std::any_of(pose.places.begin(), pose.places.end(),
                                  [&](const PosePlace& p) { return rolls(p.axis); });
           });
}

/// Where an axis has to come from so that its backlash is taken up when it reaches the first pose.
void fillApproach(MoveAxisResults& out, const AxisEvaluation& e, const trajectory::Trajectory& t,
                  std::size_t axis, const SoftEnds& ends) {
    const double backlash = e.model.backlash, start = t.at(axis, 0.0).place;
    const int direction = t.firstDirection(axis);
    if (direction == 0 || !(backlash > 0.0)) return;
    // Once more the backlash itself, for good measure.
    const trajectory::Approach a =
        trajectory::approachTo(start, direction, backlash, backlash, ends.low, ends.high);
    out.approachFrom = Figure::of(a.from);
    out.approachRoom =
        Figure::of(std::max(0.0, direction > 0 ? start - ends.low : ends.high - start) / backlash);
}

/// How far an axis goes past the poses on its way between them; an aim may lead it as it has to.
void fillOvershoot(MoveAxisResults& out, const MovePlan& plan, const SegmentAims& aims, std::size_t axis) {
    out.overshoot = Figure::of(0.0);
    for (const SegmentPlan& s : plan.segments) {
        if (s.aimed && aims.leads(s.pose, axis)) continue;
        const PastPoses past =
            pastPoses(plan.trajectory, plan.poses, axis, s.pose, s.firstPiece, s.lastPiece);
        if (past.by <= out.overshoot.value()) continue;
        out.overshoot = Figure::of(past.by);
        out.overshootAt = Figure::of(past.at);
    }
}

/// Whether an emergency stop leaves an axis without what holds it.
bool coastsWhenStopped(const Axis& axis) {
    return axis.onStop == OnStop::CutsCurrent && !axis.brake.fitted;
}
/// [U/s²] with which friction and losses slow a motor that was let go.
double coastingBrake(const AxisEvaluation& e) {
    const double inertia = e.model.inertiaToSpeedUp();
    return inertia > 0.0 ? e.model.slowingTorque(0.0) / inertia * e.model.outputPerRad : 0.0;
}

/// How far an axis runs on when it stops as hard as it may, where that comes nearest to the end ahead.
/// Without current it is left to its friction.
void fillRunOn(MoveAxisResults& out, const AxisEvaluation& e, const Axis& axis,
               std::span<const AxisMoment> moments, double travel) {
    const double brake = coastsWhenStopped(axis) ? coastingBrake(e) : hardestStop(e, axis);
    // Nothing of its motor is known; or nothing slows it, and it falls: that is said of the axis.
    if (!std::isfinite(brake) || !(brake > 0.0)) return;
    double least = std::numeric_limits<double>::infinity();
    for (const AxisMoment& m : moments) {
        const double away = m.speed > 0.0 ? travel - m.place : m.place;
        if (m.speed == 0.0 || away < 0.0) continue;
        const double on = trajectory::stopAlone(std::abs(m.speed), brake).distance;
        if (away >= least * on) continue;
        least = away / on;
        out.runOn = Figure::of(on);
        out.endAway = Figure::of(away);
        out.runOnAt = Figure::of(m.time);
    }
}

/// Looks at a rig on its way, moment by moment: what its base and its picture meet.
class Along {
public:
    Along(const RigSetup& rig, const RigMove& move, const PlannedMove& planned, MoveResults& out)
        : rig_(rig), move_(move), chain_(chainOf(rig)), scene_(planned.scene), plan_(planned.plan),
          picture_(rig, move, planned), out_(out) {}

    void run(const PlannedMove& planned, const std::vector<AxisEvaluation>& axes) {
        out_.tipping = out_.tippingAt = out_.crossing = out_.crossingAt = out_.motionBlur = out_.focusBlur =
            out_.focusAt = out_.focusedAt = out_.targetAt = out_.horizon = out_.horizonAt =
                Figure::none(Reason::NotApplicable);
        if (rig_.base.kind == BaseKind::NotGiven) out_.tipping = Figure::none(Reason::NeedsBase);
        const std::optional<Footing> on = footingOf(rig_, chain_, plan_, axes);
        std::set<double> moments; // of all axes together; they are looked at at the same ones
        for (const std::vector<AxisMoment>& of : planned.axes)
            for (const AxisMoment& m : of) moments.insert(m.time);
        const bool level = !rollsOnPurpose(rig_, move_);
        for (const double at : moments) {
            if (on) tip(at, *on);
            picture(at);
            if (level) horizon(at);
        }
    }

private:
    void tip(double at, const Footing& on) {
        const auto ratio = tippingAt(chain_, plan_.trajectory, on, at);
        if (!ratio || (out_.tipping && *ratio >= out_.tipping.value())) return;
        out_.tipping = Figure::of(*ratio);
        out_.tippingAt = Figure::of(at);
    }

    void horizon(double at) {
        const geometry::Frame lens = cameraAt(scene_, plan_.trajectory, at).frame;
        constexpr double steep = 0.9; // there is no horizon in a picture from straight above
        if (scene_.head.lens < 0 || std::abs(lens.ahead.z) > steep) return;
        const double lean = std::abs(kinematics::horizonAngle(lens));
        if (out_.horizon && lean <= out_.horizon.value()) return;
        out_.horizon = Figure::of(lean);
        out_.horizonAt = Figure::of(at);
    }

    void picture(double at) {
        const std::optional<PictureMoment> seen = picture_.at(at);
        if (!seen) return;
        constexpr double slowest = 1.0; // [px/s] that is seen to move
        const double pace = std::hypot(seen->target.uSpeed, seen->target.vSpeed);
        const Figure crossing = rig_.camera.deliveredWidth / std::max(pace, slowest);
        if (seen->inFrame && pace > slowest && (!out_.crossing || less(crossing, out_.crossing))) {
            out_.crossing = crossing;
            out_.crossingAt = Figure::of(at);
            if (const Shot* shot = shotOf(rig_.shots, move_); !stepwise(*shot))
                out_.motionBlur = Figure::of(pace * shot->exposure);
        }
        if (!seen->focusBlur || (out_.focusBlur && *seen->focusBlur <= out_.focusBlur.value())) return;
        out_.focusBlur = Figure::of(*seen->focusBlur);
        out_.focusAt = Figure::of(at);
        out_.focusedAt = Figure::of(seen->focusedAt, Reason::Unbounded);
        out_.targetAt = Figure::of(seen->targetAt);
    }

    const RigSetup& rig_;
    const RigMove& move_;
    const RigChain chain_;
    const MoveScene& scene_;
    const MovePlan& plan_;
    MovePicture picture_;
    MoveResults& out_;
};

} // namespace

MoveResults evaluateMove(const RigSetup& rig, const RigMove& move, const PlannedMove& planned,
                         const std::vector<AxisEvaluation>& axes) {
    const MoveScene& scene = planned.scene;
    const MovePlan& plan = planned.plan;
    MoveResults out;
    out.search = notSearched();
    out.troubles = plan.troubles;
    const trajectory::Trajectory& t = plan.trajectory;
    if (t.empty()) {
        results::failAll(out, Reason::NoDistance);
        return out;
    }
    out.time = Figure::of(t.duration());
    // The last frame is the one that is still begun; what rounding lacks of a whole one counts.
    out.frames =
        Figure::of(std::floor((move.preRoll + t.duration() + move.postRoll) * scene.frameRate + 1e-6) + 1.0);
    for (const SegmentPlan& s : plan.segments) out.segments.push_back(segmentOf(scene, plan, s));
    out.travelRoom = Figure::none(Reason::NotApplicable);
    const SegmentAims aims(scene, move);
    for (std::size_t a = 0; a < rig.axes.size(); ++a) {
        const trajectory::Extremes place = t.extremes(a, Order::Place);
        MoveAxisResults& axis = out.axes.emplace_back();
        axis.lowest = Figure::of(place.least);
        axis.highest = Figure::of(place.greatest);
        axis.topSpeed = Figure::of(t.extremes(a, Order::Speed).largest());
        axis.acceleration = Figure::of(t.extremes(a, Order::Acceleration).largest());
        axis.jerk = Figure::of(t.extremes(a, Order::Jerk).largest());
        axis.overshoot = axis.overshootAt = Figure::none(Reason::NotApplicable);
        // A block goes where it is told, between poses and past them.
        if (!hasBlock(move, rig.axes[a])) fillOvershoot(axis, plan, aims, a);
        axis.approachFrom = axis.approachRoom = axis.runOn = axis.endAway = axis.runOnAt =
            Figure::none(Reason::NotApplicable);
        if (a < axes.size() && planned.moves(a) && !axes[a].model.atOnce) {
            if (move.takesUpBacklash) fillApproach(axis, axes[a], t, a, scene.ends[a]);
            fillRunOn(axis, axes[a], rig.axes[a], planned.axes[a], scene.travels[a]);
        }
        const double half = 0.5 * scene.travels[a];
        const double farthest = std::max(place.greatest - half, half - place.least);
        if (!(half > 0.0) || !(farthest > 0.0)) continue;
        const double room = (half - scene.ends[a].low) / farthest;
        if (!out.travelRoom || room < out.travelRoom.value()) {
            out.travelRoom = Figure::of(room);
            out.travelAxis = static_cast<int>(a);
        }
    }
    fillChoices(out, rig, move, plan);
    Along(rig, move, planned, out).run(planned, axes);
    return out;
}

Figure tippingAgain(const RigSetup& rig, const PlannedMove& planned, double at,
                    const std::vector<AxisEvaluation>& axes) {
    const RigChain chain = chainOf(rig);
    const std::optional<Footing> on = footingOf(rig, chain, planned.plan, axes);
    const auto ratio = on ? tippingAt(chain, planned.plan.trajectory, *on, at) : std::nullopt;
    return ratio ? Figure::of(*ratio) : Figure::none(Reason::NotApplicable);
}

} // namespace gantry
