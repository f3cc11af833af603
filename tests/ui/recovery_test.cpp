// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/recovery.h"
#include "core/model/fields.h"
#include "support/dialogs.h"
#include "support/files.h"
#include "support/window.h"

#include <QDir>
#include <QMessageBox>
#include <QProcess>
#include <QTimer>
#include <csignal>

using namespace gantry;
using namespace gantry::app;

/// A window is killed three seconds after an edit; the next one offers the work, and it is equal.
class RecoveryTest : public QObject {
    Q_OBJECT
    TestHome home_;

    /// This test's own program as the victim: opens the demo, edits the mass, waits to be killed.
    static QString edited() { return QStringLiteral("7.75"); }

private slots:
    void killedAfterAnEdit() {
        QProcess victim;
        victim.setProcessChannelMode(QProcess::ForwardedErrorChannel);
        victim.start(QCoreApplication::applicationFilePath(), {"--victim"});
        QVERIFY(victim.waitForReadyRead(20000));
        QVERIFY(victim.readAll().contains("edited"));
        QVERIFY(Recovery::abandoned().isEmpty()); // its window is alive
        QTest::qWait(3000);
        QVERIFY(::kill(static_cast<pid_t>(victim.processId()), SIGKILL) == 0);
        QVERIFY(victim.waitForFinished());

        Project expected = demoProject();
        QVERIFY(setNumberAt(expected, "axes/slide/mechanism/moving_mass_kg", edited().toDouble()));
        const auto left = Recovery::abandoned();
        QCOMPARE(left.size(), 1);
        QVERIFY(left[0].project == expected);
        QVERIFY(left[0].path.endsWith("fernhouse-dolly.gantry"));

        WindowDriver d(false);
        const Answer<QMessageBox> answer([](QMessageBox* box) {
            QVERIFY(box->text().contains("Fernhouse dolly"));
            QTest::keyClick(box,
                            Qt::Key_Return); // the default is to continue with the newer, which is the copy
        });
        QVERIFY(d.window->offerRecovery());
        QVERIFY(answer.came());
        // The old copy is gone and this window's own is there already.
        QCOMPARE(QDir(Recovery::folder()).entryList({"*.gantry"}, QDir::Files).size(), 1);
        QVERIFY(!QFile::exists(left[0].file));
        QVERIFY(d.project() == expected);
        QVERIFY(d.window->document().edited());
        QVERIFY(d.window->windowTitle().contains("edited"));
        d.window->document().newProject({});
    }
    void nothingIsLeftAfterAnOrderlyEnd() {
        {
            Document d;
            Recovery r(d);
            d.newProject(demoProject());
            d.change("Rename", [](Project& p) { p.name = "x"; });
            QTest::qWait(1600);
        }
        for (const RecoveredCopy& copy : Recovery::abandoned()) QVERIFY(copy.project.name != "x");
    }
};

int main(int argc, char** argv) {
    if (argc > 1 && std::string(argv[1]) == "--victim") {
        QApplication app(argc, argv);
        // The state folder comes with the environment of the test that started this.
        QCoreApplication::setOrganizationName("calm-gantry-victim");
        WindowDriver d;
        d.type("axes/slide/mechanism/moving_mass_kg", "7.75 kg");
        std::puts("edited");
        std::fflush(stdout);
        return app.exec();
    }
    QApplication app(argc, argv);
    RecoveryTest test;
    return QTest::qExec(&test, argc, argv);
}
#include "recovery_test.moc"
