// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"

#include "core/evaluate/interval/evaluate_interval.h"
#include "core/evaluate/move/axis_move.h"
#include "core/evaluate/move/axis_picture.h"
#include "core/evaluate/move/evaluate_move.h"

#include "core/criteria/criteria.h"
#include "core/drivetrain/back_drive.h"
#include "core/evaluate/drive/make_drive.h"
#include "core/evaluate/drive/output_view.h"
#include "core/evaluate/drive/stage_view.h"
#include "core/evaluate/pose_search.h"
#include "core/evaluate/rig/axis_structure.h"
#include "core/evaluate/rig/rig_structure.h"
#include "core/evaluate/setup_of.h"
#include "core/evaluate/supply/supply_view.h"
#include "core/evaluate/work_count.h"

#include "core/evaluate/drive/checks.h"
#include "core/evaluate/shot/evaluate_shot.h"
#include "core/motor/stepper_motion.h"
#include "core/motor/two_mass.h"
#include "core/solve/root.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>

namespace gantry {
namespace {

using std::numbers::pi;

void fillSteps(AxisEvaluation& e, const Controller& controller) {
    const DriveModel& m = e.model;
    const double unit = m.kind == AxisKind::Linear ? 1e-3 : pi / 180.0;
    e.ratio = m.exactRatio;
    e.totalRatio = Figure::of(m.exactRatio ? m.exactRatio->value() : m.shaftRatio);
    if (m.pulses) {
        // Of a cord in layers, the number that errs least over the travel.
        const double perUnit = m.exactStepsPerUnit   ? m.exactStepsPerUnit->value()
                               : m.layers.size() > 1 ? unit / m.microstep() * 2.0 * pi *
                                                           m.layers.back().radius / m.cordScale.perTurn
                                                     : unit / m.microstep();
        e.steps.stepsPerUnit = Figure::of(perUnit);
        const double grid = std::pow(10.0, controller.decimalsKept);
        const double kept = std::round(perUnit * grid) / grid;
        e.steps.stepsPerUnitKept = Figure::of(kept);
        e.steps.roundingShare = Figure::of(kept / perUnit - 1.0);
        e.steps.roundingOverTravel = std::abs(kept / perUnit - 1.0) * m.travel;
    }
    e.travelPerMotorRev = Figure::of(2.0 * pi * m.outputPerRad);
    e.step = m.commandAngle > 0.0 ? Figure::of(m.microstep()) : Figure::none(Reason::NotApplicable);
    e.usableTravel = Figure::of(m.travel);
}

/// Rotor and load on the springs of field and drive, all at the motor's shaft.
motor::TwoMass twoMasses(const AxisEvaluation& e, const Axis& axis, const motor::StepperParams& stepper) {
    const DriveModel& m = e.model;
    const double rotor =
        m.chain.motorInertia + (m.chain.stages.empty() ? 0.0 : m.chain.stages.front().inputInertia);
    motor::TwoMass out;
    out.rotor = rotor;
    out.load = e.inertiaAtMotor.valueOr(rotor) - rotor;
    out.field = motor::fieldStiffness(stepper.rotorTeeth, m.motors * m.torqueAmplitude, 0.0);
    out.drive = m.outputStiffness * m.outputPerRad * m.outputPerRad;
    out.rotorDamper =
        2.0 * std::get<Stepper>(axis.motor).rotorDamping.value * std::sqrt(out.field * m.chain.motorInertia);
    if (std::isfinite(out.drive) && out.load > 0.0)
        out.driveDamper = 2.0 * axis.vibration.damping.value * std::sqrt(out.drive * out.load);
    return out;
}

void fillResonance(AxisEvaluation& e, const Axis& axis) {
    const DriveModel& m = e.model;
    // Only a stepper is held by its field alone; the others are held by their loops.
    const motor::StepperParams* stepper = m.stepper();
    if (stepper == nullptr) return;
    RotorResonance& out = e.resonance;
    const motor::RotorModes modes = motor::modesOf(twoMasses(e, axis, *stepper));
    const double travelPerShake =
        2.0 * pi * m.outputPerRad / motor::shakesPerTurn(motor::Shake::FullStep, stepper->rotorTeeth, 1);
    const auto fill = [&](const motor::RotorMode& mode, Figure& frequency, Figure& speed, Figure& low,
                          Figure& high) {
        frequency = Figure::of(mode.frequency, m.missing);
        speed = Figure::of(mode.frequency * travelPerShake, m.missing);
        // Damped so well that nothing grows, there is no band.
        const auto band = motor::gainBand(mode.damping);
        if (!speed) low = high = speed;
        if (!speed || !band) return;
        low = band->low * speed;
        high = band->high * speed;
    };
    fill(modes.low, out.frequency, out.speed, out.low, out.high);
    out.damping = Figure::of(modes.low.damping, m.missing);
    out.loadSwing = Figure::of(modes.low.loadOverRotor, m.missing);
    if (modes.high) fill(*modes.high, out.second, out.secondSpeed, out.secondLow, out.secondHigh);
}

void fillInertia(AxisEvaluation& e) {
    const DriveModel& m = e.model;
    const double all = drivetrain::inertiaAtMotor(m.chain);
    const double rotor = m.chain.motorInertia;
    e.inertiaAtMotor = Figure::of(all);
    e.rotorInertia = Figure::of(rotor);
    e.loadInertia = Figure::of(all - rotor);
    e.inertiaRatio = Figure::of((all - rotor) / rotor);
}

/// Torque [N·m] that gravity puts on the shaft a brake sits on. On the load side a linear axis brakes the
/// last shaft, a rotary one the axis itself.
double brakeNeeded(const DriveModel& m, const Axis& axis) {
    if (axis.brake.place == BrakePlace::MotorShaft) return m.gravityAtMotor();
    const double gravity = std::abs(m.chain.load.steady);
    return m.kind == AxisKind::Linear ? gravity / m.chain.stages.back().ratio : gravity;
}

/// Largest load [N] or [N·m] that rollers and wheels between an axis' brake and its load hold without
/// slipping; infinite where all is positive.
double gripBehindBrake(const DriveModel& m, const Axis& axis) {
    double grip = std::numeric_limits<double>::infinity();
    // Radians of each link's output shaft per unit of the axis, from the motor on.
    double turnsBehind = 1.0 / m.outputPerRad;
    for (std::size_t i = 0; i < axis.links.size() && i < m.chain.stages.size(); ++i) {
        turnsBehind /= m.chain.stages[i].ratio;
        const auto* roller = std::get_if<RollerStage>(&axis.links[i]);
        if (roller == nullptr || axis.brake.place == BrakePlace::LoadSide) continue;
        grip = std::min(grip, rollerGrip(*roller) * turnsBehind);
    }
    const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism);
    if (const auto* wheel = linear != nullptr ? std::get_if<WheelOutput>(&linear->output) : nullptr)
        grip = std::min(grip, wheelGrip(*wheel, m.chain.load.inertia, linear->slope.value));
    return grip;
}

void fillStandstill(AxisEvaluation& e, const Axis& axis) {
    const DriveModel& m = e.model;
    const drivetrain::Load& load = m.chain.load;
    e.holdNeeded = Figure::of(m.gravityAtMotor());
    e.holdAvailable = Figure::of(m.motors * m.holdAmplitude, m.missing);
    e.checks.locks = drivetrain::lockedBy(m.chain).has_value();

    PowerOff& off = e.powerOff;
    const double gravity = std::abs(load.steady);
    off.loaded = gravity > 1e-9;
    off.gravity = Figure::of(gravity);
    off.friction = Figure::of(m.friction);
    // No brake holds better than what grips between it and the load.
    off.brakeRatio = axis.brake.fitted && off.loaded
                         ? Figure::of(std::min(axis.brake.holdingTorque.value / brakeNeeded(m, axis),
                                               gripBehindBrake(m, axis) / gravity))
                         : Figure::none(Reason::NotApplicable);
    off.falls = gravity > m.friction && !e.checks.locks && !(off.brakeRatio && off.brakeRatio.value() >= 1.0);
    if (!off.falls) {
        off.energy = off.speed = Figure::none(Reason::NotApplicable);
        return;
    }
    // An unbalanced turning mass gives back at most what lifting it so far at full moment takes.
    const double way = m.kind == AxisKind::Linear ? m.travel : std::min(m.travel, criteria::fallAngle.value);
    const double energy = (gravity - m.friction) * way;
    const double inertiaAtOutput = drivetrain::inertiaAtMotor(m.chain) / (m.outputPerRad * m.outputPerRad);
    off.energy = Figure::of(energy);
    off.speed = Figure::of(std::sqrt(2.0 * energy / inertiaAtOutput));
}

/// Largest speed at which the pull-out torque still gives the wanted margin with this acceleration.
double torqueLimitSpeed(const DriveModel& m, double acceleration, double ceiling) {
    const double allowed = m.wantedMargin * m.rampTorque(0.0, acceleration);
    const auto enough = [&](double speed) { return m.available(speed / m.outputPerRad) >= allowed; };
    return solve::largestWhere(enough, 0.0, ceiling).value_or(0.0);
}

void fillLimits(AxisEvaluation& e, Searches searches) {
    const DriveModel& m = e.model;
    e.cornerSpeed = m.stepper() ? Figure::of(motor::cornerSpeed(*m.stepper()), m.missing)
                                : Figure::none(Reason::NotApplicable);
    // With its drum empty a winch needs the most pulses for a length.
    e.pulseLimitSpeed = m.pulses ? Figure::of(m.pulseCeiling * m.microstep() / m.layerSpread())
                                 : Figure::none(Reason::NotApplicable);
    e.stoppingDistance = Figure::of(motion::stoppingDistance(m.settings.speed, m.settings));
    if (searches == Searches::No) return;
    if (m.missing != Reason::None) {
        e.torqueLimitSpeed = e.maxSpeed = Figure::none(m.missing);
        return;
    }
    const ShotEvaluation* worst = e.worst();
    const Figure acceleration = worst != nullptr ? worst->motion.acceleration : m.settings.acceleration;
    if (!acceleration) {
        e.torqueLimitSpeed = e.maxSpeed = acceleration;
        return;
    }
    // 1e5 rad/s is beyond any motor; reaching it means that torque sets no limit.
    const double beyond = 1e5 * m.outputPerRad;
    const double byTorque = torqueLimitSpeed(m, acceleration.value(), beyond);
    e.torqueLimitSpeed = byTorque >= beyond ? Figure::none(Reason::Unbounded) : Figure::of(byTorque);
    e.maxSpeed = m.pulses ? lesser(byTorque, e.pulseLimitSpeed) : byTorque;
}

/// Friction of an axis stops what swings across its drive; what nods on top of it goes on. A measured swing
/// is taken for one across the drive where its frequency is.
double swingBand(const AxisEvaluation& e, const Axis& axis) {
    const DriveModel& m = e.model;
    const double inertia = m.chain.load.inertia, stiffness = m.stiffnessWithField();
    if (!m.mode || !(inertia > 0.0) || !std::isfinite(stiffness)) return 0.0;
    const double rate = 2.0 * pi * m.mode->frequency;
    constexpr double alike = 1.25;
    const double share = rate / std::sqrt(stiffness / inertia);
    const bool across = axis.vibration.frequency.value > 0.0 ? share < alike && share * alike > 1.0
                        : e.structure.soft.empty()           ? true
                                                   : e.structure.soft.front().cause == SoftCause::Drive;
    return across ? m.friction / (inertia * rate * rate) : 0.0;
}

DriveSpring driveSpring(const DriveModel& m, const Axis& axis) {
    return {m.stiffnessWithField(), m.chain.load.inertia, axis.vibration.damping.value};
}

/// A motor turned by hand gives its back-EMF to the driver: peak volts per rad/s equal torque per ampere.
void fillHandVoltage(AxisEvaluation& e, const Axis& axis, double reachOfArm, double handSpeed) {
    const DriveModel& m = e.model;
    // Nobody pushes faster than this where it takes more than a firm push at the carriage or the
    // arm's end to get through the friction and to turn the motor over its detents backwards.
    const double reach = m.kind == AxisKind::Linear ? 1.0 : std::max(reachOfArm, 0.1);
    const double push =
        drivetrain::forceToBackDrive(m.chain, {m.motors * m.detentTorque, m.staticFriction, 0.0}) / reach;
    if (!(push < criteria::pushForce)) return;
    double constant = 0.0; // [V·s/rad]
    if (const motor::StepperParams* p = m.stepper())
        constant = motor::torqueConstant(*p);
    else if (const motor::DcParams* dc = m.dc())
        constant = dc->nominalVoltage / dc->noLoadSpeed;
    else
        return;
    // A push brings load and motor up to speed within its first moments.
    constexpr double pushTime = 0.3; // [s]
    const double turned = drivetrain::forceToBackDrive(m.chain, {0.0, 0.0, 1.0});
    const double fastest = (criteria::pushForce - push) * pushTime * reach * reach / turned;
    const double perSpeed = constant / reach / m.outputPerRad; // [V s/m] of the hand
    e.handVoltage = Figure::of(perSpeed * std::min(handSpeed, fastest), m.missing);
    const double allowed = axis.driver.maxVoltage / (perSpeed * criteria::handDriven.value);
    e.handSpeedLimit = allowed < fastest ? Figure::of(allowed, m.missing) : Figure::none(Reason::Unbounded);
}

/// Mass [kg] that the heaviest of the axes on a linear one lists, its payload with it; 0 where none does.
/// They stand on each other, so that their lists may name the same camera twice and must not be added.
double heaviestOn(const RigSetup& rig, std::size_t index) {
    if (kindOf(rig.axes[index]) != AxisKind::Linear) return 0.0;
    double most = 0.0;
    for (std::size_t a = index + 1; a < rig.axes.size(); ++a) {
        if (rig.axes[a].role == Role::Turntable) continue;
        double sum = rig.masses[a].moving; // of a linear one
        for (const structure::ArmMass& m : rig.masses[a].own) sum += m.mass;
        most = std::max(most, sum);
    }
    return most;
}

std::optional<std::size_t> worstShotOf(const std::vector<ShotEvaluation>& shots) {
    // Less is worse, in this order. Of shots alike in all of it any serves.
    const auto key = [](const ShotEvaluation& s) {
        constexpr double last = std::numeric_limits<double>::infinity();
        if (!s.torque.margin) return std::array{last, last, last, last};
        return std::array{s.torque.margin.value(), (s.torque.available / s.torque.needed).valueOr(last),
                          -s.motion.acceleration.valueOr(0.0), -s.motion.topSpeed.valueOr(0.0)};
    };
    const auto worst =
        std::min_element(shots.begin(), shots.end(),
                         [&](const ShotEvaluation& a, const ShotEvaluation& b) { return key(a) < key(b); });
    if (worst == shots.end()) return std::nullopt;
    return static_cast<std::size_t>(worst - shots.begin());
}

/// Whether two evaluations of an axis ask the same of it along its moves.
bool torqueAlike(const AxisEvaluation& a, const AxisEvaluation& b) {
    const auto same = [](const Figure& x, const Figure& y) { return x.valueOr(-1.0) == y.valueOr(-1.0); };
    if (!same(a.resonance.low, b.resonance.low) || !same(a.resonance.high, b.resonance.high)) return false;
    if (a.model.chain != b.model.chain || a.model.curve != b.model.curve) return false;
    // What is seen, and adds nothing to a torque.
    DriveModel drive = a.model;
    drive.mode = b.model.mode;
    drive.swingBand = b.model.swingBand;
    drive.backlash = b.model.backlash;
    drive.outputStiffness = b.model.outputStiffness;
    drive.angleError = b.model.angleError;
    drive.jumpAngle = b.model.jumpAngle;
    return drive == b.model;
}

/// Along one move; what is alike in the evaluation that is known is taken from it.
AxisMoveResults alongMove(const AxisEvaluation& e, const RigSetup& rig, std::size_t axis, std::size_t m,
                          const AxisEvaluation* known) {
    const PlannedMove& planned = (*rig.planned)[m];
    const AxisMoveResults* before = known != nullptr ? &known->moves[e.moves.size()] : nullptr;
    AxisMoveResults out = before != nullptr && torqueAlike(*known, e)
                              ? *before
                              : evaluateAxisMove(e.model, e.resonance, planned, axis, m);
    // What a ring or a turntable does to the picture hangs on more than its drive.
    const bool seenAlike =
        before != nullptr && planned.scene.linkOf[axis] >= 0 && seenOf(*known) == seenOf(e);
    if (seenAlike) takePicture(out, *before);
    if (!seenAlike || e.model.mode != known->model.mode)
        fillAxisPicture(out, rig, rig.moves[m], planned, axis, e,
                        seenAlike ? PictureOf::Rocking : PictureOf::All);
    return out;
}

void fillMoves(AxisEvaluation& e, const RigSetup& rig, std::size_t axis, const AxisEvaluation* known) {
    if (rig.planned == nullptr) return;
    for (std::size_t m = 0; m < rig.planned->size(); ++m) {
        const PlannedMove& planned = (*rig.planned)[m];
        if (planned.moves(axis))
            e.moves.push_back(alongMove(e, rig, axis, m, known));
        else if (planned.isPushed(axis))
            e.moves.push_back(evaluateHeld(e.model, planned, axis, m));
    }
}

thread_local std::uint64_t evaluations = 0;

} // namespace

