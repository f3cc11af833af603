// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/move/planned_move.h"

#include "core/kinematics/newton_euler.h"
#include "core/optics/picture.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

using kinematics::RigidBody;
using trajectory::State;

/// The chain of a rig with, for each axis, the masses that it lists where they are fixed.
struct Listed {
    std::vector<kinematics::Link> links;
    std::vector<std::vector<RigidBody>> bodies; ///< one list for each axis; empty: nothing is told of it
};

/// Levelled masses stand on parallel links of their own.
Listed listedMasses(const RigSetup& rig, const MoveScene& scene) {
    Listed out;
    out.links = scene.links;
    out.bodies.resize(rig.axes.size());
    for (std::size_t a = 0; a < rig.axes.size(); ++a) {
        const int link = scene.linkOf[a];
        if (link < 0) continue;
        std::vector<RigidBody>& list = out.bodies[a];
        const auto* rotary = std::get_if<RotaryMechanism>(&rig.axes[a].mechanism);
        if (rotary == nullptr) {
            list.push_back({link, rig.masses[a].moving, {}});
            continue;
        }
        const kinematics::Link joint = out.links[static_cast<std::size_t>(link)];
        const bool upright = joint.joint == kinematics::Joint::Yaw;
        for (const structure::ArmMass& m : rig.masses[a].felt()) {
            RigidBody body{link, m.mass, {m.along, 0.0, m.above}};
            body.across = m.own; // an even arm along its own direction
            if (m.levelled && !upright) {
                out.links.push_back({joint.on,
                                     joint.shift,
                                     kinematics::Joint::Parallel,
                                     joint.axis,
                                     joint.offset,
                                     {m.along, 0.0, 0.0}});
                body.link = static_cast<int>(out.links.size()) - 1;
                body.at = {m.beyond, 0.0, m.above};
            }
            list.push_back(body);
        }
        // What is entered as a number turns about the axis itself.
        RigidBody entered;
        entered.link = link;
        entered.along = upright                                   ? geometry::Place{0.0, 0.0, 1.0}
                        : joint.joint == kinematics::Joint::Pitch ? geometry::Place{0.0, 1.0, 0.0}
                                                                  : geometry::Place{1.0, 0.0, 0.0};
        entered.axial =
            rotary->inertia.value + rotary->pointMass.value * rotary->pointRadius * rotary->pointRadius;
        if (entered.axial > 0.0) list.push_back(entered);
    }
    return out;
}

/// Moves the rig through its moments and asks what each axis meets.
class Walk {
public:
    Walk(const RigSetup& rig, const RigMove& move, PlannedMove& out)
        : rig_(rig), move_(move), shot_(shotOf(rig.shots, move)), out_(out),
          listed_(listedMasses(rig, out.scene)), axes_(rig.axes.size()), places_(axes_), speeds_(axes_),
          rises_(axes_), forces_(axes_), all_(axes_), moving_(listed_.links.size()), lensLinks_(axes_),
          ownLinks_(axes_) {
        for (std::size_t l = 0; l < listed_.links.size(); ++l)
            if (const int axis = listed_.links[l].axis; axis >= 0)
                ownLinks_[static_cast<std::size_t>(axis)].push_back(l);
    }

    void run() {
        const trajectory::Trajectory& t = out_.plan.trajectory;
        out_.axes.resize(axes_);
        for (std::size_t a = 0; a < axes_; ++a)
            if (out_.topSpeeds[a] > 0.0)
                turning_.push_back(a);
            else if (!listed_.bodies[a].empty())
                standing_.push_back(a);
        if (turning_.empty()) return;
        out_.still.resize(axes_);
        for (const std::size_t a : turning_) lensLinks_[a] = lensLinks(a);
        // The beginning of every piece, and its end where acceleration jumps to the next; inside, where
        // torque is smooth, so that there are 48 of the whole move at least.
        const double step = t.duration() / 48.0;
        for (std::size_t p = 0; p < t.pieceCount(); ++p) {
            const double low = t.times()[p], length = t.times()[p + 1] - low;
            const int parts = std::clamp(static_cast<int>(std::ceil(length / step)), 1, 48);
            for (int k = 0; k < parts; ++k) look(p, low, length * k / parts);
            if (p + 1 == t.pieceCount() || jumpsAfter(p)) look(p, low, length);
        }
        // What nothing pushes is as it is at rest.
        for (const std::size_t a : standing_)
            if (std::none_of(out_.still[a].begin(), out_.still[a].end(),
                             [](const AxisMoment& m) { return std::abs(m.carried) > 1e-9; }))
                out_.still[a].clear();
    }

private:
    bool jumpsAfter(std::size_t piece) const {
        for (const std::size_t a : turning_) {
            const trajectory::Quintic& q = out_.plan.trajectory.pieces(a)[piece];
            const double ends = q.at(q.duration()).acceleration,
                         begins = out_.plan.trajectory.pieces(a)[piece + 1].at(0.0).acceleration;
            if (std::abs(ends - begins) > 1e-6 * (std::abs(ends) + std::abs(begins))) return true;
        }
        return false;
    }

