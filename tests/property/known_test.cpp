// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/evaluate/move/planned_move.h"
#include "core/evaluate/moved_inputs.h"
#include "core/evaluate/setup_of.h"
#include "core/model/fields.h"
#include "support/files.h"
#include "support/flat_figures.h"

#include <QTest>
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
