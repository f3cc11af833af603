// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/tools/capability.h"
#include "core/tools/compare_ramps.h"
#include "core/tools/limits.h"
#include "core/tools/stall_ladder.h"
#include "core/verdicts/ranges.h"
#include "io/project/project_file.h"
#include "io/report/evaluation_json.h"
#include "support/finite.h"
#include "support/progress.h"
#include "support/random_project.h"

#include <QTest>

using namespace gantry;

#ifdef __SANITIZE_ADDRESS__
constexpr int projects = 150; // the sanitizers are there for memory, not for coverage of numbers
#else
constexpr int projects = 3000;
#endif

class RandomProjectsTest : public QObject {
    Q_OBJECT
private slots:
    /// evaluate, judge and the ranges give numbers or reasons for anything within the accepted ranges.
    void evaluateGivesNumbersOrReasons() {
        std::mt19937_64 random(1);
        Progress progress("projects evaluated", projects);
        for (int i = 0; i < projects; ++i) {
            progress.step();
            const Project p = randomProject(random);
            const Assessment a = assess(p);
            for (const Verdict& v : a.verdicts) {
                if (!std::isfinite(v.low) || (v.state == State::Unknown) == static_cast<bool>(v.ratio))
                    QFAIL(qPrintable(QStringLiteral("project %1, rule %2").arg(i).arg(v.rule)));
            }
            for (std::size_t k = 0; k < p.axes.size(); ++k)
                for (const ShotEvaluation& s : a.evaluation.axes[k].shots)
                    if (s.problem == Reason::None &&
                        !(s.motion.time && s.torque.needed && s.torque.rms && s.motion.topSpeed))
                        QFAIL(qPrintable(
                            QStringLiteral("project %1 axis %2: a basic figure is missing").arg(i).arg(k)));
            if (i % 50 == 0) { // the whole print, which also runs capability
                std::string culprit;
                const auto j = nlohmann::json::parse(io::evaluationJson(p, a));
                if (!everyNumberIsFinite(j, culprit))
                    QFAIL(qPrintable(
                        QStringLiteral("project %1: %2").arg(i).arg(QString::fromStdString(culprit))));
            }
        }
    }
    /// Limits, the envelope and the stall ladder have no infinite or missing numbers either.
    void limitsAreFinite() {
        std::mt19937_64 random(3);
        Progress progress("projects with limits", projects / 40);
        for (int i = 0; i < projects / 40; ++i) {
            progress.step();
            const Project p = randomProject(random);
            for (const Axis& axis : p.axes) {
                const AxisEvaluation e = evaluateAxis(p, axis);
                const AxisLimits l = axisLimits(p, axis, e);
                bool fine = std::isfinite(l.recommended.speed) && std::isfinite(l.recommended.acceleration) &&
                            std::isfinite(l.recommended.jerk);
                for (const EnvelopePoint& q : l.envelope)
                    fine = fine && std::isfinite(q.speed) && !std::isnan(q.atOne) && !std::isnan(q.atWanted);
                for (const Rung& r : stallLadder(e))
                    fine = fine && std::isfinite(r.margin) && r.acceleration > 0.0;
                for (const RampRow& r :
                     e.shots.empty() ? std::vector<RampRow>{} : compareRamps(p, e, e.shots[0]))
                    fine = fine && r.time && r.acceleration;
                if (!fine)
                    QFAIL(qPrintable(
                        QStringLiteral("project %1 axis %2").arg(i).arg(QString::fromStdString(axis.id))));
            }
        }
    }
    /// What the reader accepts comes back equal from the writer.
    void filesRoundTrip() {
        std::mt19937_64 random(2);
        for (int i = 0; i < 400; ++i) {
            const Project p = randomProject(random);
            const auto r = io::readProject(io::writeProject(p));
            if (const auto* e = std::get_if<io::LoadError>(&r)) QFAIL(e->sentence.c_str());
            QVERIFY(std::get<io::LoadedProject>(r).project == p);
        }
    }
};

QTEST_APPLESS_MAIN(RandomProjectsTest)
#include "random_projects_test.moc"
