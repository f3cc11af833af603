// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluate.h"
#include "core/evaluate/interval/evaluate_interval.h"
#include "core/evaluate/interval/interval_frames.h"
#include "core/evaluate/setup_of.h"
#include "core/model/edit_plans.h"
#include "support/moves.h"

/// Rigs with one interval plan, for tests.
namespace rigplans {

using namespace gantry;

/// The dolly of Fernhouse on a level rail, whose slide alone goes 0.8 m in one shot, and a plan of that.
inline Project planned() {
    Project p = rigmoves::dolly();
    p.moves.clear();
    p.shots.resize(1);
    Shot& shot = p.shots[0];
    shot.keepFramed = shot.towards = false;
    shot.moves = {{p.axes[0].id, BySpeed<AxisKind::Linear>{0.8, 0.1, 0.5}}};
    shot.limits.jitter = 0.5;
    IntervalPlan plan;
    plan.id = "plan";
    plan.name = "Growth";
    plan.steps = StepsGo::Even;
    plan.pictures = 201;
    plan.interval = 6.0;
    p.plans = {plan};
    p.supply.capacity = 0.0;
    return p;
}

/// A project with everything that a plan is looked at by; stays where it is made.
struct Desk {
    Project project;
    Evaluation evaluation;
    RigSetup rig;
    IntervalCourse course;
    explicit Desk(Project p)
        : project(std::move(p)), evaluation(evaluate(project)),
          rig(setupWithMoves(project, evaluation.planned)), course(rig, project.plans[0], evaluation.axes) {}
    Desk(const Desk&) = delete;
    Desk& operator=(const Desk&) = delete;
    const IntervalResults& results() const { return evaluation.plans[0]; }
    IntervalRun run() const { return {course, evaluation.axes}; }
};

} // namespace rigplans
