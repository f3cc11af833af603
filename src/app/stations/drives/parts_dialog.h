// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/tool_window.h"

#include <QAbstractTableModel>
#include <functional>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QTabBar;
class QTableView;

namespace gantry::app {

/// Parts as rows: family, name, the figures that matter, price, count, reason.
class PartsModel : public QAbstractTableModel {
    Q_OBJECT
public:
    explicit PartsModel(const Context& context, QObject* parent = nullptr);
    void show(const std::vector<parts::Part>& all, const QString& family, const QString& words);
    /// Index in the list that was shown last; −1 if none.
    int partAt(int row) const;
    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
    Context context_;
    const std::vector<parts::Part>* all_ = nullptr;
    std::vector<int> shown_;
};

/// The library and the parts on hand: look, put into the drive, count, import and export.
class PartsDialog : public ToolWindow {
    Q_OBJECT
public:
    /// `link`: gives the chosen link of the chosen axis, −1 if another part is chosen.
    PartsDialog(const Context& context, std::function<int()> link, QWidget* parent);

private:
    void follow() override { refresh(); }
    void refresh();
    const parts::Part* chosen() const;
    void showWhy(); ///< where the figures of the chosen part come from
    void use();
    void addToShelf();
    void changeCount(int by);
    void importFile();
    void exportFile();
    void setShelf(std::vector<parts::Part> parts);

    Shelf& shelf_;
    std::function<int()> link_;
    QTabBar* tabs_;
    QComboBox* family_;
    QLineEdit* search_;
    QTableView* table_;
    PartsModel model_;
    QLabel *why_, *status_;
    QPushButton *use_, *own_, *more_, *fewer_, *import_, *export_;
};

} // namespace gantry::app
