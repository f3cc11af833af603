// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/document.h"
#include "app/model/recovery.h"
#include "io/project/project_file.h"
#include "io/project/versions.h"
#include "support/files.h"
#include "support/window.h"

#include <QDir>
#include <QElapsedTimer>
#include <QProcess>
#include <atomic>
#include <csignal>
#include <iostream>
#include <map>
#include <random>
#include <thread>
#include <unistd.h>

using namespace gantry;
using namespace gantry::app;

namespace {

/// Edits every few milliseconds and saves now and then, until it is killed. Says each edit it has made, with
/// the time.
class Victim : public QObject {
public:
    explicit Victim(const QString& file) : recovery_(document_) {
        QString error;
        QStringList notices;
        if (!document_.open(file, error, notices)) qFatal("%s", qPrintable(error));
        connect(&edits_, &QTimer::timeout, this, [this] {
            ++count_;
            document_.change("Count", [this](Project& p) { p.notes = std::to_string(count_); });
            std::cout << count_ << std::endl;
        });
        connect(&saves_, &QTimer::timeout, this, [this] { document_.startSave(document_.path()); });
        edits_.start(7);
        saves_.start(173);
        // In the second half only the recovery copy follows.
        QTimer::singleShot(1500, this, [this] { saves_.stop(); });
    }

private:
    Document document_;
    Recovery recovery_;
    QTimer edits_, saves_;
    int count_ = 0;
};

/// Asks the disk for one confirmed byte again and again. The promise of two seconds is for a disk that
/// answers; what this one keeps everybody waiting is allowed on top.
class DiskWaits {
public:
    explicit DiskWaits(const QString& file) : asking_([this, file] { ask(file); }) {}
    ~DiskWaits() {
        ended_ = true;
        asking_.join();
    }
    /// Longest wait so far [s], one under way included.
    double longest() const {
        return static_cast<double>(std::max(longest_.load(), began_ < 0 ? 0 : clock_.elapsed() - began_)) /
               1000.0;
    }

private:
    void ask(const QString& file) {
        while (!ended_) {
            QFile f(file);
            began_ = clock_.elapsed();
            if (f.open(QIODevice::WriteOnly) && f.write("x") == 1 && f.flush()) ::fsync(f.handle());
            longest_ = std::max<qint64>(longest_, clock_.elapsed() - began_);
            began_ = -1;
            std::this_thread::sleep_for(std::chrono::milliseconds(50));
        }
    }

    QElapsedTimer clock_ = [] {
        QElapsedTimer t;
        t.start();
        return t;
    }();
    std::atomic<qint64> longest_ = 0, began_ = -1; // [ms]
    std::atomic<bool> ended_ = false;
    std::thread asking_; // last: it uses the others
};

} // namespace

/// Killed at random moments: the file is whole, the backup is whole, and nothing is lost that was older than
/// two seconds. GANTRY_KILLS says how often (30 unless told).
class KillTest : public QObject {
    Q_OBJECT
    TestHome home_;

