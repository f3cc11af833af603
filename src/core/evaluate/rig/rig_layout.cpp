// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/rig/rig_layout.h"

#include "core/evaluate/rig/beam_view.h"
#include "core/units/names.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

using std::numbers::pi;
using structure::plus;

/// The rail that is the lowest of what carries the camera; null if that is none. A turntable stands beside.
const LinearMechanism* lowestRail(std::span<const Axis> axes) {
    for (const Axis& axis : axes)
        if (axis.role != Role::Turntable) return std::get_if<LinearMechanism>(&axis.mechanism);
    return nullptr;
}

/// Builds a layout from the base up, keeping the frame in which the next axis stands.
class Builder {
public:
    Builder(const RigSetup& rig, std::span<const double> pose, int free)
        : rig_(rig), pose_(pose), free_(free) {}

    RigLayout build() {
        addBase();
        out_.joints.resize(rig_.axes.size());
        for (std::size_t i = 0; i < rig_.axes.size(); ++i) {
            const Axis& axis = rig_.axes[i];
            if (axis.role == Role::Turntable) continue; // the subject turns, not the camera
            index_ = static_cast<int>(i);
            out_.joints[i] = frame_;
            if (index_ == free_) // its place is its direction
                at_ = pose_[i] - std::get<RotaryMechanism>(axis.mechanism).lowAngle;
            else
                at_ = i < pose_.size() && std::isfinite(pose_[i])
                          ? std::clamp(pose_[i], 0.0, usableTravel(axis))
                          : 0.0;
            if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism))
                addLinear(axis, *linear);
            else
                addRotary(axis, std::get<RotaryMechanism>(axis.mechanism));
        }
        addCamera();
        finish();
        return std::move(out_);
    }

