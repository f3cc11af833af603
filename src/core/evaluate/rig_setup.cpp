// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/rig_setup.h"

#include "core/evaluate/rig/arm_masses.h"
#include "core/evaluate/shot/shot_steps.h"
#include "core/model/kind_traits.h"
#include "core/optics/picture.h"

#include <algorithm>
#include <cmath>
#include <numbers>
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

void addCourses(RigSetup& rig, std::size_t shotIndex) {
    const Shot& shot = rig.shots[shotIndex];
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
        Course course{ShotIndex(shotIndex), {}, std::nullopt, plans[a], below, swingBelow, turnBelow};
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

/// The masses of one axis that are its own.
void weigh(RigSetup& rig, std::size_t a) {
    const Axis& axis = rig.axes[a];
    AxisMasses& m = rig.masses[a];
    if (const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism))
        m.moving = movingMass(rig.payload, axis, *linear);
    else
        m.own = armMasses(rig.payload, axis);
}

/// What a swing without masses of its own feels of the arm on it.
void weighBoom(RigSetup& rig, std::size_t a) {
    AxisMasses& m = rig.masses[a];
    m.boomAxis = m.own.empty() ? boomOn(rig.axes, a) : -1;
    m.boom.clear();
    if (m.boomAxis >= 0)
        m.boom = atItsWidest(rig.masses[static_cast<std::size_t>(m.boomAxis)].own,
                             rig.axes[static_cast<std::size_t>(m.boomAxis)]);
}

double sideMoment(const RigSetup& rig, std::size_t a) {
    return kindOf(rig.axes[a]) == AxisKind::Rotary ? std::abs(structure::moments(rig.masses[a].own).along)
                                                   : 0.0;
}

} // namespace

void RigSetup::refresh(std::size_t axis) {
    weigh(*this, axis);
    AxisMasses& m = masses[axis];
    if (m.boomAxis >= 0 && axes[static_cast<std::size_t>(m.boomAxis)].carriesPayload)
        weigh(*this, static_cast<std::size_t>(m.boomAxis));
    weighBoom(*this, axis);
    if (kindOf(axes[axis]) == AxisKind::Rotary || !axes[axis].carriesPayload) return;
    m.momentAbove = 0.0;
    for (std::size_t above = axis + 1; above < axes.size(); ++above) {
        if (axes[above].carriesPayload) weigh(*this, above);
        m.momentAbove += sideMoment(*this, above);
    }
}

void RigSetup::refreshMasses() {
    for (std::size_t a = 0; a < axes.size(); ++a) weigh(*this, a);
    for (std::size_t a = 0; a < axes.size(); ++a) weighBoom(*this, a);
    double slope = 0.0;
    for (std::size_t a = 0; a < axes.size(); ++a) {
        masses[a].slopeBelow = std::min(slope, std::numbers::pi / 2.0);
        // A lift is steep by its nature and keeps what it carries level.
        if (const auto* linear = std::get_if<LinearMechanism>(&axes[a].mechanism);
            linear != nullptr && axes[a].role != Role::Lift)
            slope += std::abs(linear->slope.value);
    }
    double moment = 0.0;
    for (std::size_t a = axes.size(); a-- > 0;) {
        masses[a].momentAbove = moment;
        moment += sideMoment(*this, a);
    }
}

RigSetup setupOf(const Project& project, Courses courses) {
    RigSetup rig{
        project.axes,   project.shots,      project.payload, project.keepOut,    project.base, project.head,
        project.supply, project.controller, project.camera,  project.conditions, {},           {}};
    rig.masses.resize(project.axes.size());
    rig.refreshMasses();
    for (std::size_t a = 0; a < rig.axes.size(); ++a) rig.masses[a].reach = armReach(rig.axes, a);
    rig.courses.resize(project.axes.size());
    if (courses == Courses::No) return rig;
    for (std::vector<Course>& c : rig.courses) c.reserve(project.shots.size());
    for (std::size_t s = 0; s < rig.shots.size(); ++s) addCourses(rig, s);
    return rig;
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

double deliveredFocal(const Camera& camera, const Shot& shot) {
    return optics::focalPixels(shot.focalLength, camera.sensorWidth, camera.pixelsAcross) *
           camera.deliveredWidth / camera.pixelsAcross;
}

} // namespace gantry
