// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/drive/checks.h"
#include "core/motor/hot_copper.h"

#include "core/criteria/criteria.h"
#include "core/drivetrain/belt.h"
#include "core/drivetrain/carriage.h"
#include "core/drivetrain/gears.h"
#include "core/drivetrain/screw.h"
#include "core/drivetrain/winch.h"
#include "core/evaluate/drive/output_view.h"
#include "core/evaluate/drive/stage_view.h"
#include "core/model/overload.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

using std::numbers::pi;

/// Torque behind stage i that the drive must pass on at its worst.
double torqueBehind(const DriveModel& m, const HardestDemand& d, std::size_t i) {
    double torque = loadForce(m, d);
    for (std::size_t k = m.chain.stages.size(); k-- > i + 1;)
        torque /= m.chain.stages[k].ratio * m.chain.stages[k].efficiency;
    return torque / m.motors;
}

/// How many times what is allowed covers what there is; a million where that is next to nothing.
Figure over(const Figure& allowed, const Figure& actual) {
    constexpr double plenty = 1e6;
    return !actual || actual.value() > 0.0 ? lesser(allowed / actual, plenty) : plenty;
}

struct LinkChecker {
    PartCheck& out;
    double torque;     ///< [N·m] behind the stage
    double shaftSpeed; ///< [rad/s] of its output

    void rated(double ratedTorque) {
        out.load = Figure::of(torque);
        out.allowed = Figure::of(ratedTorque);
        out.strength = over(ratedTorque, torque);
    }
    void teeth(int a, int b, double module) {
        const auto [small, large] = std::minmax(a, b);
        out.undercut = Figure::of(small / drivetrain::leastTeethAgainst(large));
        out.contactRatio = Figure::of(drivetrain::contactRatio(a, b));
        out.centreDistance = Figure::of(drivetrain::centreDistance(a, b, module));
    }

    void operator()(const Coupling&) {}
    void operator()(const BeltStage& s) {
        const double pitch = s.pitch.value;
        const double radius = s.loadTeeth * pitch / (2.0 * pi),
                     sum = (s.motorTeeth + s.loadTeeth) * pitch / (2.0 * pi);
        const auto chosen = s.beltTeeth > 0
                                ? drivetrain::centreForBelt(s.motorTeeth, s.loadTeeth, pitch, s.beltTeeth)
                                : std::optional<double>();
        // Without a chosen belt: pulleys a fifth of their size apart, about as close as they get.
        const auto belt =
            drivetrain::beltForCentre(s.motorTeeth, s.loadTeeth, pitch, chosen.value_or(1.2 * sum));
        const double mesh = belt ? belt->teethInMeshSmall : 0.0;
        if (s.beltTeeth > 0)
            out.centreDistance = Figure::of(chosen.value_or(std::nan("")), Reason::NotApplicable);
        out.meshes = Figure::of(mesh / criteria::teethInMesh);
        out.load = Figure::of(torque / radius);
        out.allowed = Figure::of(drivetrain::allowedBeltPull(pitch, s.width, mesh));
        out.strength = over(out.allowed, out.load);
        if (s.beltTeeth > 0 && !chosen) out.meshes = Figure::of(0.0); // the belt does not reach round
    }
    void operator()(const GearStage& s) {
        const double radius = s.loadTeeth * s.module / 2.0, force = torque / radius;
        const double stress = drivetrain::lewisStress(
            force, s.faceWidth, s.module, std::min(s.motorTeeth, s.loadTeeth), shaftSpeed * radius);
        out.load = Figure::of(force);
        out.allowed = Figure::of(force * allowedToothStress(s.material) / stress);
        out.strength = over(allowedToothStress(s.material), stress);
        teeth(s.motorTeeth, s.loadTeeth, s.module);
    }
    void operator()(const PlanetaryStage& s) { rated(s.ratedTorque.value); }
    void operator()(const StrainWaveStage& s) { rated(s.ratedTorque.value); }
    void operator()(const ReducerStage& s) { rated(s.ratedTorque.value); }
    void operator()(const WormStage&) {}
    void operator()(const RollerStage& s) {
        out.load = Figure::of(torque);
        out.allowed = Figure::of(rollerGrip(s));
        out.slip = over(out.allowed, torque);
    }
};

