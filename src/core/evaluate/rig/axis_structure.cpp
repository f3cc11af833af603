// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/rig/axis_structure.h"

#include "core/evaluate/drive/drive_model.h"
#include "core/evaluate/rig/arm_masses.h"
#include "core/evaluate/rig/rig_layout.h"

#include "core/model/kind_traits.h"
#include "core/structure/arm_modes.h"
#include "core/structure/pads.h"
#include "core/structure/strength.h"
#include "core/units/constants.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace gantry {
namespace {

using std::numbers::pi;
constexpr double harmless = 1e6; // ratio where nothing loads a part

Figure overOrHarmless(double allowed, double actual) {
    return Figure::of(actual > 0.0 ? std::min(allowed / actual, harmless) : harmless);
}

/// Torque [N·m] about the rail's length from what sits beside it: camera off the middle, and heads that swing
/// their weight round.
double sideTorque(const LinearMechanism& linear, const AxisMasses& masses) {
    return units::standardGravity * (masses.moving * std::abs(linear.rail.cameraSide) + masses.momentAbove);
}

/// What a lift's carriage bends its column by [N·m]: its weight before the column, and beside it.
struct ColumnCouple {
    double ahead = 0.0, aside = 0.0;
};
ColumnCouple columnCouple(const LinearMechanism& linear, const AxisMasses& masses) {
    return {units::standardGravity * masses.moving * std::abs(linear.guide.massHeight),
            sideTorque(linear, masses)};
}
double curvatureOf(const ColumnCouple& couple, const BeamView& beam) {
    return std::hypot(couple.ahead / beam.bendingUpright, couple.aside / beam.bendingSideways);
}

void addSoft(AxisStructure& out, SoftCause cause, double stiffness, double inertia, double damping) {
    if (!(stiffness > 0.0) || !std::isfinite(stiffness) || !(inertia > 0.0)) return;
    const double f = std::sqrt(stiffness / inertia) / (2.0 * pi);
    if (std::isfinite(f) && f > 0.0) out.soft.push_back({cause, {f, damping}});
}

/// What a stop of this axis makes the whole rig do on soft feet.
void addPads(AxisStructure& out, const RigSetup& rig, const Axis& axis) {
    const Base& base = rig.base;
    if (!(base.padStiffness.value > 0.0) || feetOf(base).empty()) return;
    const RigLayout layout = layRig(rig, shownPose(rig.axes));
    std::vector<structure::Weight> weights;
    for (const RigBody& b : layout.bodies)
        if (b.mass > 0.0) weights.push_back({b.mass, {b.centre.x, b.centre.y}, b.centre.z});
    const structure::PadsView pads{layout.feet, weights, base.padStiffness.value};
    const bool swings =
        std::any_of(rig.axes.begin(), rig.axes.end(), [](const Axis& a) { return a.role == Role::Swing; });
    double f = 0.0;
    if (axis.role == Role::Lift) {
        f = structure::bounceOnPads(pads);
    } else {
        // What a swing carries may point anywhere when it stops.
        f = structure::swayOnPads(pads, swings ? std::nullopt : std::optional(0.0));
        const double turns = axis.role == Role::Swing ? structure::turnOnPads(pads) : 0.0;
        if (f > 0.0 && turns > 0.0) f = 1.0 / std::hypot(1.0 / f, 1.0 / turns);
    }
    if (f > 0.0) out.soft.push_back({SoftCause::Pads, {f, base.padDamping.value}});
}

/// @param together [Hz] of all but the pads, where it is known better than from the parts one by one; 0: not
void finishSoft(AxisStructure& out, double together = 0.0) {
    std::stable_sort(out.soft.begin(), out.soft.end(), [](const SoftEntry& a, const SoftEntry& b) {
        return a.part.frequency < b.part.frequency;
    });
    std::vector<structure::SoftPart> parts;
    for (const SoftEntry& s : out.soft) parts.push_back(s.part);
    out.all = structure::inSeries(parts);
    if (together > 0.0) {
        double give = 1.0 / (together * together);
        for (const SoftEntry& s : out.soft)
            if (s.cause == SoftCause::Pads) give += 1.0 / (s.part.frequency * s.part.frequency);
        out.all.frequency = 1.0 / std::sqrt(give);
    }
    if (out.all.frequency > 0.0) {
        out.frequency = Figure::of(out.all.frequency);
        out.damping = Figure::of(out.all.damping);
    }
}

/// What pulls along a rail with the hardest ramp of its shots, or as set where none moves it. Counted from
/// the rail: what tips over the floor is the whole rig's.
structure::AlongRail alongRail(const RigSetup& rig, std::size_t index, const RailSetting& r) {
    structure::AlongRail out = r.along;
    double ramp = 0.0;
    for (const Course& c : rig.courses[index])
        ramp = std::max({ramp, c.plan.profile.in.acceleration, c.plan.profile.out.acceleration});
    if (rig.courses[index].empty()) ramp = keptLimits(rig.axes[index], rig.controller.ramps).acceleration;
    out.stop = r.mass * ramp;
    return out;
}

void fillRail(AxisStructure& out, const RigSetup& rig, std::size_t index, const LinearMechanism& linear,
              const DriveSpring& drive) {
    const Axis& axis = rig.axes[index];
    const BeamView beam = beamView(linear.rail.section);
    const std::optional<RailSetting> setting = railSetting(axis, rig.masses[index], out.problem);
    if (!setting) return;
    out.problem = Reason::None;
    out.printed = beam.material.printed;
    const RailSetting& r = *setting;
    const structure::AlongRail along = alongRail(rig, index, r);
    out.ownMass = Figure::of(beam.massPerMetre * linear.railLength);

    constexpr int places = 16;
    double lowSag = 1e300, highSag = -1e300, lowSlope = 1e300, highSlope = -1e300, lowTwist = 1e300,
           highTwist = -1e300, moment = 0.0, pull = 0.0, tip = harmless, tipAt = r.low, worstSagAt = r.low;
    double sagRate = 0.0, slopeRate = 0.0;
    for (int i = 0; i <= places; ++i) {
        const double at = r.low + (r.high - r.low) * i / places;
        const structure::RailPoint p = r.point(at);
        lowSag = std::min(lowSag, p.sag);
        if (p.sag > highSag) {
            highSag = p.sag;
            worstSagAt = at;
        }
        lowSlope = std::min(lowSlope, p.slope);
        highSlope = std::max(highSlope, p.slope);
        lowTwist = std::min(lowTwist, p.twist);
        highTwist = std::max(highTwist, p.twist);
        const structure::RailChange change = r.change(at);
        sagRate = std::max(sagRate, std::abs(change.sag));
        slopeRate = std::max(slopeRate, std::abs(change.slope));
        if (r.column) continue;
        // It is largest in the middle or at an end, between which a quarter of the places is enough.
        if (i % 4 == 0) moment = std::max(moment, structure::railMoment(r.rail, r.carriage, at));
        const double ratio = structure::railTippingRatio(
            r.rail, r.carriage, along, linear.rail.standMass.value * units::standardGravity, at);
        if (ratio < tip) {
            tip = ratio;
            tipAt = at;
        }
        if (linear.rail.clampBolts > 0)
            pull =
                std::max(pull, structure::clampPull(r.rail, r.carriage, along,
                                                    {linear.rail.clampBolts, linear.rail.clampSpacing}, at));
    }
    if (linear.rail.clampBolts > 0 && !r.column)
        out.clampRatio = overOrHarmless(linear.rail.clampBoltLimit, pull);
    out.sag = Figure::of(std::max(std::abs(highSag), std::abs(lowSag)));
    out.slope = Figure::of(std::max(std::abs(lowSlope), std::abs(highSlope)));
    out.twist = Figure::of(std::max(std::abs(lowTwist), std::abs(highTwist)));
    out.sagShift = Figure::of(highSag - lowSag);
    out.slopeShift = Figure::of(highSlope - lowSlope);
    out.twistShift = Figure::of(highTwist - lowTwist);
    out.sagRate = Figure::of(sagRate);
    out.slopeRate = Figure::of(slopeRate);
    if (r.column) {
        const ColumnCouple couple = columnCouple(linear, rig.masses[index]);
        if (beam.section.uprightEdge > 0.0)
            out.stressRatio = overOrHarmless(
                beam.material.strength,
                structure::bendingStress(couple.ahead, beam.section.uprightEdge, beam.section.upright) +
                    structure::bendingStress(couple.aside, beam.section.sidewaysEdge, beam.section.sideways));
        addSoft(out, SoftCause::Drive, drive.stiffness, drive.inertia, drive.damping);
        addPads(out, rig, axis);
        finishSoft(out);
        return;
    }
    out.tippingRatio = Figure::of(tip);
    out.tippingAt = Figure::of(tipAt);
    if (beam.section.uprightEdge > 0.0)
        out.stressRatio =
            overOrHarmless(beam.material.strength,
                           structure::bendingStress(moment, beam.section.uprightEdge, beam.section.upright));

    // Up and down: carriage and half of the rail on the softest place. 0.49 of a simple beam's own mass
    // counts with its middle (Rayleigh).
    structure::RailView light = r.rail;
    light.beam.weight = 0.0;
    light.loads.clear();
    const double give = structure::railPoint(light, {1.0, r.carriage.wheelbase, 0.0}, worstSagAt).sag;
    const double moving = r.mass + 0.49 * out.ownMass.value();
    if (give > 0.0 && moving > 0.0) out.bounce = Figure::of(1.0 / (2.0 * pi * std::sqrt(give * moving)));

    // Along the rail a stop shakes the camera through the drive, by nodding on the rail, and with the stands.
    addSoft(out, SoftCause::Drive, drive.stiffness, drive.inertia, drive.damping);
    const double nodding = structure::pitchStiffness(r.rail, r.carriage.wheelbase, worstSagAt);
    addSoft(out, SoftCause::Rail, nodding, r.mass * r.height * r.height, beam.material.damping);
    const double stands = linear.rail.support == RailSupport::TwoStands ? 2.0 : 1.0;
    if (linear.rail.support != RailSupport::Bedded)
        addSoft(out, SoftCause::Stands, stands * linear.rail.standSway.value, r.mass + out.ownMass.value(),
                0.03);
    addPads(out, rig, axis);
    finishSoft(out);
}

/// Both sides of an arm, and how it bends in the plane in which it turns or, the other way, sags.
struct ArmSides {
    structure::ArmSide front, back;
};
ArmSides sidesOf(const Boom& boom, const BeamView& beam, std::span<const structure::ArmMass> masses,
                 bool upright) {
    ArmSides out;
    const double stiffness = upright ? beam.bendingUpright : beam.bendingSideways;
    const double modulus =
        beam.section.uprightEdge > 0.0 ? beam.section.upright / beam.section.uprightEdge : 0.0;
    const auto side = [&](structure::ArmSide& to, double length) {
        if (length > 0.0) to.sections.push_back({length, stiffness, beam.massPerMetre, modulus});
    };
    side(out.front, boom.reach);
    side(out.back, boom.rear);
    for (const structure::ArmMass& m : masses.subspan(1)) { // the first is the arm itself
        const double above = upright && !m.levelled ? m.above : 0.0;
        (m.along > 0.0 ? out.front : out.back)
            .bodies.push_back({m.mass, std::abs(m.along), m.own + m.mass * above * above});
    }
    return out;
}

/// Moment [N·m] at the pivot of one side of a level arm.
double pivotMoment(const structure::ArmSide& side) {
    double out = 0.0;
    for (const structure::ArmSection& s : side.sections) out += 0.5 * s.massPerMetre * s.length * s.length;
    for (const structure::ArmBody& b : side.bodies) out += b.mass * b.at;
    return out * units::standardGravity;
}

/// First frequency [Hz] at which the camera swings. On a stiff pivot what sits behind it does not reach the
/// camera.
double cameraFrequency(const ArmSides& sides, double spring) {
    return structure::firstFrequency(sides.front, spring > 0.0 ? sides.back : structure::ArmSide{}, spring);
}

/// Springs in series; 0 stands for stiff.
double inSeries(double a, double b) {
    if (!(a > 0.0) || !std::isfinite(a)) return std::isfinite(b) ? b : 0.0;
    if (!(b > 0.0) || !std::isfinite(b)) return a;
    return a * b / (a + b);
}

void fillBalance(AxisStructure& out, const std::vector<structure::ArmMass>& masses, double frontMoment,
                 const RotaryMechanism& r) {
    const Boom& boom = r.boom;
    const double low = r.lowAngle, high = r.lowAngle + std::min(r.range, 2.0 * pi);
    const auto worstOf = [&](std::span<const structure::ArmMass> all) {
        std::pair<double, double> worst{0.0, low};
        constexpr int steps = 48;
        for (int i = 0; i <= steps; ++i) {
            const double at = low + (high - low) * i / steps;
            const double torque = structure::gravityTorque(all, at);
            if (std::abs(torque) > std::abs(worst.first)) worst = {torque, at};
        }
        return worst;
    };
    const auto [torque, at] = worstOf(masses);
    if (boom.counterweight.mass.value > 0.0) out.frontMoment = Figure::of(frontMoment);
    out.gravityWorst = Figure::of(std::abs(torque));
    out.gravityWorstAt = Figure::of(at);
    std::vector<structure::ArmMass> others = masses;
    const double weight = boom.counterweight.mass.value;
    if (weight > 0.0) others.pop_back(); // armMasses puts it last
    const structure::Moments sum = structure::moments(others);
    double total = 0.0;
    for (const structure::ArmMass& m : others) total += m.mass;
    if (total > 0.0) out.offLine = Figure::of(sum.above / total);
    out.balancingMass =
        Figure::of(std::max(0.0, structure::balancingMass(others, -boom.counterweight.behind)));
    if (weight > 0.0) out.balancingPlace = Figure::of(-structure::balancingPlace(others, weight));
    out.unbalanceable = out.balancingMass.map([&](double mass) {
        std::vector<structure::ArmMass> best = others;
        best.push_back({mass, -boom.counterweight.behind, boom.counterweight.above, false});
        return std::abs(worstOf(best).first);
    });
    const double inertia = structure::inertiaAboutPivot(masses);
    if (inertia > 0.0)
        out.weightInertia = Figure::of(weight *
                                       (boom.counterweight.behind * boom.counterweight.behind +
                                        boom.counterweight.above * boom.counterweight.above) /
                                       inertia);
    // Work of gravity between the highest and the lowest potential of the range.
    double energy = 0.0, least = 0.0, most = 0.0;
    constexpr int steps = 48;
    for (int i = 0; i < steps; ++i) {
        energy +=
            structure::gravityTorque(masses, low + (high - low) * (i + 0.5) / steps) * (high - low) / steps;
        least = std::min(least, energy);
        most = std::max(most, energy);
    }
    out.dropEnergy = Figure::of(most - least);
}

void fillArm(AxisStructure& out, const RigSetup& rig, std::size_t index, const RotaryMechanism& r,
             const DriveSpring& drive) {
    const Axis& axis = rig.axes[index];
    const Boom& boom = r.boom;
    const BeamView beam = beamView(boom.section);
    if (!beam.given()) return;
    out.problem = Reason::None;
    out.printed = beam.material.printed;
    const std::vector<structure::ArmMass>& masses = rig.masses[index].own;
    const bool upright = gravityTurns(axis.role);
    const ArmSides sides = sidesOf(boom, beam, masses, true);
    // What sits on the arm bends it where it sits; what hangs beyond its end bends it there, with a moment.
    structure::Cantilever own{boom.reach, beam.bendingUpright, beam.massPerMetre * boom.reach, 0.0, 0.0};
    double sag = structure::cantileverTip(own, units::standardGravity).sag,
           slope = structure::cantileverTip(own, units::standardGravity).slope, hanging = 0.0, total = 0.0;
    for (const structure::ArmBody& m : sides.front.bodies) {
        const double a = std::min(m.at, boom.reach), beyond = m.at - a,
                     force = m.mass * units::standardGravity / beam.bendingUpright;
        sag += force * (a * a * (3.0 * boom.reach - a) / 6.0 + beyond * boom.reach * boom.reach / 2.0);
        slope += force * (a * a / 2.0 + beyond * boom.reach);
        total += m.mass;
        // What hangs beside the arm twists it; that is the camera at its end.
        hanging += m.at >= boom.reach ? m.mass : 0.0;
    }
    for (const structure::ArmBody& m : sides.back.bodies) total += m.mass;
    const double twist =
        hanging * units::standardGravity * std::abs(boom.tipSide) * boom.reach / beam.torsion;
    out.ownMass = Figure::of(beam.massPerMetre * (boom.reach + boom.rear));
    out.sag = Figure::of(sag);
    out.slope = Figure::of(slope);
    out.twist = Figure::of(twist);
    // A level arm that only swings keeps its bend; one that rises loses it with the cosine.
    const double low = r.lowAngle, high = r.lowAngle + std::min(r.range, 2.0 * pi);
    double least = 1.0, most = -1.0, steepest = 0.0;
    for (int i = 0; i <= 24; ++i) {
        const double at = low + (high - low) * i / 24.0;
        least = std::min(least, std::cos(at));
        most = std::max(most, std::cos(at));
        steepest = std::max(steepest, std::abs(std::sin(at)));
    }
    const double change = upright ? most - least : 0.0, rate = upright ? steepest : 0.0;
    out.sagShift = Figure::of(sag * change);
    // Parallel links keep the head level however the arm bends.
    const bool level = boom.arm == ArmKind::ParallelLinks;
    out.slopeShift = Figure::of(level ? 0.0 : slope * change);
    out.twistShift = Figure::of(twist * change);
    out.sagRate = Figure::of(sag * rate);
    out.slopeRate = Figure::of(level ? 0.0 : slope * rate);
    if (beam.section.uprightEdge > 0.0)
        out.stressRatio = overOrHarmless(
            beam.material.strength, std::max(structure::largestStress(sides.front, units::standardGravity),
                                             structure::largestStress(sides.back, units::standardGravity)));
    const double nodding = inSeries(boom.mastTurning.value, upright ? drive.stiffness : 0.0);
    out.bounce = Figure::of(cameraFrequency(sides, nodding));

    const Pivot& pivot = boom.pivot;
    const double load = (total + beam.massPerMetre * (boom.reach + boom.rear)) * units::standardGravity;
    if (pivot.pinDiameter > 0.0)
        out.pinRatio =
            overOrHarmless(pivot.pinLimit, structure::pinStress({pivot.pinDiameter, pivot.cheekGap}, load));
    if (pivot.bearingRating.value > 0.0) out.bearingRatio = overOrHarmless(pivot.bearingRating.value, load);
    // What stands on parallel links leans on the bearing with its whole lever.
    double lever = 0.0;
    for (const structure::ArmMass& m : masses) lever += m.mass * (m.along + m.beyond);
    const double tilting = std::abs(units::standardGravity * lever) + load * std::abs(boom.tipSide);
    if (pivot.bearingMoment.value > 0.0) out.momentRatio = overOrHarmless(pivot.bearingMoment.value, tilting);
    if (pivot.bolts >= 2)
        out.boltRatio =
            overOrHarmless(pivot.boltLimit, structure::boltForce(pivot.bolts, pivot.boltCircle, tilting));

    // What a stop of this axis shakes: a tilt bends the arm upright, a swing sideways.
    addSoft(out, SoftCause::Drive, drive.stiffness, drive.inertia, drive.damping);
    ArmSides shaken = upright ? sides : sidesOf(boom, beam, masses, false);
    if (const double f = cameraFrequency(shaken, 0.0); f > 0.0)
        out.soft.push_back({SoftCause::Boom, {f, beam.material.damping}});
    const double inertia =
        upright ? structure::inertiaAboutPivot(masses) : structure::inertiaAboutUpright(masses);
    addSoft(out, SoftCause::Mast, boom.mastTurning.value, inertia, 0.02);
    // What is entered beside the arm turns with it.
    shaken.front.bodies.push_back({0.0, 0.0, std::max(0.0, drive.inertia - inertia)});
    const double together = cameraFrequency(shaken, inSeries(drive.stiffness, boom.mastTurning.value));
    addPads(out, rig, axis);
    finishSoft(out, together);
    if (upright) fillBalance(out, masses, pivotMoment(sides.front), r);
}

} // namespace

