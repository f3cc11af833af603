// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/edit_axes.h"
#include "io/project/project_file.h"
#include "support/dialogs.h"
#include "support/window.h"

#include <QAction>
#include <QFile>
#include <QMessageBox>

using namespace gantry;

/// New, open, save as, recent and leaving, with the dialogs that stand between a person and the loss of work.
class FileMenuTest : public QObject {
    Q_OBJECT
    TestHome home_;

    static void key(WindowDriver& d, Qt::Key k, Qt::KeyboardModifiers m = Qt::ControlModifier) {
        QTRY_VERIFY(
            (d.window->activateWindow(), QTest::qWait(10), QApplication::activeWindow() == d.window.get()));
        QTest::keyClick(d.window.get(), k, m);
    }
    static void edit(WindowDriver& d) {
        d.window->document().change("rename", [](Project& p) { p.name = "Changed"; });
    }
    static Project onDisk(const QString& path) {
        const auto read = io::readProject(textOfFile(path.toStdString()));
        return std::holds_alternative<io::LoadedProject>(read) ? std::get<io::LoadedProject>(read).project
                                                               : Project{};
    }

private slots:
    void anUnchangedProjectIsLeftWithoutAsking() {
        WindowDriver d;
        const NoDialog none;
        key(d, Qt::Key_N);
        QTest::qWait(100);
        QVERIFY(d.project().axes.empty());
        QVERIFY(d.window->document().path().isEmpty());
    }
    void cancelKeepsEverything() {
        WindowDriver d;
        edit(d);
        const Project before = d.project();
        const int steps = d.window->document().undoStack()->index();
        const Answer<QMessageBox> box(press(QMessageBox::Cancel));
        key(d, Qt::Key_N);
        QVERIFY(box.came());
        QVERIFY(d.project() == before);
        QCOMPARE(d.window->document().undoStack()->index(), steps);
        const Answer<QMessageBox> again(press(QMessageBox::Cancel));
        d.window->close();
        QVERIFY(again.came() && d.window->isVisible());
    }
    void discardLeavesTheFileAlone() {
        WindowDriver d;
        const QString path = d.window->document().path();
        const Project file = onDisk(path);
        edit(d);
        const Answer<QMessageBox> box(press(QMessageBox::Discard));
        key(d, Qt::Key_N);
        QVERIFY(box.came());
        QVERIFY(d.project().axes.empty());
        QVERIFY(onDisk(path) == file);
    }
    void saveWritesBeforeLeaving() {
        WindowDriver d;
        const QString path = d.window->document().path();
        edit(d);
        const Answer<QMessageBox> box(press(QMessageBox::Save));
        d.window->close();
        QVERIFY(box.came() && !d.window->isVisible());
        QCOMPARE(onDisk(path).name, std::string("Changed"));
        QVERIFY(QFile::exists(path + "~")); // and what was there before
    }
    void saveAsGivesTheEndingAndIsRemembered() {
        WindowDriver d;
        edit(d);
        const QString wanted = home_.path("elsewhere");
        {
            const Answer<QFileDialog> box(typeName(wanted));
            key(d, Qt::Key_S, Qt::ControlModifier | Qt::ShiftModifier);
            QVERIFY(box.came());
        }
        QTRY_COMPARE(d.window->document().path(), wanted + ".gantry");
        QVERIFY(!d.window->document().edited());
        QVERIFY(onDisk(wanted + ".gantry") == d.project());
        QVERIFY(d.window->preferences().recentFiles().contains(wanted + ".gantry"));
        // Saved again without a question.
        edit(d);
        {
            const NoDialog none;
            key(d, Qt::Key_S);
            QTRY_VERIFY(!d.window->document().edited());
        }
        QCOMPARE(onDisk(wanted + ".gantry").name, std::string("Changed"));
        // Where nothing can be written, a sentence says so and nothing is lost.
        const Project kept = d.project();
        const Answer<QFileDialog> bad(typeName("/proc/place.gantry"));
        key(d, Qt::Key_S, Qt::ControlModifier | Qt::ShiftModifier);
        QVERIFY(bad.came());
        QTRY_VERIFY2(d.status().contains("/proc/place.gantry"), qPrintable(d.status()));
        QVERIFY(d.project() == kept);
        QCOMPARE(d.window->document().path(), wanted + ".gantry");
    }
    void openReadsWhatWasChosen() {
        WindowDriver d;
        const QString other = home_.path("orbit.gantry");
        QFile::copy(QString::fromStdString(dataPath("demo/moss-orbit.gantry")), other);
        const Answer<QFileDialog> box(typeName(other));
        key(d, Qt::Key_O);
        QVERIFY(box.came());
        QVERIFY(d.project() == onDisk(other));
        QCOMPARE(d.window->document().path(), other);
        // Not chosen: all stays.
        const Answer<QFileDialog> nothing([](QFileDialog* dialog) { dialog->reject(); });
        key(d, Qt::Key_O);
        QVERIFY(nothing.came());
        QCOMPARE(d.window->document().path(), other);
    }
    /// Every kind of axis that the menu offers comes at the lens end, chosen, and goes with one undo.
    void axesAreAddedFromTheMenu() {
        WindowDriver d;
        const Project before = d.project();
        QMenu* menu = d.window->findChild<QMenu*>("axisMenu");
        QVERIFY(menu != nullptr && menu->actions().size() == 12);
        for (QAction* a : menu->actions()) {
            QMenu* shown = menu;
            shown->popup(QPoint(10, 10));
            QTRY_VERIFY(shown->isVisible());
            QTest::mouseClick(shown, Qt::LeftButton, {}, shown->actionGeometry(a).center());
            QTRY_VERIFY(!shown->isVisible());
            QCOMPARE(d.project().axes.size(), before.axes.size() + 1);
            QCOMPARE(d.window->session().axis(), static_cast<int>(before.axes.size()));
            QCOMPARE(kindOf(d.project().axes.back()) == AxisKind::Linear,
                     a->text() == "Slide" || a->text() == "Lift" || a->text() == "Other, straight");
            d.window->document().undoStack()->undo();
            QVERIFY(d.project() == before);
            d.window->session().setAxis(0);
        }
    }
};

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    QApplication::setStyle("Fusion");
    FileMenuTest test;
    return QTest::qExec(&test, argc, argv);
}
#include "file_menu_test.moc"