struct OutputChecker {
    AxisEvaluation& e;
    PartCheck& out;
    const Axis& axis;
    double force; ///< [N] or [N·m]
    const LinearMechanism* linear;

    void operator()(const BeltOutput& b) {
        const double pull = force / (b.motors * (b.doubled ? 2 : 1));
        out.load = Figure::of(pull);
        out.allowed = Figure::of(criteria::beltStrain * b.tensileStiffness.value);
        out.strength = over(out.allowed, pull);
        out.meshes = Figure::of(b.teeth / 2.0 / criteria::teethInMesh);
    }
    void operator()(const ScrewOutput& s) {
        const auto ends = static_cast<drivetrain::Ends>(s.ends);
        const double turnsPerMetre = 2.0 * pi / s.lead.value;
        e.checks.whirlSpeed = Figure::of(
            drivetrain::whirlingSpeed(s.rootDiameter.value, linear->railLength, ends) / turnsPerMetre);
        e.checks.bucklingLoad =
            Figure::of(drivetrain::bucklingLoad(s.rootDiameter.value, linear->railLength, ends));
        out.load = Figure::of(force);
    }
    void operator()(const RackOutput& r) {
        out.load = Figure::of(force);
        out.undercut = Figure::of(r.teeth / drivetrain::leastTeethAgainst(100000));
    }
    void operator()(const WheelOutput& w) {
        out.load = Figure::of(force);
        out.allowed = Figure::of(wheelGrip(w, e.model.chain.load.inertia, linear->slope.value));
        out.slip = over(out.allowed, force);
        e.checks.turningRadius =
            Figure::of(drivetrain::turningRadius(w.wheelbase, w.steeringAngle), Reason::NotApplicable);
    }
    void operator()(const WinchOutput& w) {
        const std::vector<drivetrain::CordLayer>& layers = e.model.layers;
        out.load = Figure::of(force);
        out.allowed = Figure::of(w.breakingLoad.value);
        e.checks.cordRatio = over(w.breakingLoad.value, force);
        if (layers.empty()) return;
        e.checks.windingLayers = Figure::of(static_cast<double>(layers.size()));
        e.checks.layerError = Figure::of(e.model.cordScale.error);
        if (e.model.pulses) {
            constexpr double perMillimetre = 1e-3;
            e.checks.stepsPerUnitLast = Figure::of(perMillimetre / e.model.microstep());
            e.checks.stepsPerUnitFirst = e.checks.stepsPerUnitLast * e.model.layerSpread();
        }
        if (w.flangeDiameter > 0.0) {
            const drivetrain::Drum drum = drumOf(w);
            const double kept = w.turnsOn * std::numbers::pi * (drum.diameter + drum.cordDiameter);
            e.checks.drumCapacity =
                over(drivetrain::drumCapacity(drum, w.flangeDiameter, criteria::drumFreeboard),
                     e.model.travel + kept);
        }
    }
    void operator()(const DirectOutput&) {}
    void operator()(const RingOutput& r) {
        LinkChecker{out, force, 0.0}.teeth(r.pinionTeeth, r.ringTeeth, r.module);
        out.load = Figure::of(force);
    }
    void operator()(const LensRingOutput& r) {
        LinkChecker{out, force, 0.0}.teeth(r.pinionTeeth, r.ringTeeth, r.module);
        out.load = Figure::of(force);
    }
};

/// Both spans together pull twice the preload, whatever goes through them, until the slack one hangs loose.
Figure beltPull(double preload, const Figure& force) {
    return greater(2.0 * preload, force);
}

