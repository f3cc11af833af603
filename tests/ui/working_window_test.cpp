// SPDX-License-Identifier: GPL-3.0-or-later
// A number that is pressed shows how it comes about, in a window that follows the project.
#include "app/instruments/drive_table.h"
#include "app/instruments/working_window.h"
#include "app/shell/verdict_column.h"
#include "core/units/text.h"
#include "support/window.h"

#include <QTableWidget>

using namespace gantry;
using namespace gantry::app;

class WorkingWindowTest : public QObject {
    Q_OBJECT
    TestHome home_;

    static WorkingWindow* shown(const WindowDriver& d) { return d.find<WorkingWindow>("working"); }
    static QString head(const WindowDriver& d) {
        WorkingWindow* w = shown(d);
        return w != nullptr ? w->findChild<QLabel*>("workingHead")->text() : QString();
    }
    static QTableWidget* table(const WindowDriver& d) {
        return shown(d)->findChild<QTableWidget*>("workingTable");
    }
    /// Row of a symbol; empty if there is none.
    static QStringList row(const WindowDriver& d, const QString& symbol) {
        QStringList out;
        QTableWidget* t = table(d);
        for (int r = 0; r < t->rowCount(); ++r)
            if (t->item(r, 0)->text() == symbol)
                for (int c = 0; c < t->columnCount(); ++c) out << t->item(r, c)->text();
        return out;
    }
    /// Presses a cell of the drive-train table: by row and column, both from 0 with the names.
    static void press(const WindowDriver& d, int row, int column) {
        auto* t = d.find<DriveTable>("driveTable");
        QVERIFY(t != nullptr);
        const QRect cell = t->visualRect(t->model()->index(row, column));
        QTest::mouseClick(t->viewport(), Qt::LeftButton, {}, cell.center());
        QCoreApplication::processEvents();
    }

private slots:
    void aNumberOfTheTable() {
        WindowDriver d;
        d.station(u"drives");
        press(d, 1, 2); // needed, at the motor
        QVERIFY(shown(d) != nullptr);
        QVERIFY(!shown(d)->isModal());
        const ShotEvaluation& shot = *d.window->document().assessment().evaluation.axes[0].worst();
        QCOMPARE(head(d),
                 QString("Needed at the motor: ") +
                     QString::fromStdString(units::format(shot.torque.needed.value(), units::Kind::Torque,
                                                          units::System::Metric, 4)));
        const QStringList mass = row(d, "m_0");
        QCOMPARE(mass.value(1), QString());
        QCOMPARE(mass.value(3), QString("moving mass"));
        QVERIFY(mass.value(4).contains("measured"));
        // The figure last, as a formula of what stands above it.
        QTableWidget* t = table(d);
        QCOMPARE(t->item(t->rowCount() - 1, 0)->text(), QString("T_need"));
        QVERIFY(t->item(t->rowCount() - 1, 1)->text().startsWith("= T_out + J_m"));
        QTRY_VERIFY(shown(d)->findChild<QLabel*>("workingMost")->text().contains("moves it most"));
    }
    void itFollowsEditsAndUnits() {
        WindowDriver d;
        d.station(u"drives");
        press(d, 1, 2);
        const QString before = head(d), mass = row(d, "m_0").value(2);
        d.window->document().change("heavier", [](Project& p) {
            std::get<LinearMechanism>(p.axes[0].mechanism).movingMass.value *= 2.0;
        });
        QTRY_VERIFY(head(d) != before);
        QVERIFY(row(d, "m_0").value(2) != mass);
        d.window->document().undoStack()->undo();
        QTRY_COMPARE(head(d), before);
        QTest::mouseClick(d.find<QPushButton>("units"), Qt::LeftButton);
        QTRY_VERIFY(row(d, "m_0").value(2).contains("lb"));
    }
    void anotherNumberTakesItsPlace() {
        WindowDriver d;
        d.station(u"drives");
        press(d, 1, 2);
        WorkingWindow* first = shown(d);
        const int columns = d.find<DriveTable>("driveTable")->model()->columnCount();
        press(d, 4, columns - 1); // the finest step, in the picture
        QCOMPARE(shown(d), first);
        QVERIFY(head(d).endsWith(" px"));
        QTest::keyClick(first, Qt::Key_Escape);
        QTRY_VERIFY(shown(d) == nullptr);
    }
    void nothingOpensForAnEmptyCell() {
        WindowDriver d;
        d.station(u"drives");
        press(d, 5, 1); // a driver has no lag
        QVERIFY(shown(d) == nullptr);
    }
    void byKeys() {
        WindowDriver d;
        d.station(u"drives");
        auto* t = d.find<DriveTable>("driveTable");
        t->setFocus();
        t->setCurrentIndex(t->model()->index(0, 2));
        QTest::keyClick(t, Qt::Key_Return);
        QVERIFY(shown(d) != nullptr);
        QVERIFY2(head(d).startsWith("Speed at the motor: "), qPrintable(head(d)));
    }
    void theRatioOfAVerdict() {
        WindowDriver d;
        d.station(u"drives");
        QPushButton* ratio = nullptr;
        for (auto* card : d.window->findChildren<VerdictCard*>())
            if (auto* b = card->findChild<QPushButton*>("ratio"); b != nullptr && b->isVisible()) ratio = b;
        if (ratio == nullptr) d.click(d.find<QPushButton>("foldedVerdicts"));
        for (auto* card : d.window->findChildren<VerdictCard*>())
            if (auto* b = card->findChild<QPushButton*>("ratio"); b != nullptr && b->isVisible()) ratio = b;
        QVERIFY(ratio != nullptr);
        QVERIFY(ratio->accessibleName().contains("comes about"));
        d.click(ratio);
        QVERIFY(shown(d) != nullptr);
        QVERIFY2(head(d).contains("there over needed") || head(d).contains("margin"), qPrintable(head(d)));
    }
    /// What a drive can do stands as words in the head; pressing a number there explains it.
    void theNumbersOfTheHead() {
        WindowDriver d;
        d.station(u"drives");
        QWidget* page = nullptr;
        for (QWidget* w : d.window->findChildren<QWidget*>("stationPage"))
            if (w->isVisible()) page = w;
        QVERIFY(page != nullptr);
        QSet<QString> heads;
        for (int x = 120; x < 520; x += 12) {
            QTest::mouseClick(page, Qt::LeftButton, {}, QPoint(x, 52));
            if (shown(d) != nullptr) heads << head(d).section(':', 0, 0);
        }
        QCOMPARE(heads,
                 (QSet<QString>{"Heaviest load at the target margin", "Steepest slope at the target margin",
                                "Hardest ramp at the target margin", "Highest speed at the target margin"}));
        d.station(u"limits");
        for (QWidget* w : d.window->findChildren<QWidget*>("stationPage"))
            if (w->isVisible()) page = w;
        heads.clear();
        for (int x = 90; x < 480; x += 12) {
            QTest::mouseClick(page, Qt::LeftButton, {}, QPoint(x, 46));
            heads << head(d).section(':', 0, 0) << d.status();
        }
        // Of the demo the pulses set the speed, and something that is no torque the ramps.
        QVERIFY2(heads.contains("Maximum speed by pulse rate"),
                 qPrintable(QStringList(heads.values()).join("|")));
    }
    void theLimits() {
        WindowDriver d;
        d.station(u"limits");
        d.pickFromMenu(d.find<QPushButton>("limitsTools"), "How the speed limit by pulses comes about");
        QVERIFY(shown(d) != nullptr);
        QVERIFY(!row(d, "f_max").isEmpty());
        d.pickFromMenu(d.find<QPushButton>("limitsTools"), "How the acceleration limit comes about");
        QTRY_VERIFY(!row(d, "T_allow").isEmpty());
    }
};

QTEST_MAIN(WorkingWindowTest)
#include "working_window_test.moc"
