// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/files/checked_writer.h"
#include "io/files/text_file.h"
#include "support/faulty_calls.h"
#include "support/files.h"

#include <QDir>
#include <QFile>
#include <QTemporaryDir>
#include <QTest>
#include <sys/stat.h>
#include <unistd.h>

using namespace gantry::io;

namespace {

const std::string oldText = "what was there before\n", olderText = "and before that\n",
                  newText = "what is to be there now, a little longer\n";

/// A folder with a file and its backup, fresh for each try.
struct Desk {
    QTemporaryDir folder;
    std::string path = folder.filePath("rig.gantry").toStdString();

    Desk() {
        put(path, oldText);
        put(path + "~", olderText);
    }
    static void put(const std::string& name, const std::string& text) {
        QFile f(QString::fromStdString(name));
        QVERIFY(f.open(QIODevice::WriteOnly) && f.write(text.c_str()) == qint64(text.size()));
    }
    std::string now() const { return textOfFile(path); }
    std::string backup() const { return textOfFile(path + "~"); }
    QStringList names() const {
        return QDir(folder.path()).entryList(QDir::Files | QDir::Hidden, QDir::Name);
    }
};

} // namespace

/// The one writer, with every call to the system failing in its turn.
class CheckedWriterTest : public QObject {
    Q_OBJECT