struct ShaftPull {
    Figure radial = 0.0, axial = 0.0; ///< [N]
};

/// Teeth of 20° push apart what they turn.
Figure toothPush(const Figure& force) {
    return force / std::cos(20.0 * pi / 180.0);
}

/// What a link next to the motor does to its shaft. What sits on a shaft of its own does nothing.
ShaftPull pullOf(const Link& link, const Figure& load) {
    return std::visit(overload{[&](const BeltStage& s) { return ShaftPull{beltPull(s.preload.value, load)}; },
                               [&](const GearStage&) { return ShaftPull{toothPush(load)}; },
                               [](const RollerStage& s) { return ShaftPull{s.pressure.value}; },
                               [](const Coupling&) { return ShaftPull{}; },
                               [](const PlanetaryStage&) { return ShaftPull{}; },
                               [](const StrainWaveStage&) { return ShaftPull{}; },
                               [](const WormStage&) { return ShaftPull{}; },
                               [](const ReducerStage&) { return ShaftPull{}; }},
                      link);
}

/// What an output right on the motor does to its shaft: by its force at the load, or its torque at the wheel.
struct OutputPull {
    double force;  ///< [N] of one motor, on linear axes
    double torque; ///< [N·m] at the last wheel, on rotary ones
    Figure centreDistance;

    ShaftPull operator()(const BeltOutput& o) const {
        return {beltPull(o.preload.value, force / (o.doubled ? 2 : 1))};
    }
    /// A coupling would stand before a screw that has bearings of its own.
    ShaftPull operator()(const ScrewOutput&) const { return {0.0, force}; }
    ShaftPull operator()(const RackOutput&) const { return {toothPush(force)}; }
    ShaftPull operator()(const WheelOutput&) const { return {force}; }
    ShaftPull operator()(const WinchOutput&) const { return {force}; }
    ShaftPull operator()(const DirectOutput&) const { return {}; }
    ShaftPull operator()(const RingOutput&) const { return ring(); }
    ShaftPull operator()(const LensRingOutput&) const { return ring(); }
    ShaftPull ring() const { return {torque / greater(1e-4, centreDistance)}; }
};

/// Pull on the motor's shaft by whatever sits on it.
void fillShaft(AxisEvaluation& e, const Axis& axis, const HardestDemand& d) {
    const ShaftPull pull = axis.links.empty()
                               ? std::visit(
                                     [&](const auto& mechanism) {
                                         return std::visit(OutputPull{loadForce(e.model, d) / e.model.motors,
                                                                      torqueBehind(e.model, d, 0),
                                                                      e.checks.parts.back().centreDistance},
                                                           mechanism.output);
                                     },
                                     axis.mechanism)
                               : pullOf(axis.links.front(), e.checks.parts.front().load);
    e.checks.shaftRadial = pull.radial;
    e.checks.shaftAxial = pull.axial;
}

void fillHeat(AxisEvaluation& e, double ambient, const Axis& axis, const HardestDemand& d) {
    const MotorBody& body = bodyOf(axis.motor);
    const auto brushed = [&] {
        const motor::DcParams& dc = *e.model.dc();
        const double current = motor::motorCurrent(dc, d.torqueRms / e.model.motors);
        const double watts = current * current * dc.nominalVoltage / dc.stallCurrent;
        return Figure(body.thermalResistance.value * watts);
    };
    const Figure rise = std::visit(
        overload{
            [&](const Stepper& m) {
                const double watts = motor::stepperHeat(e.model.stepper()->peakCurrent, m.resistance.value);
                if (!std::isfinite(watts)) return Figure::none(e.model.missing);
                const auto warm = motor::hotCopper({watts, 0.0, ambient, 0.0, body.thermalResistance.value});
                // Where heat grows faster than it leaves, whatever the mount stands is passed.
                constexpr double beyondAnyMount = 400.0;
                return Figure(std::min(warm ? warm->housing : beyondAnyMount, beyondAnyMount) - ambient);
            },
            [&](const ServoMotor& m) {
                // Rated torque is what warms it by so much, and heat goes with torque squared.
                const double share = d.torqueRms / e.model.motors / m.ratedTorque.value;
                return Figure(criteria::servoRise * share * share);
            },
            [&](const DcServo&) { return brushed(); }, [&](const GearedDc&) { return brushed(); },
            [](const HobbyServo&) { return Figure::none(Reason::NotApplicable); }},
        axis.motor);
    e.checks.caseTemperature = ambient + rise;
    e.checks.caseLimit = Figure::of(caseLimit(body.mount));
}

