// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/move/planned_move.h"

#include "core/kinematics/newton_euler.h"
#include "core/optics/picture.h"

#include <algorithm>
#include <atomic>
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

/// A moment of a course: a piece of it, and how long [s] after that piece has begun at `low` [s].
struct Instant {
    std::size_t piece;
    double low, since;
};

/// What stays the same all the way along a move.
struct Way {
    Way(const RigSetup& rig, const RigMove& move, const PlannedMove& planned)
        : rig(rig), move(move), shot(shotOf(rig.shots, move)), planned(planned),
          listed(listedMasses(rig, planned.scene)), lensLinks(rig.axes.size()), ownLinks(rig.axes.size()) {
        for (std::size_t l = 0; l < listed.links.size(); ++l)
            if (const int axis = listed.links[l].axis; axis >= 0)
                ownLinks[static_cast<std::size_t>(axis)].push_back(l);
        for (std::size_t a = 0; a < rig.axes.size(); ++a)
            if (planned.topSpeeds[a] > 0.0)
                turning.push_back(a);
            else if (!listed.bodies[a].empty())
                standing.push_back(a);
        for (const std::size_t a : turning) lensLinks[a] = linksOfLens(a);
    }

    /// The beginning of every piece, and its end where acceleration jumps to the next; inside, where torque
    /// is smooth, so that there are 48 of the whole move at least.
    std::vector<Instant> instants() const {
        const trajectory::Trajectory& t = planned.plan.trajectory;
        const double step = t.duration() / 48.0;
        std::vector<Instant> out;
        for (std::size_t p = 0; p < t.pieceCount(); ++p) {
            const double low = t.times()[p], length = t.times()[p + 1] - low;
            const int parts = std::clamp(static_cast<int>(std::ceil(length / step)), 1, 48);
            for (int k = 0; k < parts; ++k) out.push_back({p, low, length * k / parts});
            if (p + 1 == t.pieceCount() || jumpsAfter(p)) out.push_back({p, low, length});
        }
        return out;
    }

    const RigSetup& rig;
    const RigMove& move;
    const Shot* shot;
    const PlannedMove& planned;
    Listed listed;
    /// Of each axis the links that it moves and the lens stands on, and those that it moves itself.
    std::vector<std::vector<std::size_t>> lensLinks, ownLinks;
    std::vector<std::size_t> turning, standing; ///< axes that move in it, and those that do not

private:
    bool jumpsAfter(std::size_t piece) const {
        for (const std::size_t a : turning) {
            const auto pieces = planned.plan.trajectory.pieces(a);
            const double ends = pieces[piece].at(pieces[piece].duration()).acceleration,
                         begins = pieces[piece + 1].at(0.0).acceleration;
            if (std::abs(ends - begins) > 1e-6 * (std::abs(ends) + std::abs(begins))) return true;
        }
        return false;
    }

    std::vector<std::size_t> linksOfLens(std::size_t axis) const {
        std::vector<std::size_t> out;
        const int lens = planned.scene.head.lens;
        if (shot == nullptr || lens < 0) return out;
        for (const std::size_t l : ownLinks[axis])
            if (kinematics::standingOn(listed.links, static_cast<int>(l))[static_cast<std::size_t>(lens)])
                out.push_back(l);
        return out;
    }
};

/// Moves the rig to a moment and asks what each axis meets there.
class Walk {
public:
    explicit Walk(const Way& way)
        : way_(way), listed_(way.listed), axes_(way.rig.axes.size()), places_(axes_), speeds_(axes_),
          rises_(axes_), forces_(axes_), all_(axes_), carried_(axes_), moving_(listed_.links.size()) {}

