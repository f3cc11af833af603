// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/rig/rig_structure.h"

#include "core/criteria/criteria.h"
#include "core/solve/root.h"
#include "core/units/constants.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

using std::numbers::pi;

/// Deceleration of the planned stop of an axis [U/s²]: of its shots, or as it is set.
double plannedStop(const AxisEvaluation& e) {
    if (e.shots.empty()) return e.model.settings.acceleration;
    double most = 0.0;
    for (const ShotEvaluation& s : e.shots) most = std::max(most, s.motion.acceleration.valueOr(0.0));
    return most;
}

/// Fastest that an axis runs [U/s]: in its shots, or as it is set.
double runSpeed(const AxisEvaluation& e) {
    if (e.shots.empty()) return e.model.settings.speed;
    double most = 0.0;
    for (const ShotEvaluation& s : e.shots) most = std::max(most, s.motion.topSpeed.valueOr(0.0));
    return most;
}

/// Torque [N·m] of a brake at the motors' shafts.
double brakeAtMotor(const AxisEvaluation& e, const Axis& axis) {
    if (!axis.brake.fitted) return 0.0;
    const double torque = axis.brake.holdingTorque.value;
    if (axis.brake.place == BrakePlace::MotorShaft) return torque;
    return torque / std::max(1e-9, e.model.shaftRatio);
}

/// Whether a stop of this axis moves weight about, so that the base feels it.
bool stopsAreFelt(const Axis& axis) {
    return kindOf(axis) == AxisKind::Linear || axis.role == Role::Swing || axis.role == Role::BoomTilt;
}

/// How the bodies of a rig move in a pose when every axis runs as fast as it does, and how long its hardest
/// stop takes.
std::vector<structure::Motion> motionsOf(const RigSetup& rig, const RigChain& chain,
                                         const std::vector<AxisEvaluation>& axes, const RigLayout& here) {
    std::vector<structure::Motion> out;
    std::vector<kinematics::Fixed> weights;
    for (const RigBody& b : here.bodies)
        if (b.mass > 0.0) weights.push_back({b.link, b.centre});
    for (std::size_t a = 0; a < axes.size() && a < rig.axes.size(); ++a) {
        const double speed = runSpeed(axes[a]);
        if (!stopsAreFelt(rig.axes[a]) || !(speed > 0.0)) continue;
        structure::Motion motion;
        motion.time = speed / hardestStop(axes[a], rig.axes[a]);
        for (const Place& v : kinematics::velocities(chain.links, here.frames, static_cast<int>(a), weights))
            motion.of.push_back({v.x * speed, v.y * speed, v.z * speed});
        out.push_back(std::move(motion));
    }
    return out;
}

/// The axis that turns the whole rig about the vertical; −1 if none does.
int swingOf(const RigSetup& rig) {
    for (std::size_t i = 0; i < rig.axes.size(); ++i)
        if (rig.axes[i].role == Role::Swing && kindOf(rig.axes[i]) == AxisKind::Rotary)
            return static_cast<int>(i);
    return -1;
}

/// Places of an arm that overturn most: both ends of its range, level, and where its own moment is greatest.
std::vector<double> elevationsOf(const RigSetup& rig, std::size_t a) {
    const auto& r = std::get<RotaryMechanism>(rig.axes[a].mechanism);
    const double range = std::min(r.range, 2.0 * pi);
    std::vector<double> out{0.0, range};
    double most = -1.0, at = 0.0;
    for (int i = 1; i < 16; ++i) {
        const double moment =
            std::abs(structure::gravityTorque(rig.masses[a].own, r.lowAngle + range * i / 16.0));
        if (moment > most) {
            most = moment;
            at = range * i / 16.0;
        }
    }
    if (range > 0.0) out.push_back(at);
    if (const double level = -r.lowAngle; level > 0.0 && level < range) out.push_back(level);
    return out;
}

