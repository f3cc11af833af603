// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/evaluate.h"
#include "core/model/acceptable.h"
#include "core/model/edit_axes.h"
#include "core/model/fields.h"
#include "core/model/kinds.h"
#include "core/tools/change_kind.h"
#include "io/project/project_file.h"
#include "support/files.h"
#include "support/near.h"

#include <QTest>
#include <random>

using namespace gantry;

/// Edits of axes, links, items, marks and drives: whatever is done in whatever order, the project stays
/// consistent, can be written and read again, and what undoes another edit really does.
class EditsTest : public QObject {
    Q_OBJECT
    std::mt19937 random_{71};
    int below(int n) { return n > 0 ? static_cast<int>(random_() % static_cast<unsigned>(n)) : 0; }

    static bool same(const Project& a, const Project& b) { return a == b; }
    /// Any axis, now and then one that is not there.
    int anAxis(const Project& p) { return below(static_cast<int>(p.axes.size()) + 2) - 1; }

    void anyEdit(Project& p) {
        const int axis = anAxis(p);
        const bool there = axis >= 0 && axis < static_cast<int>(p.axes.size());
        Axis* a = there ? &p.axes[static_cast<std::size_t>(axis)] : nullptr;
        switch (below(13)) {
        case 0:
            if (p.axes.size() < 7) addAxis(p, static_cast<Role>(below(11)), below(2) == 0);
            break;
        case 1:
            if (p.axes.size() < 7) copyAxis(p, axis);
            break;
        case 2:
            moveAxis(p, axis, below(5) - 2);
            break;
        case 3:
            if (p.axes.size() > 2) removeAxis(p, axis);
            break;
        case 4:
            addLink(p, axis, static_cast<std::size_t>(below(5)));
            break;
        case 5:
            removeLink(p, axis, below(4) - 1);
            break;
        case 6:
            if (a != nullptr) moveLink(*a, below(4) - 1, below(3) - 1);
            break;
        case 7:
            addItem(p, axis);
            break;
        case 8:
            removeItem(p, axis);
            break;
        case 9:
            addRingMark(p, axis);
            break;
        case 10:
            removeRingMark(p, axis);
            break;
        case 11:
            addCandidate(p, axis);
            break;
        default:
            const std::string letter(1, static_cast<char>('A' + below(7)));
            below(2) == 0 ? void(useCandidate(p, axis, letter)) : dropCandidate(p, axis, letter);
        }
    }

private slots:
    void anyOrderKeepsAProjectWhole() {
        for (int run = 0; run < 60; ++run) {
            Project p = demoProject(run % 3 == 0   ? "kettle-jib"
                                    : run % 3 == 1 ? "moss-orbit"
                                                   : "slide-and-pan");
            for (int k = 0; k < 40; ++k) {
                anyEdit(p);
                const auto wrong = inconsistencies(p);
                QVERIFY2(wrong.empty(), wrong.empty() ? "" : wrong.front().c_str());
            }
            const auto read = io::readProject(io::writeProject(p));
            QVERIFY(std::holds_alternative<io::LoadedProject>(read));
            QVERIFY(same(std::get<io::LoadedProject>(read).project, p));
            QVERIFY(evaluate(p).axes.size() == p.axes.size());
        }
    }
    void movingThereAndBackIsNothing() {
        const Project before = demoProject("kettle-jib");
        for (int axis = 0; axis < static_cast<int>(before.axes.size()); ++axis)
            for (const int step : {-1, 1}) {
                Project p = before;
                const int to = moveAxis(p, axis, step);
                if (to == axis) continue; // the first has nothing before it, the last nothing behind
                QCOMPARE(p.axes[static_cast<std::size_t>(to)].id,
                         before.axes[static_cast<std::size_t>(axis)].id);
                QCOMPARE(moveAxis(p, to, -step), axis);
                QVERIFY(same(p, before));
            }
    }
    void addingAndTakingAwayIsNothing() {
        const Project before = demoProject("slide-and-pan");
        for (int role = 0; role < 11; ++role) {
            Project p = before;
            const int axis = addAxis(p, static_cast<Role>(role), role % 2 == 0);
            QCOMPARE(axis, static_cast<int>(before.axes.size()));
            QCOMPARE(p.axes.back().role, static_cast<Role>(role));
            QVERIFY(!nameOfRole(static_cast<Role>(role)).empty());
            // A fresh axis is a whole drive: every figure of its table is a number or says why not.
            QVERIFY(evaluateAxis(p, p.axes.back()).model.outputPerRad > 0.0);
            removeAxis(p, axis);
            QVERIFY(same(p, before));
            Project q = before;
            addItem(q, 0);
            removeItem(q, 0);
            QVERIFY(same(q, before));
        }
    }
    void aCopyMovesAsItsOriginal() {
        Project p = demoProject("kettle-jib");
        const std::string original = p.axes[1].id;
        const int copy = copyAxis(p, 1);
        QCOMPARE(copy, 2);
        const std::string id = p.axes[2].id;
        QVERIFY(id != original);
        for (const Shot& s : p.shots) {
            const Movement *a = findMovement(s, original), *b = findMovement(s, id);
            QCOMPARE(a == nullptr, b == nullptr);
            if (a != nullptr) QVERIFY(*a == *b);
        }
        const Evaluation e = evaluate(p);
        QCOMPARE(e.axes[1].shots.size(), e.axes[2].shots.size());
        QCOMPARE(copyAxis(p, 99), -1);
        removeAxis(p, 2);
        for (const Shot& s : p.shots) QVERIFY(findMovement(s, id) == nullptr);
    }
    void drivesAreExchangedWithoutLoss() {
        Project p = demoProject("slide-and-pan");
        Axis& axis = p.axes[0];
        axis.candidates.clear();
        axis.candidate = "A";
        const Axis first = axis;
        QCOMPARE(addCandidate(p, 0), std::string("B"));
        axis.price = 77;
        axis.driver.microsteps *= 2;
        const Axis second = axis;
        QVERIFY(useCandidate(p, 0, "A"));
        QCOMPARE(axis.driver.microsteps, first.driver.microsteps);
        QCOMPARE(axis.price, first.price);
        QVERIFY(useCandidate(p, 0, "B"));
        QVERIFY(axis == second);
        QVERIFY(!useCandidate(p, 0, "F"));
        QVERIFY(axis == second);
        QVERIFY(withCandidate(axis, "A").driver.microsteps == first.driver.microsteps);
        dropCandidate(p, 0, "A");
        QCOMPARE(candidateLetters(axis), std::vector<std::string>{"B"});
        for (int n = 0; n < 10; ++n) addCandidate(p, 0);
        QCOMPARE(candidateLetters(axis).size(), std::size_t(mostCandidates));
    }
    /// A kind changed into any other, at the ends of its ranges too, stays within the new kind's own.
    void changedKindsStayInTheirRanges() {
        const Project demo = demoProject("moss-orbit");
        for (std::size_t from = 0; from < kindsOf<Link>().size(); ++from)
            for (int end = 0; end < 4; ++end) {
                Project p = demo;
                p.axes[0].links.assign(1, makeKind<Link>(from));
                linkId(p.axes[0].links[0]) = "x";
                for (FieldRef& f : allFields(p)) {
                    if (f.path.find("/links/x/") == std::string::npos) continue;
                    const double v = end == 0   ? f.info.min
                                     : end == 1 ? f.info.max
                                     : below(2) ? f.info.min
                                                : f.info.max;
                    if (auto** d = std::get_if<double*>(&f.target)) **d = v;
                    if (auto** e = std::get_if<Estimate*>(&f.target)) (*e)->value = v;
                    if (auto** i = std::get_if<int*>(&f.target)) **i = static_cast<int>(v);
                }
                QCOMPARE(objectionTo(p), std::string());
                for (std::size_t to = 0; to < kindsOf<Link>().size(); ++to) {
                    Project q = p;
                    q.axes[0].links[0] = changedKind(p.axes[0].links[0], to);
                    QCOMPARE(q.axes[0].links[0].index(), to);
                    const std::string why = objectionTo(q);
                    QVERIFY2(why.empty(), why.c_str());
                }
            }
    }
    void linksMoveAlongTheChain() {
        Project p = demoProject("moss-orbit");
        Axis& axis = p.axes[0];
        const auto ratio = evaluate(p).axes[0].totalRatio.value();
        while (axis.links.size() < 3) addLink(p, 0, axis.links.size() % 2);
        const auto whole = evaluate(p).axes[0].totalRatio.value();
        const auto order = axis.links;
        const int to = moveLink(axis, 0, 2);
        QCOMPARE(to, 2);
        QVERIFY(axis.links[2] == order[0] && axis.links[0] == order[1]);
        VERIFY_NEAR(evaluate(p).axes[0].totalRatio.value(), whole, 1e-12); // a product has no order
        QCOMPARE(moveLink(axis, 2, -2), 0);
        QVERIFY(axis.links == order);
        while (axis.links.size() > 1) removeLink(p, 0, static_cast<int>(axis.links.size()) - 1);
        VERIFY_NEAR(evaluate(p).axes[0].totalRatio.value(), ratio, 1e-12);
    }
};

QTEST_GUILESS_MAIN(EditsTest)
#include "edits_test.moc"
