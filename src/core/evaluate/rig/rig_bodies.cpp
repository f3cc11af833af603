// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/rig/rig_bodies.h"

#include "core/evaluate/rig/arm_masses.h"
#include "core/evaluate/rig/beam_view.h"
#include "core/units/names.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

using geometry::plus;
using kinematics::Joint;

/// Width [m] of what is not entered: a plain arm, the pan's body, a column.
constexpr double slim = 0.06;

/// Builds a chain from the base up, keeping the place where the next axis stands.
class Builder {
public:
    explicit Builder(const RigSetup& rig) : rig_(rig), head_(rig.head) {}

    RigChain build() {
        out_.bodies.reserve(16 + 2 * rig_.axes.size());
        out_.links.reserve(4 + 2 * rig_.axes.size());
        out_.linkOf.assign(rig_.axes.size(), -1);
        addBase();
        for (std::size_t i = 0; i < rig_.axes.size(); ++i) {
            const Axis& axis = rig_.axes[i];
            if (axis.role == Role::Turntable) continue; // the subject turns, not the camera
            index_ = static_cast<int>(i);
            if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism))
                addLinear(axis, *linear);
            else
                addRotary(axis, std::get<RotaryMechanism>(axis.mechanism));
        }
        addCamera();
        if (carrier_ >= 0) {
            double above = 0.0;
            for (std::size_t i = static_cast<std::size_t>(carrier_) + 1; i < out_.bodies.size(); ++i)
                above += out_.bodies[i].mass;
            ChainBody& carrier = out_.bodies[static_cast<std::size_t>(carrier_)];
            carrier.mass = std::max(0.0, carrier.mass - above);
        }
        return std::move(out_);
    }

