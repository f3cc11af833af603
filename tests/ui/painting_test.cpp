// SPDX-License-Identifier: GPL-3.0-or-later
// Only what changed is painted again. So what stands on the screen is held against the window painted anew,
// and against another window that never knew anything but the project as it is now.
#include "app/instruments/part_art.h"
#include "core/model/fields.h"
#include "core/tools/chain_table.h"
#include "io/project/project_file.h"
#include "support/every_rig.h"
#include "support/files.h"
#include "support/window.h"

#include <QRegularExpression>
#include <QScreen>

using namespace gantry;
using namespace gantry::app;

class PaintingTest : public QObject {
    Q_OBJECT
    TestHome home_;

    static QImage onScreen(const QWidget& window) {
        return window.screen()
            ->grabWindow(window.winId(), 0, 0, window.width(), window.height())
            .toImage()
            .convertToFormat(QImage::Format_RGB32);
    }
    static QImage anew(QWidget& widget) {
        return widget.grab().toImage().convertToFormat(QImage::Format_RGB32);
    }
    /// Where two pictures of one size differ; empty where they are alike.
    static QRect difference(const QImage& a, const QImage& b) {
        if (a == b) return {};
        if (a.size() != b.size()) return a.rect().united(b.rect());
        QRect out;
        for (int y = 0; y < a.height(); ++y)
            for (int x = 0; x < a.width(); ++x)
                if (a.pixel(x, y) != b.pixel(x, y)) out |= QRect(x, y, 1, 1);
        return out;
    }
    static QString said(const QRect& r) {
        return QStringLiteral("%1,%2 %3x%4").arg(r.x()).arg(r.y()).arg(r.width()).arg(r.height());
    }
    /// The window is up to date once nothing that was asked for is left to be painted.
    static void compareWithAnew(const WindowDriver& d, const QString& after) {
        QRect differs;
        for (int tries = 0; tries < 100; ++tries) {
            QCoreApplication::processEvents();
            differs = difference(onScreen(*d.window), anew(*d.window));
            if (differs.isEmpty()) return;
            QTest::qWait(20);
        }
        QFAIL(qPrintable(QStringLiteral("stale after %1: %2").arg(after, said(differs))));
    }
    /// The page against that of a window that has just opened the same project at the same station.
    void compareWithFresh(const WindowDriver& d, const QString& station, const QString& after) {
        QFile file(home_.path(QStringLiteral("now.gantry")));
        QVERIFY(file.open(QIODevice::WriteOnly | QIODevice::Truncate));
        file.write(QByteArray::fromStdString(io::writeProject(d.project())));
        file.close();
        WindowDriver fresh(false);
        fresh.window->resize(d.window->size());
        fresh.window->openFile(file.fileName());
        fresh.window->session().setAxis(d.window->session().axis());
        fresh.window->session().setChainColumn(d.window->session().chainColumn());
        fresh.station(station);
        leaveField();
        QRect differs;
        for (int tries = 0; tries < 100; ++tries) {
            QCoreApplication::processEvents();
            differs = difference(anew(*d.find("stationPage")), anew(*fresh.find("stationPage")));
            if (differs.isEmpty()) return;
            QTest::qWait(20);
        }
        QFAIL(qPrintable(QStringLiteral("another page after %1: %2").arg(after, said(differs))));
    }
    /// A field that is edited shows more digits and a cursor.
    static void leaveField() {
        if (QWidget* w = QApplication::focusWidget(); w != nullptr) w->clearFocus();
        QCoreApplication::processEvents();
    }
    /// Changes a number or a flag and returns what puts it back; nothing for words and choices.
    static std::function<void()> changed(const FieldRef& field) {
        const auto with = [](auto& value, auto next) -> std::function<void()> {
            const auto was = value;
            value = next;
            return [&value, was] { value = was; };
        };
        if (auto* const* n = std::get_if<double*>(&field.target)) return with(**n, **n * 1.5 + 0.1);
        if (auto* const* n = std::get_if<Estimate*>(&field.target))
            return with((*n)->value, (*n)->value * 1.5 + 0.1);
        if (auto* const* n = std::get_if<int*>(&field.target)) return with(**n, **n * 2 + 3);
        if (auto* const* n = std::get_if<bool*>(&field.target)) return with(**n, !**n);
        return {};
    }
    /// The fields with numbers that can be seen.
    static QStringList numbersShown(const WindowDriver& d) {
        QStringList out;
        for (const FieldEditor* e : d.window->findChildren<FieldEditor*>())
            if (const QLineEdit* field = e->isVisible() ? e->findChild<QLineEdit*>() : nullptr;
                field != nullptr && field->isVisible() && !larger(field->text()).isEmpty())
                out << e->path();
        return out;
    }
    /// The number that a field shows, a quarter larger; counted things are whole. Empty where it is no
    /// number.
    static QString larger(const QString& shown) {
        static const QRegularExpression number(QStringLiteral("^-?[0-9]+(\\.[0-9]+)?"));
        const QString digits = number.match(shown).captured();
        if (digits.isEmpty()) return {};
        return digits.contains(QLatin1Char('.')) || shown.size() > digits.size()
                   ? QString::number(digits.toDouble() * 1.25 + (digits.toDouble() == 0.0 ? 0.5 : 0.0))
                   : QString::number(digits.toInt() + 2);
    }

private slots:
    void initTestCase() { QApplication::setCursorFlashTime(0); }