    void look(std::size_t piece, double low, double since) {
        for (std::size_t a = 0; a < axes_; ++a) {
            const State s = out_.plan.trajectory.pieces(a)[piece].at(since);
            places_[a] = s.place;
            speeds_[a] = s.speed;
            rises_[a] = s.acceleration;
        }
        kinematics::forwardMotion(listed_.links, {places_, speeds_, rises_}, moving_);
        std::vector<double> carried(axes_, 0.0);
        for (const std::size_t b : turning_) addReactions(b, carried);
        const double depth = depthAt(piece);
        for (const std::size_t a : turning_)
            out_.axes[a].push_back({low + since, places_[a], speeds_[a], rises_[a], carried[a], leanOf(a),
                                    lensLinks_[a].empty() ? 0.0 : shiftOf(a, depth)});
        for (const std::size_t a : standing_)
            out_.still[a].push_back(
                {low + since, places_[a], 0.0, 0.0, carried[a] + forceOn(a, moving_, a), leanOf(a)});
    }

    /// What axis b puts on those below it because it moves, and what moves below puts on b.
    void addReactions(std::size_t b, std::vector<double>& carried) {
        if (listed_.bodies[b].empty()) return;
        const std::vector<std::size_t>& own = ownLinks_[b];
        kinematics::jointForces(listed_.links, moving_, listed_.bodies[b], 0.0, all_);
        kept_.clear();
        for (const std::size_t l : own) kept_.push_back(moving_[l]);
        // All that the bodies of b ask, but for b's own acceleration and what holds them up.
        moveOwn(b, speeds_[b]);
        carried[b] += forceOn(b, moving_, b);
        // What the axes below feel of b's movement alone.
        moveOwn(b, 0.0);
        kinematics::jointForces(listed_.links, moving_, listed_.bodies[b], 0.0, forces_);
        for (std::size_t i = 0; i < own.size(); ++i) moving_[own[i]] = kept_[i];
        for (std::size_t a = 0; a < axes_; ++a)
            if (a != b) carried[a] += all_[a] - forces_[a];
    }
    /// The links that the bodies of an axis are fixed to, without its acceleration.
    void moveOwn(std::size_t axis, double rate) {
        const kinematics::Moving ground;
        for (const std::size_t l : ownLinks_[axis]) {
            const kinematics::Link& link = listed_.links[l];
            moving_[l] =
                kinematics::motionOf(link, link.on < 0 ? ground : moving_[static_cast<std::size_t>(link.on)],
                                     places_[axis], rate, 0.0);
        }
    }
    double forceOn(std::size_t axis, std::span<const kinematics::Moving> moving, std::size_t of) {
        kinematics::jointForces(listed_.links, moving, listed_.bodies[of], 0.0, forces_);
        return forces_[axis];
    }

