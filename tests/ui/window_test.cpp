// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/plot.h"
#include "app/instruments/torque_plot.h"
#include "app/shell/station_rail.h"
#include "cli/commands.h"
#include "core/evaluate/evaluate.h"
#include "core/verdicts/later.h"
#include "support/dialogs.h"
#include "support/files.h"
#include "support/window.h"

#include <QClipboard>
#include <QComboBox>
#include <QLocale>
#include <QMenu>
#include <QPlainTextEdit>
#include <QTableView>
#include <QTimer>
#include <clocale>
#include <sstream>

using namespace gantry;
using namespace gantry::app;

class WindowTest : public QObject {
    Q_OBJECT
    TestHome home_;

    static QString cell(QTableView* table, int row, int column) {
        return table->model()->index(row, column).data().toString();
    }
    static QString setting(QTableView* table, const QString& label) {
        for (int i = 0; i < table->model()->rowCount(); ++i)
            if (cell(table, i, 0) == label) return cell(table, i, 1);
        return "missing";
    }
    static const Verdict* verdict(const WindowDriver& d, std::string_view rule, int axis) {
        for (const Verdict& v : d.window->document().assessment().verdicts)
            if (ruleKey(v) == rule && v.axis == axis) return &v;
        return nullptr;
    }

private slots:
    void init() { QFile::remove(Preferences::path()); }

    void localeIsAsAsked() {
        if (!qEnvironmentVariableIsSet("GANTRY_EXPECT_COMMA")) return;
        QCOMPARE(std::string(std::localeconv()->decimal_point), std::string(","));
    }

    /// Teeth 20 to 16: 80 steps/mm become 100 in the axis card, the settings and what the command line
    /// prints.
    void changeTeethEverywhere() {
        WindowDriver d;
        d.station(u"drives");
        auto* chain = d.find("chainView");
        QTest::mouseClick(chain, Qt::LeftButton, {},
                          QPoint(92 + (chain->width() - 92) * 5 / 12, 40)); // third tile of six
        d.type("axes/slide/mechanism/output/teeth", "16");
        QCOMPARE(std::get<BeltOutput>(std::get<LinearMechanism>(d.project().axes[0].mechanism).output).teeth,
                 16);
        QVERIFY(d.find("axisCard0")->accessibleDescription().contains("100 steps/mm"));
        QVERIFY(d.status().contains("100 steps per mm exactly"));
        auto* table = d.find<QTableView>("driveTable");
        QCOMPARE(cell(table, 4, 5), QString("10 µm")); // one microstep at the carriage
        d.station(u"controller");
        QCOMPARE(setting(d.find<QTableView>("settingsTable"), "Steps per unit"), QString("100"));
        QVERIFY(
            d.find<QPlainTextEdit>("settingsText")->toPlainText().contains("Steps per unit          100"));
        QString error;
        const QString file = home_.path("teeth.gantry");
        QVERIFY(d.window->document().saveAs(file, error));
        std::ostringstream out, err;
        QCOMPARE(cli::run({"evaluate", file.toStdString(), "--json"}, out, err), 0);
        QVERIFY(nlohmann::json::parse(out.str())["axes"][0]["steps_per_unit_exact"] == "100/1");
    }

