// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/shot/plan.h"
#include "core/model/project.h"
#include "core/structure/balance.h"

#include <memory>
#include <optional>
#include <span>
#include <vector>

namespace gantry {

/// What an axis carries, as its own figures and those of the rig need it.
struct AxisMasses {
    std::vector<structure::ArmMass> own;  ///< its arm, see rig/arm_masses.h; empty on linear axes
    std::vector<structure::ArmMass> boom; ///< a swing that lists nothing: the arm on it, at its widest
    double moving = 0.0;                  ///< [kg] of a linear axis with all that it carries
    double reach = 0.0;                   ///< [m] how far out the camera, or the farthest item, hangs
    double slopeBelow = 0.0;              ///< [rad] of the linear axes that carry it, without sign
    double momentAbove = 0.0;             ///< [kg·m] along the arms that turn on it, without sign
    int boomAxis = -1;                    ///< index of the axis that `boom` is of
    int pulsedAtOnce = 1;                 ///< axes that take pulses in one shot with it, itself among them

    /// The masses that its motor feels.
    const std::vector<structure::ArmMass>& felt() const { return own.empty() ? boom : own; }
};

struct PlannedMove; // move/planned_move.h

/// How one axis moves in one shot.
struct Course {
    ShotIndex shot;
    Movement movement;
    std::optional<double> followsFor; ///< [s] where it only keeps the subject framed
    std::optional<double> movesFor;   ///< [s] where a move says how the shot is taken
    PlannedShot plan;
    double accelerationBelow = 0.0; ///< [m/s²] that the axes below bring to what stands on this one, summed
    double swingBelow = 0.0;        ///< [rad/s²] of the swings below
    double turnBelow = 0.0;         ///< [rad/s] of the swings and pans below, about the upright
};

/// What everything about a rig is computed from: its parts, and once and first what they carry and how they
/// move. A view: the Project that it was made from must live on, and keep its lists.
struct RigSetup {
    std::span<const Axis> axes;
    std::span<const Shot> shots;
    std::span<const RigMove> moves;
    std::span<const MassItem> payload;
    std::span<const KeepOut> keepOut;
    const Base& base;
    const Head& head;
    const Supply& supply;
    const Controller& controller;
    const Camera& camera;
    const Conditions& conditions;
    std::vector<AxisMasses> masses;           ///< one for each axis
    std::vector<std::vector<Course>> courses; ///< for each axis those of the shots that move it, in order
    /// All moves as they are planned, in the project's order; null without courses. Estimates that are moved
    /// afterwards leave them as they are.
    std::shared_ptr<const std::vector<PlannedMove>> planned;

    /// Brings up to date what one axis' own figures need, after estimates of that axis or of the payload were
    /// changed in the project.
    void refresh(std::size_t axis);
    /// The same for what the rig as a whole needs, after any estimates were changed.
    void refreshMasses();
};

/// Whether the courses of the axes are planned too.
enum class Courses { Yes, No };

/// The one place where a rig's figures meet the whole project. Everything else reads what comes out of it.
RigSetup setupOf(const Project& project, Courses courses = Courses::Yes);
RigSetup setupOf(const Project&&, Courses = Courses::Yes) = delete; // would look into what is gone

/// What an axis carries, by a project; also of one that stands in place of the one with its id.
AxisMasses massesOf(const Project& project, const Axis& axis);

/// Pixels of the delivered picture for a radian at its centre.
double deliveredFocal(const Camera& camera, const Shot& shot);

} // namespace gantry
