// SPDX-License-Identifier: GPL-3.0-or-later
// How a rig is set up from a project: what its shots, or moves in their place, make every axis do.
#include "core/evaluate/setup_of.h"

#include "core/evaluate/move/planned_move.h"
#include "core/evaluate/rig/arm_masses.h"
#include "core/evaluate/shot/shot_steps.h"
#include "core/model/kind_traits.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace gantry {
namespace {

/// The movements of one shot by axis, of whatever kind.
class Movements {
public:
    Movements(const Shot& shot, std::span<const Axis> axes) : of_(axes.size(), nullptr) {
        // They mostly stand in the order of the axes, so the next one is looked at first.
        std::size_t next = 0;
        for (std::size_t a = 0; a < axes.size(); ++a) {
            for (std::size_t tried = 0; tried < shot.moves.size(); ++tried) {
                const ShotMove& move = shot.moves[(next + tried) % shot.moves.size()];
                if (move.axis != axes[a].id) continue;
                next = (next + tried + 1) % shot.moves.size();
                of_[a] = &move.movement;
                break;
            }
        }
    }
    const Movement* of(std::size_t axis) const { return of_[axis]; }

private:
    std::vector<const Movement*> of_;
};

/// A pan or tilt that keeps the subject framed: from the first linear axis that slides past it.
std::optional<Following> following(const RigSetup& rig, const Shot& shot, Role role,
                                   std::span<const PlannedShot> plans) {
    if (!shot.keepFramed || shot.towards || (role != Role::Pan && role != Role::Tilt)) return std::nullopt;
    for (std::size_t i = 0; i < rig.axes.size(); ++i) {
        if (kindOf(rig.axes[i]) != AxisKind::Linear || plans[i].problem != Reason::None) continue;
        if (const auto f = followingMovement(shot, role, plans[i].profile)) return f;
    }
    return std::nullopt;
}

/// The move that says how a shot is taken; null if none does, or it cannot be planned.
const PlannedMove* moveOf(const RigSetup& rig, const Shot& shot) {
    for (std::size_t m = 0; m < rig.moves.size(); ++m)
        if (rig.moves[m].realises && rig.moves[m].shot == shot.id &&
            !(*rig.planned)[m].plan.trajectory.empty())
            return &(*rig.planned)[m];
    return nullptr;
}

/// The courses of a shot that a move realises: of each axis the whole way it covers, its top speed and its
/// hardest acceleration, wherever in the move they fall.
void addMoveCourses(RigSetup& rig, std::size_t shotIndex, const PlannedMove& planned) {
    using trajectory::Order;
    const trajectory::Trajectory& t = planned.plan.trajectory;
    int pulsed = 0;
    for (std::size_t a = 0; a < rig.axes.size(); ++a)
        pulsed += planned.moves(a) && motorTraits(rig.axes[a]).takesPulses;
    double below = 0.0, swingBelow = 0.0, turnBelow = 0.0;
    for (std::size_t a = 0; a < rig.axes.size(); ++a) {
        if (!planned.moves(a)) continue;
        const Axis& axis = rig.axes[a];
        rig.masses[a].pulsedAtOnce = std::max(rig.masses[a].pulsedAtOnce, pulsed);
        const trajectory::Extremes place = t.extremes(a, Order::Place);
        motion::Limits limits = keptLimits(axis, rig.controller.ramps);
        const double speed = t.extremes(a, Order::Speed).largest(),
                     hardest = t.extremes(a, Order::Acceleration).largest(),
                     jerk = t.extremes(a, Order::Jerk).largest();
        // Ramps that are too short for the count of its time to show are run as hard as is set.
        const double acceleration = hardest > 0.0 ? hardest : limits.acceleration;
        // It goes the way that takes it from where it begins to where it ends.
        const double sense = t.at(a, t.duration()).place < t.at(a, 0.0).place ? -1.0 : 1.0;
        const double distance = sense * (place.greatest - place.least),
                     start = sense > 0.0 ? place.least : place.greatest;
        Course course{ShotIndex(shotIndex), {}, std::nullopt, t.duration(), {}, below, swingBelow, turnBelow};
        if (kindOf(axis) == AxisKind::Linear)
            course.movement = BySpeed<AxisKind::Linear>{distance, speed, acceleration, true, start};
        else
            course.movement = BySpeed<AxisKind::Rotary>{distance, speed, acceleration, true, start};
        limits.jerk = limits.jerk > 0.0 ? jerk : 0.0;
        course.plan = startsAtOnce(axis, rig.controller.ramps) ? planAtOnce(course.movement)
                                                               : planShot(course.movement, limits);
        rig.courses[a].push_back(course);
        if (axis.role == Role::Swing || axis.role == Role::Pan) turnBelow += speed;
        if (kindOf(axis) == AxisKind::Linear) {
            below += acceleration;
        } else if (axis.role == Role::Swing || axis.role == Role::BoomTilt) {
            below += rig.masses[a].reach * std::hypot(acceleration, speed * speed);
            if (axis.role == Role::Swing) swingBelow += acceleration;
        }
    }
}

void addCourses(RigSetup& rig, std::size_t shotIndex) {
    const Shot& shot = rig.shots[shotIndex];
    if (const PlannedMove* planned = moveOf(rig, shot)) {
        addMoveCourses(rig, shotIndex, *planned);
        return;
    }
    const Movements movements(shot, rig.axes);
    const RampKind ramps = rig.controller.ramps;
    std::vector<PlannedShot> plans(rig.axes.size(), PlannedShot{{}, Reason::NoShot, false});
    int pulsed = 0; // at once, what follows the subject among them
    for (std::size_t a = 0; a < rig.axes.size(); ++a) {
        const Movement* m = movements.of(a);
        if (m == nullptr) continue;
        pulsed += motorTraits(rig.axes[a]).takesPulses;
        if (kindOf(*m) == kindOf(rig.axes[a]))
            plans[a] = startsAtOnce(rig.axes[a], ramps)
                           ? planAtOnce(demandedMovement(shot, *m))
                           : planShot(demandedMovement(shot, *m), keptLimits(rig.axes[a], ramps));
    }
    std::vector<std::optional<Following>> follows(rig.axes.size());
    for (std::size_t a = 0; a < rig.axes.size(); ++a) {
        if (movements.of(a) != nullptr) continue;
        follows[a] = following(rig, shot, rig.axes[a].role, plans);
        if (follows[a]) pulsed += motorTraits(rig.axes[a]).takesPulses;
    }
    double below = 0.0, swingBelow = 0.0, turnBelow = 0.0;
    for (std::size_t a = 0; a < rig.axes.size(); ++a) {
        const Axis& axis = rig.axes[a];
        const Movement* m = movements.of(a);
        if (m != nullptr || follows[a])
            rig.masses[a].pulsedAtOnce = std::max(rig.masses[a].pulsedAtOnce, pulsed);
        const bool moves = m != nullptr && kindOf(*m) == kindOf(axis);
        Course course{ShotIndex(shotIndex), {},       std::nullopt, std::nullopt, plans[a], below,
                      swingBelow,           turnBelow};
        if (moves) {
            course.movement = *m;
        } else if (const auto& follow = follows[a]) {
            course.movement = follow->movement;
            course.followsFor = follow->time;
            course.plan = planShot(follow->movement, keptLimits(axis, ramps));
        } else {
            continue;
        }
        if (moves && plans[a].problem == Reason::None) {
            const motion::Profile& p = plans[a].profile;
            const double acceleration = std::max(p.in.acceleration, p.out.acceleration);
            if (axis.role == Role::Swing || axis.role == Role::Pan) turnBelow += p.peakSpeed;
            if (kindOf(axis) == AxisKind::Linear) {
                below += acceleration;
            } else if (axis.role == Role::Swing || axis.role == Role::BoomTilt) {
                below += rig.masses[a].reach * std::hypot(acceleration, p.peakSpeed * p.peakSpeed);
                if (axis.role == Role::Swing) swingBelow += acceleration;
            }
        }
        // A loop that holds a place, and what follows the subject, go nowhere without ramps.
        if (ramps == RampKind::None && (follows[a] || !startsAtOnce(axis, ramps)))
            course.plan = {{}, Reason::NoRamp, false};
        rig.courses[a].push_back(course);
    }
}

} // namespace

