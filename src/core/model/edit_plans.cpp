// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/edit_plans.h"

#include <utility>

namespace gantry {

static bool hasPlan(const Project& project, int plan) {
    return plan >= 0 && plan < static_cast<int>(project.plans.size());
}

int addPlan(Project& project) {
    if (project.plans.size() >= mostOf("plans")) return -1;
    IntervalPlan plan;
    plan.id = freeIdIn(project, project.plans, "plan");
    plan.name = project.plans.empty() ? "Plan" : "Plan " + std::to_string(project.plans.size() + 1);
    if (!project.moves.empty()) plan.move = project.moves.front().id;
    PlanConsumer camera, controller;
    camera.id = "camera";
    camera.name = "Camera";
    camera.when = DrawsWhen::Awake;
    camera.power = estimate(6.0, Source::Assumed);
    camera.otherwise = 0.3;
    controller.id = "controller";
    controller.name = "Controller";
    controller.power = estimate(1.0, Source::Assumed);
    plan.consumers = {camera, controller};
    project.plans.push_back(std::move(plan));
    return static_cast<int>(project.plans.size()) - 1;
}

int copyPlan(Project& project, int plan) {
    if (!hasPlan(project, plan) || project.plans.size() >= mostOf("plans")) return -1;
    IntervalPlan copy = project.plans[static_cast<std::size_t>(plan)];
    const std::string from = copy.id;
    copy.id = freeIdIn(project, project.plans, from);
    copy.name += " copy";
    copyKept(project, "plans/" + from, "plans/" + copy.id);
    project.plans.insert(project.plans.begin() + plan + 1, std::move(copy));
    return plan + 1;
}

void removePlan(Project& project, int plan) {
    if (hasPlan(project, plan)) project.plans.erase(project.plans.begin() + plan);
}

} // namespace gantry
