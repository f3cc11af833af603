// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/working_window.h"

#include "app/theme/tokens.h"
#include "core/working/explain.h"
#include "core/working/printed.h"

#include <QFontMetrics>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QScreen>
#include <QTableWidget>
#include <QTimer>
#include <QVBoxLayout>

namespace gantry::app {
namespace {

constexpr int workingRowHeight = 21, widestWorking = 980;

QString text(const std::string& s) {
    return QString::fromStdString(s);
}

} // namespace

WorkingWindow::WorkingWindow(const Context& context, QWidget* parent)
    : ToolWindow(context, QStringLiteral("working"), tr("How it comes about"), parent), head_(new QLabel),
      says_(new QLabel), most_(new QLabel), table_(new QTableWidget), later_(new QTimer(this)) {
    setAttribute(Qt::WA_ShowWithoutActivating); // one presses on in the table that it was opened from
    auto* all = new QVBoxLayout(this);
    head_->setObjectName(QStringLiteral("workingHead"));
    head_->setFont(textFont(14, true));
    says_->setObjectName(QStringLiteral("workingSays"));
    most_->setObjectName(QStringLiteral("workingMost"));
    for (QLabel* label : {head_, says_, most_}) {
        label->setWordWrap(true);
        label->setTextInteractionFlags(Qt::TextSelectableByMouse);
    }
    table_->setObjectName(QStringLiteral("workingTable"));
    table_->setAccessibleName(tr("Quantities and formulas"));
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setMinimumSectionSize(workingRowHeight);
    table_->verticalHeader()->setDefaultSectionSize(workingRowHeight);
    table_->setFont(textFont(11));
    table_->setSelectionMode(QAbstractItemView::NoSelection);
    table_->setFocusPolicy(Qt::NoFocus);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setTabKeyNavigation(false);
    table_->setShowGrid(false);
    table_->setFrameShape(QFrame::NoFrame);
    table_->setWordWrap(true);
    all->addWidget(head_);
    all->addWidget(says_);
    all->addWidget(table_, 1);
    all->addWidget(most_);
    auto* buttons = new QHBoxLayout;
    buttons->addStretch(1);
    auto* close = new QPushButton(tr("Close"));
    close->setAutoDefault(false);
    connect(close, &QPushButton::clicked, this, &QDialog::close);
    buttons->addWidget(close);
    all->addLayout(buttons);
    later_->setSingleShot(true);
    later_->setInterval(150);
    connect(later_, &QTimer::timeout, this, &WorkingWindow::sayWhatMoves);
}

void WorkingWindow::setPath(const std::string& path) {
    path_ = path;
    if (isVisible()) follow();
}

void WorkingWindow::follow() {
    const Project& project = context_.document.project();
    const Assessment& now = context_.document.assessment();
    const working::Explained found = working::explain(project, now.evaluation, now.verdicts, path_);
    const auto* e = std::get_if<working::Explanation>(&found);
    table_->setVisible(e != nullptr);
    most_->clear();
    if (e == nullptr) {
        head_->setText(tr("No working"));
        says_->setText(std::get<working::Unexplained>(found) == working::Unexplained::NoNumber
                           ? tr("This figure has no number now.")
                           : tr("This figure is not there any more, or its working is not written down."));
        return;
    }
    head_->setText(text(working::headline(e->working, context_.system())));
    says_->setText(tr("Formulas in SI units. Taken from %1.").arg(text(e->working.reference)));
    const std::vector<working::Row> rows = working::rowsOf(e->working, project, context_.system());
    table_->clear();
    table_->setColumnCount(5);
    table_->setHorizontalHeaderLabels(
        {tr("Symbol"), tr("Formula"), tr("Value"), tr("What it is"), tr("Known by")});
    table_->setRowCount(static_cast<int>(rows.size()));
    int line = 0;
    // First what was put in, then what came of it, the figure last.
    for (const bool inputs : {true, false})
        for (const working::Row& r : rows) {
            if (r.input != inputs) continue;
            const QStringList cells{text(r.symbol),
                                    r.formula.empty() ? QString() : QStringLiteral("= ") + text(r.formula),
                                    text(r.value), text(r.label), text(r.from)};
            for (int c = 0; c < cells.size(); ++c) {
                auto* item = new QTableWidgetItem(cells[c]);
                item->setTextAlignment(Qt::AlignVCenter | (c == 2 ? Qt::AlignRight : Qt::AlignLeft));
                item->setFont(textFont(11, !r.input && &r == &rows.back()));
                table_->setItem(line, c, item);
            }
            ++line;
        }
    fitToContent();
    later_->start();
}

void WorkingWindow::fitToContent() {
    table_->resizeColumnsToContents();
    // The formula is the longest; what of it is more than fits goes into further lines.
    int others = 0;
    for (const int c : {0, 2, 3, 4}) others += table_->columnWidth(c);
    // A screen is never smaller than the window that it shows.
    const QSize screen = this->screen()->availableSize().expandedTo(
        parentWidget() != nullptr ? parentWidget()->size() : QSize());
    const int most = std::min(widestWorking, screen.width() - 80) - 48;
    table_->setColumnWidth(1, std::max(120, std::min(table_->columnWidth(1), most - others)));
    for (int r = 0; r < table_->rowCount(); ++r) { // two lines where the formula wants them
        const QTableWidgetItem* formula = table_->item(r, 1);
        const QRect box = QFontMetrics(formula->font())
                              .boundingRect(QRect(0, 0, table_->columnWidth(1) - 6, 1000), Qt::TextWordWrap,
                                            formula->text());
        table_->setRowHeight(r, std::max(workingRowHeight, box.height() + 6));
    }
    int height = table_->horizontalHeader()->sizeHint().height() + 4,
        width = others + table_->columnWidth(1) + 24;
    for (int r = 0; r < table_->rowCount(); ++r) height += table_->rowHeight(r);
    const int around = 150; // head, sentences and buttons
    resize(std::max(420, width + 24), std::min(height + around, screen.height() - 80));
}

void WorkingWindow::sayWhatMoves() {
    const Project& project = context_.document.project();
    const Assessment& now = context_.document.assessment();
    const working::Explained found = working::explain(project, now.evaluation, now.verdicts, path_);
    if (const auto* e = std::get_if<working::Explanation>(&found))
        most_->setText(text(working::influenceSentence(working::influences(project, e->figure, e->working),
                                                       project, e->figure, context_.system())));
}

} // namespace gantry::app
