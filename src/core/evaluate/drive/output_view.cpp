// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/drive/output_view.h"

#include "core/drivetrain/belt.h"
#include "core/drivetrain/carriage.h"
#include "core/drivetrain/screw.h"
#include "core/drivetrain/winch.h"
#include "core/model/kind_traits.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

using drivetrain::backEfficiencyOf;
using drivetrain::Ratio;
using std::numbers::pi;

std::optional<Ratio> millimetres(double length) {
    const auto exact = drivetrain::exactMetres(length);
    return exact ? exact->times(*Ratio::of(1000, 1)) : std::nullopt;
}

std::optional<Ratio> addLinear(DriveModel& m, Series& series, const LinearMechanism& linear,
                               const BeltOutput& belt) {
    const int parts = belt.doubled ? 2 : 1;
    const double radius = belt.teeth * belt.pitch.value / (2.0 * pi), efficiency = belt.efficiency.value;
    m.motors = belt.motors;
    m.chain.stages.push_back(
        {parts / radius, efficiency, backEfficiencyOf(efficiency), belt.pulleyInertia.value * belt.motors});
    // Softest at mid travel. A doubled belt is twice as long, and both its parts pull on half the way.
    series.addSpring(
        drivetrain::leastOpenBeltStiffness(belt.tensileStiffness.value, linear.railLength * parts) * parts *
        parts);
    series.addSpring(linear.frameStiffness.value);
    series.backlash += belt.backlash.value / parts;
    const auto pitch = millimetres(belt.pitch.value);
    const auto turn = pitch ? pitch->times(*Ratio::of(belt.teeth, 1)) : std::nullopt;
    return turn ? turn->dividedBy(*Ratio::of(parts, 1)) : std::nullopt;
}

std::optional<Ratio> addLinear(DriveModel& m, Series& series, const LinearMechanism& linear,
                               const ScrewOutput& s) {
    const drivetrain::Screw screw{s.pitchDiameter.value, s.lead.value, s.friction.value, s.threadHalfAngle};
    const double efficiency = std::max(0.001, drivetrain::efficiency(screw));
    m.chain.stages.push_back({2.0 * pi / s.lead.value, efficiency, drivetrain::backEfficiency(screw),
                              drivetrain::barInertia(s.pitchDiameter.value, linear.railLength)});
    series.addSpring(s.axialStiffness.value);
    series.addSpring(linear.frameStiffness.value);
    series.backlash += s.backlash.value;
    return millimetres(s.lead.value);
}

std::optional<Ratio> addLinear(DriveModel& m, Series& series, const LinearMechanism& linear,
                               const RackOutput& r) {
    const double radius = r.teeth * r.module.value / 2.0, efficiency = r.efficiency.value;
    m.chain.stages.push_back({1.0 / radius, efficiency, backEfficiencyOf(efficiency), r.pinionInertia.value});
    series.addSpring(r.stiffness.value);
    series.addSpring(linear.frameStiffness.value);
    series.backlash += r.backlash.value;
    return std::nullopt; // π is no fraction
}

std::optional<Ratio> addLinear(DriveModel& m, Series& series, const LinearMechanism& linear,
                               const WheelOutput& w) {
    const double efficiency = w.efficiency.value;
    m.chain.stages.push_back(
        {2.0 / w.diameter.value, efficiency, backEfficiencyOf(efficiency), w.wheelInertia.value});
    series.addSpring(linear.frameStiffness.value);
    series.backlash += w.backlash.value;
    return std::nullopt;
}

std::optional<Ratio> addLinear(DriveModel& m, Series& series, const LinearMechanism& linear,
                               const WinchOutput& w) {
    // The pull is heaviest on the motor where the drum is fullest, so that radius sizes it.
    // A cord that runs back round a pulley lies a few turns on the drum, side by side.
    if (!w.closedLoop && m.travel > 0.0) {
        m.layers = drivetrain::layersOf(drumOf(w), w.turnsOn, m.travel);
        m.cordScale = drivetrain::winchScale(drumOf(w), w.turnsOn, m.travel);
    }
    const double radius =
        m.layers.empty() ? (w.drumDiameter.value + w.cordDiameter.value) / 2.0 : m.layers.back().radius;
    const double efficiency = w.efficiency.value;
    m.chain.stages.push_back({1.0 / radius, efficiency, backEfficiencyOf(efficiency), w.drumInertia.value});
    series.addSpring(w.tensileStiffness.value / linear.railLength);
    series.addSpring(linear.frameStiffness.value);
    series.backlash += w.backlash.value;
    return std::nullopt;
}

