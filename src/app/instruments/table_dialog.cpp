// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/table_dialog.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

namespace gantry::app {

TableDialog::TableDialog(const QString& name, const QString& title, QWidget* parent)
    : QDialog(parent), sentence_(new QLabel), table_(new QTableWidget), buttons_(new QHBoxLayout) {
    setObjectName(name);
    setWindowTitle(title);
    resize(760, 340);
    auto* all = new QVBoxLayout(this);
    sentence_->setWordWrap(true);
    sentence_->setObjectName(name + QStringLiteral("Sentence"));
    table_->setObjectName(name + QStringLiteral("Table"));
    table_->setAccessibleName(title);
    table_->verticalHeader()->hide();
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setTabKeyNavigation(false);
    table_->setShowGrid(false);
    table_->setFrameShape(QFrame::NoFrame);
    all->addWidget(sentence_);
    all->addWidget(table_, 1);
    all->addLayout(buttons_);
    buttons_->addStretch(1);
    auto* close = new QPushButton(tr("Close"));
    close->setAutoDefault(false);
    buttons_->addWidget(close);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
}

void TableDialog::setSentence(const QString& text) {
    sentence_->setText(text);
}

void TableDialog::setTable(const QStringList& columns, const QList<QStringList>& rows) {
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
}

QPushButton* TableDialog::addButton(const QString& text, const QString& objectName) {
    auto* button = new QPushButton(text);
    button->setObjectName(objectName);
    button->setAutoDefault(false);
    buttons_->insertWidget(buttons_->count() - 1, button);
    return button;
}

int TableDialog::chosenRow() const {
    return table_->currentRow();
}

} // namespace gantry::app
