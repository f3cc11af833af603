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

/// Planned and hardest deceleration of an axis [U/s²].
struct Stops {
    double ordinary = 0.0, hardest = 0.0;
};
Stops stopsOf(const AxisEvaluation& e) {
    Stops out;
    for (const ShotEvaluation& s : e.shots)
        if (s.motion.acceleration) out.ordinary = std::max(out.ordinary, s.motion.acceleration.value());
    if (e.shots.empty()) out.ordinary = e.model.settings.acceleration;
    // Whatever the drive can brake with: twice the wanted margin's acceleration covers its full torque
    // closely enough without a search of its own, and never less than the planned stop.
    double most = 0.0;
    for (const ShotEvaluation& s : e.shots)
        if (s.torque.maxAcceleration) most = std::max(most, s.torque.maxAcceleration.value());
    out.hardest = std::max(out.ordinary, most * e.model.wantedMargin);
    return out;
}

/// The axis that turns the whole rig about the vertical; −1 if none does.
int swingOf(const RigSetup& rig) {
    for (std::size_t i = 0; i < rig.axes.size(); ++i)
        if (rig.axes[i].role == Role::Swing && kindOf(rig.axes[i]) == AxisKind::Rotary)
            return static_cast<int>(i);
    return -1;
}

/// Pose in which what stands out overturns most: rails at the end and arms at the elevation whose horizontal
/// moment is greatest.
std::vector<double> overhangingPose(const RigSetup& rig, bool farEnd) {
    std::vector<double> pose;
    for (std::size_t a = 0; a < rig.axes.size(); ++a) {
        const Axis& axis = rig.axes[a];
        double at = 0.0;
        if (kindOf(axis) == AxisKind::Linear) {
            at = axis.role == Role::Lift || farEnd ? usableTravel(axis) : 0.0;
        } else if (axis.role == Role::BoomTilt) {
            const auto& r = std::get<RotaryMechanism>(axis.mechanism);
            const auto& masses = rig.masses[a].own;
            const double range = std::min(r.range, 2.0 * pi);
            double most = -1.0;
            for (int i = 0; i <= 16; ++i) {
                const double moment =
                    std::abs(structure::gravityTorque(masses, r.lowAngle + range * i / 16.0));
                if (moment > most) {
                    most = moment;
                    at = range * i / 16.0;
                }
            }
        } else if (turnsOnHead(axis.role)) {
            at = straightAhead(std::get<RotaryMechanism>(axis.mechanism));
        }
        pose.push_back(at);
    }
    return pose;
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

Loads loadsOn(const RigSetup& rig, const std::vector<AxisEvaluation>& axes, const RigLayout& layout) {
    Loads out;
    const Base& base = rig.base;
    out.footprint = {layout.feet, base.groundSlope.value, base.downhill};
    for (const RigBody& b : layout.bodies)
        if (b.mass > 0.0) out.weights.push_back({b.mass, {b.centre.x, b.centre.y}, b.centre.z});
    const auto push = [&](double ordinary, double emergency, double height) {
        out.ordinary.push_back({ordinary, height});
        out.emergency.push_back({emergency, height});
    };
    if (base.sidePush.value > 0.0) push(base.sidePush.value, base.sidePush.value, base.pushHeight);
    const double wind = rig.conditions.windSpeed;
    bool carried = false;
    for (std::size_t i = 0; i < axes.size() && i < rig.axes.size(); ++i) {
        const Axis& axis = rig.axes[i];
        const Stops stops = stopsOf(axes[i]);
        const double height = std::max(layout.camera.z, layout.centre.z);
        const double area = std::visit([](const auto& m) { return m.windArea; }, axis.mechanism);
        // Wind: air of 1.2 kg/m³ on a boxy thing, drag coefficient 1.2, at the height of the camera.
        if (area > 0.0 && wind > 0.0) {
            const double force = 0.72 * area * wind * wind;
            push(force, force, layout.camera.z);
        }
        if (kindOf(axis) == AxisKind::Linear) {
            const double mass = rig.masses[i].moving;
            // A lift pulls straight up and down over the feet; what stands on a carriage is part of its mass.
            if (axis.role == Role::Lift || carried) continue;
            carried = true;
            push(mass * stops.ordinary, mass * stops.hardest, height);
            continue;
        }
        const auto& masses = rig.masses[i].felt();
        if (masses.empty()) continue;
        if (axis.role == Role::Swing) {
            double moment = 0.0;
            for (const structure::ArmMass& m : masses) moment += m.mass * m.along;
            push(std::abs(moment) * stops.ordinary, std::abs(moment) * stops.hardest, height);
        } else if (axis.role == Role::BoomTilt) {
            // Braking an arm turns its whole moment of inertia against the base.
            const double inertia = structure::inertiaAboutPivot(masses);
            push(inertia * stops.ordinary, inertia * stops.hardest, 1.0);
        }
    }
    return out;
}

std::optional<TippingCase> tippingCase(const RigSetup& rig, const std::vector<AxisEvaluation>& axes,
                                       std::vector<double> pose, double direction, int free) {
    const RigLayout layout = layRig(rig, pose, free);
    const Loads loads = loadsOn(rig, axes, layout);
    const auto ordinary = structure::tipping(loads.footprint, loads.weights, loads.ordinary);
    if (!ordinary) return std::nullopt;
    const auto emergency = structure::tipping(loads.footprint, loads.weights, loads.emergency);
    return TippingCase{direction, ordinary->ratio, emergency ? emergency->ratio : ordinary->ratio, true,
                       std::move(pose)};
}

std::vector<TippingCase> tippingPolar(const RigSetup& rig, const std::vector<AxisEvaluation>& axes,
                                      int directions) {
    std::vector<TippingCase> out;
    const int swing = swingOf(rig);
    if (swing < 0) {
        for (const bool far : {false, true})
            if (auto c = tippingCase(rig, axes, overhangingPose(rig, far), far ? 0.0 : pi))
                out.push_back(std::move(*c));
        return out;
    }
    const auto& r = std::get<RotaryMechanism>(rig.axes[static_cast<std::size_t>(swing)].mechanism);
    // Directions beyond the range are drawn, not judged: a base may be set down turned.
    std::vector<double> pose = overhangingPose(rig, true);
    for (int i = 0; i < directions; ++i) {
        const double direction = 2.0 * pi * i / directions;
        pose[static_cast<std::size_t>(swing)] = direction;
        auto c = tippingCase(rig, axes, pose, direction, swing);
        if (!c) return {};
        const double from = std::fmod(std::fmod(direction - r.lowAngle, 2.0 * pi) + 2.0 * pi, 2.0 * pi);
        c->reachable = from <= r.range + pi / directions || from >= 2.0 * pi - pi / directions;
        c->pose[static_cast<std::size_t>(swing)] = std::min(from, r.range);
        out.push_back(std::move(*c));
    }
    return out;
}

Figure ballastNeededAt(const RigSetup& rig, const std::vector<AxisEvaluation>& axes,
                       std::span<const double> pose, structure::Plan at) {
    const double wanted = criteria::tipping;
    const Loads loads = loadsOn(rig, axes, layRig(rig, pose));
    const auto ordinary =
        structure::ballastNeeded(loads.footprint, loads.weights, loads.ordinary, wanted, at);
    const auto emergency =
        structure::ballastNeeded(loads.footprint, loads.weights, loads.emergency, wanted, at);
    return ordinary && emergency ? Figure::of(std::max(*ordinary, *emergency))
                                 : Figure::none(Reason::OutOfRange);
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
        // Weight straight down, and its moment as a couple between the anchors; the worst arm and stop.
        const RigLayout worst = layRig(rig, overhangingPose(rig, true));
        double moment = 0.0;
        for (const RigBody& b : worst.bodies)
            moment += b.mass * units::standardGravity * std::hypot(b.centre.x, b.centre.y);
        const Loads loads = loadsOn(rig, axes, worst);
        for (const structure::Push& p : loads.emergency)
            moment += p.force * std::abs(base.height - std::min(p.height, base.height));
        const double weight = worst.mass * units::standardGravity;
        const double pull = (base.kind == BaseKind::Overhead ? weight : 0.0) + moment / base.anchorSpread;
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
    out.mass = Figure::of(layRig(rig, before.tippingPose).mass);
    const auto c = tippingCase(rig, axes, before.tippingPose, before.tippingDirection.value());
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