namespace {

RigSetup made(const Project& project, Courses courses, bool allMoves,
              std::shared_ptr<const std::vector<PlannedMove>> planned = nullptr,
              std::span<const PlannedMove> known = {}, const Crew& crew = {}) {
    RigSetup rig{project.axes,
                 project.shots,
                 project.moves,
                 project.payload,
                 project.keepOut,
                 project.base,
                 project.head,
                 project.supply,
                 project.controller,
                 project.camera,
                 project.conditions,
                 {},
                 {},
                 {}};
    rig.masses.resize(project.axes.size());
    rig.refreshMasses();
    for (std::size_t a = 0; a < rig.axes.size(); ++a) rig.masses[a].reach = armReach(rig.axes, a);
    rig.courses.resize(project.axes.size());
    if (courses == Courses::No) return rig;
    for (std::vector<Course>& c : rig.courses) c.reserve(project.shots.size());
    rig.planned =
        planned != nullptr
            ? std::move(planned)
            : std::make_shared<const std::vector<PlannedMove>>(planMoves(rig, allMoves, known, crew));
    for (std::size_t s = 0; s < rig.shots.size(); ++s) addCourses(rig, s);
    return rig;
}

} // namespace

RigSetup setupOf(const Project& project, Courses courses) {
    return made(project, courses, false);
}

RigSetup setupWithMoves(const Project& project) {
    return made(project, Courses::Yes, true);
}

RigSetup setupPlannedAgain(const Project& project, std::span<const PlannedMove> known, const Crew& crew) {
    return made(project, Courses::Yes, true, nullptr, known, crew);
}

RigSetup setupWithMoves(const Project& project, std::shared_ptr<const std::vector<PlannedMove>> planned) {
    return made(project, Courses::Yes, true, std::move(planned));
}

AxisMasses massesOf(const Project& project, const Axis& axis) {
    const Axis* there = findAxis(project, axis.id);
    if (there == nullptr) return {};
    const auto index = static_cast<std::size_t>(there - project.axes.data());
    if (there == &axis) return setupOf(project, Courses::No).masses[index];
    Project with = project;
    with.axes[index] = axis;
    return setupOf(with, Courses::No).masses[index];
}

} // namespace gantry
