// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/write_bytes.h"
#include "app/shell/log.h"
#include "app/shell/main_window.h"
#include "app/theme/tokens.h"

#include <QApplication>
#include <QCommandLineParser>
#include <QDialog>
#include <QDir>
#include <QElapsedTimer>
#include <QIcon>
#include <QMenu>
#include <QPushButton>
#include <QTemporaryDir>
#include <cstdio>

namespace {

/// The dialogs of the station that is shown, if it has any.
bool renderTools(gantry::app::MainWindow& window, const QString& folder, bool night) {
    for (auto* button : window.findChildren<QPushButton*>()) {
        if (button->objectName() != QLatin1String("benchTools") &&
            button->objectName() != QLatin1String("limitsTools") &&
            button->objectName() != QLatin1String("structureTools"))
            continue;
        if (!button->isVisible() || !button->isEnabled()) continue;
        for (QAction* action : button->menu()->actions()) {
            // Entries that change the rig would show in every picture after them.
            const int steps = window.document().undoStack()->index();
            action->trigger();
            while (window.document().undoStack()->index() > steps) window.document().undoStack()->undo();
            auto* dialog = window.findChild<QDialog*>();
            if (dialog == nullptr) continue;
            QElapsedTimer clock;
            clock.start();
            while (clock.elapsed() < 900) QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
            const QString file =
                QStringLiteral("%1/tool-%2-%3.png")
                    .arg(folder, action->text().toLower().replace(QLatin1Char(' '), QLatin1Char('-')),
                         night ? QStringLiteral("night") : QStringLiteral("day"));
            const QString problem = gantry::app::writePng(file, dialog->grab().toImage());
            delete dialog;
            if (!problem.isEmpty()) {
                std::fprintf(stderr, "%s\n", qPrintable(problem));
                return false;
            }
            std::printf("%s\n", qPrintable(file));
        }
    }
    return true;
}

/// Every station by day and by night, as PNG files.
int renderStations(gantry::app::MainWindow& window, const QString& folder, QSize size) {
    QDir().mkpath(folder);
    window.resize(size);
    window.show();
    for (const bool night : {false, true}) {
        window.preferences().setNight(night);
        for (const QString& station : window.stationIds()) {
            window.showStation(station);
            // Fixes are looked for 150 ms after the last change, least times 200 ms after that.
            QElapsedTimer clock;
            clock.start(); // A simulated move belongs to the picture.
            auto* simulate = window.findChild<QPushButton*>(QStringLiteral("simulateShot"));
            const bool simulates = simulate != nullptr && simulate->isVisible() && simulate->isEnabled();
            if (simulates) simulate->click();
            constexpr int longest = 20000;
            while (clock.elapsed() < (simulates ? 1500 : 900) ||
                   (window.looksForFixes() && clock.elapsed() < longest))
                QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
            const QString file =
                QStringLiteral("%1/%2-%3.png")
                    .arg(folder, station, night ? QStringLiteral("night") : QStringLiteral("day"));
            if (const QString problem = gantry::app::writePng(file, window.grab().toImage());
                !problem.isEmpty()) {
                std::fprintf(stderr, "%s\n", qPrintable(problem));
                return 1;
            }
            std::printf("%s\n", qPrintable(file));
            if (!renderTools(window, folder, night)) return 1;
        }
    }
    return 0;
}

/// Pictures are made without a screen, whose stand-in complains that windows there have no frame to hint
/// sizes to.
void dropOffscreenComplaints(QtMsgType, const QMessageLogContext&, const QString& message) {
    if (!message.contains(QLatin1String("propagateSizeHints")))
        std::fprintf(stderr, "%s\n", qPrintable(message));
}

} // namespace

int main(int argc, char** argv) {
    using namespace gantry::app;
    // Rendering needs no folder for sockets, and Qt would complain that there is none.
    const QTemporaryDir runtime;
    if (!qEnvironmentVariableIsSet("XDG_RUNTIME_DIR")) qputenv("XDG_RUNTIME_DIR", runtime.path().toUtf8());
    QApplication app(argc, argv);
    QApplication::setOrganizationName(QStringLiteral("calm-gantry"));
    QApplication::setApplicationName(QStringLiteral("calm-gantry"));
    QApplication::setApplicationDisplayName(QStringLiteral("Calm Gantry"));
    QApplication::setApplicationVersion(QStringLiteral(GANTRY_VERSION));
    QApplication::setDesktopFileName(QStringLiteral("org.calmgantry.CalmGantry"));
    QApplication::setStyle(QStringLiteral("Fusion"));
    QApplication::setWindowIcon(QIcon(QStringLiteral(":/icons/application.svg")));
    QCommandLineParser parser;
    parser.setApplicationDescription(
        QStringLiteral("Size and configure the drives of motorised camera rigs."));
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addPositionalArgument(QStringLiteral("file"), QStringLiteral("Project to open."),
                                 QStringLiteral("[file]"));
    const QCommandLineOption render(QStringLiteral("render"),
                                    QStringLiteral("Write every station as PNG to a folder and end."),
                                    QStringLiteral("folder"));
    const QCommandLineOption size(QStringLiteral("size"), QStringLiteral("Window size for --render."),
                                  QStringLiteral("WxH"), QStringLiteral("1280x800"));
    const QCommandLineOption axis(QStringLiteral("axis"),
                                  QStringLiteral("Axis to show for --render, from 1."),
                                  QStringLiteral("number"), QStringLiteral("1"));
    parser.addOptions({render, size, axis});
    parser.process(app);
    loadFonts();

    if (parser.isSet(render)) {
        qInstallMessageHandler(dropOffscreenComplaints);
        // A picture must not depend on, or change, what the person at this machine prefers.
        QApplication::setOrganizationName(QStringLiteral("calm-gantry-render"));
        MainWindow window;
        window.preferences().setSystem(gantry::units::System::Metric);
        const QStringList files = parser.positionalArguments();
        if (!files.isEmpty() && !window.openFile(files.first())) return 1;
        window.session().setAxis(parser.value(axis).toInt() - 1);
        const QStringList wh = parser.value(size).split(QLatin1Char('x'));
        return renderStations(window, parser.value(render), QSize(wh.value(0).toInt(), wh.value(1).toInt()));
    }
    startLog();
    MainWindow window;
    window.show();
    if (!window.offerRecovery())
        if (const QStringList files = parser.positionalArguments(); !files.isEmpty())
            window.openFile(files.first());
    return app.exec();
}