    /// Whatever failed: the old content is in the file, or the new one is and the old one in the backup or,
    /// where the backup could not be renewed, said to be lost; and the result tells which.
    static void isWhole(const Desk& desk, const WriteResult& r, const char* when) {
        const std::string now = desk.now(), backup = desk.backup();
        QVERIFY2(now == oldText || now == newText, when);
        QVERIFY2(r.written == (now == newText), when);
        QVERIFY2(backup == olderText || backup == oldText, when);
        if (!r.written) QVERIFY2(backup == olderText, when); // a failed save never touches the backup
        if (!r) QVERIFY2(r.sentence.find(desk.path) != std::string::npos, when);
        if (!r.written)
            QVERIFY2(r.sentence.find("was not saved") != std::string::npos &&
                         r.sentence.find("unchanged") != std::string::npos,
                     when);
        if (r.written && backup == olderText) QVERIFY2(r.sentence.find("backup") != std::string::npos, when);
    }

private slots:
    void writesAndKeepsTheOldAsBackup() {
        const Desk desk;
        const WriteResult r = writeFile({desk.path, newText, true});
        QVERIFY(r && r.durable);
        QCOMPARE(desk.now(), newText);
        QCOMPARE(desk.backup(), oldText);
        QCOMPARE(desk.names(), (QStringList{"rig.gantry", "rig.gantry~"}));
    }
    /// Kills cannot prove the order: after one the page cache is still there.
    void theOrderOfCalls() {
        const Desk desk;
        FaultyCalls calls;
        QVERIFY(writeFile({desk.path, newText, true}, calls));
        QCOMPARE(calls.names(), (QStringList{"create", "write", "sync", "close", "openToRead", "read", "read",
                                             "close", "link", "rename new", "rename backup", "syncFolder"}));
    }
    void everyCallFailsInItsTurn_data() {
        QTest::addColumn<int>("error");
        for (const auto& [name, error] : {std::pair{"no space", ENOSPC},
                                          {"disk error", EIO},
                                          {"no permission", EACCES},
                                          {"read-only", EROFS},
                                          {"gone", ENOENT},
                                          {"quota", EDQUOT},
                                          {"odd", EBUSY}})
            QTest::addRow("%s", name) << error;
    }
    void everyCallFailsInItsTurn() {
        QFETCH(int, error);
        FaultyCalls dry;
        {
            const Desk desk;
            writeFile({desk.path, newText, true}, dry);
        }
        for (int at = 0; at < dry.count(); ++at) {
            const Desk desk;
            FaultyCalls calls;
            calls.failAt = at;
            calls.error = error;
            const WriteResult r = writeFile({desk.path, newText, true}, calls);
            const QByteArray when = dry.names()[at].toUtf8();
            isWhole(desk, r, when.constData());
            // A link that is refused is made up for by a copy; nothing else that fails goes unsaid.
            if (dry.names()[at] != "link" && dry.names()[at] != "close") QVERIFY2(!r, when.constData());
            if (dry.names()[at] == "syncFolder") QVERIFY(r.written && !r.durable);
            QCOMPARE(desk.names(), (QStringList{"rig.gantry", "rig.gantry~"})); // no stray files
        }
    }
    /// A close that fails is where some file systems say that the disk is full.
    void aCloseThatFailsIsAFailure() {
        const Desk desk;
        FaultyCalls calls;
        calls.failAt = 3;
        calls.error = ENOSPC;
        const WriteResult r = writeFile({desk.path, newText, true}, calls);
        QCOMPARE(calls.names()[3], QString("close"));
        QVERIFY(!r.written);
        QVERIFY(r.sentence.find("full") != std::string::npos);
    }
    void theDiskFillsAtEveryByte() {
        for (std::size_t room = 0; room < newText.size(); ++room) {
            const Desk desk;
            FaultyCalls calls;
            calls.room = room;
            const WriteResult r = writeFile({desk.path, newText, true}, calls);
            isWhole(desk, r, "full");
            QVERIFY(!r.written && r.sentence.find("full") != std::string::npos);
            QCOMPARE(desk.now(), oldText);
        }
        // Enough for the new content, not for a backup that must be copied since links are refused.
        const Desk desk;
        FaultyCalls calls;
        calls.room = newText.size() + 3;
        calls.links = false;
        const WriteResult r = writeFile({desk.path, newText, true}, calls);
        isWhole(desk, r, "full at the backup");
        QVERIFY(!r.written && r.sentence.find("backup") != std::string::npos);
    }
    void shortWritesAndInterruptionsAreNoFailure() {
        for (std::size_t most = 1; most < 9; ++most) {
            const Desk desk;
            FaultyCalls calls;
            calls.mostAtOnce = most;
            calls.interrupts = true;
            QVERIFY(writeFile({desk.path, newText, true}, calls));
            QCOMPARE(desk.now(), newText);
        }
    }
    void withoutLinksTheBackupIsCopied() {
        const Desk desk;
        FaultyCalls calls;
        calls.links = false;
        QVERIFY(writeFile({desk.path, newText, true}, calls));
        QCOMPARE(desk.now(), newText);
        QCOMPARE(desk.backup(), oldText);
    }
    void whatComesBackDifferentIsNotSaved() {
        const Desk desk;
        FaultyCalls calls;
        calls.corrupts = true;
        const WriteResult r = writeFile({desk.path, newText, true}, calls);
        isWhole(desk, r, "corrupt");
        QVERIFY(!r.written && r.sentence.find("something else") != std::string::npos);
    }
    void somebodyElsesChangeIsNotWrittenOver() {
        const Desk desk;
        const Fingerprint ours = fingerprintOf(oldText);
        Desk::put(desk.path, "theirs");
        const WriteResult r = writeFile({desk.path, newText, true, ours});
        QVERIFY(!r.written && r.changedByOthers);
        QCOMPARE(desk.now(), std::string("theirs"));
        // Touched but the same is no change.
        Desk::put(desk.path, oldText);
        QVERIFY(writeFile({desk.path, newText, true, ours}));
        // Gone is no change either: there is nothing to lose.
        QFile::remove(QString::fromStdString(desk.path));
        QVERIFY(writeFile({desk.path, newText, true, fingerprintOf(newText)}));
    }
    void anEmptyFileIsNoBackup() {
        const Desk desk;
        Desk::put(desk.path, "");
        QVERIFY(writeFile({desk.path, newText, true}));
        QCOMPARE(desk.backup(), olderText);
    }
    void linksKeepPointing() {
        const Desk desk;
        const QString link = desk.folder.filePath("link"), chain = desk.folder.filePath("chain"),
                      dangling = desk.folder.filePath("dangling");
        QVERIFY(QFile::link("rig.gantry", link) && QFile::link(link, chain) &&
                QFile::link("fresh.gantry", dangling));
        QVERIFY(writeFile({chain.toStdString(), newText, true}));
        QVERIFY(QFileInfo(chain).isSymLink() && QFileInfo(link).isSymLink());
        QCOMPARE(desk.now(), newText);
        QCOMPARE(desk.backup(), oldText);
        QVERIFY(writeFile({dangling.toStdString(), newText}));
        QCOMPARE(textOfFile(desk.folder.filePath("fresh.gantry").toStdString()), newText);
        QVERIFY(QFileInfo(dangling).isSymLink());
        QCOMPARE(finalPath(chain.toStdString()), finalPath(desk.path));
    }
    void aSecondNameIsSaid() {
        const Desk desk;
        const std::string other = desk.folder.filePath("other").toStdString();
        QVERIFY(::link(desk.path.c_str(), other.c_str()) == 0);
        const WriteResult r = writeFile({desk.path, newText, true});
        QVERIFY(r && r.hadOtherNames);
        QCOMPARE(textOfFile(other), oldText);
    }
    void permissionsStay() {
        const Desk desk;
        QVERIFY(::chmod(desk.path.c_str(), 0664) == 0);
        const mode_t mask = ::umask(077);
        QVERIFY(writeFile({desk.path, newText, true}));
        ::umask(mask);
        struct stat info {};
        QVERIFY(::stat(desk.path.c_str(), &info) == 0);
        QCOMPARE(int(info.st_mode & 07777), 0664);
    }
    void whatIsNoFileIsRefused() {
        const Desk desk;
        const QString pipe = desk.folder.filePath("pipe");
        QVERIFY(::mkfifo(pipe.toUtf8().constData(), 0600) == 0);
        for (const std::string& path :
             {pipe.toStdString(), std::string("/dev/full"), desk.folder.path().toStdString(),
              desk.folder.filePath("no/folder/x").toStdString(),
              desk.folder.filePath(QString(300, 'x')).toStdString()}) {
            const WriteResult r = writeFile({path, newText});
            QVERIFY2(!r.written && !r.sentence.empty(), path.c_str());
            std::string error;
            QVERIFY(!readTextFile(path, 100, error) && error.size() > 10);
        }
    }
    void strayFilesOfKilledSavesAreFound() {
        const Desk desk;
        FaultyCalls calls;
        calls.leavesStrays = true;
        calls.failAt = 2;
        writeFile({desk.path, newText, true}, calls);
        QCOMPARE(desk.names().size(), 3);
        QVERIFY(strayFilesOf(desk.path).empty()); // its process is alive: this one
        // The same name with a process that is gone.
        const QString mine = desk.names().filter(".saving").value(0);
        QString gone = mine;
        gone.replace("-" + QString::number(::getpid()) + "-", "-999999999-");
        QVERIFY(QFile::rename(desk.folder.filePath(mine), desk.folder.filePath(gone)));
        QCOMPARE(strayFilesOf(desk.path),
                 std::vector<std::string>{finalPath(desk.folder.filePath(gone).toStdString())});
        QVERIFY(strayFilesOf(desk.folder.filePath("another.gantry").toStdString()).empty());
    }
};

QTEST_APPLESS_MAIN(CheckedWriterTest)
#include "checked_writer_test.moc"