    /// What the window evaluates for one edit, wherever it is made and whatever is shown: one assessment,
    /// with the new value, and nothing of the old one.
    void oneAssessmentAnEdit() {
        WindowDriver d;
        auto& document = d.window->document();
        for (const QString& station : d.window->stationIds()) {
            d.station(station);
            int refreshes = 0;
            const auto counting = connect(&document, &Document::changed, this, [&] { ++refreshes; });
            for (const bool typed : {true, false}) {
                const std::uint64_t before = axisEvaluations();
                refreshes = 0;
                if (typed && station == u"drives") {
                    d.window->session().setChainColumn(4);
                    d.type("axes/slide/mechanism/moving_mass_kg", "3.4");
                } else {
                    document.change("an edit", [&](Project& p) {
                        auto& slide = std::get<LinearMechanism>(p.axes[0].mechanism);
                        slide.movingMass.value += 0.01;
                    });
                }
                QCoreApplication::processEvents();
                const std::uint64_t spent = axisEvaluations() - before;
                const std::uint64_t alone = axisEvaluations();
                (void)assess(d.project());
                if (station == u"brief") // says what is to come would change
                    for (const LaterAxis& l : d.project().later)
                        (void)whatChanges(d.project(), document.assessment(), l);
                QVERIFY2(
                    spent == axisEvaluations() - alone,
                    qPrintable(
                        QString("%1: %2, not %3").arg(station).arg(spent).arg(axisEvaluations() - alone)));
                QCOMPARE(refreshes, 1);
            }
            disconnect(counting);
        }
    }
    /// A fix was assessed when it was tried, and is not again when it is taken; undoing it is an edit.
    void aFixIsNotComputedAgain() {
        WindowDriver d;
        auto& document = d.window->document();
        // Before all poses are looked through no change is looked through either.
        QTRY_VERIFY_WITH_TIMEOUT(!document.results().wantsPoses(), 20000);
        const Verdict* bad = verdict(d, "power_off", 0);
        QVERIFY(bad != nullptr);
        const Verdict wanted = *bad;
        const auto fixes = findFixes(d.project(), document.assessment(), wanted, {}, 1, {partsLibrary(), {}});
        QVERIFY(!fixes.empty());
        const std::uint64_t before = axisEvaluations();
        document.apply("Fix", fixes.front());
        QCOMPARE(axisEvaluations(), before);
        QVERIFY(d.project() == fixes.front().result);
        const Assessment afresh = assess(d.project());
        QCOMPARE(document.assessment().verdicts.size(), afresh.verdicts.size());
        for (std::size_t i = 0; i < afresh.verdicts.size(); ++i)
            QCOMPARE(document.assessment().verdicts[i].low, afresh.verdicts[i].low);
        const std::uint64_t undone = axisEvaluations();
        document.undoStack()->undo();
        QVERIFY(axisEvaluations() > undone);
        QCOMPARE(verdict(d, "power_off", 0)->state, wanted.state);
    }
    void applyAFixAndUndoIt() {
        WindowDriver d;
        d.station(u"drives");
        QTRY_VERIFY(d.find("verdict_power_off")->findChild<QPushButton*>("fix0") != nullptr);
        QCOMPARE(verdict(d, "power_off", 0)->state, State::Over);
        d.click(d.find("verdict_power_off")->findChild<QPushButton*>("fix0"));
        QVERIFY(d.project().axes[0].brake.fitted);
        QCOMPARE(verdict(d, "power_off", 0)->state, State::Fine);
        QVERIFY(d.find<QPushButton>("undo")->toolTip().contains("brake"));
        d.click(d.find("undo"));
        QVERIFY(!d.project().axes[0].brake.fitted);
        QCOMPARE(verdict(d, "power_off", 0)->state, State::Over);
        d.click(d.find("redo"));
        QVERIFY(d.project().axes[0].brake.fitted);
    }

    void typesInchesIntoTravel() {
        WindowDriver d;
        d.type("axes/slide/mechanism/bumper_length_m", "3 1/8 in");
        QCOMPARE(std::get<LinearMechanism>(d.project().axes[0].mechanism).bumperLength, 0.079375);
        QCOMPARE(d.field("axes/slide/mechanism/bumper_length_m")->text(), QString("79.3750 mm"));
    }

    void nonsenseIsRefusedAndTheOldValueKept() {
        WindowDriver d;
        const QString path = "axes/slide/mechanism/moving_mass_kg";
        d.type(path, "heavy");
        QCOMPARE(std::get<LinearMechanism>(d.project().axes[0].mechanism).movingMass.value, 4.1);
        QVERIFY2(d.status().contains("Moving mass") && d.status().contains("heavy") &&
                     d.status().contains("kept"),
                 qPrintable(d.status()));
        QTest::keyClick(d.field(path), Qt::Key_Tab);
        QTRY_COMPARE(d.field(path)->text(), QString("4.10 kg").replace("4.10", "4.1"));
        d.type(path, "-3 kg");
        QVERIFY(d.status().contains("outside"));
        d.type(path, "1,100");
        QVERIFY(d.status().contains("1100 or 1.1"));
        QCOMPARE(std::get<LinearMechanism>(d.project().axes[0].mechanism).movingMass.value, 4.1);
    }

