// SPDX-License-Identifier: GPL-3.0-or-later
// Tools stay open beside the window, let one work on, and show the project as it is then.
#include "app/instruments/tool_window.h"
#include "support/window.h"

#include <QCheckBox>
#include <QComboBox>
#include <QTableWidget>

using namespace gantry;
using namespace gantry::app;

namespace {

/// Everything that a window says, as one text.
QString wordsOf(const QWidget* window) {
    QStringList out;
    for (const auto* label : window->findChildren<QLabel*>()) out << label->text();
    for (const auto* edit : window->findChildren<QLineEdit*>()) out << edit->text();
    for (const auto* table : window->findChildren<QTableWidget*>())
        for (int r = 0; r < table->rowCount(); ++r)
            for (int c = 0; c < table->columnCount(); ++c)
                if (const QTableWidgetItem* item = table->item(r, c)) out << item->text();
    for (const auto* w : window->findChildren<QWidget*>()) out << w->accessibleDescription();
    return out.join('\n');
}

/// Heavier, weaker and rocking more slowly.
void another(Project& p) {
    std::get<LinearMechanism>(p.axes[0].mechanism).movingMass.value *= 1.5;
    std::get<Stepper>(p.axes[0].motor).holdingTorque.value *= 0.7;
    p.axes[0].vibration.frequency.value *= 0.8;
}

} // namespace

class ToolsFollowTest : public QObject {
    Q_OBJECT
    TestHome home_;

    static ToolWindow* open(const WindowDriver& d, const QString& button, const QString& entry,
                            const QString& name) {
        d.pickFromMenu(d.find<QPushButton>(button), entry);
        return d.find<ToolWindow>(name);
    }

private slots:
    void each_data() {
        QTest::addColumn<QString>("station");
        QTest::addColumn<QString>("button");
        QTest::addColumn<QString>("entry");
        QTest::addColumn<QString>("name");
        const auto row = [](const char* station, const char* button, const char* entry, const char* name) {
            QTest::newRow(entry) << station << button << entry << name;
        };
        row("drives", "benchTools", "Side by side", "candidatesDialog");
        row("drives", "benchTools", "Check a claim", "claimsDialog");
        row("limits", "limitsTools", "Stall ladder", "ladderDialog");
        row("limits", "limitsTools", "Compare ramps", "rampsDialog");
        row("structure", "structureTools", "Error budget", "budgetDialog");
        row("structure", "structureTools", "Compare sections", "sectionsDialog");
    }
    void each() {
        QFETCH(QString, station);
        QFETCH(QString, button);
        QFETCH(QString, entry);
        QFETCH(QString, name);
        WindowDriver d;
        d.window->document().change("told", [](Project& p) { p.axes[0].told = {"0.4 N·m at 1200 rpm"}; });
        d.station(station);
        ToolWindow* tool = open(d, button, entry, name);
        QVERIFY(tool != nullptr);
        QVERIFY(!tool->isModal());
        for (QCheckBox* box : tool->findChildren<QCheckBox*>()) box->click(); // precautions of the ladder
        const QString before = wordsOf(tool);
        d.window->document().change("another", another);
        QTRY_VERIFY(wordsOf(tool) != before);
        d.window->document().undoStack()->undo();
        QTRY_COMPARE(wordsOf(tool), before);
        // Asked for once more it is the same window; the main one still takes clicks.
        QCOMPARE(open(d, button, entry, name), tool);
        d.station(u"brief");
        QVERIFY(tool->isVisible());
        QTest::keyClick(tool, Qt::Key_Escape);
        QTRY_VERIFY(d.find<ToolWindow>(name) == nullptr);
    }
    /// What was typed stays; what is proposed belongs to the axis that is looked at.
    void timeForADistance() {
        WindowDriver d;
        d.station(u"limits");
        ToolWindow* tool = open(d, "limitsTools", "Time for a distance", "timeDialog");
        auto* distance = tool->findChild<QLineEdit*>("timeDistance");
        distance->setText("100 mm");
        const QString before = tool->findChild<QLabel*>("timeResult")->text();
        d.window->document().change("slower", [](Project& p) {
            std::get<LinearMechanism>(p.axes[0].mechanism).motion.maxSpeed *= 0.25;
        });
        QTRY_VERIFY(tool->findChild<QLabel*>("timeResult")->text() != before);
        QCOMPARE(distance->text(), QString("100 mm"));
        d.click(d.find("axisCard1"));
        QTRY_VERIFY(distance->text().contains("°"));
    }
    /// Rungs that were noted count as long as the ladder is the same.
    void whatCameOfRungsIsKept() {
        WindowDriver d;
        d.station(u"limits");
        ToolWindow* tool = open(d, "limitsTools", "Stall ladder", "ladderDialog");
        for (QCheckBox* box : tool->findChildren<QCheckBox*>()) box->click();
        auto* first = tool->findChild<QComboBox*>("rung0");
        QVERIFY(first != nullptr);
        first->setCurrentIndex(1);
        d.window->document().change("a name", [](Project& p) { p.axes[0].name = "Rail"; });
        QTest::qWait(50);
        QCOMPARE(tool->findChild<QComboBox*>("rung0"), first);
        QCOMPARE(first->currentIndex(), 1);
    }
};

QTEST_MAIN(ToolsFollowTest)
#include "tools_follow_test.moc"