std::uint64_t axisEvaluations() {
    return evaluations;
}

void addAxisEvaluations(std::uint64_t made) {
    evaluations += made;
}

AxisEvaluation evaluateAxis(const RigSetup& rig, std::size_t index, Searches searches,
                            const AxisEvaluation* known) {
    ++evaluations;
    const Axis& axis = rig.axes[index];
    AxisEvaluation e;
    e.model = makeDriveModel(rig, index);
    fillSteps(e, rig.controller);
    fillInertia(e);
    fillResonance(e, axis);
    fillStandstill(e, axis);
    e.structure = axisStructure(rig, index, driveSpring(e.model, axis));
    if (e.structure.problem == Reason::None && e.structure.all.frequency > 0.0 &&
        axis.vibration.frequency.value <= 0.0)
        e.model.mode = motion::Mode{e.structure.all.frequency, std::min(e.structure.all.damping, 0.7)};
    e.model.swingBand = swingBand(e, axis);
    if (std::isfinite(e.model.outputStiffness) && e.model.chain.load.inertia > 0.0)
        e.smoothFrom = drivetrain::smoothFrom(e.model.sprung(), e.model.chain.load.inertia,
                                              std::min(axis.vibration.damping.value, 0.7));
    fillHandVoltage(e, axis, rig.masses[index].reach, rig.conditions.handSpeed);
    e.shots.reserve(rig.courses[index].size());
    for (const Course& course : rig.courses[index])
        e.shots.push_back(evaluateShot(rig, index, e, course, searches == Searches::Yes));
    e.worstShot = worstShotOf(e.shots);
    fillMoves(e, rig, index, known);
    fillLimits(e, searches);
    fillChecks(e, axis, rig.conditions.ambient);
    if (const double on = heaviestOn(rig, index); on > 0.0) e.checks.massOn = Figure::of(on);
    return e;
}