    void unusualIsTakenAndQueried() {
        WindowDriver d;
        d.type("axes/slide/mechanism/moving_mass_kg", "900 kg");
        QCOMPARE(std::get<LinearMechanism>(d.project().axes[0].mechanism).movingMass.value, 900.0);
        QVERIFY(d.status().contains("900 kg for moving mass?"));
    }

    void decimalCommaAndPoint() {
        WindowDriver d;
        d.type("axes/slide/mechanism/moving_mass_kg", "5,25");
        QCOMPARE(std::get<LinearMechanism>(d.project().axes[0].mechanism).movingMass.value, 5.25);
        d.type("axes/slide/mechanism/moving_mass_kg", "5.5 kg");
        QCOMPARE(std::get<LinearMechanism>(d.project().axes[0].mechanism).movingMass.value, 5.5);
        QString error;
        const QString file = home_.path("comma.gantry");
        QVERIFY(d.window->document().saveAs(file, error));
        QVERIFY(textOfFile(file.toStdString()).find("\"value\": 5.5") != std::string::npos);
    }

    void switchesThemeAndUnits() {
        WindowDriver d;
        d.click(d.find("theme"));
        QVERIFY(isNight());
        QCOMPARE(d.find<QPushButton>("theme")->text(), QString("Day"));
        const QImage night = d.window->grab().toImage();
        QCOMPARE(QColor(night.pixel(250, 70)), nightTokens().paper);
        d.click(d.find("theme"));
        QCOMPARE(QColor(d.window->grab().toImage().pixel(250, 70)), dayTokens().paper);
        d.click(d.find("units"));
        QCOMPARE(d.field("axes/slide/mechanism/rail_length_m")->text(), QString("43.3070 in"));
        d.type("axes/slide/mechanism/rail_length_m", "40");
        QCOMPARE(std::get<LinearMechanism>(d.project().axes[0].mechanism).railLength, 1.016);
        d.click(d.find("units"));
        QCOMPARE(d.field("axes/slide/mechanism/rail_length_m")->text(), QString("1016 mm"));
    }

    void arrowKeysStepAndMergeIntoOneUndo() {
        WindowDriver d;
        const QString path = "axes/slide/mechanism/moving_mass_kg";
        QLineEdit* edit = d.field(path);
        QTest::mouseClick(edit, Qt::LeftButton, {}, QPoint(8, 8));
        for (int i = 0; i < 3; ++i) QTest::keyClick(edit, Qt::Key_Up);
        QCOMPARE(edit->text(), QString("4.4 kg"));
        QTest::keySequence(edit, QKeySequence::Undo); // without typed text, undo belongs to the project
        QCOMPARE(std::get<LinearMechanism>(d.project().axes[0].mechanism).movingMass.value, 4.1);
    }

    void sourceMenuChangesToleranceAndLocks() {
        WindowDriver d;
        auto* editor = d.find<FieldEditor>("axes/slide/mechanism/running_friction_N");
        auto* button = editor->findChild<QToolButton*>();
        QCOMPARE(button->text(), QString("guess"));
        const auto pick = [&](const QString& text) {
            QTimer::singleShot(0, this, [=] {
                for (QAction* a : button->menu()->actions())
                    if (a->text().startsWith(text)) {
                        QTest::mouseClick(button->menu(), Qt::LeftButton, {},
                                          button->menu()->actionGeometry(a).center());
                        return;
                    }
                button->menu()->close();
            });
            QTest::mouseClick(button, Qt::LeftButton);
        };
        const double lowBefore = verdict(d, "torque", 0)->low;
        pick("measured");
        QTRY_COMPARE(button->text(), QString("measured"));
        QVERIFY(verdict(d, "torque", 0)->low > lowBefore);
        pick("Locked");
        QTRY_COMPARE(button->text(), QString("locked"));
        QCOMPARE(d.project().lockedFields.back(), std::string("axes/slide/mechanism/running_friction_N"));
    }

