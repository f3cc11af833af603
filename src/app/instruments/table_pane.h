// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/tool_window.h"

#include <QStringList>
#include <QWidget>

class QHBoxLayout;
class QLabel;
class QPushButton;
class QTableWidget;
class QVBoxLayout;

namespace gantry::app {

/// A sentence, a table that is read and not edited, and buttons below, Close the last of them.
class TablePane : public QWidget {
    Q_OBJECT
public:
    /// Names and titles its window, whose content it becomes.
    TablePane(const QString& name, const QString& title, QDialog* window);
    void setSentence(const QString& text);
    /// The first column is aligned left, the others are centred.
    void setTable(const QStringList& columns, const QList<QStringList>& rows);
    /// A button beside Close.
    QPushButton* addButton(const QString& text, const QString& objectName);
    int chosenRow() const;
    QTableWidget* table() const { return table_; }
    /// Sentence, table, buttons: what else is shown is put between them.
    QVBoxLayout* content() const { return content_; }
    static constexpr int belowTable = 2;
    /// Makes the table as high as its rows, and the window as large as all of it needs, within the screen.
    void fit();

private:
    QLabel* sentence_;
    QTableWidget* table_;
    QVBoxLayout* content_;
    QHBoxLayout* buttons_;
};

/// Such a table that stays open and follows the project.
class TableWindow : public ToolWindow {
    Q_OBJECT
protected:
    TableWindow(const Context& context, const QString& name, const QString& title, QWidget* parent)
        : ToolWindow(context, name, title, parent), pane_(new TablePane(name, title, this)) {}
    TablePane* pane_;
};

} // namespace gantry::app
