// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/drive/checks.h"

#include "core/criteria/criteria.h"
#include "core/drivetrain/belt.h"
#include "core/drivetrain/carriage.h"
#include "core/drivetrain/gears.h"
#include "core/drivetrain/screw.h"
#include "core/drivetrain/winch.h"
#include "core/evaluate/drive/output_view.h"
#include "core/evaluate/drive/stage_view.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

constexpr double pi = std::numbers::pi;

/// Torque behind stage i that the drive must pass on at its worst.
double torqueBehind(const DriveModel& m, const HardestDemand& d, std::size_t i) {
    double torque = loadForce(m, d);
    for (std::size_t k = m.chain.stages.size(); k-- > i + 1;)
        torque /= m.chain.stages[k].ratio * m.chain.stages[k].efficiency;
    return torque / m.motors;
}

double over(double allowed, double actual) {
    return actual > 0.0 ? std::min(allowed / actual, 1e6) : 1e6;
}

struct LinkChecker {
    PartCheck& out;
    double torque;     ///< [N·m] behind the stage
    double shaftSpeed; ///< [rad/s] of its output

    void rated(double ratedTorque) {
        out.load = Figure::of(torque);
        out.allowed = Figure::of(ratedTorque);
        out.strength = Figure::of(over(ratedTorque, torque));
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
        out.strength = Figure::of(over(out.allowed.value(), out.load.value()));
        if (s.beltTeeth > 0 && !chosen) out.meshes = Figure::of(0.0); // the belt does not reach round
    }
    void operator()(const GearStage& s) {
        const double radius = s.loadTeeth * s.module / 2.0, force = torque / radius;
        const double stress = drivetrain::lewisStress(
            force, s.faceWidth, s.module, std::min(s.motorTeeth, s.loadTeeth), shaftSpeed * radius);
        out.load = Figure::of(force);
        out.allowed = Figure::of(force * allowedToothStress(s.material) / stress);
        out.strength = Figure::of(over(allowedToothStress(s.material), stress));
        teeth(s.motorTeeth, s.loadTeeth, s.module);
    }
    void operator()(const PlanetaryStage& s) { rated(s.ratedTorque.value); }
    void operator()(const StrainWaveStage& s) { rated(s.ratedTorque.value); }
    void operator()(const ReducerStage& s) { rated(s.ratedTorque.value); }
    void operator()(const WormStage&) {}
    void operator()(const RollerStage& s) {
        out.load = Figure::of(torque);
        out.allowed = Figure::of(rollerGrip(s));
        out.slip = Figure::of(over(out.allowed.value(), torque));
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
        out.strength = Figure::of(over(out.allowed.value(), pull));
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
        out.slip = Figure::of(over(out.allowed.value(), force));
        e.checks.turningRadius =
            Figure::of(drivetrain::turningRadius(w.wheelbase, w.steeringAngle), Reason::NotApplicable);
    }
    void operator()(const WinchOutput& w) {
        const drivetrain::Winding winding = drivetrain::windingOf(
            {w.drumDiameter.value, w.cordDiameter.value, w.drumWidth, 1.0}, e.model.travel);
        out.load = Figure::of(force);
        out.allowed = Figure::of(w.breakingLoad.value);
        e.checks.cordRatio = Figure::of(over(w.breakingLoad.value, force));
        e.checks.windingLayers = Figure::of(winding.layers);
        e.checks.stepsPerUnitLast = e.steps.stepsPerUnit;
        e.checks.stepsPerUnitFirst =
            Figure::of(e.steps.stepsPerUnit.value() * winding.lastRadius / winding.firstRadius,
                       e.steps.stepsPerUnit.reason());
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
double beltPull(double preload, double force) {
    return std::max(2.0 * preload, force);
}

/// Pull on the motor's shaft by whatever sits on it.
void fillShaft(AxisEvaluation& e, const Axis& axis, const HardestDemand& d) {
    double radial = 0.0, axial = 0.0;
    const Link* first = axis.links.empty() ? nullptr : &axis.links.front();
    if (first != nullptr) {
        const double force = e.checks.parts.front().load.value();
        if (const auto* belt = std::get_if<BeltStage>(first))
            radial = beltPull(belt->preload.value, force);
        else if (std::holds_alternative<GearStage>(*first))
            radial = force / std::cos(20.0 * pi / 180.0);
        else if (const auto* roller = std::get_if<RollerStage>(first))
            radial = roller->pressure.value;
    } else if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism)) {
        const double force = loadForce(e.model, d) / e.model.motors;
        if (const auto* belt = std::get_if<BeltOutput>(&linear->output))
            radial = beltPull(belt->preload.value, force / (belt->doubled ? 2 : 1));
        else if (std::holds_alternative<ScrewOutput>(linear->output))
            axial = force; // a coupling would stand before a screw that has bearings of its own
        else if (std::holds_alternative<RackOutput>(linear->output))
            radial = force / std::cos(20.0 * pi / 180.0);
        else
            radial = force;
    } else if (!std::holds_alternative<DirectOutput>(std::get<RotaryMechanism>(axis.mechanism).output)) {
        radial = torqueBehind(e.model, d, 0) / std::max(1e-4, e.checks.parts.back().centreDistance.value());
    }
    e.checks.shaftRadial = Figure::of(radial);
    e.checks.shaftAxial = Figure::of(axial);
}