    void peakAndRmsAreTwoViewsOfOneValue() {
        WindowDriver d;
        d.station(u"drives");
        d.window->session().setChainColumn(0);
        auto editors = d.window->findChildren<FieldEditor*>("axes/slide/driver/run_current_rms_A");
        editors.removeIf([](const FieldEditor* e) { return !e->isVisible(); });
        QCOMPARE(editors.size(), 2);
        QLineEdit* peak = editors[1]->findChild<QLineEdit*>();
        QVERIFY(peak->text().startsWith("1.6971"));
        QTest::mouseClick(peak, Qt::LeftButton, {}, QPoint(8, 8));
        QTest::keySequence(peak, QKeySequence::SelectAll);
        QTest::keyClicks(peak, "1.4142136");
        QTest::keyClick(peak, Qt::Key_Return);
        QVERIFY(std::abs(d.project().axes[0].driver.runCurrent - 1.0) < 1e-6);
        QVERIFY(editors[0]->findChild<QLineEdit*>()->text().startsWith("1"));
    }

    void saveCloseReopenSameNumbers() {
        const QString file = home_.path("again.gantry");
        Project before;
        {
            WindowDriver d;
            QString error;
            QVERIFY(d.window->document().saveAs(file, error));
            d.type("axes/slide/mechanism/moving_mass_kg", "6.2 kg");
            QVERIFY(d.window->windowTitle().contains("edited"));
            QTest::keySequence(d.window.get(), QKeySequence::Save);
            QTRY_VERIFY(!d.window->document().edited());
            QVERIFY(QFile::exists(file + "~"));
            before = d.project();
            QVERIFY(d.window->close());
        }
        WindowDriver d(false);
        QVERIFY(d.window->openFile(file));
        QVERIFY(d.project() == before);
        QVERIFY(d.window->preferences().recentFiles().contains(file));
    }

    void savingTakesWhatIsStillBeingTyped() {
        WindowDriver d;
        QLineEdit* edit = d.field("axes/slide/mechanism/moving_mass_kg");
        QTest::mouseClick(edit, Qt::LeftButton, {}, QPoint(8, 8));
        QTest::keySequence(edit, QKeySequence::SelectAll);
        QTest::keyClicks(edit, "6.6 kg"); // no Return
        QTest::keySequence(d.window.get(), QKeySequence::Save);
        QCOMPARE(std::get<LinearMechanism>(d.project().axes[0].mechanism).movingMass.value, 6.6);
        QTRY_VERIFY(!d.window->document().edited());
    }

    /// From nothing: a click, then the five answers, and the line of what the drive can do.
    void fiveFieldStart() {
        WindowDriver d(false);
        QVERIFY(d.project().axes.empty());
        d.click(d.find("startFromWhatIHave"));
        QCOMPARE(d.project().axes.size(), std::size_t(1));
        d.type("axes/slide/motor/holding_torque_Nm", "0.44 Nm");
        d.type("axes/slide/mechanism/output/teeth", "20");
        d.type("supply/voltage_V", "24 V");
        d.type("axes/slide/driver/run_current_rms_A", "1.2 A");
        const QString before = d.find("startCapability")->accessibleName();
        d.type("axes/slide/mechanism/moving_mass_kg", "4.1 kg");
        d.type("axes/slide/mechanism/slope_rad", "12 deg");
        const QString line = d.find("startCapability")->accessibleName();
        QVERIFY2(line.contains("at margin ×2") && line.contains("kg or") && line.contains("mm/s²"),
                 qPrintable(line));
        QVERIFY(line != before);
        QCOMPARE(std::get<Stepper>(d.project().axes[0].motor).holdingTorque.source, Source::Guess);
        // Everything else is a marked assumption.
        QCOMPARE(std::get<Stepper>(d.project().axes[0].motor).inductance.source, Source::Assumed);
        d.station(u"drives");
        QVERIFY(d.find("driveTable")->isVisible());
    }

    void addsAndRemovesStagesAndShots() {
        WindowDriver d;
        d.station(u"drives");
        d.pickFromMenu(d.find<QPushButton>("addPart"), "Belt stage");
        QCOMPARE(d.project().axes[0].links.size(), std::size_t(1));
        QVERIFY(d.status().contains("240 steps per mm"));
        d.click(d.find("removePart"));
        QVERIFY(d.project().axes[0].links.empty());
        d.station(u"brief");
        d.click(d.find("addShot"));
        QCOMPARE(d.project().shots.size(), std::size_t(4));
        QVERIFY(findMovement(d.project().shots[3], "slide") != nullptr);
        d.click(d.find("removeShot"));
        QCOMPARE(d.project().shots.size(), std::size_t(3));
    }

