// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/plot.h"
#include "app/stations/structure/budget_dialog.h"
#include "core/evaluate/rig/arm_masses.h"
#include "core/tools/compare_ramps.h"
#include "core/tools/structure_curves.h"
#include "support/window.h"

#include <QDialog>
#include <QFile>
#include <QRegularExpression>
#include <QTableWidget>
#include <qcustomplot.h>

using namespace gantry;
using namespace gantry::app;

/// Plots as people use them: the read-out under the cursor, saving as table, drawing and picture; and the
/// tables of tools beside them, held to the numbers of the core.
class PlotsTest : public QObject {
    Q_OBJECT
    TestHome home_;

    /// The rig in a window of its own, one axis chosen.
    struct Rig : WindowDriver {
        QTemporaryDir folder;
        Rig(const char* rig, int axis) : WindowDriver(false) {
            const QString copy = folder.filePath("rig.gantry");
            QFile::copy(QString::fromStdString(rigPath(rig)), copy);
            window->openFile(copy);
            window->session().setAxis(axis);
        }
        ~Rig() { window.reset(); }
    };
    static QString readOutAt(Plot* plot, double share) {
        auto* inner = plot->findChild<QCustomPlot*>();
        inner->replot(); // so that the axes have their place
        const QRect r = inner->axisRect()->rect();
        QTest::mouseMove(inner, QPoint(r.left() + static_cast<int>(share * r.width()), r.center().y()));
        return plot->accessibleDescription();
    }
    static QStringList linesOf(const QString& path) {
        QFile f(path);
        if (!f.open(QIODevice::ReadOnly)) return {};
        return QString::fromUtf8(f.readAll()).split(QRegularExpression("\r?\n"), Qt::SkipEmptyParts);
    }

private slots:
    void everyPlotReadsOutAndSaves() {
        const std::vector<std::pair<const char*, int>> rigs{{"slide-and-pan", 0}, {"kettle-jib", 1}};
        int looked = 0;
        for (const auto& [name, axis] : rigs) {
            Rig d(name, axis);
            for (const QString& station : d.window->stationIds()) {
                d.window->showStation(station);
                QTest::qWait(60);
                for (Plot* plot : d.window->findChildren<Plot*>()) {
                    auto* inner = plot->findChild<QCustomPlot*>();
                    if (!plot->isVisible() || !inner->isVisible()) continue;
                    // What a plot's lower rects show is read out by the first one too.
                    const QString early = readOutAt(plot, 0.3), late = readOutAt(plot, 0.8);
                    const QByteArray what = plot->objectName().toUtf8() + " of " + name;
                    QVERIFY2(!early.isEmpty() && early != late, what);
                    static const QRegularExpression number("[0-9]");
                    QVERIFY2(early.contains(number), what);
                    QEvent leave(QEvent::Leave);
                    QApplication::sendEvent(inner, &leave);
                    QVERIFY2(plot->accessibleDescription().isEmpty(), what);

                    QString error;
                    const QString base = d.folder.filePath(QString("plot%1").arg(looked));
                    for (const char* ending : {".csv", ".svg", ".png"})
                        QVERIFY2(plot->saveTo(base + ending, error), error.toUtf8());
                    QFile svg(base + ".svg");
                    QVERIFY(svg.open(QIODevice::ReadOnly) && svg.readAll().contains("<svg"));
                    QVERIFY(!QImage(base + ".png").isNull());
                    const QStringList lines = linesOf(base + ".csv");
                    QVERIFY2(lines.size() > 4, what);
                    // A table of a fixed width, units in its head, points as decimal marks, every entry a
                    // number.
                    const auto columns = lines.front().split(',').size();
                    QVERIFY2(columns >= 2 && lines.front().contains('_'),
                             what + ": " + lines.front().toUtf8());
                    for (const QString& line : lines.mid(1)) {
                        QCOMPARE(line.split(',').size(), columns);
                        for (const QString& cell : line.split(',')) {
                            bool good = cell.isEmpty();
                            if (!good) good = std::isfinite(cell.toDouble(&good)) && good;
                            QVERIFY2(good || !cell.contains(number), what + ": " + line.toUtf8());
                        }
                    }
                    QVERIFY(!plot->saveTo(base + ".doc", error));
                    QVERIFY(error.contains(".svg"));
                    QVERIFY(!plot->saveTo(d.folder.filePath("no/such/folder.csv"), error));
                    QVERIFY(error.contains("was not saved"));
                    ++looked;
                }
            }
        }
        QVERIFY2(looked >= 6, QByteArray::number(looked));
    }
    void sagIsWrittenAsItIs() {
        Rig d("slide-and-pan", 0);
        d.station(u"structure");
        const Project& p = d.project();
        const auto& e = d.window->document().assessment().evaluation.axes[0];
        const auto curve = sagCurve(p, p.axes[0], &e.shots[0]);
        QString error;
        const QString path = d.folder.filePath("sag.csv");
        QVERIFY(d.find<Plot>("structurePlot")->saveTo(path, error));
        const QStringList lines = linesOf(path);
        QCOMPARE(lines.size(), static_cast<int>(curve.size()) + 1);
        QCOMPARE(lines.front(), "at_m,sag_m,slope_rad,twist_rad,shift_px");
        for (int i = 0; i < static_cast<int>(curve.size()); ++i) {
            const auto& s = curve[static_cast<std::size_t>(i)];
            const QStringList cells = lines[i + 1].split(',');
            QVERIFY(std::abs(cells[0].toDouble() - s.at) < 1e-5);
            QVERIFY(std::abs(cells[1].toDouble() - s.sag) < 1e-5 * (std::abs(s.sag) + 1e-6));
        }
        QVERIFY(readOutAt(d.find<Plot>("structurePlot"), 0.5).contains("sags"));
    }
    void gravityReadsOutAsMomentsByHand() {
        Rig d("kettle-jib", 1);
        d.station(u"structure");
        const Project& p = d.project();
        const auto& r = std::get<RotaryMechanism>(p.axes[1].mechanism);
        // Where the cursor finds level, the torque is the sum of weights times arms.
        double moment = 0.0;
        for (const structure::ArmMass& m : armMasses(p.payload, p.axes[1]))
            moment += 9.80665 * m.mass * m.along;
        auto* plot = d.find<Plot>("structurePlot");
        const QString text = readOutAt(plot, -r.lowAngle / r.range);
        const QRegularExpression torque("(-?[0-9.]+) N·m");
        const auto match = torque.match(text);
        QVERIFY2(match.hasMatch(), qPrintable(text));
        QVERIFY2(std::abs(match.captured(1).toDouble() - moment) < 0.06,
                 qPrintable(QString("%1, by hand %2").arg(text).arg(moment)));
        QVERIFY(text.contains("motor holds"));
    }
    void rampsAreComparedInTheWindow() {
        Rig d("slide-and-pan", 0);
        d.station(u"limits");
        d.pickFromMenu(d.find<QPushButton>("limitsTools"), "Compare ramps");
        auto* dialog = d.window->findChild<QDialog*>("rampsDialog");
        QVERIFY(dialog != nullptr);
        auto* table = dialog->findChild<QTableWidget*>("rampsDialogTable");
        const Evaluation& e = d.window->document().assessment().evaluation;
        const auto rows = compareRamps(d.project(), e.axes[0], *e.axes[0].worst());
        QCOMPARE(table->rowCount(), static_cast<int>(rows.size()));
        int can = 0;
        for (int i = 0; i < table->rowCount(); ++i) {
            QCOMPARE(table->item(i, 0)->text().toStdString(),
                     std::string(shapeName(rows[std::size_t(i)].shape)));
            can += table->item(i, 5)->text() == "can do it" ? 1 : 0;
        }
        QVERIFY(can > 0 && can < table->rowCount()); // this controller has some ramps and not others
        QVERIFY(dialog->findChild<QLabel*>("rampsDialogSentence")->text().contains("natural frequency"));
        delete dialog;
    }
    /// The longest bar belongs to the largest share, and the picture of the bars follows the rig.
    void budgetIsDrawn() {
        Rig d("kettle-jib", 1);
        d.station(u"structure");
        const auto open = [&] {
            d.pickFromMenu(d.find<QPushButton>("structureTools"), "Error budget");
            return d.window->findChild<QDialog*>("budgetDialog");
        };
        QDialog* dialog = open();
        QVERIFY(dialog != nullptr);
        auto* bars = dialog->findChild<BudgetBars*>("budgetBars");
        const QImage before = bars->grab().toImage();
        const QString words = bars->accessibleDescription();
        QVERIFY(words.contains("stepping"));
        delete dialog;
        d.window->document().change("x", [](Project& p) { p.axes[1].driver.microsteps *= 4; });
        dialog = open();
        bars = dialog->findChild<BudgetBars*>("budgetBars");
        QVERIFY(bars->accessibleDescription() != words);
        QVERIFY(bars->grab().toImage() != before);
        delete dialog;
    }
};

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    QApplication::setStyle("Fusion");
    PlotsTest test;
    return QTest::qExec(&test, argc, argv);
}
#include "plots_test.moc"