void fillGuide(AxisEvaluation& e, const LinearMechanism& linear, const HardestDemand& d) {
    const Guide& g = linear.guide;
    const double mass = e.model.chain.load.inertia;
    const double normal = mass * standardGravity * std::cos(linear.slope.value);
    const bool sliding = g.kind == GuideKind::PlainRods;
    double along = mass * d.acceleration * g.massHeight + std::abs(e.model.chain.load.steady) * g.massHeight,
           across = 0.0;
    for (const MassItem& item : linear.items)
        along += item.mass.value * standardGravity * std::abs(item.along);
    across = loadForce(e.model, d) * std::abs(g.pushOffset);
    e.checks.guideRotation = Figure::of(drivetrain::playRotation(g.play.value, g.wheelbase));
    e.checks.bindingRatio =
        sliding ? Figure::of(drivetrain::bindingRatio(g.wheelbase, g.pushOffset, g.friction.value),
                             Reason::Unbounded)
                : Figure::none(Reason::NotApplicable);
    e.checks.bearingLoad = Figure::of(drivetrain::bearingLoad(normal, along, across, g.wheelbase, g.track));
    e.checks.guideFriction = Figure::of(g.friction.value * normal);
    if (linear.panBar.fitted) {
        const drivetrain::PanBarGeometry bar{linear.panBar.armLength, linear.panBar.offset,
                                             linear.panBar.angle};
        const double half = e.model.travel / 2.0;
        const auto low = drivetrain::panBarAngle(bar, -half), high = drivetrain::panBarAngle(bar, half);
        const double reach =
            (std::abs(bar.offset) + half * std::abs(std::tan(bar.angle))) * std::cos(bar.angle);
        e.checks.panBarTurn =
            low && high ? Figure::of(std::abs(*high - *low)) : Figure::none(Reason::OutOfRange);
        e.checks.panBarReach = over(bar.armLength, reach);
    }
}

void fillStop(AxisEvaluation& e, const Axis& axis) {
    const PowerOff& off = e.powerOff;
    if (!off.loaded) return;
    const bool motorHolds = e.model.holdAmplitude > 0.0;
    if (holdsAfter(axis.onStop) && motorHolds) {
        e.stop.ratio = e.holdAvailable / e.holdNeeded;
        e.stop.outcome =
            e.stop.ratio && e.stop.ratio.value() >= 1.0 ? StopOutcome::Stays : StopOutcome::Falls;
        return;
    }
    if (axis.onStop == OnStop::NotAsked && !off.brakeRatio) {
        e.stop = {StopOutcome::Unknown, Figure::none(Reason::NeedsStopBehaviour)};
        return;
    }
    if (off.brakeRatio) {
        e.stop.ratio = off.brakeRatio;
        e.stop.outcome = off.brakeRatio.value() >= 1.0 ? StopOutcome::Stays : StopOutcome::Falls;
        return;
    }
    const Figure friction = off.friction / off.gravity;
    e.stop.ratio = e.checks.locks ? greater(1.0, friction) : friction;
    // Friction that is little more than gravity, and threads that lock, let go when shaken.
    e.stop.outcome = off.falls                                                   ? StopOutcome::Falls
                     : e.checks.locks || less(friction, criteria::creepFriction) ? StopOutcome::Creeps
                                                                                 : StopOutcome::Stays;
}

} // namespace

