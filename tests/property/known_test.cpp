// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/evaluate/move/planned_move.h"
#include "core/evaluate/moved_inputs.h"
#include "core/evaluate/setup_of.h"
#include "core/model/fields.h"
#include "core/verdicts/ranges.h"
#include "core/verdicts/rules.h"
#include "support/files.h"
#include "support/flat_figures.h"

#include <QTest>
#include <algorithm>
#include <memory>
#include <thread>

using namespace gantry;

namespace {

std::vector<FlatFigure> figuresOfAxis(const AxisEvaluation& axis) {
    FlatFigures out;
    describe(out, axis);
    return std::move(out.all);
}

/// The first figure in which two lists differ, in its last digit too; empty where none does.
QString difference(const std::vector<FlatFigure>& a, const std::vector<FlatFigure>& b) {
    for (std::size_t i = 0; i < std::max(a.size(), b.size()); ++i) {
        if (i >= a.size() || i >= b.size()) return QStringLiteral("one has more figures");
        if (a[i].path != b[i].path || a[i].value != b[i].value)
            return QStringLiteral("%1: %2 for %3")
                .arg(QString::fromStdString(a[i].path))
                .arg(b[i].value, 0, 'g', 17)
                .arg(a[i].value, 0, 'g', 17);
    }
    return {};
}

/// The first verdict in which two lists differ; empty where none does.
QString difference(const std::vector<Verdict>& a, const std::vector<Verdict>& b) {
    const auto text = [](const Verdict& v) {
        QString out = QStringLiteral("%1 of %2: %3 low %4 worst %5 until %6 state %7 switches %8 for")
                          .arg(QString::fromStdString(std::string(ruleKey(v))))
                          .arg(v.axis)
                          .arg(v.ratio.valueOr(-1.0), 0, 'g', 17)
                          .arg(v.low, 0, 'g', 17)
                          .arg(v.worst.valueOr(-1.0), 0, 'g', 17)
                          .arg(v.holdsUntil.valueOr(-1.0), 0, 'g', 17)
                          .arg(static_cast<int>(v.state))
                          .arg(v.switches);
        for (const std::string& path : v.deciding) out += ' ' + QString::fromStdString(path);
        return out;
    };
    for (std::size_t i = 0; i < std::max(a.size(), b.size()); ++i) {
        if (i >= a.size() || i >= b.size()) return QStringLiteral("one has more verdicts");
        if (text(a[i]) != text(b[i])) return text(b[i]) + QStringLiteral("; not ") + text(a[i]);
    }
    return {};
}

/// Another value than a field has; whether it has one.
bool change(const FieldRef& field) {
    const auto number = [&](double& x) {
        const double before = x;
        x = clampToField(field.info, before != 0.0 ? before * 1.1 : 0.01);
        if (x == before) x = clampToField(field.info, before * 0.9);
        return x != before;
    };
    if (auto* const* x = std::get_if<double*>(&field.target)) return number(**x);
    if (auto* const* x = std::get_if<Estimate*>(&field.target)) return number((*x)->value);
    if (auto* const* x = std::get_if<int*>(&field.target)) {
        double wide = **x + 1.0;
        wide = clampToField(field.info, wide);
        const bool changes = wide != **x;
        **x = static_cast<int>(wide);
        return changes;
    }
    if (auto* const* x = std::get_if<bool*>(&field.target)) {
        **x = !**x;
        return true;
    }
    if (const auto* choice = std::get_if<ChoiceRef>(&field.target)) {
        choice->assign(choice->target, choice->index == 0 ? 1 : 0);
        return choice->keys.size() > 1;
    }
    return false;
}

} // namespace