AxisEvaluation evaluateAxis(const Project& project, const Axis& axis, Searches searches) {
    const auto same = std::find_if(project.axes.begin(), project.axes.end(),
                                   [&](const Axis& a) { return a.id == axis.id; });
    const auto index = static_cast<std::size_t>(same - project.axes.begin());
    if (same != project.axes.end() && &*same == &axis) return evaluateAxis(setupOf(project), index, searches);
    // Another axis tried in the place of the one there is, or on top of all.
    Project with = project;
    if (index < with.axes.size())
        with.axes[index] = axis;
    else
        with.axes.push_back(axis);
    return evaluateAxis(setupOf(with), index, searches);
}

namespace {

/// The search over all poses: the one that is known if it still holds, one that takes no time, or one that is
/// waited for; null if it is left for later.
std::shared_ptr<const PoseSearch> posesOf(const RigSetup& rig, Poses poses,
                                          const std::shared_ptr<const PoseSearch>& known) {
    if (known != nullptr && known->inputs == poseInputs(rig)) return known;
    return poses == Poses::Search ? searchPoses(rig) : searchPosesAtOnce(rig);
}

} // namespace

Evaluation evaluate(const Project& project, Poses poses, const Known& known, const Crew& crew) {
    const RigSetup rig = setupPlannedAgain(
        project, known.planned != nullptr ? std::span(*known.planned) : std::span<PlannedMove const>(), crew);
    Evaluation out;
    out.axes.reserve(rig.axes.size());
    for (std::size_t i = 0; i < rig.axes.size(); ++i) out.axes.push_back(evaluateAxis(rig, i));
    out.supply = evaluateSupply(rig.supply, out.axes);
    out.planned = rig.planned;
    // All that leans on the axes alone, each on its own.
    const std::size_t moves = project.moves.size(), plans = project.plans.size();
    out.moves.resize(moves);
    out.plans.resize(plans);
    eachBy(crew, moves + plans + 1, [&](std::size_t i) {
        if (i < moves)
            out.moves[i] = evaluateMove(rig, project.moves[i], (*rig.planned)[i], out.axes);
        else if (i < moves + plans)
            out.plans[i - moves] = evaluateInterval(rig, project.plans[i - moves], out.axes);
        else
            out.rig = rigStructure(rig, out.axes);
    });
    out.poses = posesOf(rig, poses, known.poses);
    if (out.poses == nullptr) {
        out.rig.clearance.distance = Figure::none(Reason::NotSearched);
        return out;
    }
    out.rig.clearance = out.poses->found;
    for (std::size_t m = 0; m < out.moves.size() && m < out.poses->moves.size(); ++m)
        if (!out.moves[m].axes.empty()) out.moves[m].search = out.poses->moves[m];
    return out;
}

} // namespace gantry
