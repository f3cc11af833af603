// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QDialog>
#include <QStringList>

class QHBoxLayout;
class QLabel;
class QPushButton;
class QTableWidget;

namespace gantry::app {

/// A sentence, a table that is read and not edited, and buttons below: what small tools of the stations show.
class TableDialog : public QDialog {
    Q_OBJECT
public:
    TableDialog(const QString& name, const QString& title, QWidget* parent);
    void setSentence(const QString& text);
    /// The first column is aligned left, the others are centred.
    void setTable(const QStringList& columns, const QList<QStringList>& rows);
    /// A button beside Close.
    QPushButton* addButton(const QString& text, const QString& objectName);
    int chosenRow() const;
    QTableWidget* table() const { return table_; }

private:
    QLabel* sentence_;
    QTableWidget* table_;
    QHBoxLayout* buttons_;
};

} // namespace gantry::app
