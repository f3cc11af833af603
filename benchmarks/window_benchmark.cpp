// SPDX-License-Identifier: GPL-3.0-or-later
// From a changed field to a painted window: the real window at 1280x800, a field stepped by key, and the
// jib's counterweight dragged in the drawing, the time until the whole window has been painted. Bars: 16 ms
// median, 25 ms at the 95th percentile, and scrubbing sixty times a second. --once fails on ratios only: an
// edit with its repaint may cost at most half as much again as painting everything in the window, and while
// saves run no more than half as much again as without (two processors may be two threads of one core, which
// a save then shares with the window).
#include "app/instruments/field_editor.h"
#include "app/instruments/rig_view.h"
#include "app/shell/main_window.h"
#include "app/theme/tokens.h"
#include "machine.h"
#include "nine_axes.h"

#include <QApplication>
#include <QComboBox>
#include <QElapsedTimer>
#include <QFile>
#include <QKeyEvent>
#include <QLineEdit>
#include <QMouseEvent>
#include <QTemporaryDir>
#include <algorithm>
#include <cstring>
#include <iostream>
#include <string>
#include <vector>

namespace {

struct Times {
    double median, p95;
};

Times summary(std::vector<double> ms) {
    std::sort(ms.begin(), ms.end());
    return {ms[ms.size() / 2], ms[ms.size() * 95 / 100]};
}

/// Takes every event that is due: those that draw plots, and those that then paint the window.
void settle() {
    for (int turn = 0; turn < 4; ++turn) QApplication::processEvents();
}

double milliseconds(const QElapsedTimer& t) {
    return static_cast<double>(t.nsecsElapsed()) / 1e6;
}

/// Presses a key in the field and paints everything that became dirty.
double edit(QWidget& field, bool up) {
    QElapsedTimer clock;
    clock.start();
    QKeyEvent press(QEvent::KeyPress, up ? Qt::Key_Up : Qt::Key_Down, Qt::NoModifier);
    QApplication::sendEvent(&field, &press);
    settle();
    return milliseconds(clock);
}

/// Types a number over what the field shows, presses Enter and paints everything that became dirty.
double type(QLineEdit& line, const QString& text) {
    QElapsedTimer clock;
    clock.start();
    line.selectAll();
    QKeyEvent typed(QEvent::KeyPress, 0, Qt::NoModifier, text);
    QApplication::sendEvent(&line, &typed);
    QKeyEvent enter(QEvent::KeyPress, Qt::Key_Return, Qt::NoModifier);
    QApplication::sendEvent(&line, &enter);
    settle();
    return milliseconds(clock);
}

/// Moves the mouse over the held handle by a pixel and paints everything that became dirty.
double drag(QWidget& view, QPointF to) {
    QElapsedTimer clock;
    clock.start();
    QMouseEvent move(QEvent::MouseMove, to, view.mapToGlobal(to), Qt::NoButton, Qt::LeftButton,
                     Qt::NoModifier);
    QApplication::sendEvent(&view, &move);
    settle();
    return milliseconds(clock);
}

/// Whether an edit costs little against painting the window alone.
bool report(const std::string& what, std::vector<double> edits, std::vector<double> repaints) {
    edits.erase(edits.begin(), edits.begin() + 10); // first edits fill caches
    const Times e = summary(edits), r = summary(repaints);
    std::cout << what << ": edit to painted " << e.median << " ms median, " << e.p95
              << " ms at 95 %; bare repaint " << r.median << " ms median\n";
    return e.median <= 1.5 * std::max(r.median, 2.0);
}

/// Edits while the project is saved over and over, against edits in between, turn by turn so that both meet
/// the same machine. Whether a save costs the window little.
bool reportSaving(gantry::app::Document& document, QWidget& field, int turns) {
    std::vector<double> quiet, saving;
    for (int turn = 0; turn < turns; ++turn)
        for (const bool saves : {false, true}) {
            for (int i = 0; i < 8; ++i) {
                if (saves && !document.saving()) document.startSave(document.path());
                (saves ? saving : quiet).push_back(edit(field, i % 2 == 0));
            }
            document.waitForSave();
        }
    const Times q = summary(quiet), s = summary(saving);
    std::cout << "While saving: edit to painted " << s.median << " ms median, " << s.p95
              << " ms at 95 %; without " << q.median << " and " << q.p95 << " ms\n";
    return s.median <= 1.5 * std::max(q.median, 2.0);
}

/// The play head drawn over the timeline by a pixel or two each time, and everything painted that follows.
std::vector<double> scrub(QWidget& window, int times) {
    auto* timeline = window.findChild<QWidget*>(QStringLiteral("moveTimeline"));
    const QPointF at(timeline->width() / 3, timeline->height() - 40);
    QMouseEvent press(QEvent::MouseButtonPress, at, timeline->mapToGlobal(at), Qt::LeftButton, Qt::LeftButton,
                      Qt::NoModifier);
    QApplication::sendEvent(timeline, &press);
    std::vector<double> out;
    for (int i = 0; i < times; ++i) out.push_back(drag(*timeline, at + QPointF(2 * (i % 100), 0)));
    QMouseEvent release(QEvent::MouseButtonRelease, at, timeline->mapToGlobal(at), Qt::LeftButton,
                        Qt::NoButton, Qt::NoModifier);
    QApplication::sendEvent(timeline, &release);
    return out;
}

/// Everything that is seen painted again, with nothing computed.
double repaint(QWidget& window) {
    QElapsedTimer clock;
    clock.start();
    window.update();
    for (QWidget* w : window.findChildren<QWidget*>())
        if (w->isVisible()) w->update();
    settle();
    return milliseconds(clock);
}

} // namespace