/// Poses in which what stands out may overturn most: rails at either end, lifts up, arms at each of their
/// elevations, swings straight out.
std::vector<std::vector<double>> overhangingPoses(const RigSetup& rig) {
    std::vector<std::vector<double>> poses{{}};
    for (std::size_t a = 0; a < rig.axes.size(); ++a) {
        const Axis& axis = rig.axes[a];
        std::vector<double> places{0.0};
        if (axis.role == Role::Lift)
            places = {usableTravel(axis)};
        else if (kindOf(axis) == AxisKind::Linear)
            places = {0.0, usableTravel(axis)};
        else if (axis.role == Role::BoomTilt)
            places = elevationsOf(rig, a);
        else if (const auto* r = std::get_if<RotaryMechanism>(&axis.mechanism);
                 r != nullptr && (axis.role == Role::Swing || turnsOnHead(axis.role)))
            // On a bracket a swing pulls most straight out; on feet every direction is gone through.
            places = {straightAhead(*r)};
        std::vector<std::vector<double>> more;
        for (const std::vector<double>& pose : poses)
            for (const double place : places) {
                more.push_back(pose);
                more.back().push_back(place);
            }
        constexpr std::size_t most = 16; // of rigs with several rails and arms
        if (more.size() > most) more.resize(most);
        poses = std::move(more);
    }
    return poses;
}

/// What parts of the structure and the drives cost.
double priceOf(const Axis& axis) {
    double price = axis.price;
    if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism)) {
        if (linear->rail.section.shape != SectionShape::NotGiven)
            price += linear->rail.section.price * linear->railLength;
        return price;
    }
    const Boom& boom = std::get<RotaryMechanism>(axis.mechanism).boom;
    if (boom.section.shape != SectionShape::NotGiven) price += boom.section.price * (boom.reach + boom.rear);
    for (const Disc& d : boom.discs) price += d.price * d.count;
    return price;
}

} // namespace

double hardestStop(const AxisEvaluation& e, const Axis& axis) {
    const double brake = brakeAtMotor(e, axis), hardest = e.model.hardestBraking(brake);
    const bool ramps =
        axis.onStop == OnStop::RampsDown && brake <= 0.0 && e.model.settings.acceleration > 0.0;
    return ramps ? std::min(hardest, e.model.settings.acceleration) : hardest;
}

Loads loadsOn(const RigSetup& rig, const std::vector<AxisEvaluation>& axes, const RigLayout& layout) {
    Loads out;
    const Base& base = rig.base;
    out.footprint = {layout.feet, base.groundSlope.value, base.downhill};
    for (const RigBody& b : layout.bodies)
        if (b.mass > 0.0) out.weights.push_back({b.mass, {b.centre.x, b.centre.y}, b.centre.z});
    const auto stop = [&](double force, double height) { out.ordinary.push_back({force, height}); };
    const auto lasts = [&](double force, double height) {
        out.lasting.push_back({force, height});
        stop(force, height);
    };
    if (base.sidePush.value > 0.0) lasts(base.sidePush.value, base.pushHeight);
    const double wind = rig.conditions.windSpeed;
    bool carried = false;
    for (std::size_t i = 0; i < axes.size() && i < rig.axes.size(); ++i) {
        const Axis& axis = rig.axes[i];
        const double planned = plannedStop(axes[i]);
        const double height = std::max(layout.camera.z, layout.centre.z);
        const double area = std::visit([](const auto& m) { return m.windArea; }, axis.mechanism);
        // Wind: air of 1.2 kg/m³ on a boxy thing, drag coefficient 1.2, at the height of the camera.
        if (area > 0.0 && wind > 0.0) {
            lasts(0.72 * area * wind * wind, layout.camera.z);
        }
        if (kindOf(axis) == AxisKind::Linear) {
            const double mass = rig.masses[i].moving;
            // A lift pulls straight up and down over the feet; what stands on a carriage is part of its mass.
            if (axis.role == Role::Lift || carried) continue;
            carried = true;
            stop(mass * planned, height);
            continue;
        }
        const auto& masses = rig.masses[i].felt();
        if (masses.empty()) continue;
        if (axis.role == Role::Swing) {
            double moment = 0.0;
            for (const structure::ArmMass& m : masses) moment += m.mass * m.along;
            stop(std::abs(moment) * planned, height);
        } else if (axis.role == Role::BoomTilt) {
            // Braking an arm turns its whole moment of inertia against the base.
            stop(structure::inertiaAboutPivot(masses) * planned, 1.0);
        }
    }
    return out;
}