HardestDemand hardestDemand(const AxisEvaluation& e) {
    HardestDemand d;
    bool any = false;
    for (const ShotEvaluation& s : e.shots) {
        if (s.problem != Reason::None) continue;
        any = true;
        d.speed = std::max(d.speed, s.motion.topSpeed.valueOr(0.0));
        d.acceleration = std::max(d.acceleration, s.motion.acceleration.valueOr(0.0));
        d.carried = std::max(d.carried, s.carried.valueOr(0.0));
        d.torqueRms = std::max(d.torqueRms, s.torque.rms.valueOr(0.0));
    }
    if (!any) {
        d.speed = e.model.settings.speed;
        d.acceleration = e.model.settings.acceleration;
    }
    return d;
}

double loadForce(const DriveModel& m, const HardestDemand& d) {
    const drivetrain::Load& l = m.chain.load;
    const double steady = std::abs(l.steady) + d.carried;
    return std::max(steady + l.coulomb + l.inertia * d.acceleration, steady + m.staticFriction);
}

double caseLimit(MountMaterial mount) {
    // A mount can only take less than the motor's own windings and magnets.
    const auto atMost = [](const criteria::Criterion& limit) {
        return std::min(criteria::motorCase.value, limit.value);
    };
    switch (mount) {
    case MountMaterial::PrintedPla:
        return atMost(criteria::mountPla);
    case MountMaterial::PrintedPetg:
        return atMost(criteria::mountPetg);
    case MountMaterial::PrintedAbs:
        return atMost(criteria::mountAbs);
    case MountMaterial::Plywood:
    case MountMaterial::PrintedNylon:
    case MountMaterial::Metal:
        break;
    }
    return criteria::motorCase;
}

double allowedToothStress(GearMaterial material) {
    switch (material) {
    case GearMaterial::Steel:
        return criteria::toothSteel;
    case GearMaterial::Brass:
        return criteria::toothBrass;
    case GearMaterial::Aluminium:
        return criteria::toothAluminium;
    case GearMaterial::Acetal:
        return criteria::toothAcetal;
    case GearMaterial::Nylon:
        return criteria::toothNylon;
    case GearMaterial::PrintedPla:
        return criteria::toothPla;
    case GearMaterial::PrintedPetg:
        return criteria::toothPetg;
    case GearMaterial::Hardwood:
        return criteria::toothHardwood;
    case GearMaterial::Plywood:
        break;
    }
    return criteria::toothPlywood;
}

motor::Noise noiseOf(const Axis& axis, const DriveModel& m, double motorSpeed) {
    constexpr double wheelTeeth = 12.0; // on the shaft of a geared motor
    motor::Noise noise = std::visit(
        overload{[&](const Stepper&) {
                     return motor::stepperNoise(
                         motorSpeed / m.fullStepAngle,
                         static_cast<int>(std::lround(m.fullStepAngle / m.commandAngle)));
                 },
                 [&](const ServoMotor&) { return motor::servoNoise(motorSpeed); },
                 [&](const DcServo&) { return motor::brushNoise(motorSpeed); },
                 [&](const GearedDc& geared) {
                     const double rotor = motorSpeed * geared.gearNumerator / geared.gearDenominator;
                     return motor::louder(motor::brushNoise(rotor),
                                          motor::meshNoise(rotor / (2.0 * pi) * wheelTeeth, false));
                 },
                 [](const HobbyServo& hobby) { return motor::hobbyServoNoise(hobby.updateRate); }},
        axis.motor);
    double speed = motorSpeed;
    for (std::size_t i = 0; i < axis.links.size(); ++i) {
        const auto mesh = [&](int teeth, bool soft) {
            noise = motor::louder(noise, motor::meshNoise(speed / (2.0 * pi) * teeth, soft));
        };
        std::visit(
            overload{[&](const GearStage& g) { mesh(g.motorTeeth, !metal(g.material)); },
                     [&](const BeltStage& b) { mesh(b.motorTeeth, true); },
                     [&](const PlanetaryStage& p) { mesh(p.sunTeeth, false); },
                     // Many teeth at once, a sliding thread or none at all: not heard beside the motor.
                     [](const StrainWaveStage&) {}, [](const WormStage&) {}, [](const ReducerStage&) {},
                     [](const RollerStage&) {}, [](const Coupling&) {}},
            axis.links[i]);
        speed /= m.chain.stages[i].ratio;
    }
    return noise;
}