int main(int argc, char** argv) {
    using namespace gantry::app;
    const bool once = argc > 1 && std::strcmp(argv[1], "--once") == 0;
    const QTemporaryDir home;
    qputenv("XDG_STATE_HOME", home.path().toUtf8());
    qputenv("XDG_CONFIG_HOME", home.path().toUtf8());
    QApplication app(argc, argv);
    QApplication::setStyle(QStringLiteral("Fusion"));
    loadFonts();
    MainWindow window;
    const QString demo = home.filePath(QStringLiteral("demo.gantry")); // an open project is locked
    QFile::copy(QStringLiteral(GANTRY_DATA "/demo/fernhouse-dolly.gantry"), demo);
    window.openFile(demo);
    window.resize(1280, 800);
    window.show();
    std::cout << processorName() << '\n';
    bool good = true;
    for (const QString& station : window.stationIds()) {
        if (argc > 2 && station != QLatin1String(argv[2])) continue; // one alone, for a profiler
        window.showStation(station);
        if (station == QLatin1String("drives"))
            window.session().setChainColumn(4); // the carriage, with the moving mass
        if (station == QLatin1String("structure")) {
            window.findChild<QComboBox*>(QStringLiteral("structurePart"))->setCurrentIndex(2); // the same
            window.showStation(station);
        }
        QApplication::processEvents();
        // A field of the station that is shown, so that everything there has to follow.
        QLineEdit* line = nullptr;
        for (FieldEditor* e : window.findChildren<FieldEditor*>())
            if (e->isVisible() && (e->path().endsWith(QStringLiteral("moving_mass_kg")) ||
                                   e->path().endsWith(QStringLiteral("max_speed_m_s")) ||
                                   e->path().endsWith(QStringLiteral("/x_m")) ||
                                   e->path().endsWith(QStringLiteral("/spare_s"))))
                line = e->findChild<QLineEdit*>();
        if (line == nullptr) {
            std::cerr << "no field to change\n";
            return 1;
        }
        line->setFocus();
        std::vector<double> edits, typed, repaints;
        const bool mass = line->text().contains(QLatin1String("kg")),
                   spare = station == QLatin1String("intervals");
        for (int i = 0; i < (once ? 120 : 500); ++i) {
            edits.push_back(edit(*line, i % 2 == 0));
            repaints.push_back(repaint(window));
            typed.push_back(type(*line, QString::number(mass    ? 3.0 + 0.01 * (i % 7)
                                                        : spare ? 0.2 + 0.01 * (i % 7)
                                                                : 300 + i % 7)));
        }
        std::cout << "Typed: " << summary(typed).median << " ms median; ";
        good = report(window.stationName(station).toStdString(), edits, repaints) && good;
        if (station == QLatin1String("moves"))
            good = report("Scrubbing the move", scrub(window, once ? 120 : 500), repaints) && good;
        if (station == QLatin1String("drives"))
            good = reportSaving(window.document(), *line, once ? 20 : 60) && good;
    }
    window.document().undoStack()->clear();

    const auto takesPart = [&](const char* name) { return argc <= 2 || std::strcmp(argv[2], name) == 0; };
    if (takesPart("nine-axes")) {
        const QString nine = home.filePath(QStringLiteral("nine.gantry"));
        QFile file(nine);
        if (!file.open(QIODevice::WriteOnly)) return 1;
        const std::string text = gantry::io::writeProject(nineAxes());
        file.write(text.data(), static_cast<qint64>(text.size()));
        file.close();
        window.openFile(nine);
        window.showStation(u"moves");
        QApplication::processEvents();
        std::vector<double> edits, repaints;
        const int times = once ? 60 : 200;
        for (int i = 0; i < times; ++i) {
            QElapsedTimer clock;
            clock.start();
            window.document().change(QStringLiteral("an edit"), [&](gantry::Project& p) {
                p.moves[0].poses[5].arrive.time = 20.0 + 0.01 * (i % 7);
            });
            settle();
            edits.push_back(milliseconds(clock));
            repaints.push_back(repaint(window));
        }
        report("Nine axes, twenty poses", edits, repaints);
        report("Scrubbing nine axes", scrub(window, times), repaints);
        window.document().undoStack()->clear();
    }

    if (!takesPart("jib")) return good || !once ? 0 : 1;

    const QString jib = home.filePath(QStringLiteral("jib.gantry"));
    QFile::copy(QStringLiteral(GANTRY_DATA "/demo/kettle-jib.gantry"), jib);
    window.openFile(jib);
    window.session().setAxis(1);
    window.showStation(u"structure");
    QApplication::processEvents();
    auto* view = window.findChild<RigView*>(QStringLiteral("rigView"));
    const QPointF at = view->handleAt(QStringLiteral("axes/boom/mechanism/boom/counterweight/behind_m"));
    QMouseEvent press(QEvent::MouseButtonPress, at, view->mapToGlobal(at), Qt::LeftButton, Qt::LeftButton,
                      Qt::NoModifier);
    QApplication::sendEvent(view, &press);
    std::vector<double> drags, repaints;
    for (int i = 0; i < (once ? 120 : 500); ++i) {
        drags.push_back(drag(*view, at + QPointF(-(i % 20), 0)));
        repaints.push_back(repaint(window));
    }
    good = report("Dragging the jib's counterweight", drags, repaints) && good;
    window.document().undoStack()->clear();
    return good || !once ? 0 : 1;
}