namespace {

/// A rig in one pose, with what pushes and what may stop, ready to be turned about its swing.
struct Posed {
    Loads loads;
    std::vector<structure::Motion> motions;
    std::vector<bool> turns; ///< for each weight: whether the swing carries it
    structure::Plan pivot;

    /// [kg·m] of all weights along the rig, from the middle of the feet.
    double centreAhead() const {
        double out = 0.0;
        for (const structure::Weight& w : loads.weights) out += w.mass * w.at.x;
        return out;
    }
};

Posed posed(const RigSetup& rig, const RigChain& chain, const std::vector<AxisEvaluation>& axes,
            const std::vector<double>& pose, int free) {
    const RigLayout layout = layRig(rig, chain, pose, free);
    Posed out{loadsOn(rig, axes, layout), motionsOf(rig, chain, axes, layout), {}, {}};
    if (free < 0) return out;
    const auto swing = static_cast<std::size_t>(free);
    out.pivot = {layout.joints[swing].x, layout.joints[swing].y};
    const std::vector<bool> turned = kinematics::standingOn(chain.links, chain.linkOf[swing]);
    for (const RigBody& b : layout.bodies)
        if (b.mass > 0.0) out.turns.push_back(b.link >= 0 && turned[static_cast<std::size_t>(b.link)]);
    return out;
}

/// Turns what the swing carries by an angle [rad] about it.
void turn(Posed& p, const Posed& from, double angle) {
    const double c = std::cos(angle), s = std::sin(angle);
    for (std::size_t i = 0; i < p.turns.size(); ++i) {
        if (!p.turns[i]) continue;
        const structure::Plan& at = from.loads.weights[i].at;
        const double x = at.x - from.pivot.x, y = at.y - from.pivot.y;
        p.loads.weights[i].at = {from.pivot.x + c * x - s * y, from.pivot.y + s * x + c * y};
        for (std::size_t m = 0; m < p.motions.size(); ++m) {
            const structure::Motion::Velocity& v = from.motions[m].of[i];
            p.motions[m].of[i] = {c * v.x - s * v.y, s * v.x + c * v.y, v.z};
        }
    }
}

/// Planned and hardest stop in one pose; nothing where the rig has no feet.
std::optional<TippingCase> judged(const Posed& p, double direction, std::vector<double> pose) {
    const auto ordinary = structure::tipping(p.loads.footprint, p.loads.weights, p.loads.ordinary);
    if (!ordinary) return std::nullopt;
    const auto stopped = structure::stopRatio(p.loads.footprint, p.loads.weights, p.loads.lasting, p.motions);
    // What does not even stand has no need of a stop to go over.
    const double emergency = ordinary->ratio < 1.0 ? ordinary->ratio : stopped.value_or(ordinary->ratio);
    return TippingCase{direction, ordinary->ratio, emergency, true, std::move(pose)};
}

bool worse(const TippingCase& a, const TippingCase& b) {
    return std::min(a.ordinary, a.emergency) < std::min(b.ordinary, b.emergency);
}

} // namespace

std::optional<TippingCase> tippingCase(const RigSetup& rig, const std::vector<AxisEvaluation>& axes,
                                       std::vector<double> pose, double direction) {
    const Posed p = posed(rig, chainOf(rig), axes, pose, -1);
    return judged(p, direction, std::move(pose));
}