namespace {

/// How far apart the shots of a motor on a knob lie, and how much slower its drive ought to be for the
/// slowest.
void fillSpan(AxisEvaluation& e) {
    const DriveModel& m = e.model;
    if (m.dc() == nullptr || m.commandAngle > 0.0 || m.oneSpeed || !(m.lowestSpeed > 0.0)) return;
    double fastest = 0.0, slowest = std::numeric_limits<double>::infinity();
    for (const ShotEvaluation& s : e.shots) {
        const double speed = s.motion.topSpeed.valueOr(0.0);
        if (!(speed > 0.0)) continue;
        fastest = std::max(fastest, speed);
        slowest = std::min(slowest, speed);
    }
    if (!(fastest > 0.0)) return;
    const double steady = m.lowestSpeed * m.outputPerRad;
    e.checks.speedSpan = e.checks.motorTopSpeed / steady;
    e.checks.speedsAsked = Figure::of(fastest / slowest);
    if (const double factor = criteria::motorSpeed * steady / slowest; factor > 1.0)
        e.checks.ratioFactor = Figure::of(factor);
}

} // namespace

void fillChecks(AxisEvaluation& e, const Axis& axis, double ambient) {
    const HardestDemand d = hardestDemand(e);
    e.checks.parts.reserve(axis.links.size() + 1);
    double shaftSpeed = d.speed / e.model.outputPerRad;
    for (std::size_t i = 0; i < axis.links.size(); ++i) {
        PartCheck check;
        check.link = static_cast<int>(i);
        shaftSpeed /= e.model.chain.stages[i].ratio;
        std::visit(LinkChecker{check, torqueBehind(e.model, d, i), shaftSpeed}, axis.links[i]);
        e.checks.parts.push_back(check);
    }
    PartCheck output;
    const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism);
    OutputChecker checker{e, output, axis, loadForce(e.model, d), linear};
    if (linear != nullptr)
        std::visit(checker, linear->output);
    else
        std::visit(checker, std::get<RotaryMechanism>(axis.mechanism).output);
    e.checks.parts.push_back(output);

    fillShaft(e, axis, d);
    fillHeat(e, ambient, axis, d);
    if (linear != nullptr) fillGuide(e, *linear, d);
    fillStop(e, axis);
    if (const motor::DcParams* dc = e.model.dc()) {
        e.checks.stallCurrent = Figure::of(motor::stallCurrent(*dc));
        // As fast as it runs in the shots; without shots, free.
        const double speed = d.speed > 0.0 ? std::min(d.speed / e.model.outputPerRad, motor::noLoadSpeed(*dc))
                                           : motor::noLoadSpeed(*dc);
        e.checks.reversalCurrent = Figure::of(motor::reversalCurrent(*dc, speed));
        e.checks.motorTopSpeed = Figure::of(motor::noLoadSpeed(*dc) * e.model.outputPerRad);
    } else if (const auto* servo = std::get_if<motor::ServoParams>(&e.model.curve)) {
        e.checks.motorTopSpeed = Figure::of(motor::topSpeed(*servo) * e.model.outputPerRad);
    }
    fillSpan(e);
    if (e.model.commandAngle > 0.0)
        e.checks.placeError = Figure::of(e.model.angleError * e.model.outputPerRad);
}

} // namespace gantry