private:
    Place ahead(double elevation) const { return towards(heading_, elevation); }
    static Place towards(double heading, double elevation) {
        return {std::cos(elevation) * std::cos(heading), std::cos(elevation) * std::sin(heading),
                std::sin(elevation)};
    }
    /// A point of an arm: along it, and square above it.
    Place onArm(Place pivot, double elevation, double along, double above) const {
        return plus(plus(pivot, ahead(elevation), along), ahead(elevation + pi / 2.0), above);
    }
    void add(BodyKind kind, int axis, Place from, Place to, double radius, double mass) {
        out_.bodies.push_back({kind, axis, from, to, radius, mass, plus(plus({}, from, 0.5), to, 0.5)});
    }

    void addBase() {
        const Base& base = rig_.base;
        out_.bodies.reserve(12 + rig_.axes.size());
        const bool stands = base.kind == BaseKind::Legs || base.kind == BaseKind::Rectangle;
        frame_ = {0.0, 0.0, base.height};
        if (base.kind == BaseKind::NotGiven) return;
        out_.feet = feetOf(base);
        if (stands && standsOnItsRail(rig_.axes, rig_.base)) {
            // The rail's own stands are the legs; what the base weighs has its place without being drawn.
            out_.bodies.push_back(
                {BodyKind::Stand, -1, {}, {}, 0.0, base.mass.value, {0.0, 0.0, base.massHeight}});
        } else if (stands) {
            const double knee = std::min(base.massHeight, base.height);
            for (const structure::Plan& foot : out_.feet)
                add(BodyKind::Leg, -1, {foot.x, foot.y, 0.0}, {0.0, 0.0, knee}, 0.015, 0.0);
            add(BodyKind::Column, -1, {0.0, 0.0, knee}, {0.0, 0.0, base.height}, 0.03, base.mass.value);
            out_.bodies.back().centre = {0.0, 0.0, base.massHeight};
        } else {
            const Place from = base.kind == BaseKind::Overhead ? Place{0.0, 0.0, base.height + drawnMount}
                                                               : Place{-drawnMount, 0.0, base.height};
            add(BodyKind::Column, -1, from, frame_, 0.03, base.mass.value);
        }
        if (stands && base.ballast.value > 0.0) {
            structure::Plan at{-base.ballastOut, 0.0};
            if (const auto feet = feetOf(rig_.axes, rig_.base); base.ballastLeg > 0 && !feet.empty())
                at = feet[std::min(static_cast<std::size_t>(base.ballastLeg), feet.size()) - 1];
            add(BodyKind::Ballast, -1, {at.x - 0.06, at.y, 0.05}, {at.x + 0.06, at.y, 0.05}, 0.05,
                base.ballast.value);
        }
    }
    void addLinear(const Axis& axis, const LinearMechanism& linear) {
        if (axis.role == Role::Lift) {
            const Place foot = frame_;
            frame_.z += at_;
            add(BodyKind::Rail, index_, foot, plus(foot, {0.0, 0.0, linear.railLength}), 0.02, 0.0);
            carry(frame_);
            return;
        }
        const double slope = linear.slope.value;
        const Rail& rail = linear.rail;
        const double length = linear.railLength;
        const double middle =
            rail.section.shape == SectionShape::NotGiven ? 0.5 * length
            : rail.support == RailSupport::OneHead
                ? std::min(rail.headAt, length)
                : 0.5 * (std::min(rail.firstStand, length) + std::min(rail.secondStand, length));
        const Place low = plus(frame_, ahead(slope), -middle), high = plus(low, ahead(slope), length);
        const double own = beamView(rail.section).massPerMetre * length;
        add(BodyKind::Rail, index_, low, high, 0.5 * std::max(0.01, rail.section.height), own);
        if (&linear == lowestRail(rig_.axes) && standsOnItsRail(rig_.axes, rig_.base))
            out_.feet = feetOf(rig_.axes, rig_.base);
        if (rail.support == RailSupport::TwoStands && rail.section.shape != SectionShape::NotGiven)
            for (const double at : {rail.firstStand, rail.secondStand}) {
                const Place top = plus(low, ahead(slope), std::min(at, length));
                const double foot = rig_.base.kind == BaseKind::NotGiven ? std::max(0.0, top.z - 0.3) : 0.0;
                add(BodyKind::Stand, index_, {top.x, top.y, foot}, top, 0.015, rail.standMass.value);
            }
        const double along = std::min(0.5 * linear.carriageLength + linear.bumperLength, length) + at_;
        const Place on = plus(low, ahead(slope), std::min(along, length));
        const Place half = plus({}, ahead(slope), 0.5 * linear.carriageLength);
        add(BodyKind::Carriage, index_, plus(on, half, -1.0), plus(on, half), 0.03, 0.0);
        frame_ = plus(on, {0.0, 0.0, 0.04});
        carry(plus(on, {0.0, 0.0, std::max(0.0, linear.guide.massHeight)}));
    }

    /// The lowest linear axis carries the mass of everything above; what upper bodies weigh is taken out of
    /// it.
    void carry(Place centre) {
        if (carrier_ >= 0) return;
        carrier_ = static_cast<int>(out_.bodies.size());
        out_.bodies.push_back({BodyKind::Head, index_, centre, centre, 0.02, masses().moving, centre});
    }

    void addRotary(const Axis& axis, const RotaryMechanism& r) {
        if (axis.role == Role::Swing) heading_ += r.lowAngle + at_;
        const bool boom = axis.role == Role::BoomTilt;
        if (axis.role != Role::Swing && !boom) {
            if (!turnsOnHead(axis.role)) return;
            frame_ = stack(BodyKind::Head, headHeight);
            // The camera turns about its own middle.
            out_.joints[static_cast<std::size_t>(index_)] = plus(frame_, {0.0, 0.0, hanging_ ? -0.06 : 0.06});
            if (axis.role == Role::Pan) pan_ += r.lowAngle + at_;
            if (axis.role == Role::Tilt) tilt_ += r.lowAngle + at_;
            return;
        }
        const std::vector<structure::ArmMass>& own = masses().own;
        const double reach = masses().reach;
        if (own.empty() && !(boom && reach > 0.0)) return; // a swing that only carries what stands on it
        const double elevation = boom ? r.lowAngle + at_ : 0.0;
        const bool given = r.boom.section.shape != SectionShape::NotGiven;
        const double length = given ? r.boom.reach : reach;
        const Place pivot = frame_;
        const Place tip = onArm(pivot, elevation, length, 0.0);
        const Place rear = onArm(pivot, elevation, given ? -r.boom.rear : -0.2 * length, 0.0);
        add(BodyKind::Arm, index_, rear, tip, given ? 0.5 * std::max(0.01, r.boom.section.height) : 0.02,
            0.0);
        hanging_ = r.boom.hangs;
        for (const structure::ArmMass& m : own) {
            // A levelled load keeps its height above the end of the arm.
            const Place at = m.levelled ? plus(onArm(pivot, elevation, m.along, 0.0), {0.0, 0.0, m.above})
                                        : onArm(pivot, elevation, m.along, m.above);
            const bool weight = m.along < 0.0;
            out_.bodies.push_back({weight ? BodyKind::Counterweight : BodyKind::Head, index_, at, at,
                                   weight ? 0.08 : 0.02, m.mass, at});
        }
        frame_ = plus(tip, ahead(elevation), given ? r.boom.tipOffset : 0.0);
    }

    Place stack(BodyKind kind, double height) {
        const Place top = plus(frame_, {0.0, 0.0, hanging_ ? -height : height});
        add(kind, index_, frame_, top, 0.03, 0.0);
        return top;
    }

    void addCamera() {
        const Place half = plus({}, towards(heading_ + pan_, tilt_), 0.5 * cameraLength);
        const Place at = plus(frame_, {0.0, 0.0, hanging_ ? -0.06 : 0.06});
        out_.camera = plus(at, half);
        if (rig_.axes.empty()) return;
        add(BodyKind::Camera, index_, plus(at, half, -1.0), out_.camera, 0.05, 0.0);
    }

    void finish() {
        if (carrier_ >= 0) {
            double above = 0.0;
            for (std::size_t i = static_cast<std::size_t>(carrier_) + 1; i < out_.bodies.size(); ++i)
                above += out_.bodies[i].mass;
            RigBody& carrier = out_.bodies[static_cast<std::size_t>(carrier_)];
            carrier.mass = std::max(0.0, carrier.mass - above);
        }
        for (const RigBody& b : out_.bodies) {
            out_.mass += b.mass;
            out_.centre = plus(out_.centre, b.centre, b.mass);
        }
        if (out_.mass > 0.0) out_.centre = plus({}, out_.centre, 1.0 / out_.mass);
    }

    const AxisMasses& masses() const { return rig_.masses[static_cast<std::size_t>(index_)]; }

    const RigSetup& rig_;
    std::span<const double> pose_;
    int free_ = -1;
    RigLayout out_;
    Place frame_;
    double heading_ = 0.0, pan_ = 0.0, tilt_ = 0.0, at_ = 0.0;
    int index_ = -1, carrier_ = -1;
    bool hanging_ = false;
};

} // namespace

