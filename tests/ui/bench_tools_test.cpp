// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/preferences/shelf.h"
#include "app/stations/drives/import_dialog.h"
#include "core/rigs/rigs.h"
#include "support/window.h"

#include <QAbstractButton>
#include <QComboBox>
#include <QDialog>
#include <QPlainTextEdit>
#include <QTabBar>
#include <QTableView>
#include <QTableWidget>

using namespace gantry;
using namespace gantry::app;

/// The bench tools of Drives, by clicks and keys.
class BenchToolsTest : public QObject {
    Q_OBJECT
    TestHome home_;

    QDialog* open(WindowDriver& d, const QString& tool, const QString& name) {
        d.station(u"drives");
        d.pickFromMenu(d.find<QPushButton>("benchTools"), tool);
        return d.window->findChild<QDialog*>(name);
    }
    static void press(QWidget* in, const QString& text) {
        for (auto* b : in->findChildren<QAbstractButton*>())
            if (b->isVisible() && b->text() == text) {
                QVERIFY2(b->isEnabled(), qPrintable(text));
                QTest::mouseClick(b, Qt::LeftButton);
                return;
            }
        QFAIL(qPrintable("no button “" + text + "”"));
    }
    /// The visible field of that name.
    static QLineEdit* shown(QDialog* dialog, const char* name) {
        for (auto* e : dialog->findChildren<QLineEdit*>())
            if (e->isVisible() && e->accessibleName() == name) return e;
        return nullptr;
    }
    static void type(QLineEdit* edit, const QString& text) {
        edit->setFocus();
        edit->selectAll();
        QTest::keyClicks(edit, text);
        QTest::keyClick(edit, Qt::Key_Return);
    }
private slots:
    void finderFindsAndUsesATrain() {
        WindowDriver d;
        QDialog* dialog = open(d, "Find a ratio", "ratioDialog");
        QVERIFY(dialog != nullptr);
        auto* table = dialog->findChild<QTableWidget*>("ratioTable");
        type(dialog->findChild<QLineEdit*>("ratioFirst"), "4.5");
        QTRY_VERIFY(table->rowCount() > 0 && table->item(0, 0)->text().startsWith("4.5"));
        QCOMPARE(table->item(0, 1)->text(), QString("exact"));
        press(dialog, "Use this train");
        double ratio = 1;
        for (const Link& link : d.project().axes[0].links)
            ratio *= static_cast<double>(std::get<BeltStage>(link).loadTeeth) /
                     std::get<BeltStage>(link).motorTeeth;
        QCOMPARE(ratio, 4.5);
        type(dialog->findChild<QLineEdit*>("ratioFirst"), "nonsense");
        QTRY_VERIFY(dialog->findChild<QLabel*>("ratioStatus")->text().contains("nonsense"));
        QVERIFY(dialog->isVisible()); // Return in a field does not close it
    }
    /// The other questions of the finder: speeds, all shots, whole steps, change gears; and what it refuses.
    void finderAnswersEveryQuestion() {
        WindowDriver d;
        QDialog* dialog = open(d, "Find a ratio", "ratioDialog");
        auto* wanted = dialog->findChild<QComboBox*>("ratioWanted");
        auto* first = dialog->findChild<QLineEdit*>("ratioFirst");
        auto* second = dialog->findChild<QLineEdit*>("ratioSecond");
        auto* status = dialog->findChild<QLabel*>("ratioStatus");
        auto* table = dialog->findChild<QTableWidget*>("ratioTable");
        const auto ratioOf = [&](int row) {
            return table->item(row, 0)->text().section(' ', 0, 0).toDouble();
        };
        const auto next = [&] {
            wanted->setFocus();
            QTest::keyClick(wanted, Qt::Key_Down);
        };
        next();
        QCOMPARE(wanted->currentText(), QString("an output speed"));
        type(first, "1500 rpm");
        type(second, "400 rpm");
        QTRY_VERIFY(table->rowCount() > 0 && std::abs(ratioOf(0) - 3.75) < 1e-3);
        type(second, "slowly");
        QTRY_VERIFY(status->text().contains("slowly") && table->rowCount() == 0);
        next();
        QCOMPARE(wanted->currentText(), QString("one ratio for all shots"));
        QTRY_VERIFY(status->text().startsWith("From ") || status->text().startsWith("No one ratio"));
        next();
        QCOMPARE(wanted->currentText(), QString("whole steps per unit"));
        type(first, "1.7");
        QTRY_VERIFY(table->rowCount() > 3);
        const auto ratio = d.window->document().assessment().evaluation.axes[0].steps.stepsPerUnit.value();
        for (int row = 0; row < table->rowCount(); ++row) {
            const double steps = ratio * ratioOf(row); // the drive is direct, so this many steps a millimetre
            QVERIFY2(std::abs(steps - std::round(steps)) < 0.06, qPrintable(table->item(row, 0)->text()));
        }
        next();
        QCOMPARE(wanted->currentText(), QString("change gears"));
        dialog->findChild<QComboBox*>("ratioSource")->setFocus();
        QTest::keyClick(dialog->findChild<QComboBox*>("ratioSource"), Qt::Key_Up); // gears of module 1
        type(first, "2; 3");
        QTRY_VERIFY(table->rowCount() > 0);
        type(first, "2");
        QTRY_VERIFY(status->text().contains("two or three"));
        // Nothing on the shelf is said, not searched.
        auto* source = dialog->findChild<QComboBox*>("ratioSource");
        source->setFocus();
        QTest::keyClick(source, Qt::Key_Home);
        type(first, "2; 3");
        QTRY_VERIFY(status->text().contains("no parts on hand"));
        press(dialog, "Close");
    }
    void candidatesByLetter() {
        WindowDriver d;
        QDialog* dialog = open(d, "Side by side", "candidatesDialog");
        press(dialog, "Keep this and start another");
        QCOMPARE(d.project().axes[0].candidate, std::string("B"));
        auto* table = dialog->findChild<QTableWidget*>("candidatesTable");
        QCOMPARE(table->columnCount(), 2);
        QVERIFY(table->horizontalHeaderItem(0)->text().contains("fitted today"));
        QTest::keyClick(dialog, Qt::Key_A);
        QCOMPARE(d.project().axes[0].candidate, std::string("A"));
        press(dialog, "Close");
    }
    void partsGoIntoTheDriveAndOnTheShelf() {
        WindowDriver d;
        QDialog* dialog = open(d, "Parts", "partsDialog");
        auto* search = dialog->findChild<QLineEdit*>("partsSearch");
        search->setFocus();
        QTest::keyClicks(search, "size 23, 76");
        auto* table = dialog->findChild<QTableView*>("partsTable");
        QCOMPARE(table->model()->rowCount(), 1);
        press(dialog, "Put into the rig");
        QCOMPARE(std::get<Stepper>(d.project().axes[0].motor).holdingTorque,
                 estimate(1.9, Source::DataSheet));
        press(dialog, "I own one");
        press(dialog, "I own one");
        auto* tabs = dialog->findChild<QTabBar*>("partsTabs");
        QTest::mouseClick(tabs, Qt::LeftButton, {}, tabs->tabRect(1).center());
        QCOMPARE(table->model()->rowCount(), 1);
        // It is saved: another shelf reads the same.
        QCOMPARE(Shelf().parts().at(0).count, 2);
        press(dialog, "One less");
        QCOMPARE(Shelf().parts().at(0).count, 1);
        d.window->document().undoStack()->undo();
        QVERIFY(std::get<Stepper>(d.project().axes[0].motor).holdingTorque.value < 1.0);
    }
    /// A profile goes from the list to the rail, and a pivot pin is refused where nothing turns.
    void profilesGoIntoTheRig() {
        WindowDriver d;
        QDialog* dialog = open(d, "Parts", "partsDialog");
        auto* search = dialog->findChild<QLineEdit*>("partsSearch");
        search->setFocus();
        QTest::keyClicks(search, "Slotted profile 40 × 80");
        QCOMPARE(dialog->findChild<QTableView*>("partsTable")->model()->rowCount(), 1);
        press(dialog, "Put into the rig");
        const Section& s = sectionOf(d.project().axes[0]);
        QCOMPARE(s.shape, SectionShape::SlottedProfile);
        QCOMPARE(s.width, 0.04);
        QCOMPARE(s.height, 0.08);
        search->clear();
        QTest::keyClicks(search, "Pivot pin 16");
        press(dialog, "Put into the rig");
        bool said = false;
        for (const QLabel* l : dialog->findChildren<QLabel*>()) said = said || l->text().contains("pivot");
        QVERIFY(said);
    }
    void importReportsBadLines() {
        QTemporaryDir folder;
        const QString path = folder.filePath("mine.csv");
        QFile file(path);
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write("Type;Part;Qty;Tooth count;Pitch\npulley;Small;2;16;2 mm\npulley;Bad;2;sixteen;2 mm\n");
        file.close();
        ImportDialog dialog(path, nullptr);
        std::vector<parts::Part> taken;
        connect(&dialog, &ImportDialog::imported, [&](const std::vector<parts::Part>& p) { taken = p; });
        dialog.show();
        press(&dialog, "Import");
        QTRY_COMPARE(taken.size(), std::size_t(1));
        auto* errors = dialog.findChild<QTableWidget*>("importErrors");
        QCOMPARE(errors->item(0, 0)->text(), QString("3"));
        QCOMPARE(errors->item(0, 1)->text(), QString("4"));
        QVERIFY(errors->item(0, 2)->text().contains("sixteen"));
    }
    void claimsShowSuspects() {
        WindowDriver d;
        QDialog* dialog = open(d, "Check a claim", "claimsDialog");
        auto* text = dialog->findChild<QPlainTextEdit*>("claimsText");
        text->setFocus();
        QTest::keyClicks(text, "steps/mm = 100");
        auto* findings = dialog->findChild<QTableWidget*>("claimsFindings");
        QCOMPARE(findings->rowCount(), 1);
        QVERIFY(findings->item(0, 1)->text().contains("A commanded 100 mm goes 125 mm"));
        QVERIFY(dialog->findChild<QTableWidget*>("claimsSuspects")->rowCount() > 0);
        // It is kept with the rig, and judged unasked.
        QCOMPARE(d.project().axes[0].told, std::vector<std::string>{"steps/mm = 100"});
        const auto over = [&](const char* rule) {
            for (const Verdict& v : d.window->document().assessment().verdicts)
                if (ruleKey(v) == rule && v.axis == 0) return v.state == State::Over;
            return false;
        };
        QTRY_VERIFY(over("steps_set"));
        QTest::keyClick(text, Qt::Key_Return);
        QTest::keyClicks(text, "0,8 m/s of jam");
        QCOMPARE(findings->rowCount(), 2);
        QTest::keyClicks(text, " and 7");
        QCOMPARE(findings->rowCount(), 3);
        QVERIFY(findings->item(2, 1)->text().contains("another number in it is not understood"));
        dialog->close();
        // Opened again it stands there; undo takes it away.
        dialog = open(d, "Check a claim", "claimsDialog");
        QVERIFY(
            dialog->findChild<QPlainTextEdit*>("claimsText")->toPlainText().startsWith("steps/mm = 100\n"));
        dialog->close();
        d.window->document().undoStack()->undo();
        QVERIFY(d.project().axes[0].told.empty());
    }
    void labelMakesAMotor() {
        WindowDriver d;
        QDialog* dialog = open(d, "I only know the label", "labelDialog");
        type(dialog->findChild<QLineEdit*>("label2"), "1.5 A");
        type(dialog->findChild<QLineEdit*>("label3"), "3 V");
        press(dialog, "Use this motor");
        QCOMPARE(std::get<Stepper>(d.project().axes[0].motor).resistance, estimate(2.0, Source::Label));
    }
    /// The small geared kind with five leads, from counting to the drive.
    void unlabelledMotorIsIdentified() {
        WindowDriver d;
        QDialog* dialog = open(d, "A motor without a label", "identifyDialog");
        QVERIFY(dialog != nullptr);
        const auto field = [&](const char* name) { return shown(dialog, name); };
        press(dialog, "Next");
        type(field("Leads"), "five");
        press(dialog, "Next");
        QVERIFY(dialog->findChild<QLabel*>("identifyTrouble")->text().contains("five"));
        type(field("Leads"), "5");
        type(field("Resistance of one phase"), "50 ohm");
        press(dialog, "Next");
        type(field("Full steps in a turn"), "2038");
        type(field("Turns of the rotor"), "25792");
        type(field("for turns of the shaft"), "405");
        press(dialog, "Next");
        type(field("Across the body"), "28 mm");
        type(field("Length of the body"), "19 mm");
        press(dialog, "Next");
        auto* advice = dialog->findChild<QLabel*>("warmAdvice");
        QVERIFY2(advice->text().contains("0.1 A"), qPrintable(advice->text()));
        type(field("Current of reading 1"), "0.1 A");
        type(field("Case at reading 1"), "71");
        QVERIFY2(advice->text().startsWith("Stop"), qPrintable(advice->text()));
        press(dialog, "Next");
        press(dialog, "Next");
        const auto links = d.project().axes[0].links.size();
        press(dialog, "Use this motor");
        const Axis& axis = d.project().axes[0];
        QCOMPARE(std::get<Stepper>(axis.motor).rotorTeeth, 8);
        QCOMPARE(std::get<Stepper>(axis.motor).winding, Winding::Unipolar);
        QCOMPARE(axis.links.size(), links + 1);
        QCOMPARE(std::get<ReducerStage>(axis.links[0]).numerator, 25792);
    }
    void unlabelledBrushedMotorIsIdentified() {
        WindowDriver d;
        QDialog* dialog = open(d, "A motor without a label", "identifyDialog");
        QVERIFY(dialog != nullptr);
        const auto field = [&](const char* name) { return shown(dialog, name); };
        press(dialog, "A brushed DC motor: 2 leads, runs as soon as it gets a voltage");
        press(dialog, "Next");
        type(field("Least resistance"), "2 ohm");
        press(dialog, "Next");
        type(field("Voltage"), "12 V");
        type(field("Turns of the shaft"), "15");
        type(field("Current"), "0.2 A");
        type(field("Turns of the rotor"), "100");
        for (int i = 0; i < 4; ++i) press(dialog, "Next");
        press(dialog, "Use this motor");
        const auto& motor = std::get<GearedDc>(d.project().axes[0].motor);
        QCOMPARE(motor.figures.stallCurrent.value, 6.0);
        QCOMPARE(motor.gearNumerator, 100);
        QVERIFY(std::abs(motor.figures.noLoadSpeed.value - 3.14159265) < 1e-6);
    }
    void winchIsShownAlongItsTravel() {
        WindowDriver d;
        d.window->document().newProject(rigs::make(rigs::RigKind::WinchedCart));
        QDialog* dialog = open(d, "Along the winch", "winchDialog");
        QVERIFY(dialog != nullptr);
        QTRY_VERIFY(dialog->isVisible());
        QVERIFY(!dialog->findChild<QLabel*>("winchSays")->text().isEmpty());
    }
    void measuredFrictionIsTaken() {
        WindowDriver d;
        d.station(u"brief");
        auto* editor = d.find<FieldEditor>("axes/slide/mechanism/running_friction_N");
        QVERIFY(editor != nullptr);
        auto* button = editor->findChild<QToolButton*>();
        QMenu* menu = button->menu();
        QTimer::singleShot(50, menu, [&] {
            for (QAction* a : menu->actions())
                if (a->text().startsWith("Measure it"))
                    QTest::mouseClick(menu, Qt::LeftButton, {}, menu->actionGeometry(a).center());
        });
        QTest::mouseClick(button, Qt::LeftButton);
        auto* dialog = d.window->findChild<QDialog*>("measureDialog");
        QVERIFY(dialog != nullptr);
        auto* which = dialog->findChild<QComboBox*>("measureRecipe");
        which->setFocus();
        QTest::keyClick(which, Qt::Key_Down); // the sliding angle, which can hurt
        QVERIFY(dialog->findChild<QLabel*>("measurePrecaution")->isVisible());
        type(dialog->findChild<QLineEdit*>("reading1"), "4 deg");
        press(dialog, "Take this value");
        const Estimate& f = std::get<LinearMechanism>(d.project().axes[0].mechanism).runningFriction;
        QCOMPARE(f.source, Source::Measured);
        QVERIFY(std::abs(f.value - 4.1 * 9.80665 * std::sin(4 * 3.14159265358979 / 180)) < 1e-4);
    }
    /// What is at risk for a guess: the first fix opens the recipe, and what was measured puts it out of
    /// doubt.
    void measureFirstWhatPutsAtRisk() {
        WindowDriver d;
        d.window->document().change("a guess", [](Project& p) {
            auto& m = std::get<LinearMechanism>(p.axes[0].mechanism);
            m.runningFriction = {14.0, Source::Guess, 2.0};
            m.staticFriction = {1.0, Source::Measured, 0.0};
        });
        d.station(u"drives");
        const auto torque = [&] {
            for (const Verdict& v : d.window->document().assessment().verdicts)
                if (ruleKey(v) == "torque" && v.axis == 0) return v;
            qFatal("no verdict about torque");
        };
        QCOMPARE(torque().state, State::AtRisk);
        QCOMPARE(torque().deciding, std::vector<std::string>{"axes/slide/mechanism/running_friction_N"});
        const auto fix = [&] { return d.find("verdict_torque")->findChild<QPushButton*>("fix0"); };
        QTRY_VERIFY(fix() != nullptr && fix()->isVisible());
        QVERIFY2(fix()->text().contains("measure the running friction"), qPrintable(fix()->text()));
        const Project before = d.project();
        d.click(fix());
        auto* dialog = d.window->findChild<QDialog*>("measureDialog");
        QVERIFY(dialog != nullptr);
        QVERIFY(d.project() == before); // measuring is for the builder to do
        type(dialog->findChild<QLineEdit*>("reading0"), "14 N");
        press(dialog, "Take this value");
        QCOMPARE(std::get<LinearMechanism>(d.project().axes[0].mechanism).runningFriction.source,
                 Source::Measured);
        QVERIFY(torque().state != State::AtRisk && torque().state != State::Over);
    }
    void linksAreReorderedByKeyAndDrag() {
        WindowDriver d;
        d.station(u"drives");
        d.pickFromMenu(d.find<QPushButton>("addPart"), "Belt stage");
        d.pickFromMenu(d.find<QPushButton>("addPart"), "Worm and wheel");
        QVERIFY(std::holds_alternative<WormStage>(d.project().axes[0].links[1]));
        auto* chain = d.find("chainView");
        chain->setFocus();
        QTest::keyClick(chain, Qt::Key_Left, Qt::ControlModifier);
        QVERIFY(std::holds_alternative<WormStage>(d.project().axes[0].links[0]));
        // Eight tiles right of the labels; the links are the third and the fourth.
        const auto tile = [&](int i) {
            return QPoint(92 + static_cast<int>((i + 0.5) * (chain->width() - 92) / 8.0), 50);
        };
        QTest::mousePress(chain, Qt::LeftButton, {}, tile(2));
        QTest::mouseMove(chain, tile(3));
        QTest::mouseRelease(chain, Qt::LeftButton, {}, tile(3));
        QVERIFY(std::holds_alternative<WormStage>(d.project().axes[0].links[1]));
        press(d.window.get(), "Remove");
        QCOMPARE(d.project().axes[0].links.size(), std::size_t(1));
    }
    void everyKindOfMotorIsChosenInTheWindow() {
        WindowDriver d;
        d.station(u"drives");
        d.window->session().setChainColumn(1);
        auto* kind = d.find<QComboBox>("partKind");
        kind->setFocus();
        for (std::size_t i = 1; i < std::variant_size_v<Motor>; ++i) {
            QTest::keyClick(kind, Qt::Key_Down);
            QCOMPARE(d.project().axes[0].motor.index(), i);
        }
    }
};

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    QApplication::setStyle("Fusion");
    BenchToolsTest test;
    return QTest::qExec(&test, argc, argv);
}
#include "bench_tools_test.moc"
