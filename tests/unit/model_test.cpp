// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/fields.h"
#include "support/files.h"

#include <QTest>
#include <set>

using namespace gantry;

class ModelTest : public QObject {
    Q_OBJECT
private slots:
    void fieldsAreFoundByPath() {
        Project p = demoProject();
        QCOMPARE(numberAt(p, "axes/slide/mechanism/output/teeth").value(), 20.0);
        QCOMPARE(numberAt(p, "axes/slide/motor/holding_torque_Nm").value(), 0.44);
        QCOMPARE(numberAt(p, "axes/pan/links/pan-belt/load_teeth").value(), 104.0);
        QCOMPARE(numberAt(p, "shots/reveal/moves/slide/movement/speed_m_s").value(), 0.25);
        QVERIFY(!numberAt(p, "axes/slide/mechanism/output/teet"));
        QVERIFY(!numberAt(p, "axes/nowhere/wanted_margin"));
        QVERIFY(!numberAt(p, "name"));
    }
    void estimatesHaveThePathsOfTheirFields() {
        Project p = demoProject();
        std::vector<std::pair<const Estimate*, std::string>> wanted;
        for (const FieldRef& f : allFields(p))
            if (auto* const* e = std::get_if<Estimate*>(&f.target)) wanted.emplace_back(*e, f.path);
        QVERIFY(wanted.size() > 50);
        QVERIFY(pathsOfEstimates(p) == wanted);
    }
    void settingRespectsRangeAndKind() {
        Project p = demoProject();
        QVERIFY(setNumberAt(p, "axes/slide/mechanism/output/teeth", 16));
        QCOMPARE(std::get<BeltOutput>(std::get<LinearMechanism>(p.axes[0].mechanism).output).teeth, 16);
        QVERIFY(!setNumberAt(p, "axes/slide/mechanism/output/teeth", 16.5));
        QVERIFY(!setNumberAt(p, "axes/slide/mechanism/output/teeth", 0));
        QVERIFY(!setNumberAt(p, "axes/slide/mechanism/moving_mass_kg", -1));
        QVERIFY(!setNumberAt(p, "axes/slide/mechanism/moving_mass_kg", std::nan("")));
        QVERIFY(setNumberAt(p, "axes/slide/brake/fitted", 1));
        QVERIFY(p.axes[0].brake.fitted);
    }
    void everyFieldHasAPathOfItsOwnAndItsDefaultInRange() {
        Project p = demoProject();
        std::set<std::string> paths;
        for (const FieldRef& f : allFields(p)) {
            QVERIFY2(paths.insert(f.path).second, f.path.c_str());
            const auto v = numberAt(p, f.path);
            if (!v || f.info.max <= f.info.min) continue;
            QVERIFY2(*v >= f.info.min && *v <= f.info.max, f.path.c_str());
            QVERIFY2(f.info.usualMin >= f.info.min && f.info.usualMax <= f.info.max, f.path.c_str());
        }
        QVERIFY(paths.size() > 120);
    }
    void estimatesOfAnAxisAreThoseItsPathsName() {
        Project p = demoProject();
        std::size_t byPath = 0;
        for (const FieldRef& f : allFields(p))
            byPath += f.path.starts_with("axes/slide/") && std::holds_alternative<Estimate*>(f.target);
        QCOMPARE(estimatesOf(p.axes[0]).size(), byPath);
    }
    void usableTravelNeverNegative() {
        Axis a;
        auto& linear = std::get<LinearMechanism>(a.mechanism);
        linear.railLength = 0.1;
        linear.carriageLength = 0.3;
        QCOMPARE(usableTravel(a), 0.0);
    }
    void inconsistenciesAreNamed() {
        Project p = demoProject();
        QVERIFY(inconsistencies(p).empty());
        p.axes[1].id = "slide";
        QVERIFY(QString::fromStdString(inconsistencies(p).front()).contains("“slide” stands twice"));
        p = demoProject();
        p.shots[0].moves[0].axis = "crane";
        QVERIFY(QString::fromStdString(inconsistencies(p).front()).contains("no axis “crane”"));
        p = demoProject();
        p.shots[0].moves[0].movement = BySpeed<AxisKind::Rotary>{1, 1, 1};
        QVERIFY(QString::fromStdString(inconsistencies(p).front()).contains("wrong kind"));
    }
    void freeIdsAreFree() {
        const Project p = demoProject();
        QCOMPARE(freeId(p, "Slide"), std::string("slide-2"));
        QCOMPARE(freeId(p, "Lift  Column!"), std::string("lift-column"));
        QCOMPARE(freeId(p, "…"), std::string("part"));
    }
};

QTEST_APPLESS_MAIN(ModelTest)
#include "model_test.moc"