std::string_view bodyName(BodyKind kind) {
    return units::nameOf<BodyKind::Ballast>(kind, "leg", "column", "stand", "rail", "carriage", "arm",
                                            "counterweight", "head", "camera", "ballast");
}

bool standsOnItsRail(std::span<const Axis> axes, const Base& base) {
    const LinearMechanism* linear = lowestRail(axes);
    return linear != nullptr && base.kind == BaseKind::Rectangle &&
           linear->rail.support == RailSupport::TwoStands &&
           linear->rail.section.shape != SectionShape::NotGiven;
}

RigLayout layRig(const RigSetup& rig, std::span<const double> pose, int free) {
    return Builder(rig, pose, free).build();
}

std::vector<double> shownPose(std::span<const Axis> axes) {
    std::vector<double> out;
    out.reserve(axes.size());
    for (const Axis& axis : axes) {
        if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism))
            out.push_back(linear->rail.shownAt);
        else if (const auto& r = std::get<RotaryMechanism>(axis.mechanism); turnsOnHead(axis.role))
            out.push_back(straightAhead(r));
        else
            out.push_back(r.boom.shownAt);
    }
    return out;
}

bool turnsOnHead(Role role) {
    return role == Role::Pan || role == Role::Tilt || role == Role::Roll;
}

double straightAhead(const RotaryMechanism& r) {
    return std::clamp(-r.lowAngle, 0.0, std::max(0.0, r.range));
}

std::vector<structure::Plan> feetOf(std::span<const Axis> axes, const Base& base) {
    if (!standsOnItsRail(axes, base)) return feetOf(base);
    const LinearMechanism& linear = *lowestRail(axes);
    const double first = std::min(linear.rail.firstStand, linear.railLength),
                 second = std::min(linear.rail.secondStand, linear.railLength);
    // The middle between them stands over the middle of the base.
    const double along = 0.5 * (second - first) * std::cos(linear.slope.value), half = 0.5 * base.width;
    return {{along, half}, {-along, half}, {-along, -half}, {along, -half}};
}

std::vector<structure::Plan> feetOf(const Base& base) {
    if (base.kind == BaseKind::Legs) return structure::feetOnCircle(base.legs, base.legRadius, base.firstLeg);
    if (base.kind != BaseKind::Rectangle) return {};
    const double x = 0.5 * base.length, y = 0.5 * base.width;
    return {{x, y}, {-x, y}, {-x, -y}, {x, -y}};
}

} // namespace gantry