    static int countIn(const std::string& text, bool& whole) {
        const auto read = io::readProject(text);
        const auto* loaded = std::get_if<io::LoadedProject>(&read);
        whole = loaded != nullptr;
        return whole ? std::atoi(loaded->project.notes.c_str()) : -1;
    }

private slots:
    void nothingIsTornAndNothingOldIsLost() {
        const int kills =
            qEnvironmentVariableIsSet("GANTRY_KILLS") ? qEnvironmentVariableIntValue("GANTRY_KILLS") : 30;
        const unsigned seed = std::random_device{}();
        std::cout << "seed " << seed << std::endl;
        std::mt19937 random(seed);
        double worst = 0.0;
        int strays = 0, fromCopy = 0;
        for (int kill = 0; kill < kills; ++kill) {
            const QString file = home_.path(QString("rig%1.gantry").arg(kill));
            {
                Project p = demoProject();
                p.notes = "0";
                QFile f(file);
                QVERIFY(f.open(QIODevice::WriteOnly));
                f.write(QByteArray::fromStdString(io::writeProject(p)));
            }
            const DiskWaits disk(home_.path("waits"));
            QProcess victim;
            victim.setProcessChannelMode(QProcess::ForwardedErrorChannel);
            victim.start(QCoreApplication::applicationFilePath(), {"--victim", file});
            QVERIFY(victim.waitForReadyRead(30000));
            std::map<int, qint64> said; // when each edit was heard of [ms]
            QElapsedTimer clock;
            clock.start();
            const qint64 end = 50 + static_cast<qint64>(random() % 4500);
            QByteArray heard;
            while (clock.elapsed() < end) {
                victim.waitForReadyRead(3);
                heard += victim.readAllStandardOutput();
                for (qsizetype at = heard.indexOf('\n'); at >= 0; at = heard.indexOf('\n')) {
                    said.emplace(heard.left(at).toInt(), clock.elapsed());
                    heard.remove(0, at + 1);
                }
            }
            QVERIFY(::kill(static_cast<pid_t>(victim.processId()), SIGKILL) == 0);
            const qint64 killed = clock.elapsed();
            QVERIFY(victim.waitForFinished());

            bool whole = false;
            const int inFile = countIn(textOfFile(file.toStdString()), whole);
            QVERIFY2(whole, "the file is torn");
            if (QFile::exists(file + "~")) {
                const int inBackup = countIn(textOfFile((file + "~").toStdString()), whole);
                QVERIFY2(whole && inBackup <= inFile, "the backup is torn or newer than the file");
            }
            int best = inFile;
            for (const RecoveredCopy& copy : Recovery::abandoned()) {
                QVERIFY2(copy.problem.isEmpty(), qPrintable(copy.problem));
                if (QFileInfo(copy.path).fileName() != QFileInfo(file).fileName()) continue;
                const int inCopy = std::atoi(copy.project.notes.c_str());
                if (inCopy > best) ++fromCopy;
                best = std::max(best, inCopy);
                Recovery::discard(copy);
            }
            // The first edit that is lost must not be older than two seconds.
            if (const auto lost = said.upper_bound(best); lost != said.end()) {
                const double age = static_cast<double>(killed - lost->second) / 1000.0;
                worst = std::max(worst, age);
                // A copy is two confirmed writes, the file's and its folder's.
                const double wait = 2.0 * disk.longest();
                QVERIFY2(age < 2.0 + wait,
                         qPrintable(QString("edit %1 of kill %2 was %3 s old, the disk waited %4 s")
                                        .arg(lost->first)
                                        .arg(kill)
                                        .arg(age)
                                        .arg(wait)));
            }
            // What is left in the folder is recognised at the next opening and cleared away.
            Document next;
            QString error;
            QStringList notices;
            strays += static_cast<int>(io::strayFilesOf(file.toStdString()).size());
            QVERIFY2(next.open(file, error, notices), qPrintable(error));
            QVERIFY(!next.readOnly());
            QVERIFY(io::strayFilesOf(file.toStdString()).empty());
        }
        std::cout << kills << " kills; the oldest edit lost was " << worst << " s old; " << fromCopy
                  << " times the recovery copy was ahead; " << strays << " unfinished files cleared away"
                  << std::endl;
        QVERIFY(kills < 20 || fromCopy > 0);
    }
};

int main(int argc, char** argv) {
    if (argc > 2 && std::string(argv[1]) == "--victim") {
        QCoreApplication app(argc, argv);
        QCoreApplication::setOrganizationName("calm-gantry-victim");
        Victim victim(QString::fromLocal8Bit(argv[2]));
        return app.exec();
    }
    // Runs on demand take longer than Qt's watchdog allows a test.
    if (!qEnvironmentVariableIsSet("QTEST_FUNCTION_TIMEOUT")) qputenv("QTEST_FUNCTION_TIMEOUT", "36000000");
    QCoreApplication app(argc, argv);
    KillTest test;
    return QTest::qExec(&test, argc, argv);
}
#include "kill_test.moc"
