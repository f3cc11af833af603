// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/fold.h"
#include "app/instruments/rig_view.h"
#include "app/model/edit_history.h"
#include "support/window.h"

using namespace gantry;
using namespace gantry::app;

/// Brief: the rig first, with what decides; its shots; the rest in folds that say what they assume, and lists
/// that are edited where they stand.
class BriefStationTest : public QObject {
    Q_OBJECT
    TestHome home_;

    static QStringList shownFields(const WindowDriver& d) {
        QStringList out;
        for (const FieldEditor* e : d.window->findChildren<FieldEditor*>())
            if (e->isVisible() && !e->path().isEmpty()) out << e->path();
        return out;
    }
    static Fold* fold(const WindowDriver& d, const QString& name) { return d.find<Fold>("fold_" + name); }
    static QStringList payload(const WindowDriver& d) {
        QStringList out;
        for (const MassItem& item : d.project().payload) out << QString::fromStdString(item.name);
        return out;
    }

private slots:
    void init() { QFile::remove(Preferences::path()); }

    /// What one sees first is a drawing and few fields, the five of "this motor, this belt, this weight"
    /// among them.
    void theRigComesFirst() {
        WindowDriver d;
        const QStringList fields = shownFields(d);
        QVERIFY2(fields.size() <= 16, qPrintable(fields.join('\n')));
        for (const char* path :
             {"axes/slide/motor/holding_torque_Nm", "axes/slide/mechanism/output/teeth", "supply/voltage_V",
              "axes/slide/mechanism/moving_mass_kg", "axes/slide/mechanism/slope_rad"})
            QVERIFY2(fields.contains(path), path);
        auto* view = d.find<RigView>("briefView");
        QVERIFY(view != nullptr && !view->inWords().isEmpty());
        // A turning axis has its own.
        d.window->session().setAxis(1);
        QVERIFY(shownFields(d).contains("axes/pan/mechanism/inertia_kgm2"));
        QVERIFY(!shownFields(d).contains("axes/slide/mechanism/slope_rad"));
    }
    /// A fold hides its fields and says what they hold; opened by click or key it shows them.
    void foldsSayWhatTheyAssume() {
        WindowDriver d;
        auto* rig = fold(d, "rig");
        QVERIFY(rig != nullptr && !rig->isOpen());
        QVERIFY2(rig->accessibleDescription().contains("sensor 36 mm") &&
                     rig->accessibleDescription().contains("no wind") &&
                     rig->accessibleDescription().contains("any weight"),
                 qPrintable(rig->accessibleDescription()));
        QVERIFY(d.find<FieldEditor>("camera/sensor_width_m") == nullptr);
        d.click(rig);
        QVERIFY(d.find<FieldEditor>("camera/sensor_width_m") != nullptr);
        d.type("camera/sensor_width_m", "23.5 mm");
        d.type("conditions/weight_budget_kg", "9 kg");
        d.click(fold(d, "rig"));
        QVERIFY(d.find<FieldEditor>("camera/sensor_width_m") == nullptr);
        QVERIFY(fold(d, "rig")->accessibleDescription().contains("sensor 23.5 mm"));
        QVERIFY(fold(d, "rig")->accessibleDescription().contains("at most 9 kg"));
        fold(d, "rig")->setFocus();
        QTest::keyClick(fold(d, "rig"), Qt::Key_Space);
        QVERIFY(d.find<FieldEditor>("camera/sensor_width_m") != nullptr);
        // One that stays closed does not open with it.
        QVERIFY(!fold(d, "shot")->isOpen());
        QVERIFY(fold(d, "shot")->accessibleDescription().contains("jitter 0.5 px"));
    }
    /// Nothing entered shows as empty with a hint; emptied or 0 typed it is nothing again.
    void nothingEnteredIsEmpty() {
        WindowDriver d;
        d.unfold();
        QLineEdit* budget = d.field("conditions/weight_budget_kg");
        QCOMPARE(budget->text(), QString());
        QCOMPARE(budget->placeholderText(), QString("any"));
        d.type("conditions/weight_budget_kg", "12 kg");
        QCOMPARE(d.project().conditions.weightBudget, 12.0);
        QVERIFY(d.field("conditions/weight_budget_kg")->text().startsWith("12"));
        for (const char* nothing : {"", "0"}) {
            d.type("conditions/weight_budget_kg", "12 kg");
            QLineEdit* edit = d.field("conditions/weight_budget_kg");
            edit->setFocus();
            QTest::keySequence(edit, QKeySequence::SelectAll);
            QTest::keyClick(edit, Qt::Key_Delete);
            QTest::keyClicks(edit, nothing);
            QTest::keyClick(edit, Qt::Key_Return);
            QCOMPARE(d.project().conditions.weightBudget, 0.0);
            QTRY_COMPARE(d.field("conditions/weight_budget_kg")->text(), QString());
        }
        // Where 0 is a number like any other it is shown, and nothing typed is refused.
        d.type("axes/slide/mechanism/slope_rad", "0");
        QVERIFY(d.field("axes/slide/mechanism/slope_rad")->text().startsWith("0"));
        QLineEdit* slope = d.field("axes/slide/mechanism/slope_rad");
        slope->setFocus();
        QTest::keySequence(slope, QKeySequence::SelectAll);
        QTest::keyClick(slope, Qt::Key_Delete);
        QTest::keyClick(slope, Qt::Key_Return);
        QVERIFY(d.status().contains("The old value is kept"));
    }
    /// Rows are added, moved and removed where they stand, each one step to undo.
    void rowsAreEditedInPlace() {
        WindowDriver d(false);
        d.window->openFile(QString::fromStdString(dataPath("demo/kettle-jib.gantry")));
        d.unfold();
        const QStringList before = payload(d);
        QVERIFY(before.size() >= 4);
        QVERIFY(!d.find<QPushButton>("payloadListUp0")->isEnabled());
        d.click(d.find("payloadListDown0"));
        QStringList moved = before;
        moved.swapItemsAt(0, 1);
        QCOMPARE(payload(d), moved);
        QCOMPARE(d.find<QPushButton>("payloadListRemove1")->accessibleName(), "Remove " + before[0]);
        d.click(d.find("payloadListRemove2"));
        QStringList less = moved;
        less.removeAt(2);
        QCOMPARE(payload(d), less);
        QVERIFY(d.find("payloadListRemove" + QString::number(less.size())) == nullptr);
        d.click(d.find("undo"));
        QCOMPARE(payload(d), moved);
        d.click(d.find("undo"));
        QCOMPARE(payload(d), before);
        const int last = static_cast<int>(before.size()) - 1;
        QVERIFY(!d.find<QPushButton>("payloadListDown" + QString::number(last))->isEnabled());
        d.click(d.find("payloadListAdd"));
        QCOMPARE(payload(d).size(), before.size() + 1);
        const std::size_t planned = d.project().later.size();
        d.click(d.find("laterListAdd"));
        d.click(d.find("laterListAdd"));
        const std::string kept = d.project().later.at(1).id;
        d.click(d.find("laterListRemove0"));
        QCOMPARE(d.project().later.size(), planned + 1);
        QCOMPARE(d.project().later[0].id, kept);
    }
    /// What the drawing of Brief drags is the project.
    void theDrawingDrags() {
        WindowDriver d;
        auto* view = d.find<RigView>("briefView");
        const QString path = "axes/slide/mechanism/rail/first_stand_m";
        const QPoint at = view->handleAt(path).toPoint();
        QVERIFY(!at.isNull());
        const auto& linear = std::get<LinearMechanism>(d.project().axes[0].mechanism);
        const double before = linear.rail.firstStand;
        QTest::mousePress(view, Qt::LeftButton, {}, at);
        QTest::mouseMove(view, at + QPoint(12, -2));
        QTest::mouseMove(view, at + QPoint(20, -4));
        QTest::mouseRelease(view, Qt::LeftButton, {}, at + QPoint(20, -4));
        const double after = std::get<LinearMechanism>(d.project().axes[0].mechanism).rail.firstStand;
        QVERIFY(after > before + 0.01);
        d.click(d.find("undo"));
        QCOMPARE(std::get<LinearMechanism>(d.project().axes[0].mechanism).rail.firstStand, before);
    }
};

QTEST_MAIN(BriefStationTest)
#include "brief_station_test.moc"