std::vector<TippingCase> tippingPolar(const RigSetup& rig, const std::vector<AxisEvaluation>& axes,
                                      int directions) {
    std::vector<TippingCase> out;
    const int swing = swingOf(rig);
    const std::vector<std::vector<double>> poses = overhangingPoses(rig);
    const RigChain chain = chainOf(rig);
    if (swing < 0) {
        // Towards the low and the high end of the rig, whichever way its weight stands out: each by its worst
        // pose.
        for (const std::vector<double>& pose : poses) {
            const Posed p = posed(rig, chain, axes, pose, -1);
            auto c = judged(p, p.centreAhead() < 0.0 ? pi : 0.0, pose);
            if (!c) return {};
            const auto same = std::find_if(out.begin(), out.end(),
                                           [&](const TippingCase& o) { return o.direction == c->direction; });
            if (same == out.end())
                out.push_back(std::move(*c));
            else if (worse(*c, *same))
                *same = std::move(*c);
        }
        return out;
    }
    const auto& r = std::get<RotaryMechanism>(rig.axes[static_cast<std::size_t>(swing)].mechanism);
    for (std::vector<double> pose : poses) {
        // Its place is its direction here; all else turns with it.
        pose[static_cast<std::size_t>(swing)] = 0.0;
        const Posed from = posed(rig, chain, axes, pose, swing);
        Posed turned = from;
        for (int i = 0; i < directions; ++i) {
            const double direction = 2.0 * pi * i / directions;
            turn(turned, from, direction);
            auto c = judged(turned, direction, pose);
            if (!c) return {};
            // Directions beyond the range are drawn, not judged: a base may be set down turned.
            const double place = std::fmod(std::fmod(direction - r.lowAngle, 2.0 * pi) + 2.0 * pi, 2.0 * pi);
            c->reachable = place <= r.range + pi / directions || place >= 2.0 * pi - pi / directions;
            c->pose[static_cast<std::size_t>(swing)] = std::min(place, r.range);
            const auto at = static_cast<std::size_t>(i);
            if (at >= out.size())
                out.push_back(std::move(*c));
            else if (worse(*c, out[at]))
                out[at] = std::move(*c);
        }
    }
    return out;
}

Figure ballastNeededAt(const RigSetup& rig, const std::vector<AxisEvaluation>& axes,
                       std::span<const double> pose, structure::Plan at) {
    const double wanted = criteria::tipping;
    const RigChain chain = chainOf(rig);
    const RigLayout layout = layRig(rig, chain, pose);
    const Loads loads = loadsOn(rig, axes, layout);
    const auto planned = structure::ballastNeeded(loads.footprint, loads.weights, loads.ordinary, wanted, at);
    if (!planned) return Figure::none(Reason::OutOfRange);
    // What a hard stop needs beyond that, found by trying: ballast holds down and is one more weight to lift.
    const std::vector<structure::Motion> motions = motionsOf(rig, chain, axes, layout);
    const auto holds = [&](double ballast) {
        std::vector<structure::Weight> with = loads.weights;
        with.push_back({ballast, at, 0.05});
        return structure::stopRatio(loads.footprint, with, loads.lasting, motions).value_or(0.0) >= wanted;
    };
    if (holds(*planned)) return Figure::of(*planned);
    constexpr double most = 1000.0; // [kg] beyond what anybody carries along
    if (!holds(most)) return Figure::none(Reason::OutOfRange);
    const auto least = solve::largestWhere([&](double m) { return !holds(m); }, *planned, most, 24);
    return Figure::of(least.value_or(most));
}