double windForce(double speed, double area) {
    constexpr double airDensity = 1.2, dragCoefficient = 1.2; // a boxy camera in still-room air
    return 0.5 * airDensity * dragCoefficient * area * speed * speed;
}

std::optional<Ratio> addMechanism(DriveModel& m, Series& series, const AxisMasses& masses, double windSpeed,
                                  const Axis&, const LinearMechanism& linear) {
    const auto perTurn =
        std::visit([&](const auto& o) { return addLinear(m, series, linear, o); }, linear.output);
    const double mass = masses.moving;
    double friction = linear.runningFriction.value + linear.cableDrag.value;
    double still = std::max(linear.staticFriction.value + linear.cableDrag.value, friction);
    if (const auto* screw = std::get_if<ScrewOutput>(&linear.output)) {
        // Drag of nut and bearings, as a force on the carriage.
        const double drag =
            screw->nutDrag.value * 2.0 * pi / screw->lead.value * m.chain.stages.back().efficiency;
        friction += drag;
        still += drag;
    }
    const double wind = windForce(windSpeed, linear.windArea) + linear.disturbance.value;
    m.chain.load = {mass, mass * standardGravity * std::sin(linear.slope.value), friction + wind, 0.0};
    m.gravityLow = m.gravityHigh = m.chain.load.steady;
    m.lasting.constant = m.chain.load.steady;
    m.friction = friction;
    m.staticFriction = still + wind;
    return perTurn;
}

void addRotary(DriveModel&, Series& series, const DirectOutput& direct) {
    series.addSpring(direct.stiffness.value);
}

template <class Ring>
void addRing(DriveModel& m, Series& series, const Ring& ring) {
    const double efficiency = ring.efficiency.value,
                 ratio = static_cast<double>(ring.ringTeeth) / ring.pinionTeeth;
    m.chain.stages.push_back({ratio, efficiency, backEfficiencyOf(efficiency), 0.0});
    const auto exact = Ratio::of(ring.ringTeeth, ring.pinionTeeth);
    m.exactRatio = m.exactRatio && exact ? m.exactRatio->times(*exact) : std::nullopt;
    m.shaftRatio *= ratio;
    series.backlash += ring.backlash.value;
    series.addSpring(ring.stiffness.value);
}
void addRotary(DriveModel& m, Series& series, const RingOutput& ring) {
    addRing(m, series, ring);
}
void addRotary(DriveModel& m, Series& series, const LensRingOutput& ring) {
    addRing(m, series, ring);
}

struct Span {
    double low = 0.0, high = 0.0;
};

/// Least and greatest of a torque that is the sum of one sine and one straight line, from `low` to `high`
/// [rad]: 0.1 % at worst over a turn.
template <class Torque>
Span spanOver(const Torque& at, double low, double high) {
    const double first = at(low), last = at(high);
    Span out{std::min(first, last), std::max(first, last)};
    constexpr int samples = 48;
    const double span = std::min(high - low, 2.0 * pi);
    for (int i = 1; i < samples; ++i) {
        const double torque = at(low + span * i / samples);
        out.low = std::min(out.low, torque);
        out.high = std::max(out.high, torque);
    }
    return out;
}

/// Least and greatest gravity torque over the range, tipped either way by the slope of what carries the axis.
Span armTorqueSpan(std::span<const structure::ArmMass> masses, const RotaryMechanism& r, double slope) {
    if (masses.empty() && r.spring.torqueAtLow.value == 0.0 && r.spring.rate.value == 0.0) return {};
    return spanOver([&](double angle) { return armTorque(masses, r, angle); }, r.lowAngle - slope,
                    r.lowAngle + r.range + slope);
}

/// Least and greatest torque over the range of an upright axis that leans: its weight falls to where it
/// points downhill, W sin(φ − φ₀), and its spring pulls the other way.
Span leaningSpan(const RotaryMechanism& r, double weight) {
    return spanOver(
        [&](double place) {
            return weight * std::sin(place - r.downhill) + armTorque({}, r, r.lowAngle + place);
        },
        0.0, r.range);
}