std::optional<RailSetting> railSetting(const Axis& axis, const AxisMasses& masses, Reason& why) {
    const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism);
    const BeamView beam = linear != nullptr ? beamView(linear->rail.section) : BeamView{};
    if (!beam.given() || linear->rail.support == RailSupport::Bedded) {
        why = linear != nullptr && beam.given() ? Reason::NotApplicable : Reason::NeedsSection;
        return std::nullopt;
    }
    const Rail& rail = linear->rail;
    const double length = linear->railLength;
    RailSetting out;
    // A steep rail bends only by the part of the weight that is square to it.
    const double square = std::abs(std::cos(linear->slope.value));
    out.rail.beam = {length, beam.bendingUpright, beam.massPerMetre * units::standardGravity * square};
    out.rail.torsionStiffness = std::max(beam.torsion, 1e-12);
    if (rail.support == RailSupport::OneHead) {
        if (rail.headAt > length) {
            why = Reason::SupportsOffRail;
            return std::nullopt;
        }
        out.rail.supports = structure::CentralSupport{rail.headAt, rail.headTurning.value};
    } else {
        if (rail.secondStand > length || rail.secondStand - rail.firstStand < 0.01 * length) {
            why = Reason::SupportsOffRail;
            return std::nullopt;
        }
        out.rail.supports = structure::TwoSupports{rail.firstStand, rail.secondStand};
    }
    for (const RailLoad& load : rail.loads)
        out.rail.loads.push_back({load.at, load.mass.value * units::standardGravity * square});
    out.mass = masses.moving;
    out.height = std::abs(linear->guide.massHeight);
    out.carriage = {out.mass * units::standardGravity * square, std::min(linear->guide.wheelbase, length),
                    sideTorque(*linear, masses) * square};
    const double half = 0.5 * linear->carriageLength + linear->bumperLength;
    if (axis.role == Role::Lift)
        out.column = structure::Column{rail.support == RailSupport::OneHead ? rail.headAt : rail.secondStand,
                                       curvatureOf(columnCouple(*linear, masses), beam)};
    out.along.downhill = out.mass * units::standardGravity * std::sin(linear->slope.value);
    out.along.height = out.height;
    out.low = std::min(half, 0.5 * length);
    out.high = std::max(length - half, 0.5 * length);
    return out;
}

AxisStructure axisStructure(const RigSetup& rig, std::size_t axis, const DriveSpring& drive) {
    AxisStructure out;
    if (const auto* linear = std::get_if<LinearMechanism>(&rig.axes[axis].mechanism))
        fillRail(out, rig, axis, *linear, drive);
    else
        fillArm(out, rig, axis, std::get<RotaryMechanism>(rig.axes[axis].mechanism), drive);
    return out;
}

} // namespace gantry