    void nothingStale_data() {
        QTest::addColumn<QString>("station");
        for (const char* id : {"brief", "structure", "drives", "limits", "controller"})
            QTest::newRow(id) << id;
    }

    void nothingStale() {
        QFETCH(QString, station);
        WindowDriver d;
        d.window->resize(1280, 800);
        d.station(station);
        compareWithAnew(d, "opening");
        int edits = 0;
        // In Drives a click on each part of the chain brings its fields.
        const int parts = station == QLatin1String("drives") ? 6 : 1;
        for (int part = 0; part < parts; ++part) {
            if (parts > 1) {
                auto* chain = d.find("chainView");
                QTest::mouseClick(chain, Qt::LeftButton, {},
                                  QPoint(92 + (chain->width() - 92) * (2 * part + 1) / (2 * parts), 40));
            }
            for (const QString& path : numbersShown(d)) {
                d.window->activateWindow(); // a window that has just closed had the keys
                QTRY_VERIFY(d.window->isActiveWindow());
                QLineEdit* field = d.field(path);
                if (field == nullptr) continue; // another choice took it away
                const QString after = path + QStringLiteral(" = ") + larger(field->text());
                d.type(path, larger(field->text()));
                leaveField();
                compareWithAnew(d, after);
                if (edits++ % 6 == 0) compareWithFresh(d, station, after);
                if (QTest::currentTestFailed()) return;
            }
        }
        QVERIFY(edits >= 4);
        while (d.window->document().undoStack()->canUndo() && edits-- > 0) {
            d.window->document().undoStack()->undo();
            compareWithAnew(d, "undo");
        }
        compareWithFresh(d, station, "undoing everything");
    }

    /// Tiles of the chain are painted again only where sameArt tells that they look otherwise: every number
    /// and flag of every axis that changes a picture must change its answer.
    void sameArtTellsWhatIsDrawn() {
        const auto picture = [](const Axis& axis, const ChainColumn& column) {
            QImage out(60, 50, QImage::Format_RGB32);
            out.fill(Qt::white);
            QPainter p(&out);
            p.setRenderHint(QPainter::Antialiasing);
            paintPart(p, out.rect(), axis, column);
            return out;
        };
        int differing = 0;
        const EveryRig rigs;
        for (const Project& rig : rigs.projects)
            for (std::size_t a = 0; a < rig.axes.size(); ++a) {
                const Axis& axis = rig.axes[a];
                const auto columns = chainColumns(axis, evaluate(rig).axes[a], ShotEvaluation{});
                std::vector<QImage> before;
                for (const ChainColumn& c : columns) before.push_back(picture(axis, c));
                Project other = rig;
                for (const FieldRef& field : allFields(other)) {
                    if (!field.path.starts_with("axes/" + axis.id + "/")) continue;
                    const auto undo = changed(field);
                    for (std::size_t i = 0; i < columns.size() && undo; ++i)
                        if (picture(other.axes[a], columns[i]) != before[i]) {
                            ++differing;
                            QVERIFY2(!sameArt(axis, other.axes[a], columns[i]), field.path.c_str());
                        }
                    if (undo) undo();
                }
            }
        QVERIFY(differing > 30);
    }

    /// What belongs to the whole window: the other theme, the other units, the other axis.
    void theWholeWindow() {
        WindowDriver d;
        d.window->resize(1280, 800);
        for (const QString& station : d.window->stationIds()) {
            d.station(station);
            for (const int axis : {1, 0}) {
                d.click(d.find(QStringLiteral("axisCard%1").arg(axis)));
                leaveField();
                compareWithAnew(d, "another axis in " + station);
                compareWithFresh(d, station, "another axis");
                if (QTest::currentTestFailed()) return;
            }
            for (const char* button : {"theme", "units", "theme", "units"}) {
                d.click(d.find<QAbstractButton>(button));
                leaveField();
                compareWithAnew(d, QString::fromLatin1(button) + " in " + station);
                compareWithFresh(d, station, button);
                if (QTest::currentTestFailed()) return;
            }
        }
    }
};

QTEST_MAIN(PaintingTest)
#include "painting_test.moc"