    /// The links that an axis moves and the lens stands on.
    std::vector<std::size_t> lensLinks(std::size_t axis) const {
        std::vector<std::size_t> out;
        const int lens = out_.scene.head.lens;
        if (shot_ == nullptr || lens < 0) return out;
        for (const std::size_t l : ownLinks_[axis])
            if (kinematics::standingOn(listed_.links, static_cast<int>(l))[static_cast<std::size_t>(lens)])
                out.push_back(l);
        return out;
    }
    const geometry::Frame& lensFrame() const {
        return moving_[static_cast<std::size_t>(out_.scene.head.lens)].frame;
    }
    /// How far before the lens what a segment looks at is [m]: its target, or the subject of the shot.
    double depthAt(std::size_t piece) const {
        if (shot_ == nullptr || out_.scene.head.lens < 0) return 1.0;
        for (const SegmentPlan& s : out_.plan.segments) {
            if (piece < s.firstPiece || piece >= s.lastPiece) continue;
            const AimTarget* target = targetOf(move_, move_.poses[s.pose].arrive);
            if (target == nullptr) break;
            const double depth =
                lensFrame().seen(pointOf(out_.scene, *target, {places_, speeds_, rises_}).at).x;
            if (depth > 0.0) return depth;
        }
        return shot_->subjectDistance;
    }
    /// What the lens does for one unit of an axis [px/U].
    double shiftOf(std::size_t axis, double depth) const {
        const geometry::Frame& lens = lensFrame();
        geometry::Place goes, turns;
        for (const std::size_t link : lensLinks_[axis]) {
            const kinematics::JointRate rate = kinematics::rateOf(listed_.links, moving_, link);
            goes = geometry::plus(goes, rate.velocityOf(geometry::minus(lens.at, moving_[link].frame.at)));
            turns = geometry::plus(turns, rate.turning);
        }
        // Turns about up are to the left, about left downwards.
        const optics::CameraShift shift{-geometry::dot(goes, lens.left),  geometry::dot(goes, lens.up),
                                        geometry::dot(goes, lens.ahead),  -geometry::dot(turns, lens.up),
                                        -geometry::dot(turns, lens.left), geometry::dot(turns, lens.ahead)};
        return optics::pictureShift(out_.scene.focal(places_), rig_.camera.deliveredWidth, depth, shift);
    }
    double leanOf(std::size_t axis) const {
        const int link = out_.scene.linkOf[axis];
        if (link < 0) return 0.0;
        // Only what nods with what carries it is nearer to or farther from level by that.
        const kinematics::Link& joint = listed_.links[static_cast<std::size_t>(link)];
        if (joint.on < 0 || joint.joint != kinematics::Joint::Pitch) return 0.0;
        const geometry::Place ahead = moving_[static_cast<std::size_t>(joint.on)].frame.ahead;
        return std::asin(std::clamp(ahead.z, -1.0, 1.0));
    }

    const RigSetup& rig_;
    const RigMove& move_;
    const Shot* shot_;
    PlannedMove& out_;
    Listed listed_;
    std::size_t axes_;
    std::vector<double> places_, speeds_, rises_, forces_, all_;
    std::vector<kinematics::Moving> moving_, kept_;
    std::vector<std::vector<std::size_t>> lensLinks_, ownLinks_; ///< of each axis those that it moves itself
    std::vector<std::size_t> turning_, standing_; ///< axes that move in it, and those that do not
};

} // namespace

PlannedMove plannedMove(const RigSetup& rig, const RigMove& move, const PlannedMove* known) {
    PlannedMove out;
    out.move = move;
    out.scene = sceneOf(rig, move);
    if (known != nullptr && known->move == move && known->scene == out.scene) {
        out.plan = known->plan;
        out.topSpeeds = known->topSpeeds;
    } else {
        out.plan = planMove(move, out.scene);
        const trajectory::Trajectory& t = out.plan.trajectory;
        if (!t.empty())
            for (std::size_t a = 0; a < rig.axes.size(); ++a)
                out.topSpeeds.push_back(t.extremes(a, trajectory::Order::Speed).largest());
    }
    // What the axes meet hangs on the masses too.
    if (!out.plan.trajectory.empty()) Walk(rig, move, out).run();
    return out;
}

std::vector<PlannedMove> planMoves(const RigSetup& rig, bool all, std::span<const PlannedMove> known) {
    std::vector<PlannedMove> out;
    out.reserve(rig.moves.size());
    for (std::size_t m = 0; m < rig.moves.size(); ++m)
        out.push_back(all || rig.moves[m].realises
                          ? plannedMove(rig, rig.moves[m], m < known.size() ? &known[m] : nullptr)
                          : PlannedMove());
    return out;
}

} // namespace gantry