    void shotPickerChangesTheTable() {
        WindowDriver d;
        d.station(u"drives");
        auto* table = d.find<QTableView>("driveTable");
        QCOMPARE(cell(table, 0, 5), QString("250 mm/s"));
        auto* picker = d.find<QComboBox>("shotPicker");
        QTest::mouseClick(picker, Qt::LeftButton);
        picker->setFocus();
        QTest::keyClick(picker, Qt::Key_Escape);
        for (int i = 0; i < 3; ++i) QTest::keyClick(picker, Qt::Key_Down);
        QCOMPARE(cell(table, 0, 5), QString("19 mm/s"));
    }

    void copiesTemplateText() {
        WindowDriver d;
        d.station(u"controller");
        auto* choice = d.find<QComboBox>("templateChoice");
        choice->setFocus();
        for (int i = 0; i < 3; ++i) QTest::keyClick(choice, Qt::Key_Down);
        QVERIFY(d.find<QPlainTextEdit>("settingsText")
                    ->toPlainText()
                    .contains("#define SLIDE_STEPS_PER_UNIT 80"));
        d.click(d.find("copySettings"));
        QVERIFY(QGuiApplication::clipboard()->text().contains("#define PAN_MICROSTEPS 16"));
        // A table is copied as tables are: with their line ends, which the view does not keep.
        QTest::keyClick(choice, Qt::Key_Home);
        while (choice->currentData().toString() != "csv" && choice->currentIndex() + 1 < choice->count())
            QTest::keyClick(choice, Qt::Key_Down);
        d.click(d.find("copySettings"));
        QVERIFY(QGuiApplication::clipboard()->text().startsWith("axis,key,label,value,unit,note\r\n"));
        // Saved they are the same, and where they cannot be, a sentence says so.
        const QString file = home_.path("settings.csv");
        for (const QString& path : {file, QString("/proc/settings.csv")}) {
            const Answer<QFileDialog> name(typeName(path));
            d.click(d.find("saveSettings"));
            QVERIFY(name.came());
            QTRY_VERIFY2(d.status().contains(path), qPrintable(d.status()));
        }
        QVERIFY(textOfFile(file.toStdString()) == QGuiApplication::clipboard()->text().toStdString());
        QVERIFY2(d.status().contains("not saved"), qPrintable(d.status()));
    }

    void plotsAreSaved() {
        WindowDriver d;
        d.station(u"drives");
        auto* plot = d.find<TorquePlot>("torquePlot");
        QString error;
        for (const char* name : {"torque.svg", "torque.png", "torque.csv"}) {
            QVERIFY2(plot->saveTo(home_.path(name), error), qPrintable(error));
            QVERIFY(QFileInfo(home_.path(name)).size() > 500);
        }
        QVERIFY(textOfFile(home_.path("torque.csv").toStdString()).find("motor_speed_rpm,pull_out_Nm") == 0);
        QVERIFY(!plot->saveTo(home_.path("no/such/folder/a.png"), error));
        QVERIFY(!plot->saveTo(home_.path("torque.bmp"), error) && error.contains(".svg"));
    }

    void badFilesAreRefusedInTheStatusLine() {
        WindowDriver d;
        const QString file = home_.path("bad.gantry");
        QFile f(file);
        QVERIFY(f.open(QIODevice::WriteOnly));
        f.write("{\"format\":\"calm-gantry\",\"version\":99}");
        f.close();
        QVERIFY(!d.window->openFile(file));
        QVERIFY(d.status().contains("newer version"));
        QCOMPARE(d.project().name, std::string("Fernhouse dolly")); // what was open stays
    }
};

int main(int argc, char** argv) {
    std::setlocale(LC_ALL, "");
    QApplication app(argc, argv);
    QApplication::setStyle("Fusion");
    WindowTest test;
    return QTest::qExec(&test, argc, argv);
}
#include "window_test.moc"