void fillHeat(AxisEvaluation& e, double ambient, const Axis& axis, const HardestDemand& d) {
    const MotorBody& body = bodyOf(axis.motor);
    double watts = std::nan("");
    Reason reason = Reason::NotApplicable;
    if (const auto* stepper = std::get_if<Stepper>(&axis.motor)) {
        watts = motor::stepperHeat(e.model.stepper()->peakCurrent, stepper->resistance.value);
        reason = e.model.missing;
    } else if (const motor::DcParams* dc = e.model.dc();
               dc && !std::holds_alternative<HobbyServo>(axis.motor)) {
        const double current = motor::motorCurrent(*dc, d.torqueRms / e.model.motors);
        watts = current * current * dc->nominalVoltage / dc->stallCurrent;
    } else if (const auto* servo = std::get_if<ServoMotor>(&axis.motor)) {
        // Rated torque is what warms it by so much, and heat goes with torque squared.
        const double share = d.torqueRms / e.model.motors / servo->ratedTorque.value;
        e.checks.caseTemperature = Figure::of(ambient + criteria::servoRise * share * share);
        e.checks.caseLimit = Figure::of(caseLimit(body.mount));
        return;
    }
    e.checks.caseTemperature = Figure::of(ambient + body.thermalResistance.value * watts, reason);
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
        e.checks.panBarReach = Figure::of(over(bar.armLength, reach));
    }
}

void fillStop(AxisEvaluation& e, const Axis& axis) {
    const PowerOff& off = e.powerOff;
    if (!off.loaded) return;
    const bool motorHolds = e.model.holdAmplitude > 0.0;
    if (axis.onStop == OnStop::KeepsHolding && motorHolds) {
        e.stop.ratio = Figure::of(e.holdAvailable.value() / e.holdNeeded.value(), e.holdAvailable.reason());
        e.stop.outcome = e.stop.ratio.value() >= 1.0 ? StopOutcome::Stays : StopOutcome::Falls;
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
    const double friction = off.friction.value() / off.gravity.value();
    e.stop.ratio = Figure::of(e.checks.locks ? std::max(1.0, friction) : friction);
    // Friction that is little more than gravity, and threads that lock, let go when shaken.
    e.stop.outcome = off.falls                                              ? StopOutcome::Falls
                     : e.checks.locks || friction < criteria::creepFriction ? StopOutcome::Creeps
                                                                            : StopOutcome::Stays;
}

} // namespace

HardestDemand hardestDemand(const AxisEvaluation& e) {
    HardestDemand d;
    bool any = false;
    for (const ShotEvaluation& s : e.shots) {
        if (s.problem != Reason::None) continue;
        any = true;
        d.speed = std::max(d.speed, s.motion.topSpeed.value());
        d.acceleration = std::max(d.acceleration, s.motion.acceleration.value());
        d.carried = std::max(d.carried, s.carried.value());
        d.torqueRms = std::max(d.torqueRms, s.torque.rms.value());
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
    motor::Noise noise;
    if (m.stepper())
        noise = motor::stepperNoise(motorSpeed / m.fullStepAngle,
                                    static_cast<int>(std::lround(m.fullStepAngle / m.commandAngle)));
    else if (const auto* geared = std::get_if<GearedDc>(&axis.motor)) {
        const double rotor = motorSpeed * geared->gearNumerator / geared->gearDenominator;
        noise = motor::louder(motor::brushNoise(rotor), motor::meshNoise(rotor / (2.0 * pi) * 12.0, false));
    } else if (std::holds_alternative<DcServo>(axis.motor))
        noise = motor::brushNoise(motorSpeed);
    else if (const auto* hobby = std::get_if<HobbyServo>(&axis.motor))
        noise = motor::hobbyServoNoise(hobby->updateRate);
    else
        noise = motor::servoNoise(motorSpeed);
    double speed = motorSpeed;
    for (std::size_t i = 0; i < axis.links.size(); ++i) {
        const Link& link = axis.links[i];
        if (const auto* g = std::get_if<GearStage>(&link)) {
            const bool soft = g->material != GearMaterial::Steel && g->material != GearMaterial::Brass &&
                              g->material != GearMaterial::Aluminium;
            noise = motor::louder(noise, motor::meshNoise(speed / (2.0 * pi) * g->motorTeeth, soft));
        } else if (const auto* b = std::get_if<BeltStage>(&link))
            noise = motor::louder(noise, motor::meshNoise(speed / (2.0 * pi) * b->motorTeeth, true));
        else if (const auto* p = std::get_if<PlanetaryStage>(&link))
            noise = motor::louder(noise, motor::meshNoise(speed / (2.0 * pi) * p->sunTeeth, false));
        speed /= m.chain.stages[i].ratio;
    }
    return noise;
}

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
        e.checks.reversalCurrent = Figure::of(motor::reversalCurrent(*dc, motor::noLoadSpeed(*dc)));
        e.checks.motorTopSpeed = Figure::of(motor::noLoadSpeed(*dc) * e.model.outputPerRad);
    } else if (const auto* servo = std::get_if<motor::ServoParams>(&e.model.curve)) {
        e.checks.motorTopSpeed = Figure::of(motor::topSpeed(*servo) * e.model.outputPerRad);
    }
}

} // namespace gantry
