// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/file_lock.h"
#include "app/model/recovery.h"
#include "app/model/state_folder.h"
#include "app/preferences/shelf.h"
#include "app/shell/versions_dialog.h"
#include "core/model/fields.h"
#include "core/model/size_limits.h"
#include "io/project/project_file.h"
#include "io/project/versions.h"
#include "support/dialogs.h"
#include "support/faulty_calls.h"
#include "support/window.h"

#include <QDir>
#include <QFileInfo>
#include <QPlainTextEdit>
#include <QTableWidget>
#include <QToolTip>
#include <thread>
#include <unistd.h>

using namespace gantry;
using namespace gantry::app;

namespace {

/// A disk that takes its time.
class SlowCalls : public io::FileCalls {
public:
    int sync(int file) override {
        std::this_thread::sleep_for(std::chrono::milliseconds(400));
        return FileCalls::sync(file);
    }
};

void put(const QString& path, const std::string& text) {
    QFile f(path);
    QVERIFY(f.open(QIODevice::WriteOnly) &&
            f.write(text.c_str(), qint64(text.size())) == qint64(text.size()));
}

Project fileProject(const QString& path) {
    auto read = io::readProject(textOfFile(path.toStdString()));
    return std::holds_alternative<io::LoadedProject>(read) ? std::get<io::LoadedProject>(read).project
                                                           : Project{};
}

std::string renamed(const char* name) {
    Project p = demoProject();
    p.name = name;
    return io::writeProject(p);
}

} // namespace

/// What a person's work goes through in the window: full disks, slow ones, other programs, other windows.
class KeepWindowTest : public QObject {
    Q_OBJECT
    TestHome home_;