RigStructure rigStructure(const RigSetup& rig, const std::vector<AxisEvaluation>& axes) {
    RigStructure out;
    const RigLayout layout = layRig(rig, shownPose(rig.axes));
    if (rig.axes.empty()) return out;
    out.mass = Figure::of(layout.mass);
    out.centreAlong = Figure::of(layout.centre.x);
    out.centreAcross = Figure::of(layout.centre.y);
    out.centreHeight = Figure::of(layout.centre.z);
    double price = 0.0;
    for (const Axis& axis : rig.axes) price += priceOf(axis);
    out.price = Figure::of(price);
    const Base& base = rig.base;
    if (base.kind == BaseKind::NotGiven) {
        out.tipping = out.tippingEmergency = out.anchors = Figure::none(Reason::NeedsBase);
        return out;
    }
    if (base.ballast.value > 0.0 && base.ballastLeg > static_cast<int>(feetOf(rig.axes, rig.base).size()) &&
        base.kind != BaseKind::WallBracket && base.kind != BaseKind::Overhead) {
        out.tipping = out.tippingEmergency = Figure::none(Reason::NoSuchLeg);
        return out;
    }
    const int swing = swingOf(rig);
    out.tippingAxis = std::max(0, swing);
    if (base.kind == BaseKind::WallBracket || base.kind == BaseKind::Overhead) {
        // Weight straight down, and its moment with the sign of its side as a couple between the anchors; the
        // worst arm, with planned stops.
        double pull = 0.0;
        const RigChain chain = chainOf(rig);
        for (const std::vector<double>& pose : overhangingPoses(rig)) {
            const RigLayout posed = layRig(rig, chain, pose);
            // A bracket pulls at its anchors by what it carries before the wall.
            const double before =
                base.kind == BaseKind::WallBracket ? base.mount - base.columnAhead : -base.columnAhead;
            double x = before * posed.mass * units::standardGravity, y = 0.0;
            for (const RigBody& b : posed.bodies) {
                x += b.mass * units::standardGravity * b.centre.x;
                y += b.mass * units::standardGravity * b.centre.y;
            }
            double moment = std::hypot(x, y);
            for (const structure::Push& p : loadsOn(rig, axes, posed).ordinary)
                moment += p.force * std::abs(base.height - std::min(p.height, base.height));
            const double weight = posed.mass * units::standardGravity;
            pull =
                std::max(pull, (base.kind == BaseKind::Overhead ? weight : 0.0) + moment / base.anchorSpread);
        }
        out.anchorPull = Figure::of(pull);
        out.anchors = base.anchorStrength.value > 0.0 && pull > 0.0
                          ? Figure::of(base.anchorStrength.value / pull)
                          : Figure::none(Reason::NeedsAnchors);
        return out;
    }
    for (const TippingCase& c : tippingPolar(rig, axes)) {
        if (!c.reachable) continue;
        const double least = std::min(c.ordinary, c.emergency);
        if (out.tipping && !less(least, lesser(out.tipping, out.tippingEmergency))) continue;
        out.tipping = Figure::of(c.ordinary);
        out.tippingEmergency = Figure::of(c.emergency);
        out.tippingDirection = Figure::of(c.direction);
        out.tippingPose = c.pose;
    }
    if (out.tipping) out.ballastNeeded = ballastNeededAt(rig, axes, out.tippingPose, {0.0, 0.0});
    return out;
}

RigStructure rigAgain(const RigSetup& rig, const std::vector<AxisEvaluation>& axes,
                      const RigStructure& before) {
    if (!before.tipping) return rigStructure(rig, axes);
    RigStructure out = before;
    const Posed p = posed(rig, chainOf(rig), axes, before.tippingPose, -1);
    double mass = 0.0;
    for (const structure::Weight& w : p.loads.weights) mass += w.mass;
    out.mass = Figure::of(mass);
    const auto c = judged(p, before.tippingDirection.value(), before.tippingPose);
    if (c) {
        out.tipping = Figure::of(c->ordinary);
        out.tippingEmergency = Figure::of(c->emergency);
    }
    return out;
}

std::optional<double> accelerationBeforeTipping(const RigSetup& rig, std::size_t axis,
                                                const AxisEvaluation& evaluation) {
    if (feetOf(rig.base).empty()) return std::nullopt;
    const Role role = rig.axes[axis].role;
    if (role != Role::Slide && role != Role::Swing && role != Role::BoomTilt) return std::nullopt;
    // Only this axis moves; the loads are linear in its acceleration, so two cases tell the line of each
    // edge.
    std::vector<AxisEvaluation> axes(rig.axes.size());
    for (AxisEvaluation& e : axes) e.model.settings.acceleration = 0.0;
    const auto ratioAt = [&](double a) {
        ShotEvaluation shot;
        shot.motion.acceleration = Figure::of(a);
        axes[axis] = AxisEvaluation{};
        axes[axis].model.wantedMargin = evaluation.model.wantedMargin;
        axes[axis].shots.assign(1, shot);
        double least = 1e6;
        for (const TippingCase& c : tippingPolar(rig, axes, 18))
            if (c.reachable) least = std::min(least, c.ordinary);
        return least;
    };
    const double floor = criteria::tipping;
    const auto holds = [&](double a) { return ratioAt(a) > floor; };
    if (!holds(0.0)) return 0.0;
    double high = 1.0;
    while (holds(high)) {
        high *= 4.0;
        if (high > 1e4) return std::nullopt;
    }
    return solve::largestWhere(holds, high > 1.0 ? high / 4.0 : 0.0, high, 24);
}

} // namespace gantry