std::optional<Ratio> addMechanism(DriveModel& m, Series& series, const AxisMasses& carried, double windSpeed,
                                  const Axis& axis, const RotaryMechanism& r) {
    std::visit([&](const auto& o) { addRotary(m, series, o); }, r.output);
    double inertia = r.inertia.value + r.pointMass.value * r.pointRadius * r.pointRadius;
    const std::vector<structure::ArmMass>& masses = carried.felt();
    const bool upright = !gravityTurns(axis.role);
    inertia += upright ? structure::inertiaAboutUpright(masses) : structure::inertiaAboutPivot(masses);
    for (const structure::ArmMass& mass : masses) {
        m.carriedMass += mass.mass;
        m.farthestItem =
            std::max(m.farthestItem, std::hypot(mass.along + mass.beyond, upright ? 0.0 : mass.above));
    }
    if (m.carriedMass > 0.0) {
        const structure::Moments sum = structure::moments(masses);
        m.carriedAlong = std::abs(sum.along) / m.carriedMass;
        m.carriedReach = std::hypot(sum.along, upright ? 0.0 : sum.above) / m.carriedMass;
    }
    const double slope = carried.slopeBelow;
    Span gravity;
    double offLine = 0.0; ///< [N·m] of a weight off an upright axis that does not stand upright
    if (gravityTurns(axis.role)) {
        gravity = armTorqueSpan(masses, r, slope);
    } else if (r.leanKnown) {
        gravity = leaningSpan(r, m.carriedMass * standardGravity * m.carriedAlong * std::sin(r.lean.value));
    } else {
        // A pan turns its weight uphill and downhill, against its spring.
        const double weight = m.carriedMass * standardGravity * m.carriedAlong * std::sin(slope),
                     first = armTorque({}, r, r.lowAngle), last = armTorque({}, r, r.lowAngle + r.range);
        gravity = {std::min(first, last) - weight, std::max(first, last) + weight};
        offLine = weight;
    }
    // The same by place: g (Σ m x cos φ − Σ m h sin φ), less what a spring lifts.
    drivetrain::LastingLoad& lasting = m.lasting;
    lasting.constant = -r.spring.torqueAtLow.value + r.spring.rate.value * r.lowAngle;
    lasting.rate = -r.spring.rate.value;
    lasting.unknown = r.unbalance.value;
    m.lowPlace = r.lowAngle;
    if (upright && r.leanKnown) {
        lasting.amplitude = m.carriedMass * standardGravity * m.carriedAlong * std::sin(r.lean.value);
        lasting.phase = -r.lowAngle - r.downhill - 0.5 * pi;
    } else if (upright) {
        lasting.unknown += offLine; // it is not told which way the weight points
    } else {
        const structure::Moments sum = structure::moments(masses);
        lasting.amplitude = standardGravity * std::hypot(sum.along, sum.above);
        lasting.phase = std::atan2(sum.above, sum.along);
        m.tilted = slope;
    }
    // An entered unbalance may stand on either side within the range.
    m.gravityLow = gravity.low - r.unbalance.value;
    m.gravityHigh = gravity.high + r.unbalance.value;
    const double friction = r.friction.value + r.cableDrag.value;
    const double wind = windForce(windSpeed, r.windArea) * r.windArm + r.disturbance.value;
    m.chain.load = {inertia, std::max(std::abs(m.gravityLow), std::abs(m.gravityHigh)), friction + wind, 0.0};
    m.friction = friction;
    m.staticFriction = std::max(r.staticFriction.value + r.cableDrag.value, friction) + wind;
    return Ratio::of(360, 1);
}

} // namespace

double armTorque(std::span<const structure::ArmMass> masses, const RotaryMechanism& r, double angle) {
    return structure::gravityTorque(masses, angle) -
           (r.spring.torqueAtLow.value + r.spring.rate.value * (angle - r.lowAngle));
}

std::optional<Ratio> addOutput(DriveModel& m, Series& series, const Axis& axis, const AxisMasses& masses,
                               double windSpeed) {
    return std::visit(
        [&](const auto& mech) { return addMechanism(m, series, masses, windSpeed, axis, mech); },
        axis.mechanism);
}

drivetrain::Drum drumOf(const WinchOutput& w) {
    return {w.drumDiameter.value, w.cordDiameter.value, w.drumWidth, w.layerHeight.value};
}

double wheelGrip(const WheelOutput& w, double mass, double slope) {
    const double normal = std::max(0.0, mass * standardGravity * std::cos(slope));
    return drivetrain::tractionLimit(w.friction.value, w.drivenShare.value, normal);
}

} // namespace gantry