/// What an earlier evaluation found saves time, and changes nothing.
class KnownTest : public QObject {
    Q_OBJECT
    static void rigs() {
        QTest::addColumn<QString>("rig");
        for (const char* rig : {"fernhouse-dolly", "kettle-jib", "long-bench"}) QTest::newRow(rig) << rig;
    }

private slots:
    void anyEditIsPlannedAnew_data() { rigs(); }
    /// Each field in turn: evaluated with what was known before the edit, and without.
    void anyEditIsPlannedAnew() {
        QFETCH(QString, rig);
        const Project before = demoProject(rig.toStdString());
        const Known known = evaluate(before, Poses::Later).known();
        Project p = before;
        const std::size_t fields = allFields(p).size();
        int changed = 0;
        for (std::size_t i = 0; i < fields; ++i) {
            p = before;
            const FieldRef field = allFields(p)[i];
            if (!change(field)) continue;
            ++changed;
            const QString differs =
                difference(figuresOf(evaluate(p, Poses::Later)), figuresOf(evaluate(p, Poses::Later, known)));
            QVERIFY2(differs.isEmpty(), qPrintable(QString::fromStdString(field.path) + ": " + differs));
        }
        QVERIFY(changed > 200);
    }
    void figuresAlongMovesTakenOver_data() { rigs(); }
    /// Each uncertain input of each axis at both its ends: with the axis as it was, and without.
    void figuresAlongMovesTakenOver() {
        QFETCH(QString, rig);
        Project p = demoProject(rig.toStdString());
        RigSetup setup = setupWithMoves(p);
        int moved = 0, taken = 0;
        for (std::size_t axis = 0; axis < p.axes.size(); ++axis) {
            const AxisEvaluation before = evaluateAxis(setup, axis, Searches::No);
            for (const UncertainInput& input : inputsOfAxis(p, axis)) {
                const Ends ends = endsOf(input.info, *input.estimate);
                for (const double end : {ends.low, ends.high}) {
                    if (end == input.estimate->value) continue;
                    const Moved there(input, end);
                    setup.refresh(axis);
                    const AxisEvaluation afresh = evaluateAxis(setup, axis, Searches::No),
                                         with = evaluateAxis(setup, axis, Searches::No, &before);
                    const QString differs = difference(figuresOfAxis(afresh), figuresOfAxis(with));
                    QVERIFY2(differs.isEmpty(), qPrintable(QString::fromStdString(p.axes[axis].name) + ", " +
                                                           input.info.key.data() + ": " + differs));
                    ++moved;
                    // Where nothing of the drive changes, what was known is really what is used.
                    if (before.model == afresh.model && !before.moves.empty()) {
                        AxisEvaluation marked = before;
                        marked.moves.front().pulseRate = Figure::of(12345.0);
                        taken += evaluateAxis(setup, axis, Searches::No, &marked)
                                     .moves.front()
                                     .pulseRate.valueOr(0.0) == 12345.0;
                    }
                }
            }
            setup.refresh(axis);
        }
        QVERIFY(moved > 50);
        QVERIFY(taken > 0 || p.moves.empty());
    }
    void lowEndsTakenOver_data() { rigs(); }
    /// Each field of a move, and some besides: assessed from the assessment before, and afresh.
    void lowEndsTakenOver() {
        QFETCH(QString, rig);
        const Project project = demoProject(rig.toStdString());
        const Assessment nothing, before = assess(project, {}, Poses::Later, {}, {}, &nothing);
#ifdef __SANITIZE_ADDRESS__
        constexpr std::size_t stride = 10; // sanitizers look at how it is computed, Release at what
#else
        constexpr std::size_t stride = 1;
#endif
        Project p = project;
        const std::vector<FieldRef> fields = allFields(p);
        int ofMoves = 0;
        for (std::size_t i = 0; i < fields.size(); ++i) {
            const bool ofMove = fields[i].path.starts_with("moves/");
            if (i % (ofMove ? stride : 25 * stride) != 0) continue;
            p = project;
            const FieldRef field = allFields(p)[i];
            if (!change(field)) continue;
            ofMoves += ofMove;
            const QString differs =
                difference(assess(p, {}, Poses::Later).verdicts,
                           assess(p, {}, Poses::Later, before.evaluation.known(), {}, &before).verdicts);
            QVERIFY2(differs.isEmpty(), qPrintable(QString::fromStdString(field.path) + ": " + differs));
        }
        QVERIFY(ofMoves * static_cast<int>(stride) > 20 || project.moves.empty());
    }
    /// Where moves alone were edited, what is not about them is really taken over; where a move says how a
    /// shot is taken, or the rig has changed, nothing is.
    void onlyMovesLookedForAgain() {
        const Project project = demoProject("fernhouse-dolly");
        const Assessment nothing;
        Assessment marked = assess(project, {}, Poses::Later, {}, {}, &nothing);
        for (Verdict& v : marked.verdicts) v.low = 0.123;
        const auto takenOver = [&](const Project& p, std::string_view rule) {
            const auto found = assess(p, {}, Poses::Later, {}, {}, &marked).verdicts;
            const auto v = std::find_if(found.begin(), found.end(),
                                        [&](const Verdict& x) { return ruleKey(x) == rule; });
            return v != found.end() && v->low == 0.123;
        };
        Project p = project;
        p.moves[0].poses[2].arrive.time *= 1.5;
        QVERIFY(takenOver(p, "torque"));
        QVERIFY(!takenOver(p, "move_torque"));
        QVERIFY(!takenOver(p, "tipping"));
        p.moves[0].realises = true;
        QVERIFY(!takenOver(p, "torque"));
        p = project;
        p.conditions.ambient += 1.0;
        QVERIFY(!takenOver(p, "torque"));
    }
    void rulesNotAboutMoves_data() {
        rigs();
    }
    /// Rules that do not say that they are about what an axis does in moves look at nothing of it.
    void rulesNotAboutMoves() {
        QFETCH(QString, rig);
        const Project p = demoProject(rig.toStdString());
        const Evaluation e = evaluate(p, Poses::Later);
        int about = 0;
        for (std::size_t a = 0; a < e.axes.size(); ++a) {
            AxisEvaluation without = e.axes[a];
            without.moves.clear();
            std::vector<Verdict> with, bare;
            judgeAxis(p, static_cast<int>(a), e.axes[a], with);
            judgeAxis(p, static_cast<int>(a), without, bare);
            about +=
                static_cast<int>(std::erase_if(with, [](const Verdict& v) { return ruleOf(v).alongMoves; }));
            const QString differs = difference(with, bare);
            QVERIFY2(differs.isEmpty(), qPrintable(differs));
        }
        QVERIFY(about > 3 || p.moves.empty());
    }
    /// Shared out over several threads it is the same to the last digit.
    void sharedOut() {
        const Crew three = [](const std::function<void()>& work) {
            std::vector<std::jthread> others;
            for (int i = 0; i < 2; ++i) others.emplace_back(work);
            work();
        };
        for (const char* rig : {"fernhouse-dolly", "long-bench", "seedling-stage"}) {
            const Project p = demoProject(rig);
            const auto alone = figuresOf(evaluate(p, Poses::Later));
            for (int round = 0; round < 5; ++round) {
                const QString differs = difference(alone, figuresOf(evaluate(p, Poses::Later, {}, three)));
                QVERIFY2(differs.isEmpty(), qPrintable(differs));
            }
        }
    }
    /// A move that is planned alike is not planned again: what is known of it is taken, whatever it says.
    void planTakenOver() {
        const Project p = demoProject("fernhouse-dolly");
        const Evaluation e = evaluate(p, Poses::Later);
        auto marked = std::make_shared<std::vector<PlannedMove>>(*e.planned);
        marked->front().plan.segments.front().drift = 777.0;
        Project heavier = p;
        std::get<LinearMechanism>(heavier.axes[0].mechanism).movingMass.value += 0.5;
        const auto drift = [&](const Project& of) {
            return (*evaluate(of, Poses::Later, {nullptr, marked}).planned)[0].plan.segments.front().drift;
        };
        QCOMPARE(drift(heavier), 777.0);
        Project moved = p;
        moved.moves[0].poses[1].wait += 0.1;
        QVERIFY(drift(moved) != 777.0);
        Project slower = p;
        std::visit([](auto& m) { m.motion.maxSpeed *= 0.5; }, slower.axes[0].mechanism);
        QVERIFY(drift(slower) != 777.0);
    }
};

QTEST_APPLESS_MAIN(KnownTest)
#include "known_test.moc"