    static void key(const WindowDriver& d, Qt::Key k, Qt::KeyboardModifiers m = Qt::ControlModifier) {
        QTRY_VERIFY(
            (d.window->activateWindow(), QTest::qWait(10), QApplication::activeWindow() == d.window.get()));
        QTest::keyClick(d.window.get(), k, m);
    }
    static void rename(const WindowDriver& d, const char* name) {
        d.window->document().change("Rename", [&](Project& p) { p.name = name; });
    }
    static QString header(const WindowDriver& d) { return d.window->windowTitle(); }
    static int recoveryCopies() {
        return int(QDir(Recovery::folder()).entryList({"*.gantry"}, QDir::Files).size());
    }

private slots:
    void init() { QDir(stateFolder()).removeRecursively(); }
    void aFullDiskIsSaidAndNothingIsLost() {
        WindowDriver d;
        const QString path = d.window->document().path();
        const std::string before = textOfFile(path.toStdString());
        rename(d, "Full");
        FaultyCalls calls;
        calls.room = 3000;
        d.window->document().setFileCalls(calls);
        key(d, Qt::Key_S);
        QTRY_VERIFY2(d.status().contains("disk is full") && d.status().contains(path),
                     qPrintable(d.status()));
        QVERIFY(d.window->document().edited());
        QVERIFY(header(d).contains("edited"));
        QCOMPARE(textOfFile(path.toStdString()), before);
        QTRY_COMPARE(recoveryCopies(), 1); // and it stays
        // The system says only at the very end that it cannot be sure: that is not saved either.
        FaultyCalls unsure;
        unsure.failAt = 9; // the folder's sync, without a backup there yet
        d.window->document().setFileCalls(unsure);
        key(d, Qt::Key_S);
        QTRY_VERIFY(unsure.count() >= 10);
        QTRY_VERIFY(!d.window->document().saving());
        QVERIFY2(unsure.names().value(9) != "syncFolder" || d.window->document().edited(),
                 qPrintable(unsure.names().join(' ')));
        d.window->document().setFileCalls(io::systemCalls());
        key(d, Qt::Key_S);
        QTRY_VERIFY(!d.window->document().edited());
        QCOMPARE(fileProject(path).name, std::string("Full"));
        QTRY_COMPARE(recoveryCopies(), 0);
    }
    void theWindowStaysAliveWhileTheDiskWorks() {
        WindowDriver d;
        SlowCalls slow;
        d.window->document().setFileCalls(slow);
        rename(d, "First");
        key(d, Qt::Key_S);
        QVERIFY(d.window->document().saving());
        QVERIFY(header(d).contains("saving"));
        d.station(u"brief");
        d.type("axes/slide/mechanism/moving_mass_kg", "4.25 kg"); // goes on meanwhile
        QVERIFY(d.window->document().saving());
        QTRY_VERIFY(!d.window->document().saving());
        QVERIFY(d.window->document().edited()); // the mass is not in the file yet
        const QString path = d.window->document().path();
        QCOMPARE(fileProject(path).name, std::string("First"));
        QVERIFY(!(fileProject(path) == d.project()));
        // Undo leads back to what is saved.
        d.window->document().undoStack()->undo();
        QVERIFY(!d.window->document().edited());
        d.window->document().undoStack()->redo();
        // Two saves in a row: the second begins when the first has ended, with what is there then.
        key(d, Qt::Key_S);
        rename(d, "Second");
        key(d, Qt::Key_S);
        QTRY_VERIFY(!d.window->document().saving() && !d.window->document().edited());
        QVERIFY(fileProject(path) == d.project());
        // Leaving waits for the save under way.
        rename(d, "Third");
        key(d, Qt::Key_S);
        QVERIFY(d.window->document().saving());
        d.window->close();
        QVERIFY(!d.window->isVisible());
        QCOMPARE(fileProject(path).name, std::string("Third"));
    }
    void anotherProgramsChangeIsAskedAbout_data() {
        QTest::addColumn<QString>("button");
        QTest::newRow("mine") << "Save mine over it";
        QTest::newRow("theirs") << "Load theirs";
        QTest::newRow("copy") << "Save mine as a copy…";
        QTest::newRow("cancel") << "Cancel";
    }
    void anotherProgramsChangeIsAskedAbout() {
        QFETCH(QString, button);
        WindowDriver d;
        const QString path = d.window->document().path();
        rename(d, "Mine");
        put(path, renamed("Theirs"));
        QTRY_VERIFY2(header(d).contains("changed on disk"), qPrintable(header(d)));
        const Answer<QMessageBox> box([&](QMessageBox* b) {
            QVERIFY(b->text().contains(path) && b->text().contains("Nothing was written"));
            press(button)(b);
        });
        std::unique_ptr<Answer<QFileDialog>> name;
        const QString copy = home_.path("copy-of-mine.gantry");
        if (button.startsWith("Save mine as")) name = std::make_unique<Answer<QFileDialog>>(typeName(copy));
        // The second answer must not be asked while the box is up: it looks only at file dialogs in its turn.
        key(d, Qt::Key_S);
        QTRY_VERIFY(box.came());
        QTRY_VERIFY(QApplication::activeModalWidget() == nullptr && !d.window->document().saving());
        const Document& doc = d.window->document();
        if (button == "Save mine over it") {
            QTRY_VERIFY(!doc.edited());
            QCOMPARE(fileProject(path).name, std::string("Mine"));
            QCOMPARE(fileProject(path + "~").name, std::string("Theirs"));
            const auto versions = io::versionsIn(doc.versionFolder().toStdString());
            QCOMPARE(versions.size(), std::size_t(2));
            QCOMPARE(fileProject(QString::fromStdString(versions[1].file)).name, std::string("Theirs"));
        } else if (button == "Load theirs") {
            QCOMPARE(d.project().name, std::string("Theirs"));
            QVERIFY(!doc.edited());
            d.window->document().undoStack()->undo();
            QCOMPARE(d.project().name, std::string("Mine"));
            QVERIFY(doc.edited());
        } else if (button == "Cancel") {
            QVERIFY(doc.edited());
            QCOMPARE(fileProject(path).name, std::string("Theirs"));
            QCOMPARE(d.project().name, std::string("Mine"));
        } else {
            QTRY_COMPARE(doc.path(), copy);
            QCOMPARE(fileProject(copy).name, std::string("Mine"));
            QCOMPARE(fileProject(path).name, std::string("Theirs"));
            QFile::remove(copy);
        }
    }
    /// What is open is called saved only while the file holds all of it.
    void whatIsLoadedFromDiskIsOnlySavedIfItIsTheFile() {
        WindowDriver d;
        Document& doc = d.window->document();
        doc.change("Remove", [](Project& p) { p.shots.pop_back(); }); // its id is retired from now on
        Project theirs = fileProject(doc.path());
        theirs.name = "Theirs";
        put(doc.path(), io::writeProject(theirs));
        QString error;
        QVERIFY(doc.takeFromDisk(error));
        QCOMPARE(d.project().name, std::string("Theirs"));
        QCOMPARE(doc.edited(), !(d.project() == fileProject(doc.path())));
        QVERIFY(doc.edited());
        QVERIFY(doc.save(error));
        QVERIFY(!doc.edited() && d.project() == fileProject(doc.path()));
    }
    void touchedButTheSameIsNoChange() {
        WindowDriver d;
        const QString path = d.window->document().path();
        put(path, textOfFile(path.toStdString()));
        QTest::qWait(600);
        QVERIFY(!header(d).contains("changed on disk"));
        QFile::remove(path);
        QTRY_VERIFY(header(d).contains("changed on disk"));
        rename(d, "Again");
        const NoDialog none;
        key(d, Qt::Key_S); // what is gone can be written without a question
        QTRY_VERIFY(!d.window->document().edited());
        QCOMPARE(fileProject(path).name, std::string("Again"));
    }
    void oneFileUnderManyNamesIsOneFile() {
        const QString path = home_.path("one.gantry"), soft = home_.path("soft.gantry"),
                      hard = home_.path("hard.gantry");
        for (const QString& p : {path, soft, hard}) QFile::remove(p);
        QString error;
        QStringList notices;
        Document first;
        first.newProject(demoProject());
        QVERIFY(first.saveAs(path, error));
        QVERIFY(QFile::link(path, soft));
        Document second;
        QVERIFY(second.open(soft, error, notices));
        QVERIFY(second.readOnly());
        // After a save the file has another inode, and the lock goes with it.
        first.change("x", [](Project& p) { p.name = "x"; });
        QVERIFY(first.save(error));
        QVERIFY(::link(path.toUtf8().constData(), hard.toUtf8().constData()) == 0);
        Document third;
        QVERIFY(third.open(hard, error, notices));
        QVERIFY(third.readOnly());
        // Nothing is written onto what somebody else has open.
        Document fourth;
        fourth.newProject({});
        for (const QString& p : {path, soft, hard}) {
            const std::string before = textOfFile(p.toStdString());
            QVERIFY(!fourth.saveAs(p, error));
            QVERIFY2(error.contains("open in another window"), qPrintable(error));
            QCOMPARE(textOfFile(p.toStdString()), before);
        }
        // The window that has it open is told that a second name is left behind.
        first.change("y", [](Project& p) { p.name = "y"; });
        QVERIFY(first.save(error));
        QVERIFY2(error.contains("hard link"), qPrintable(error));
        QCOMPARE(fileProject(hard).name, std::string("x"));
        // Saved through the link the link stays a link.
        Document fifth;
        first.newProject({});
        QVERIFY(fifth.open(soft, error, notices) && !fifth.readOnly());
        fifth.change("z", [](Project& p) { p.name = "z"; });
        QVERIFY(fifth.save(error));
        QVERIFY(QFileInfo(soft).isSymLink());
        QCOMPARE(fileProject(path).name, std::string("z"));
    }
    void anEarlierVersionComesBackInOneStep() {
        WindowDriver d;
        rename(d, "Monday");
        key(d, Qt::Key_S);
        QTRY_VERIFY(!d.window->document().edited());
        d.window->document().change(
            "Set", [](Project& p) { setNumberAt(p, "axes/slide/mechanism/rail_length_m", 1.5); });
        key(d, Qt::Key_S);
        QTRY_VERIFY(!d.window->document().edited());
        const Project now = d.project();
        for (QAction* a : d.window->findChildren<QAction*>("actionVersions")) a->trigger();
        auto* dialog = d.window->findChild<VersionsDialog*>();
        QVERIFY(dialog != nullptr && dialog->isVisible());
        auto* says = dialog->findChild<QPlainTextEdit*>("versionDifferences");
        auto* restore = dialog->findChild<QPushButton*>("restoreVersion");
        QCOMPARE(dialog->findChild<QTableWidget*>("versionsDialogTable")->rowCount(),
                 3);                                       // both saves, and the backup beside the file
        QVERIFY(says->toPlainText().contains("the same")); // the newest is what is open
        QVERIFY(!restore->isEnabled());
        dialog->findChild<QTableWidget*>("versionsDialogTable")->setFocus();
        QTest::keyClick(dialog->findChild<QTableWidget*>("versionsDialogTable"), Qt::Key_Down);
        QVERIFY2(says->toPlainText().contains("Slide, Rail length: 1500 mm → 1100 mm"),
                 qPrintable(says->toPlainText()));
        QTest::mouseClick(restore, Qt::LeftButton);
        QTRY_VERIFY(d.window->findChild<VersionsDialog*>() == nullptr);
        QCOMPARE(*numberAt(d.project(), "axes/slide/mechanism/rail_length_m"), 1.1);
        QCOMPARE(d.window->document().undoStack()->undoText(), QString("Restore an earlier version"));
        d.window->document().undoStack()->undo();
        QVERIFY(d.project() == now);
    }
    void withoutARecoveryFolderTheWindowSaysSo() {
        WindowDriver d;
        const QString folder = Recovery::folder();
        QDir(folder).removeRecursively();
        put(folder, "in the way");
        rename(d, "At risk");
        QTRY_VERIFY_WITH_TIMEOUT(header(d).contains("no recovery copy"), 8000);
        QVERIFY2(d.status().contains("No recovery copy"), qPrintable(d.status()));
        QFile::remove(folder); // the way is free again
        QTRY_VERIFY_WITH_TIMEOUT(!header(d).contains("no recovery copy"), 8000);
        QCOMPARE(recoveryCopies(), 1);
        d.window->document().newProject({});
    }
    void theStateFolderNeedsNoHome() {
        const QByteArray state = qgetenv("XDG_STATE_HOME"), home = qgetenv("HOME");
        qunsetenv("XDG_STATE_HOME");
        qunsetenv("HOME");
        const QString folder = stateFolder("probe");
        QVERIFY2(QFileInfo(folder).isWritable(), qPrintable(folder));
        QVERIFY(QDir(folder).removeRecursively());
        qputenv("XDG_STATE_HOME", state);
        qputenv("HOME", home);
    }
    /// A copy that is older than its file is not what is offered first; one that cannot be read is not
    /// skipped.
    void recoveryCopiesAreComparedWithTheirFiles() {
        const QString file = home_.path("known.gantry"), copy = Recovery::folder() + "/aaaa.gantry",
                      broken = Recovery::folder() + "/bbbb.gantry",
                      same = Recovery::folder() + "/cccc.gantry";
        put(copy, renamed("Copy"));
        put(copy + ".from", file.toStdString());
        put(broken, "{ not a project");
        QTest::qWait(1100);
        put(file, renamed("File"));
        put(same, renamed("File"));
        put(same + ".from", file.toStdString());
        const auto left = Recovery::abandoned();
        QCOMPARE(left.size(), 2);
        QVERIFY(!QFile::exists(same)); // says nothing that the file does not
        for (const RecoveredCopy& c : left)
            if (c.file == copy) {
                QVERIFY(c.fileIsNewer && c.problem.isEmpty());
                QCOMPARE(c.differences.size(), 1);
                QVERIFY(c.differences[0].contains("“File” → “Copy”"));
            } else
                QVERIFY(!c.problem.isEmpty());
        WindowDriver d(false);
        int told = 0;
        QTimer answers;
        connect(&answers, &QTimer::timeout, this, [&] {
            auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
            if (box == nullptr || !box->isVisible()) return;
            if (box->objectName() == "unreadableCopyBox") {
                QVERIFY(box->informativeText().contains(broken));
                ++told;
            } else
                QVERIFY(box->text().contains("the copy is the older"));
            QTest::keyClick(box, Qt::Key_Return); // the default: the newer of the two
        });
        answers.start(20);
        QVERIFY(d.window->offerRecovery());
        QCOMPARE(told, 1);
        QCOMPARE(d.project().name, std::string("File"));
        QVERIFY(QFile::exists(broken) && !QFile::exists(copy));
    }
    void aSaveThatWasKilledLeavesItsCopyAsAVersion() {
        const QString path = home_.path("killed.gantry");
        put(path, renamed("Before"));
        FaultyCalls calls;
        calls.leavesStrays = true;
        calls.failAt = 2;
        const std::string text = renamed("Unfinished");
        io::writeFile({path.toStdString(), text, true}, calls);
        const QDir dir(QFileInfo(path).path());
        const QString mine = dir.entryList({".*.saving"}, QDir::Files | QDir::Hidden).value(0);
        QVERIFY(!mine.isEmpty());
        QString dead = mine;
        dead.replace("-" + QString::number(::getpid()) + "-", "-999999999-");
        QVERIFY(QFile::rename(dir.filePath(mine), dir.filePath(dead)));
        Document d;
        QString error;
        QStringList notices;
        QVERIFY(d.open(path, error, notices));
        QCOMPARE(d.project().name, std::string("Before"));
        QVERIFY2(notices.join(' ').contains("did not finish"), qPrintable(notices.join(' ')));
        const auto versions = io::versionsIn(d.versionFolder().toStdString());
        QCOMPARE(versions.size(), std::size_t(1));
        QCOMPARE(fileProject(QString::fromStdString(versions[0].file)).name, std::string("Unfinished"));
        QVERIFY(dir.entryList({".*.saving"}, QDir::Files | QDir::Hidden).isEmpty());
    }
    /// What could not be read again is refused where it is typed.
    void tooMuchIsRefusedAtTheEdit() {
        WindowDriver d;
        const Project before = d.project();
        d.window->document().change("Notes", [](Project& p) { p.notes = std::string(mostLetters + 1, 'x'); });
        QVERIFY(d.project() == before);
        QVERIFY2(d.status().contains("Notes") && d.status().contains("20000"), qPrintable(d.status()));
        d.window->document().change("Axes", [](Project& p) {
            for (std::size_t i = 0; i <= mostOf("axes"); ++i) {
                p.axes.push_back(p.axes[0]);
                p.axes.back().id = "a" + std::to_string(i);
            }
        });
        QVERIFY(d.project() == before);
        QVERIFY2(d.status().contains("axes") && d.status().contains("200"), qPrintable(d.status()));
        // Pasted control characters do not get into a name.
        d.window->document().change("Name", [](Project& p) { p.name = "a\x1b[31mb"; });
        QCOMPARE(d.project().name, std::string("a\xEF\xBF\xBD[31mb"));
    }
    /// Names are text, whatever they look like.
    void namesAreNoMarkup() {
        WindowDriver d;
        const QString name = "<b>bold</b><img src='/etc/hostname'>";
        d.window->document().change("Names", [&](Project& p) {
            p.name = name.toStdString();
            for (Axis& a : p.axes) a.name = name.toStdString();
        });
        for (const QString& station : d.window->stationIds()) {
            d.station(station);
            QTest::qWait(30);
            int labels = 0;
            for (const QLabel* label : d.window->findChildren<QLabel*>())
                if (label->isVisible()) {
                    ++labels;
                    QVERIFY2(label->textFormat() == Qt::PlainText || !Qt::mightBeRichText(label->text()),
                             qPrintable(label->objectName() + label->text()));
                }
            QVERIFY(labels > 0);
        }
        QMessageBox box(QMessageBox::Warning, "t", name, QMessageBox::Ok, d.window.get());
        box.show();
        QTRY_VERIFY(box.isVisible());
        for (const QLabel* label : box.findChildren<QLabel*>())
            if (label->isVisible() && !label->text().isEmpty()) QCOMPARE(label->textFormat(), Qt::PlainText);
        box.close();
        QToolTip::showText(QPoint(10, 10), name, d.window.get());
        const QLabel* tip = nullptr;
        QTRY_VERIFY(([&] {
            for (QWidget* w : QApplication::topLevelWidgets())
                if (w->inherits("QTipLabel") && w->isVisible()) tip = qobject_cast<QLabel*>(w);
            return tip != nullptr;
        }()));
        QCOMPARE(tip->text(), name);
        QCOMPARE(tip->textFormat(), Qt::PlainText);
        QToolTip::hideText();
        d.window->document().newProject({});
    }
    /// Two windows on one shelf: both add, one removes, and a column of the user's own stays.
    void theShelfIsSharedBetweenWindows() {
        put(Shelf::path(),
            "family,name,count,teeth,pitch_m,drawer\npulley,A,1,20,0.002,left\npulley,B,1,16,0.002,right\n");
        Shelf first, second;
        QCOMPARE(first.parts().size(), std::size_t(2));
        QString error;
        auto ours = first.parts();
        ours[0].count = 3;
        QVERIFY2(first.set(ours, error), qPrintable(error));
        auto theirs = second.parts();
        theirs.pop_back();
        theirs.push_back(theirs[0]);
        theirs.back().name = "C";
        QVERIFY2(second.set(theirs, error), qPrintable(error));
        const Shelf after;
        QStringList names;
        for (const parts::Part& p : after.parts())
            names << QString::fromStdString(p.name) + QString::number(p.count);
        names.sort();
        QCOMPARE(names, (QStringList{"A3", "C1"}));
        QVERIFY(textOfFile(Shelf::path().toStdString()).find("left") != std::string::npos);
        // What cannot be read is not written over.
        QFile::remove(Shelf::path());
        QVERIFY(QDir().mkpath(Shelf::path()));
        QVERIFY(!first.set(ours, error) && error.contains("folder"));
        QDir().rmdir(Shelf::path());
    }
    void undoHasACeilingOfMemory() {
        WindowDriver d;
        Document& doc = d.window->document();
        doc.change("Keys", [](Project& p) {
            for (int i = 0; i < 100000; ++i) p.kept.push_back({"", "key" + std::to_string(i), "\"value\""});
        });
        const std::size_t once = doc.undoStack()->bytes();
        for (int i = 0; i < 100; ++i)
            doc.change("Rename", [&](Project& p) { p.axes[0].name = "n" + std::to_string(i); });
        QVERIFY(doc.undoStack()->bytes() < once + (8u << 20)); // a hundred edits took 2.96 GB
        QCOMPARE(doc.undoStack()->count(), 101);
        // Each of these replaces megabytes; the oldest are given up.
        for (int i = 0; i < 30; ++i)
            doc.change("Notes", [&](Project& p) {
                for (KeptKey& k : p.kept) k.rawJson = std::string(20, static_cast<char>('0' + i % 10));
            });
        QVERIFY(doc.undoStack()->bytes() <= EditHistory::mostBytes);
        QVERIFY(doc.undoStack()->count() < 131 && doc.undoStack()->count() > 1);
        const Project last = doc.project();
        while (doc.undoStack()->canUndo()) doc.undoStack()->undo();
        while (doc.undoStack()->canRedo()) doc.undoStack()->redo();
        QVERIFY(doc.project() == last);
        doc.newProject({});
    }
    /// Whatever is typed, chosen or taken from the fixes, in whatever order: saved, it opens equal.
    void anySequenceOfEditsOpensEqual() {
        WindowDriver d;
        std::mt19937 random(20261129);
        const auto below = [&](std::size_t n) { return n > 0 ? random() % n : 0; };
        const QStringList typed{"1",      "0",        "-3",     "12 in", "1e-320", "0.0000000001",
                                "999999", "3 1/8 in", "2.5 kg", "20",    "1/50 s", "ein Name",
                                "90 deg", "1e308",    "7 N",    "50 %",  ""};
        const QString path = home_.path("sequence.gantry");
        int fixes = 0;
        const Project first = d.project();
        for (int step = 0; step < 160; ++step) {
            Document& doc = d.window->document();
            switch (below(12)) {
            case 0:
                d.window->showStation(d.window->stationIds().at(static_cast<qsizetype>(below(5))));
                break;
            case 1:
                d.window->session().setAxis(static_cast<int>(below(doc.project().axes.size())));
                break;
            case 2:
                below(2) == 0 ? doc.undoStack()->undo() : doc.undoStack()->redo();
                break;
            case 3: {
                const auto* menu = d.window->findChild<QMenu*>("axisMenu");
                if (doc.project().axes.size() < 6)
                    menu->actions()[static_cast<qsizetype>(
                                        below(static_cast<std::size_t>(menu->actions().size())))]
                        ->trigger();
                break;
            }
            case 4:
            case 5: { // a fix, once the worker has found some; Drives has the most to mend
                d.window->showStation(u"drives");
                QPushButton* fix = nullptr;
                if (QTest::qWaitFor([&] { return (fix = d.find<QPushButton>("fix0")) != nullptr; }, 1500)) {
                    QTest::mouseClick(fix, Qt::LeftButton);
                    ++fixes;
                }
                break;
            }
            default: {
                QList<FieldEditor*> editors;
                for (FieldEditor* e : d.window->findChildren<FieldEditor*>())
                    if (e->isVisible() && !e->path().isEmpty()) editors << e;
                if (editors.isEmpty()) break;
                auto* editor =
                    editors[static_cast<qsizetype>(below(static_cast<std::size_t>(editors.size())))];
                auto* edit = editor->findChild<QLineEdit*>();
                if (edit == nullptr || !edit->isVisible()) break; // a choice or a tick
                edit->setFocus();
                QTest::keySequence(edit, QKeySequence::SelectAll);
                QTest::keyClicks(
                    edit, typed[static_cast<qsizetype>(below(static_cast<std::size_t>(typed.size())))]);
                QTest::keyClick(edit, Qt::Key_Return);
                break;
            }
            }
            if (step % 20 != 19) continue;
            QString error;
            QVERIFY2(doc.saveAs(path, error), qPrintable(error));
            QVERIFY2(fileProject(path) == doc.project(), qPrintable(QString::number(step)));
        }
        QVERIFY2(fixes > 3, qPrintable(QString::number(fixes)));
        QVERIFY(!(d.project() == first));
    }
};

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    QApplication::setStyle("Fusion");
    KeepWindowTest test;
    return QTest::qExec(&test, argc, argv);
}
#include "keep_window_test.moc"