    /// @param axes, still for each axis of the rig its moments, of which the n-th is written
    void look(const Instant& now, std::size_t n, std::vector<std::vector<AxisMoment>>& axes,
              std::vector<std::vector<AxisMoment>>& still) {
        for (std::size_t a = 0; a < axes_; ++a) {
            const State s = way_.planned.plan.trajectory.pieces(a)[now.piece].at(now.since);
            places_[a] = s.place;
            speeds_[a] = s.speed;
            rises_[a] = s.acceleration;
        }
        kinematics::forwardMotion(listed_.links, {places_, speeds_, rises_}, moving_);
        std::fill(carried_.begin(), carried_.end(), 0.0);
        for (const std::size_t b : way_.turning) addReactions(b);
        const double depth = depthAt(now.piece), time = now.low + now.since;
        for (const std::size_t a : way_.turning)
            axes[a][n] = {time,
                          places_[a],
                          speeds_[a],
                          rises_[a],
                          carried_[a],
                          leanOf(a),
                          way_.lensLinks[a].empty() ? 0.0 : shiftOf(a, depth)};
        for (const std::size_t a : way_.standing)
            still[a][n] = {time, places_[a], 0.0, 0.0, carried_[a] + forceOn(a, moving_, a), leanOf(a)};
    }

private:
    /// What axis b puts on those below it because it moves, and what moves below puts on b.
    void addReactions(std::size_t b) {
        if (listed_.bodies[b].empty()) return;
        const std::vector<std::size_t>& own = way_.ownLinks[b];
        kinematics::jointForces(listed_.links, moving_, listed_.bodies[b], 0.0, all_);
        kept_.clear();
        for (const std::size_t l : own) kept_.push_back(moving_[l]);
        // All that the bodies of b ask, but for b's own acceleration and what holds them up.
        moveOwn(b, speeds_[b]);
        carried_[b] += forceOn(b, moving_, b);
        // What the axes below feel of b's movement alone.
        moveOwn(b, 0.0);
        kinematics::jointForces(listed_.links, moving_, listed_.bodies[b], 0.0, forces_);
        for (std::size_t i = 0; i < own.size(); ++i) moving_[own[i]] = kept_[i];
        for (std::size_t a = 0; a < axes_; ++a)
            if (a != b) carried_[a] += all_[a] - forces_[a];
    }
    /// The links that the bodies of an axis are fixed to, without its acceleration.
    void moveOwn(std::size_t axis, double rate) {
        const kinematics::Moving ground;
        for (const std::size_t l : way_.ownLinks[axis]) {
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

    const geometry::Frame& lensFrame() const {
        return moving_[static_cast<std::size_t>(way_.planned.scene.head.lens)].frame;
    }
    /// How far before the lens what a segment looks at is [m]: its target, or the subject of the shot.
    double depthAt(std::size_t piece) const {
        if (way_.shot == nullptr || way_.planned.scene.head.lens < 0) return 1.0;
        for (const SegmentPlan& s : way_.planned.plan.segments) {
            if (piece < s.firstPiece || piece >= s.lastPiece) continue;
            const AimTarget* target = targetOf(way_.move, way_.move.poses[s.pose].arrive);
            if (target == nullptr) break;
            const double depth =
                lensFrame().seen(pointOf(way_.planned.scene, *target, {places_, speeds_, rises_}).at).x;
            if (depth > 0.0) return depth;
        }
        return way_.shot->subjectDistance;
    }
    /// What the lens does for one unit of an axis [px/U].
    double shiftOf(std::size_t axis, double depth) const {
        const geometry::Frame& lens = lensFrame();
        geometry::Place goes, turns;
        for (const std::size_t link : way_.lensLinks[axis]) {
            const kinematics::JointRate rate = kinematics::rateOf(listed_.links, moving_, link);
            goes = geometry::plus(goes, rate.velocityOf(geometry::minus(lens.at, moving_[link].frame.at)));
            turns = geometry::plus(turns, rate.turning);
        }
        // Turns about up are to the left, about left downwards.
        const optics::CameraShift shift{-geometry::dot(goes, lens.left),  geometry::dot(goes, lens.up),
                                        geometry::dot(goes, lens.ahead),  -geometry::dot(turns, lens.up),
                                        -geometry::dot(turns, lens.left), geometry::dot(turns, lens.ahead)};
        return optics::pictureShift(way_.planned.scene.focal(places_), way_.rig.camera.deliveredWidth, depth,
                                    shift);
    }
    double leanOf(std::size_t axis) const {
        const int link = way_.planned.scene.linkOf[axis];
        if (link < 0) return 0.0;
        // Only what nods with what carries it is nearer to or farther from level by that.
        const kinematics::Link& joint = listed_.links[static_cast<std::size_t>(link)];
        if (joint.on < 0 || joint.joint != kinematics::Joint::Pitch) return 0.0;
        const geometry::Place ahead = moving_[static_cast<std::size_t>(joint.on)].frame.ahead;
        return std::asin(std::clamp(ahead.z, -1.0, 1.0));
    }

    const Way& way_;
    const Listed& listed_;
    std::size_t axes_;
    std::vector<double> places_, speeds_, rises_, forces_, all_, carried_;
    std::vector<kinematics::Moving> moving_, kept_;
};

/// What all axes of a planned move meet.
void fillMoments(const RigSetup& rig, const RigMove& move, PlannedMove& out, const Crew& crew) {
    const Way way(rig, move, out);
    out.axes.resize(rig.axes.size());
    if (way.turning.empty()) return;
    out.still.resize(rig.axes.size());
    const std::vector<Instant> instants = way.instants();
    for (const std::size_t a : way.turning) out.axes[a].resize(instants.size());
    for (const std::size_t a : way.standing) out.still[a].resize(instants.size());
    // Threads are worth their beginning only where there is much to look at.
    constexpr std::size_t much = 400, atOnce = 8;
    const bool shared = instants.size() * way.turning.size() >= much;
    std::atomic<std::size_t> left{0};
    doneBy(shared ? crew : Crew(), [&] {
        Walk walk(way);
        for (std::size_t i = left.fetch_add(atOnce); i < instants.size(); i = left.fetch_add(atOnce))
            for (std::size_t n = i; n < std::min(i + atOnce, instants.size()); ++n)
                walk.look(instants[n], n, out.axes, out.still);
    });
    // What nothing pushes is as it is at rest.
    for (const std::size_t a : way.standing)
        if (std::none_of(out.still[a].begin(), out.still[a].end(),
                         [](const AxisMoment& m) { return std::abs(m.carried) > 1e-9; }))
            out.still[a].clear();
}

} // namespace

PlannedMove plannedMove(const RigSetup& rig, const RigMove& move, const PlannedMove* known,
                        const Crew& crew) {
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
    if (!out.plan.trajectory.empty()) fillMoments(rig, move, out, crew);
    return out;
}

std::vector<PlannedMove> planMoves(const RigSetup& rig, bool all, std::span<const PlannedMove> known,
                                   const Crew& crew) {
    std::vector<PlannedMove> out;
    out.reserve(rig.moves.size());
    for (std::size_t m = 0; m < rig.moves.size(); ++m)
        out.push_back(all || rig.moves[m].realises
                          ? plannedMove(rig, rig.moves[m], m < known.size() ? &known[m] : nullptr, crew)
                          : PlannedMove());
    return out;
}

} // namespace gantry
