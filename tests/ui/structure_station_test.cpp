// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/rig_view.h"
#include "app/instruments/soft_table.h"
#include "app/instruments/tipping_polar.h"
#include "app/stations/brief/brief_lists.h"
#include "app/stations/structure/budget_dialog.h"
#include "app/stations/structure/chart_dialog.h"
#include "core/evaluate/rig/rig_sweep.h"
#include "core/tools/structure_solve.h"
#include "support/window.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QTableWidget>

using namespace gantry;
using namespace gantry::app;

/// Structure and the lists of Brief by clicks and drags, on the jib and on the dolly.
class StructureStationTest : public QObject {
    Q_OBJECT
    TestHome home_;

    /// The jib in a file of its own, with its boom chosen and Structure shown.
    struct Jib : WindowDriver {
        QTemporaryDir folder;
        Jib() : WindowDriver(false) {
            const QString copy = folder.filePath("kettle-jib.gantry");
            QFile::copy(QString::fromStdString(dataPath("demo/kettle-jib.gantry")), copy);
            window->openFile(copy);
            window->session().setAxis(1);
            station(u"structure");
        }
        ~Jib() { window.reset(); }
        void page(const char* name) {
            auto* part = find<QComboBox>("structurePart");
            part->setCurrentIndex(part->findText(name));
            window->showStation(u"structure");
        }
        const Boom& boom() const { return std::get<RotaryMechanism>(project().axes[1].mechanism).boom; }
    };
    /// Presses on a handle, moves by some pixels and lets go.
    static void drag(WindowDriver& d, const QString& path, QPointF by) {
        auto* view = d.find<RigView>("rigView");
        QVERIFY(view != nullptr);
        // A layout that is still under way would move the handle from under the hand.
        QCoreApplication::processEvents();
        QCoreApplication::processEvents();
        const QPointF at = view->handleAt(path);
        QVERIFY2(!at.isNull(), qPrintable(path));
        QTest::mousePress(view, Qt::LeftButton, {}, at.toPoint());
        QTest::mouseMove(view, (at + by / 2).toPoint());
        QTest::mouseMove(view, (at + by).toPoint());
        QTest::mouseRelease(view, Qt::LeftButton, {}, (at + by).toPoint());
    }
    static void closeDialog(QDialog* dialog) {
        QVERIFY(dialog != nullptr);
        delete dialog;
    }
private slots:
    void counterweightIsDraggedInOneStep() {
        Jib d;
        const double before = d.boom().counterweight.behind;
        const double left =
            d.window->document().assessment().evaluation.axes[1].structure.gravityWorst.value();
        const int steps = d.window->document().undoStack()->index();
        drag(d, "axes/boom/mechanism/boom/counterweight/behind_m", {-30, 10});
        QVERIFY(d.boom().counterweight.behind > before + 0.05);
        QVERIFY(d.window->document().assessment().evaluation.axes[1].structure.gravityWorst.value() != left);
        QCOMPARE(d.window->document().undoStack()->index(), steps + 1);
        d.window->document().undoStack()->undo();
        QCOMPARE(d.boom().counterweight.behind, before);
    }
    void armFollowsTheMouseAndTheField() {
        Jib d;
        const double before = d.boom().shownAt;
        drag(d, "axes/boom/mechanism/boom/shown_at_rad", {0, -40});
        QVERIFY(d.boom().shownAt > before + 0.05);
        d.type("axes/boom/mechanism/boom/shown_at_rad", "35°");
        QVERIFY(std::abs(d.boom().shownAt - 35 * 0.017453292519943295) < 1e-9);
        // −35° at the low end: now level, so the arm's end is as high as its pivot.
        auto* view = d.find<RigView>("rigView");
        const QPointF level = view->handleAt("axes/boom/mechanism/boom/shown_at_rad"),
                      weight = view->handleAt("axes/boom/mechanism/boom/counterweight/behind_m");
        QVERIFY(std::abs(level.y() - weight.y()) < 1.5);
    }
    void feetAndSwingFromAbove() {
        Jib d;
        auto* above = d.find<QPushButton>("fromAbove");
        d.click(above);
        const double turned = std::get<RotaryMechanism>(d.project().axes[0].mechanism).boom.shownAt;
        drag(d, "axes/swing/mechanism/boom/shown_at_rad", {0, -60});
        QVERIFY(std::abs(std::get<RotaryMechanism>(d.project().axes[0].mechanism).boom.shownAt - turned) >
                0.05);
        const double radius = d.project().base.legRadius;
        const double ratio = d.window->document().assessment().evaluation.rig.tipping.value();
        auto* view = d.find<RigView>("rigView");
        const QPointF foot = view->handleAt("base/leg_radius_m");
        const QPointF middle(view->handleAt("base/ballast_out_m"));
        drag(d, "base/leg_radius_m", (foot - middle) * 0.3);
        QVERIFY(d.project().base.legRadius > radius * 1.1);
        QVERIFY(d.window->document().assessment().evaluation.rig.tipping.value() > ratio);
        QVERIFY(d.find<TippingPolar>("tippingPolar")->inWords().contains("holds"));
    }
    void balanceButtonBalances() {
        Jib d;
        d.find<QComboBox>("structurePart")->setCurrentIndex(1);
        d.window->showStation(u"structure");
        d.type("axes/boom/mechanism/boom/counterweight/behind_m", "0.4 m");
        const double before =
            d.window->document().assessment().evaluation.axes[1].structure.gravityWorst.value();
        d.click(d.find<QPushButton>("structureBest"));
        const double after =
            d.window->document().assessment().evaluation.axes[1].structure.gravityWorst.value();
        QVERIFY(after < 0.2 * before);
        QVERIFY(d.status().contains("Tie the arm"));
        // Nothing is left to keep the play on one side, and that is said.
        QVERIFY(d.window->document().assessment().evaluation.axes[1].shots[0].loadReverses);
        QVERIFY(d.status().contains("backlash"));
    }
    void standsAreDraggedAndPlaced() {
        WindowDriver d;
        d.station(u"structure");
        // Asked anew each time: a change may put another project in the place of this one.
        const auto rail = [&] { return std::get<LinearMechanism>(d.project().axes[0].mechanism).rail; };
        const double before = rail().secondStand;
        drag(d, "axes/slide/mechanism/rail/second_stand_m", {-40, 8});
        QVERIFY2(
            rail().secondStand < before - 0.03,
            qPrintable(QStringLiteral("%1 %2 | %3").arg(rail().secondStand).arg(before).arg(d.status())));
        const double sag = d.window->document().assessment().evaluation.axes[0].shots[0].sag.pixels.value();
        d.click(d.find<QPushButton>("structureBest"));
        QVERIFY(d.window->document().assessment().evaluation.axes[0].shots[0].sag.pixels.value() < sag);
        QVERIFY(!d.find<SoftTable>("softTable")->inWords().isEmpty());
        // Without a section the button says what is missing and changes nothing.
        d.window->document().change("x", [](Project& p) {
            std::get<LinearMechanism>(p.axes[0].mechanism).rail.section.shape = SectionShape::NotGiven;
        });
        const Project bare = d.project();
        d.click(d.find<QPushButton>("structureBest"));
        QVERIFY(d.project() == bare && d.status().contains("section"));
    }
    /// Any section can be listed, priced and changed, and is compared flat and on edge until it is taken out.
    void sectionsOfOnesOwnAreListed() {
        WindowDriver d;
        d.station(u"structure");
        d.window->document().change("x", [](Project& p) {
            p.profiles.clear();
            std::get<LinearMechanism>(p.axes[0].mechanism).rail.section.price = 0.0;
        });
        const auto open = [&] {
            d.pickFromMenu(d.find<QPushButton>("structureTools"), "Compare sections");
            return d.window->findChild<QDialog*>("sectionsDialog");
        };
        const auto tableOf = [](QDialog* dialog) {
            return dialog->findChild<QTableWidget*>("sectionsDialogTable");
        };
        QDialog* dialog = open();
        const int before = tableOf(dialog)->rowCount();
        tableOf(dialog)->selectRow(1);
        QTest::mouseClick(dialog->findChild<QPushButton*>("listSection"), Qt::LeftButton);
        QCOMPARE(d.project().profiles.size(), 1u);
        closeDialog(dialog);
        auto* part = d.find<QComboBox>("structurePart");
        part->setCurrentIndex(part->findText("Sections to compare"));
        d.window->showStation(u"structure");
        const QString path = "profiles/" + QString::fromStdString(d.project().profiles[0].id) + "/";
        d.type(path + "section/width_m", "77 mm");
        d.type(path + "section/price_per_m", "31");
        d.type(path + "name", "Shelf");
        dialog = open();
        QTableWidget* table = tableOf(dialog);
        QVERIFY(table->rowCount() >= before + 1);
        QVERIFY(table->item(1, 0)->text().startsWith("Shelf: "));
        QVERIFY(table->item(2, 0)->text().contains("on edge"));
        const double length = std::get<LinearMechanism>(d.project().axes[0].mechanism).railLength;
        QVERIFY2(table->item(1, 7)->text().startsWith(QString::number(std::round(31 * length))),
                 qPrintable(table->item(1, 7)->text()));
        QCOMPARE(table->item(0, 7)->text(), QString::fromUtf8("–")); // no price was said
        table->selectRow(2);
        QTest::mouseClick(dialog->findChild<QPushButton*>("unlistSection"), Qt::LeftButton);
        QVERIFY(d.project().profiles.empty());
        closeDialog(dialog);
    }
    /// The drawing goes to where the rig comes nearest to anything, in one step that can be undone.
    void theNearestApproachIsDrawn() {
        Jib d;
        d.window->document().change("x", [](Project& p) {
            p.keepOut.assign(1, {"lamp", "Lamp", 0.9, 0.6, 1.3, 0.1, 0.1, 0.1});
        });
        // All poses are looked through beside the window, which says so until then.
        const auto stateOf = [&] {
            for (const Verdict& v : d.window->document().assessment().verdicts)
                if (ruleKey(v) == "clearance") return v.state;
            return State::Fine;
        };
        QVERIFY(d.window->document().results().wantsPoses());
        QCOMPARE(stateOf(), State::Unknown);
        QTRY_VERIFY(!d.window->document().results().wantsPoses());
        QVERIFY(stateOf() != State::Unknown);
        const Clearance far = clearanceAt(setupOf(d.project()), shownPose(d.project().axes));
        d.pickFromMenu(d.find<QPushButton>("structureTools"), "Draw where it comes nearest");
        const Clearance now = clearanceAt(setupOf(d.project()), shownPose(d.project().axes));
        const double nearest = d.window->document().assessment().evaluation.rig.clearance.distance.value();
        QVERIFY(now.distance < far.distance);
        QVERIFY(std::abs(now.distance - nearest) < 1e-9);
        d.window->document().undoStack()->undo();
        QCOMPARE(clearanceAt(setupOf(d.project()), shownPose(d.project().axes)).distance, far.distance);
    }
    /// More rooms than the page has rows: the last one's last field is scrolled to by Tab and takes a value.
    void manyRoomsAreScrolledTo() {
        Jib d;
        d.window->document().change("x", [](Project& p) {
            for (const char* id : {"a", "b", "c", "d"}) p.keepOut.emplace_back().id = id;
        });
        d.page("Place and people");
        const QString last = "keep_out/d/height_m";
        QVERIFY(d.field(last) != nullptr && d.field(last)->visibleRegion().isEmpty());
        // Each room begins a row: all names stand one below the other.
        const QWidget* first = d.find<FieldEditor>("keep_out/a/name");
        for (const char* id : {"b", "c", "d"}) {
            const QWidget* other = d.find<FieldEditor>(QString("keep_out/%1/name").arg(id));
            QCOMPARE(other->x(), first->x());
            QVERIFY(other->y() > first->y());
        }
        d.field("keep_out/d/width_m")->setFocus();
        QTest::keyClick(d.field("keep_out/d/width_m"), Qt::Key_Tab);
        QTRY_VERIFY(!d.field(last)->visibleRegion().isEmpty());
        d.type(last, "700 mm");
        QCOMPARE(d.project().keepOut.back().height, 0.7);
    }
    /// The page of the base gives its drawing the whole side; others share it.
    void baseHasThePolarToItself() {
        Jib d;
        d.page("Arm");
        auto* polar = d.find<TippingPolar>("tippingPolar");
        const int shared = polar->height();
        QVERIFY(d.find<QWidget>("structurePlot") != nullptr);
        d.page("Base");
        QVERIFY(polar->height() > 1.8 * shared);
        QVERIFY(d.find<QWidget>("structurePlot") == nullptr);
    }
    /// What hangs shows the pull of its anchors in place of a base that cannot tip.
    void anchorsAreDrawnAgainstTheirPull() {
        Jib d;
        d.window->document().change("x", [](Project& p) {
            p.base.kind = BaseKind::WallBracket;
            p.base.anchorStrength.value = 0.0;
        });
        auto* polar = d.find<TippingPolar>("tippingPolar");
        QVERIFY(polar->inWords().contains("anchors"));
        const QImage without = polar->grab().toImage();
        d.page("Base");
        d.type("base/anchor_strength_N", "9 kN");
        QVERIFY(d.window->document().assessment().evaluation.rig.anchors);
        d.page("Arm");
        QCOMPARE(polar->size(), without.size());
        QVERIFY(polar->grab().toImage() != without);
    }
    /// On a leg the ballast is drawn there and not dragged; pads become a line of what gives way.
    void ballastOnALegAndPads() {
        Jib d;
        d.page("Base");
        auto* view = d.find<RigView>("rigView");
        QVERIFY(!view->handleAt("base/ballast_out_m").isNull());
        const double ratio = d.window->document().assessment().evaluation.rig.tipping.value();
        d.type("base/ballast_leg", "2");
        QVERIFY(view->handleAt("base/ballast_out_m").isNull());
        QVERIFY(d.window->document().assessment().evaluation.rig.tipping.value() != ratio);
        d.type("base/ballast_leg", "9");
        QVERIFY(!d.window->document().assessment().evaluation.rig.tipping);
        QVERIFY(d.find<TippingPolar>("tippingPolar")->inWords().contains("no leg"));
        d.type("base/ballast_leg", "0");
        QVERIFY(!d.find<SoftTable>("softTable")->inWords().contains("pads"));
        d.type("base/pad_stiffness_N_m", "60 N/mm");
        QVERIFY(d.find<SoftTable>("softTable")->inWords().contains("pads"));
    }
    void sectionsAreComparedAndUsed() {
        WindowDriver d;
        d.station(u"structure");
        d.pickFromMenu(d.find<QPushButton>("structureTools"), "Compare sections");
        auto* dialog = d.window->findChild<QDialog*>("sectionsDialog");
        QVERIFY(dialog != nullptr);
        auto* table = dialog->findChild<QTableWidget*>("sectionsDialogTable");
        QVERIFY(table->rowCount() >= 3 && table->columnCount() == 8);
        int row = 0; // a stock size larger than what is there
        for (int r = 1; r < table->rowCount(); ++r)
            if (table->item(r, 0)->text().contains("60")) row = r;
        table->selectRow(row);
        QTest::mouseClick(dialog->findChild<QPushButton*>("useSection"), Qt::LeftButton);
        const Section& now = std::get<LinearMechanism>(d.project().axes[0].mechanism).rail.section;
        QVERIFY(now.width > 0.04);
        closeDialog(dialog);
    }
    void chartIsPrinted() {
        Jib d;
        d.pickFromMenu(d.find<QPushButton>("structureTools"), "Counterweight chart");
        auto* dialog = d.window->findChild<ChartDialog*>("chartDialog");
        QVERIFY(dialog != nullptr);
        const int kits = static_cast<int>(d.project().kits.size());
        auto* table = dialog->findChild<QTableWidget*>("chartDialogTable");
        QCOMPARE(table->rowCount(), kits);
        QTest::mouseClick(dialog->findChild<QPushButton*>("addKit"), Qt::LeftButton);
        QTRY_COMPARE(table->rowCount(), kits + 1);
        const QString pdf = home_.path("chart.pdf");
        QCOMPARE(dialog->savePdf(pdf), QString());
        QFile file(pdf);
        QVERIFY(file.open(QIODevice::ReadOnly) && file.read(4) == "%PDF");
        QVERIFY(dialog->savePdf("/nowhere/at/all.pdf").contains("no such folder"));
        closeDialog(dialog);
    }
    void testsAreNotedAndGoStale() {
        WindowDriver d;
        d.station(u"structure");
        d.pickFromMenu(d.find<QPushButton>("structureTools"), "Tests and what is stale");
        auto* dialog = d.window->findChild<QDialog*>("testsDialog");
        QVERIFY(dialog != nullptr);
        auto* value = dialog->findChild<QLineEdit*>("testValue");
        QTest::keyClicks(value, "seven");
        QTest::mouseClick(dialog->findChild<QPushButton*>("noteTest"), Qt::LeftButton);
        QVERIFY(d.project().tests.empty()); // refused, with a sentence
        QVERIFY(dialog->findChild<QLabel*>("testsDialogSentence")->text().contains("seven"));
        value->clear();
        QTest::keyClicks(value, "7.5 Hz");
        QTest::mouseClick(dialog->findChild<QPushButton*>("noteTest"), Qt::LeftButton);
        QCOMPARE(d.project().tests.size(), std::size_t(1));
        QCOMPARE(d.project().axes[0].vibration.frequency, estimate(7.5, Source::Measured));
        auto* table = dialog->findChild<QTableWidget*>("testsDialogTable");
        QTRY_COMPARE(table->rowCount(), 1);
        QCOMPARE(table->item(0, 4)->text(), QStringLiteral("holds"));
        d.window->document().change("heavier", [](Project& p) {
            std::get<LinearMechanism>(p.axes[0].mechanism).movingMass.value += 1.0;
        });
        QTRY_VERIFY(table->item(0, 4)->text().contains("mass"));
        // A lean that tips the rig is no field, and is noted all the same.
        auto* what = dialog->findChild<QComboBox*>("testWhat");
        what->setFocus();
        QTest::keyClick(what, Qt::Key_End);
        QCOMPARE(what->currentText(), QStringLiteral("Leaned until it tips"));
        QTest::keyClicks(value, "12 deg");
        QTest::mouseClick(dialog->findChild<QPushButton*>("noteTest"), Qt::LeftButton);
        QTRY_COMPARE(table->rowCount(), 2);
        QCOMPARE(table->item(1, 0)->text(), QStringLiteral("Leaned until it tips"));
        QCOMPARE(table->item(1, 1)->text(), QStringLiteral("12°"));
        d.window->document().change("other feet", [](Project& p) { p.base.width += 0.1; });
        QTRY_VERIFY(table->item(1, 4)->text().contains("feet"));
        closeDialog(dialog);
    }
    void budgetShowsTheChosenShot() {
        WindowDriver d;
        d.station(u"structure");
        d.pickFromMenu(d.find<QPushButton>("structureTools"), "Error budget");
        auto* dialog = d.window->findChild<QDialog*>("budgetDialog");
        auto* bars = dialog->findChild<BudgetBars*>("budgetBars");
        QVERIFY(bars->inWords().contains("jitter"));
        auto* shots = dialog->findChild<QComboBox*>("budgetShot");
        const QString first = bars->inWords();
        shots->setFocus();
        QTest::keyClick(shots, shots->currentIndex() == 0 ? Qt::Key_Down : Qt::Key_Up);
        QVERIFY(bars->inWords() != first);
        closeDialog(dialog);
    }
    void roomsAreAddedAndSwept() {
        Jib d;
        auto* part = d.find<QComboBox>("structurePart");
        part->setCurrentIndex(part->findText("Place and people"));
        d.window->showStation(u"structure");
        d.click(d.find<QPushButton>("roomListAdd"));
        const std::string id = d.project().keepOut.back().id;
        d.type(QStringLiteral("keep_out/%1/x_m").arg(QString::fromStdString(id)), "1.5 m");
        QCOMPARE(d.project().keepOut.back().x, 1.5);
        bool said = false;
        for (const Verdict& v : d.window->document().assessment().verdicts)
            said = said || ruleKey(v) == "clearance";
        QVERIFY(said);
    }
    /// Rows are added, moved and removed where they stand, and Undo takes each back.
    void listsAreEditedInPlace_data() {
        QTest::addColumn<QString>("part");
        QTest::addColumn<QString>("list");
        QTest::newRow("rooms") << "Place and people"
                               << "roomList";
        QTest::newRow("discs") << "Counterweight"
                               << "discList";
        QTest::newRow("bodies") << "What sticks out"
                                << "axisBodyList";
        QTest::newRow("column") << "What sticks out"
                                << "columnBodyList";
    }
    void listsAreEditedInPlace() {
        QFETCH(QString, part);
        QFETCH(QString, list);
        Jib d;
        auto* parts = d.find<QComboBox>("structurePart");
        parts->setCurrentIndex(parts->findText(part));
        d.window->showStation(u"structure");
        const Project before = d.project();
        const auto rows = [&] {
            int n = 0;
            for (auto* b : d.window->findChildren<QPushButton*>(QRegularExpression("^" + list + "Remove")))
                n += b->isVisible();
            return n;
        };
        const int there = rows();
        d.click(d.find<QPushButton>(list + "Add"));
        d.click(d.find<QPushButton>(list + "Add"));
        QCOMPARE(rows(), there + 2);
        const Project two = d.project();
        d.click(d.find<QPushButton>(list + "Up" + QString::number(there + 1)));
        QVERIFY(d.project() != two);
        d.click(d.find<QPushButton>(list + "Down" + QString::number(there)));
        QVERIFY(d.project() == two);
        d.click(d.find<QPushButton>(list + "Remove" + QString::number(there)));
        QCOMPARE(rows(), there + 1);
        while (!(d.project() == before)) d.window->document().undoStack()->undo();
        QCOMPARE(rows(), there);
    }
    /// Brief: a payload item is added and typed, and the arm that carries it feels it.
    void payloadReachesTheArm() {
        Jib d;
        d.station(u"brief");
        d.unfold();
        const double before = d.window->document().assessment().evaluation.axes[1].model.chain.load.inertia;
        auto* add = d.find<QPushButton>("payloadListAdd");
        QVERIFY(add != nullptr);
        QTest::mouseClick(add, Qt::LeftButton);
        const QString id = QString::fromStdString(d.project().payload.back().id);
        d.type(QStringLiteral("payload/%1/mass_kg").arg(id), "0.5 kg");
        QCOMPARE(d.boom().arm, ArmKind::ParallelLinks); // it moves as the arm's end does
        const double reach = d.boom().reach;
        QVERIFY(std::abs(d.window->document().assessment().evaluation.axes[1].model.chain.load.inertia -
                         before - 0.5 * reach * reach) < 1e-6);
        auto* rest = d.find<CompletenessCard>("completenessCard");
        QVERIFY(rest != nullptr && rest->inWords().contains("Slip ring"));
        auto* tick = d.find<FieldEditor>("equipment/spare_parts");
        QVERIFY(rest->inWords().contains("Spare parts: missing"));
        QTest::mouseClick(tick->findChild<QCheckBox*>(), Qt::LeftButton, {}, QPoint(10, 13));
        QVERIFY(rest->inWords().contains("Spare parts: there"));
        QVERIFY(d.find<DemandsCard>("demandsCard")->inWords().contains("Boom"));
    }
    /// A slide that goes to the subject asks for the focus at once, and no longer when it is taken back.
    void pushIsTicked() {
        WindowDriver d;
        d.station(u"brief");
        d.unfold();
        const QString base = "shots/" + QString::fromStdString(d.project().shots[0].id);
        d.type(base + "/subject_distance_m", "3 m");
        const auto told = [&]() -> std::string {
            const Assessment& now = d.window->document().assessment();
            for (const Verdict& v : now.verdicts)
                if (ruleKey(v) == "focus_pull") return sentence(v, d.project(), units::System::Metric);
            return {};
        };
        QVERIFY(told().empty());
        auto* tick = d.find<FieldEditor>(base + "/towards_subject");
        QVERIFY(tick != nullptr);
        QTest::mouseClick(tick->findChild<QCheckBox*>(), Qt::LeftButton, {}, QPoint(10, 13));
        QVERIFY(d.project().shots[0].towards);
        QVERIFY(told().find("2140 mm") != std::string::npos); // 860 mm nearer
        QVERIFY(told().find("Pull focus") != std::string::npos);
        d.window->document().undoStack()->undo();
        QVERIFY(told().empty());
    }
    void kindOfShotIsChosen() {
        WindowDriver d;
        d.station(u"brief");
        d.unfold();
        const std::string shot = d.project().shots[0].id;
        auto* kind = d.find<FieldEditor>(QStringLiteral("shots/%1/kind").arg(QString::fromStdString(shot)));
        QVERIFY(kind != nullptr);
        auto* combo = kind->findChild<QComboBox*>();
        combo->setFocus();
        QTest::keyClick(combo, Qt::Key_Down);
        QTest::keyClick(combo, Qt::Key_Down);
        QCOMPARE(d.project().shots[0].kind, ShotKind::Interval);
        d.type(QStringLiteral("shots/%1/frames").arg(QString::fromStdString(shot)), "300");
        QCOMPARE(d.project().shots[0].frames, 300);
        QCOMPARE(d.window->document().assessment().evaluation.axes[0].shots[0].picture.blur.value(), 0.0);
    }
};

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    QApplication::setStyle("Fusion");
    StructureStationTest test;
    return QTest::qExec(&test, argc, argv);
}
#include "structure_station_test.moc"
