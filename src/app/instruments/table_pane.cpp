// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/table_pane.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QScreen>
#include <QTableWidget>
#include <QVBoxLayout>
#include <algorithm>

namespace gantry::app {

TablePane::TablePane(const QString& name, const QString& title, QDialog* window)
    : QWidget(window), sentence_(new QLabel), table_(new QTableWidget), content_(new QVBoxLayout(this)),
      buttons_(new QHBoxLayout) {
    window->setObjectName(name);
    window->setWindowTitle(title);
    auto* all = new QVBoxLayout(window);
    all->setContentsMargins(0, 0, 0, 0);
    all->addWidget(this);
    sentence_->setWordWrap(true);
    sentence_->setObjectName(name + QStringLiteral("Sentence"));
    table_->setObjectName(name + QStringLiteral("Table"));
    table_->setAccessibleName(title);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(24);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setTabKeyNavigation(false);
    table_->setShowGrid(false);
    table_->setFrameShape(QFrame::NoFrame);
    content_->addWidget(sentence_);
    content_->addWidget(table_, 1);
    content_->addLayout(buttons_);
    buttons_->addStretch(1);
    auto* close = new QPushButton(tr("Close"));
    close->setAutoDefault(false);
    buttons_->addWidget(close);
    connect(close, &QPushButton::clicked, window, &QDialog::accept);
}

void TablePane::setSentence(const QString& text) {
    sentence_->setText(text);
}

void TablePane::setTable(const QStringList& columns, const QList<QStringList>& rows) {
    const int chosen = chosenRow();
    table_->setColumnCount(static_cast<int>(columns.size()));
    table_->setRowCount(static_cast<int>(rows.size()));
    table_->setHorizontalHeaderLabels(columns);
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
    for (int r = 0; r < table_->rowCount(); ++r)
        for (int c = 0; c < table_->columnCount(); ++c) {
            auto* item = new QTableWidgetItem(rows[r].value(c));
            item->setTextAlignment(c == 0 ? Qt::AlignVCenter | Qt::AlignLeft : Qt::AlignCenter);
            table_->setItem(r, c, item);
        }
    // What is chosen stays chosen while the window follows.
    if (chosen >= 0 && chosen < table_->rowCount()) table_->selectRow(chosen);
}

QPushButton* TablePane::addButton(const QString& text, const QString& objectName) {
    auto* button = new QPushButton(text);
    button->setObjectName(objectName);
    button->setAutoDefault(false);
    buttons_->insertWidget(buttons_->count() - 1, button);
    return button;
}

int TablePane::chosenRow() const {
    return table_->currentRow();
}

void TablePane::fit() {
    const QHeaderView* head = table_->horizontalHeader();
    // The first column takes what it needs, the others share the rest evenly: the widest sets them all.
    int first = 0, other = 0, high = head->sizeHint().height() + 4;
    for (int c = 0; c < table_->columnCount(); ++c) {
        int& wide = c == 0 ? first : other;
        wide = std::max(wide, head->sectionSizeHint(c));
        for (int r = 0; r < table_->rowCount(); ++r)
            wide = std::max(wide, table_->fontMetrics().horizontalAdvance(table_->item(r, c)->text()) + 22);
    }
    for (int r = 0; r < table_->rowCount(); ++r) high += table_->rowHeight(r);
    // A screen is never smaller than the window that it shows.
    const QWidget* over = window()->parentWidget();
    const QSize screen =
        this->screen()->availableSize().expandedTo(over != nullptr ? over->size() : QSize()) - QSize(60, 80);
    const int columns = std::max(0, table_->columnCount() - 1);
    const int width = std::clamp(first + columns * other + 40, 480, std::min(1100, screen.width()));
    table_->setMinimumHeight(std::min(high, 460));
    int around = content_->contentsMargins().top() + content_->contentsMargins().bottom();
    for (int i = 0; i < content_->count(); ++i) {
        QLayoutItem* item = content_->itemAt(i);
        if (item->isEmpty()) continue;
        around += content_->spacing();
        if (item->widget() == table_)
            around += table_->minimumHeight();
        else
            around +=
                item->hasHeightForWidth() ? item->heightForWidth(width - 24) : item->sizeHint().height();
    }
    window()->resize(width, std::min(around, screen.height()));
}

} // namespace gantry::app
