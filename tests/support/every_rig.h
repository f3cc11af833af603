// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluate.h"
#include "core/rigs/rigs.h"
#include "core/tools/structure_solve.h"
#include "support/files.h"
#include "support/hand_rigs.h"

#include <QTest>
#include <functional>

/// All rigs that ship and one that creeps for minutes, each as it is and once more where what rocks was
/// measured: what laws are held to.
struct EveryRig {
    std::vector<gantry::Project> projects;
    std::vector<gantry::Evaluation> evaluations;

    struct Case {
        const gantry::Project& project;
        const gantry::Evaluation& whole;
        const gantry::Axis& axis;
        const gantry::AxisEvaluation& e;
        const gantry::ShotEvaluation& shot;
        QByteArray name;
        const gantry::Shot& entered() const { return project.shots[shot.shot.at()]; }
    };

    EveryRig() {
        using namespace gantry;
        for (const rigs::RigInfo& info : rigs::all()) projects.push_back(rigs::make(info.kind));
        for (const char* demo :
             {"fernhouse-dolly", "kettle-jib", "moss-orbit", "seedling-stage", "long-bench"})
            projects.push_back(demoProject(demo));
        Project slow = hand::slider();
        slow.shots.resize(1);
        slow.shots[0].kind = ShotKind::Creep;
        slow.shots[0].keepFramed = false;
        slow.shots[0].moves = {{slow.axes[0].id, BySpeed<AxisKind::Linear>{0.5, 0.002, 0.01}}};
        projects.push_back(slow);
        // One that runs so lightly that its play lets go, up and down, and a balanced arm.
        for (const double way : {0.5, -0.5}) {
            Project light = slow;
            LinearMechanism& m = hand::rail(light);
            m.runningFriction.value = m.staticFriction.value = 0.2;
            m.slope.value = 0.02;
            light.shots[0].kind = ShotKind::Live;
            light.shots[0].moves = {{light.axes[0].id, BySpeed<AxisKind::Linear>{way, 0.2, 0.6}}};
            projects.push_back(light);
        }
        Project balanced = hand::jib();
        hand::boom(balanced).boom.counterweight = *balanceWith(balanced, balanced.axes[1]);
        projects.push_back(balanced);
        for (std::size_t i = projects.size(); i-- > 0;) {
            Project p = projects[i];
            for (Axis& axis : p.axes) {
                axis.vibration.frequency = estimate(5.5, Source::Measured);
                axis.vibration.damping.value = 0.05;
            }
            projects.push_back(std::move(p));
        }
        for (const Project& p : projects) evaluations.push_back(evaluate(p));
    }
    /// Every axis whose drive is known.
    void
    everyAxis(const std::function<void(const gantry::Axis&, const gantry::AxisEvaluation&)>& visit) const {
        for (std::size_t p = 0; p < projects.size(); ++p)
            for (std::size_t a = 0; a < projects[p].axes.size(); ++a)
                if (evaluations[p].axes[a].model.missing == gantry::Reason::None) {
                    visit(projects[p].axes[a], evaluations[p].axes[a]);
                    if (QTest::currentTestFailed()) return;
                }
    }
    /// Every shot of theirs that moves.
    void everyShot(const std::function<void(const Case&)>& visit) const {
        int seen = 0;
        for (std::size_t p = 0; p < projects.size(); ++p)
            for (std::size_t a = 0; a < projects[p].axes.size(); ++a) {
                const gantry::AxisEvaluation& e = evaluations[p].axes[a];
                if (e.model.missing != gantry::Reason::None) continue;
                for (const gantry::ShotEvaluation& s : e.shots)
                    if (s.problem == gantry::Reason::None && s.profile.distance > 0.0) {
                        ++seen;
                        visit(
                            {projects[p], evaluations[p], projects[p].axes[a], e, s,
                             QByteArray::fromStdString(projects[p].name + ", " + projects[p].axes[a].name)});
                        if (QTest::currentTestFailed()) return;
                    }
            }
        QVERIFY(seen > 30);
    }
};