private:
    /// A body fixed to what the next axis stands on.
    ChainBody& add(BodyKind kind, Place from, Place to, double radius, double mass = 0.0) {
        out_.bodies.push_back(
            {kind, index_, on_, from, to, radius, 0.0, mass, plus(plus({}, from, 0.5), to, 0.5)});
        return out_.bodies.back();
    }
    ChainBody& addBar(BodyKind kind, Place from, Place to, double width, double height, double mass = 0.0) {
        ChainBody& bar = add(kind, from, to, 0.5 * height, mass);
        bar.width = width;
        return bar;
    }
    /// What the next body or axis stands on from now.
    void standOn() { mount_ = static_cast<int>(out_.bodies.size()) - 1; }

    void addWeight(Place at, double mass) { add(BodyKind::Head, at, at, 0.02, mass).solid = false; }

    /// The next axis moves: what follows stands on it.
    void addJoint(Joint joint, double offset = 0.0, Place direction = {}) {
        out_.links.push_back({on_, at_, joint, index_, offset, direction});
        on_ = static_cast<int>(out_.links.size()) - 1;
        at_ = {};
        out_.linkOf[static_cast<std::size_t>(index_)] = on_;
    }

    void addBase() {
        const Base& base = rig_.base;
        const bool stands = base.kind == BaseKind::Legs || base.kind == BaseKind::Rectangle;
        at_ = {base.columnAhead, 0.0, base.height};
        hanging_ = base.kind == BaseKind::Overhead;
        if (base.kind == BaseKind::NotGiven) return;
        out_.feet = feetOf(rig_.axes, base);
        if (stands && standsOnItsRail(rig_.axes, base)) {
            // The rail's own stands are the legs; what the base weighs has its place without being drawn.
            add(BodyKind::Stand, {}, {}, 0.0, base.mass.value).solid = false;
            out_.bodies.back().centre = {0.0, 0.0, base.massHeight};
        } else if (stands) {
            const double knee = std::min(base.massHeight, base.height);
            const Place top = {at_.x, 0.0, knee};
            for (const structure::Plan& foot : feetOf(base))
                add(BodyKind::Leg, {foot.x, foot.y, 0.0}, top, 0.015);
            addBar(BodyKind::Column, top, at_, slim, slim, base.mass.value).centre = {0.0, 0.0,
                                                                                      base.massHeight};
            standOn();
        } else {
            const Place from = base.kind == BaseKind::Overhead ? plus(at_, {0.0, 0.0, base.mount})
                                                               : plus(at_, {-base.mount, 0.0, 0.0});
            addBar(BodyKind::Column, from, at_, slim, slim, base.mass.value);
            standOn();
        }
        addPlaced(base.bodies);
        if (stands && base.ballast.value > 0.0) {
            structure::Plan place{-base.ballastOut, 0.0};
            if (base.ballastLeg > 0 && !out_.feet.empty())
                place = out_.feet[std::min(static_cast<std::size_t>(base.ballastLeg), out_.feet.size()) - 1];
            add(BodyKind::Ballast, {place.x - 0.06, place.y, 0.05}, {place.x + 0.06, place.y, 0.05}, 0.05,
                base.ballast.value);
        }
    }

    /// Bodies that the user placed, from where the next axis stands.
    void addPlaced(const std::vector<PlacedBody>& bodies) {
        for (const PlacedBody& b : bodies) {
            const Place middle = plus(at_, {b.along, b.left, b.above}), half{0.5 * b.length, 0.0, 0.0};
            addBar(BodyKind::Placed, plus(middle, half, -1.0), plus(middle, half), b.width, b.height).name =
                b.name;
        }
    }

    /// What sits on a rail that begins at `low` and runs along `way`; above an upright one is before it.
    void addLoads(const std::vector<RailLoad>& loads, Place low, Place way) {
        const bool upright = way.z > 0.999;
        for (const RailLoad& load : loads) {
            const Place square =
                upright ? Place{load.above, load.left, 0.0} : Place{0.0, load.left, load.above};
            const Place at = plus(plus(low, way, load.at), square);
            addBar(BodyKind::Load, plus(at, way, -0.5 * load.length), plus(at, way, 0.5 * load.length),
                   load.width, load.height, load.mass.value)
                .name = load.name;
        }
    }

    void addLinear(const Axis& axis, const LinearMechanism& linear) {
        if (axis.role == Role::Lift) {
            const Place way{0.0, 0.0, 1.0};
            addBar(BodyKind::Rail, at_, plus(at_, way, linear.railLength), slim, slim);
            standOn();
            addLoads(linear.rail.loads, at_, way);
            at_ = plus(at_, way, 0.5 * linear.carriageLength + linear.bumperLength);
            addJoint(Joint::Along, 0.0, way);
            carry({});
            addPlaced(linear.bodies);
            return;
        }
        const double slope = linear.slope.value;
        const Place way{std::cos(slope), 0.0, std::sin(slope)};
        const Rail& rail = linear.rail;
        const double length = linear.railLength;
        const bool given = rail.section.shape != SectionShape::NotGiven;
        const double middle =
            !given ? 0.5 * length
            : rail.support == RailSupport::OneHead
                ? std::min(rail.headAt, length)
                : 0.5 * (std::min(rail.firstStand, length) + std::min(rail.secondStand, length));
        const Place low = plus(at_, way, -middle);
        const Outline outline = outlineOf(rail.section);
        addBar(BodyKind::Rail, low, plus(low, way, length), std::max(0.01, outline.width),
               std::max(0.01, outline.height), beamView(rail.section).massPerMetre * length);
        standOn();
        if (rail.support == RailSupport::TwoStands && given)
            for (const double at : {rail.firstStand, rail.secondStand}) {
                const Place top = plus(low, way, std::min(at, length));
                const bool onFloor = on_ < 0 && rig_.base.kind != BaseKind::NotGiven;
                const double foot = onFloor ? 0.0 : std::max(0.0, top.z - 0.3);
                add(BodyKind::Stand, {top.x, top.y, foot}, top, 0.015, rail.standMass.value);
            }
        addLoads(rail.loads, low, way);
        at_ = plus(low, way, 0.5 * linear.carriageLength + linear.bumperLength);
        addJoint(Joint::Along, 0.0, way);
        const Place half = plus({}, way, 0.5 * linear.carriageLength);
        addBar(BodyKind::Carriage, plus({}, half, -1.0), half, std::max(0.04, linear.guide.track), 0.06)
            .mountedOn = mount_;
        standOn();
        carry({0.0, 0.0, std::max(0.0, linear.guide.massHeight)});
        addPlaced(linear.bodies);
        at_ = {0.0, 0.0, up(head_.stand.value)};
    }

    /// The lowest linear axis carries the mass of everything above; what upper bodies weigh is taken out of
    /// it.
    void carry(Place centre) {
        if (carrier_ >= 0) return;
        carrier_ = static_cast<int>(out_.bodies.size());
        addWeight(centre, masses().moving);
    }

    void addRotary(const Axis& axis, const RotaryMechanism& r) {
        if (turnsOnHead(axis.role)) {
            addHeadAxis(axis.role, r);
            return;
        }
        const bool boom = axis.role == Role::BoomTilt;
        if (axis.role != Role::Swing && !boom) {
            addPlaced(r.bodies); // a motor at the lens goes where the camera goes
            return;
        }
        const Place pivot = at_;
        const int below = on_;
        addJoint(boom ? Joint::Pitch : Joint::Yaw, r.lowAngle);
        addPlaced(r.bodies);
        // What a swing under a boom lists for its motor is that same boom, which stands on it by itself.
        if (const int above = boomOn(rig_.axes, static_cast<std::size_t>(index_));
            above >= 0 && !rig_.masses[static_cast<std::size_t>(above)].own.empty())
            return;
        const double reach = masses().reach;
        const std::vector<structure::ArmMass>& own = masses().own;
        if (own.empty() && !(boom && reach > 0.0)) return; // a swing that only carries what stands on it
        const Boom& b = r.boom;
        const bool given = b.section.shape != SectionShape::NotGiven;
        const double length = given ? b.reach : reach, rear = given ? b.rear : 0.2 * length;
        const Outline outline = given ? outlineOf(b.section) : Outline{0.04, 0.04};
        addBar(BodyKind::Arm, {-rear, 0.0, 0.0}, {length, 0.0, 0.0}, std::max(0.01, outline.width),
               std::max(0.01, outline.height))
            .mountedOn = mount_;
        standOn();
        hanging_ = b.hangs;
        onArm_ = true;
        for (const structure::ArmMass& m : own) {
            if (m.levelled) {
                addLevelled(below, pivot, r.lowAngle, m.along);
                addWeight({m.beyond, 0.0, m.above}, m.mass);
                on_ = out_.linkOf[static_cast<std::size_t>(index_)];
            } else if (m.along < 0.0) {
                const Place at{m.along, 0.0, m.above};
                add(BodyKind::Counterweight, at, at, 0.5 * b.counterweight.size, m.mass).mountedOn = mount_;
            } else {
                addWeight({m.along, 0.0, m.above}, m.mass);
            }
        }
        const double offset = given ? b.tipOffset : 0.0;
        if (boom && b.arm == ArmKind::ParallelLinks) {
            addLevelled(below, pivot, r.lowAngle, length);
            at_ = {offset, 0.0, 0.0};
        } else {
            at_ = {length + offset, 0.0, 0.0};
        }
    }

    /// What keeps its direction on an arm, and stands at a place along it.
    void addLevelled(int below, Place pivot, double lowAngle, double along) {
        out_.links.push_back({below, pivot, Joint::Parallel, index_, lowAngle, {along, 0.0, 0.0}});
        on_ = static_cast<int>(out_.links.size()) - 1;
        at_ = {};
    }

    void addHeadAxis(Role role, const RotaryMechanism& r) {
        if (role == Role::Pan) {
            const Place top = plus(at_, {0.0, 0.0, up(head_.panHeight.value)});
            // A round body, its round ends within its height.
            const double end = up(std::min(0.5 * slim, 0.5 * head_.panHeight.value));
            add(BodyKind::Head, plus(at_, {0.0, 0.0, end}), plus(top, {0.0, 0.0, -end}), 0.5 * slim)
                .mountedOn = mount_;
            standOn();
            at_ = top;
            addJoint(Joint::Yaw, r.lowAngle);
        } else {
            if (leans_) {
                at_.z += up(head_.rollHeight.value);
            } else {
                const Place axis = plus(at_, {head_.tiltAhead.value, 0.0, up(head_.tiltHeight.value)});
                addBar(BodyKind::Head, at_, axis, slim, 0.02).mountedOn = mount_;
                standOn();
                at_ = axis;
            }
            leans_ = true;
            addJoint(role == Role::Tilt ? Joint::Pitch : Joint::Roll, r.lowAngle);
        }
        addPlaced(r.bodies);
        // A carriage or an arm counts what it carries itself; a head on a tripod has only its own list.
        if (carrier_ < 0 && !onArm_)
            for (const structure::ArmMass& m : masses().own) addWeight({m.along, 0.0, m.above}, m.mass);
    }

    void addCamera() {
        Place plate = at_;
        if (leans_) plate.z -= up(head_.plateBelow.value);
        plate.y += head_.lensLeft.value;
        const double back = plate.x - head_.cameraBack.value, front = plate.x + head_.lensFront.value,
                     face = std::min(back + head_.cameraDepth.value, front);
        const double height = head_.cameraHeight.value;
        const double middle = plate.z + up(0.5 * height), lens = plate.z + up(head_.lensHeight.value);
        out_.lensOn = on_;
        out_.lens = {front, plate.y, lens};
        if (rig_.axes.empty()) return;
        addBar(BodyKind::Camera, {back, plate.y, middle}, {face, plate.y, middle}, head_.cameraWidth.value,
               height)
            .mountedOn = mount_;
        if (front > face)
            addBar(BodyKind::Lens, {face, plate.y, lens}, out_.lens, head_.lensDiameter.value,
                   head_.lensDiameter.value)
                .mountedOn = mount_;
    }

    double up(double height) const { return hanging_ ? -height : height; }
    const AxisMasses& masses() const { return rig_.masses[static_cast<std::size_t>(index_)]; }

    const RigSetup& rig_;
    const Head& head_;
    RigChain out_;
    int on_ = -1;    ///< link that the next axis stands on …
    Place at_;       ///< … and where on it
    int mount_ = -1; ///< body that it stands on
    int index_ = -1, carrier_ = -1;
    bool hanging_ = false;
    bool onArm_ = false; ///< what comes hangs on an arm that has its mass
    bool leans_ = false; ///< the camera is held by an axis of tilt or roll
};

} // namespace

std::string_view bodyName(BodyKind kind) {
    return units::nameOf<BodyKind::Placed>(kind, "the leg", "the column", "the stand", "the rail",
                                           "the carriage", "the arm", "the counterweight", "the head",
                                           "the camera", "the ballast", "the lens", "the load", "the body");
}

const LinearMechanism* lowestRail(std::span<const Axis> axes) {
    for (const Axis& axis : axes)
        if (axis.role != Role::Turntable) // a lift's column is no rail
            return axis.role == Role::Lift ? nullptr : std::get_if<LinearMechanism>(&axis.mechanism);
    return nullptr;
}

bool standsOnItsRail(std::span<const Axis> axes, const Base& base) {
    const LinearMechanism* linear = lowestRail(axes);
    return linear != nullptr && base.kind == BaseKind::Rectangle &&
           linear->rail.support == RailSupport::TwoStands &&
           linear->rail.section.shape != SectionShape::NotGiven;
}

RigChain chainOf(const RigSetup& rig) {
    return Builder(rig).build();
}

bool turnsOnHead(Role role) {
    return role == Role::Pan || role == Role::Tilt || role == Role::Roll;
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
