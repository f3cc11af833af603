// SPDX-License-Identifier: GPL-3.0-or-later
// A walk over every station and tool, in both sizes, themes and unit systems: no text is cut, no label of a
// plot covers another, no text stands on another.
#include "app/instruments/tool_window.h"
#include "app/theme/fitted_text.h"
#include "support/window.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHeaderView>
#include <QTableView>
#include <QTextDocument>
#include <qcustomplot.h>

using namespace gantry;
using namespace gantry::app;

class CutTextTest : public QObject {
    Q_OBJECT
    TestHome home_;
    QStringList cut_;    ///< painted, by the program's own painting
    QSet<QString> said_; ///< one line a fault, however often it is met
    QStringList faults_;

    void fault(const QString& where, const QString& what) {
        if (said_.contains(where.section(' ', 0, 0) + what)) return;
        said_ << where.section(' ', 0, 0) + what;
        faults_ << where + ": " + what;
    }
    /// A text of a standard control against the room it has.
    void fits(const QString& where, const QWidget* w, const QString& text, int room) {
        const int needs = w->fontMetrics().horizontalAdvance(text);
        if (needs > room) fault(where, QString("“%1” needs %2, has %3").arg(text).arg(needs).arg(room));
    }
    void lookAt(const QString& where, const QWidget* window) {
        for (const auto* label : window->findChildren<QLabel*>()) {
            if (!label->isVisible() || label->text().isEmpty() || label->textFormat() == Qt::RichText)
                continue;
            const QRect room = label->contentsRect();
            if (!label->wordWrap()) {
                for (const QString& line : label->text().split('\n'))
                    fits(where, label, line, room.width() + 1);
            } else if (label->heightForWidth(label->width()) > label->height() + 2) {
                fault(where, QString("“%1” is higher than its room").arg(label->text().left(60)));
            }
        }
        for (const auto* button : window->findChildren<QAbstractButton*>())
            if (button->isVisible() && !button->text().isEmpty())
                for (const QString& line : button->text().split('\n'))
                    fits(where, button, QString(line).remove('&'), button->width() + 1);
        for (const auto* box : window->findChildren<QComboBox*>())
            if (box->isVisible()) fits(where, box, box->currentText(), box->width() - 26);
        for (const auto* edit : window->findChildren<QLineEdit*>())
            // A name or a note of one's own is as long as one likes, and can be moved through.
            if (const QString field = edit->parent()->objectName().section('/', -1);
                edit->isVisible() && !edit->hasFocus() && field != "name" && field != "note" &&
                qobject_cast<const QComboBox*>(edit->parent()) == nullptr)
                fits(where, edit, edit->text(),
                     edit->width() - edit->textMargins().left() - edit->textMargins().right() - 4);
        for (const auto* table : window->findChildren<QTableView*>()) {
            // The drive-train table paints its own cells.
            if (!table->isVisible() || table->objectName() == "driveTable" || table->model() == nullptr)
                continue;
            const QAbstractItemModel* model = table->model();
            for (int c = 0; c < model->columnCount(); ++c) {
                int width = table->columnWidth(c);
                if (table->horizontalHeader()->isVisible())
                    fits(where, table, model->headerData(c, Qt::Horizontal).toString(), width - 4);
                for (int r = 0; r < model->rowCount(); ++r) {
                    const QModelIndex index = model->index(r, c);
                    const QString text = index.data().toString();
                    if (text.isEmpty() || table->indexWidget(index) != nullptr) continue;
                    width = 0;
                    for (int over = 0; over < table->columnSpan(r, c); ++over)
                        width += table->columnWidth(c + over);
                    const QVariant font = index.data(Qt::FontRole);
                    const QFontMetrics metrics(font.isValid() ? font.value<QFont>() : table->font());
                    const QRect needs = metrics.boundingRect(QRect(0, 0, width - 6, 10000),
                                                             table->wordWrap() ? Qt::TextWordWrap : 0, text);
                    if (needs.width() > width - 4 || needs.height() > table->rowHeight(r) + 2)
                        fault(where, QString("a cell cuts “%1”").arg(text));
                }
            }
        }
        for (const auto* plot : window->findChildren<QCustomPlot*>()) lookAtPlot(where, plot);
        // What the program paints itself says so where it has to cut.
        for (const QString& text : std::as_const(cut_)) fault(where, QString("cut: “%1”").arg(text));
        cut_.clear();
    }
    void lookAtPlot(const QString& where, const QCustomPlot* plot) {
        if (!plot->isVisible()) return;
        QList<std::pair<QString, QRectF>> labels;
        for (int i = 0; i < plot->itemCount(); ++i) {
            const auto* text = qobject_cast<QCPItemText*>(const_cast<QCustomPlot*>(plot)->item(i));
            if (text == nullptr || !text->visible() || text->text().isEmpty()) continue;
            const QRectF box(text->topLeft->pixelPosition(), text->bottomRight->pixelPosition());
            for (const auto& [other, rect] : std::as_const(labels))
                if (rect.adjusted(1, 1, -1, -1).intersects(box))
                    fault(where, QString("in the plot “%1” covers “%2”").arg(text->text(), other));
            labels << std::pair{text->text(), box};
            if (!QRectF(plot->rect()).adjusted(-2, -2, 2, 2).contains(box))
                fault(where, QString("“%1” stands outside its plot").arg(text->text()));
        }
        for (const QCPAxisRect* rect : plot->axisRects())
            for (const QCPAxis* axis : rect->axes())
                if (axis->visible() && axis->tickLabels() && rect->visible() && axis->label().isEmpty() &&
                    (axis->axisType() == QCPAxis::atLeft || axis->axisType() == QCPAxis::atBottom))
                    fault(where, "an axis of a plot has no label");
    }
    void paintAll(QWidget* window) {
        QCoreApplication::sendPostedEvents();
        QCoreApplication::processEvents();
        window->grab();
        QCoreApplication::processEvents();
    }
    /// The tools of the station in sight, one after the other.
    void tools(const WindowDriver& d, const QString& where) {
        for (const char* name : {"benchTools", "limitsTools", "structureTools"}) {
            auto* button = d.find<QPushButton>(name);
            if (button == nullptr || !button->isEnabled()) continue;
            for (QAction* action : button->menu()->actions()) {
                const int steps = d.window->document().undoStack()->index();
                action->trigger();
                while (d.window->document().undoStack()->index() > steps)
                    d.window->document().undoStack()->undo();
                auto* tool = d.window->findChild<ToolWindow*>();
                if (tool == nullptr) continue;
                for (QCheckBox* box : tool->findChildren<QCheckBox*>()) box->click();
                QTest::qWait(170); // what takes longer than an edit is shown a moment later
                cut_.clear();
                paintAll(tool);
                lookAt(where + " " + action->text(), tool);
                delete tool;
            }
        }
    }

private slots:
    void theWalk_data() {
        QTest::addColumn<QString>("demo");
        for (const char* demo :
             {"fernhouse-dolly", "kettle-jib", "moss-orbit", "seedling-stage", "long-bench"})
            QTest::newRow(demo) << demo;
    }
    void theWalk() {
        QFETCH(QString, demo);
        faults_.clear();
        WindowDriver d(false);
        const QString copy = home_.path(demo + ".gantry");
        QFile::remove(copy);
        QVERIFY(
            QFile::copy(QString::fromStdString(dataPath("demo/" + demo.toStdString() + ".gantry")), copy));
        d.window->openFile(copy);
        noteCutTexts(&cut_);
        for (const QSize size : {QSize(1280, 800), QSize(1920, 1080)}) {
            d.window->resize(size);
            for (const bool night : {false, true}) {
                d.window->preferences().setNight(night);
                for (const auto system : {units::System::Metric, units::System::Inch}) {
                    d.window->preferences().setSystem(system);
                    const QString how =
                        QString("%1 %2 %3")
                            .arg(size.width())
                            .arg(night ? "night" : "day", system == units::System::Metric ? "mm" : "in");
                    for (const QString& station : d.window->stationIds()) {
                        d.window->showStation(station);
                        for (int axis = 0; axis < static_cast<int>(d.project().axes.size()); ++axis) {
                            d.click(d.find(QString("axisCard%1").arg(axis)));
                            QCoreApplication::processEvents();
                            cut_.clear();
                            paintAll(d.window.get());
                            lookAt(station + " " + how + QString(" axis %1").arg(axis), d.window.get());
                        }
                        // Tools do not hang on the theme's colours.
                        if (!night) tools(d, station + " " + how);
                    }
                }
            }
        }
        noteCutTexts(nullptr);
        for (const QString& f : std::as_const(faults_)) qWarning("%s", qPrintable(f));
        QVERIFY2(faults_.isEmpty(), qPrintable(QString::number(faults_.size()) + " faults"));
    }
};

QTEST_MAIN(CutTextTest)
#include "cut_text_test.moc"
