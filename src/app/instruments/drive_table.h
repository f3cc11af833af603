// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/evaluate/chain_table.h"

#include <QAbstractTableModel>
#include <QTableView>

namespace gantry::app {

/// The drive-train table: one column a part, one row a quantity, the last column in the picture.
class DriveTableModel : public QAbstractTableModel {
    Q_OBJECT
public:
    explicit DriveTableModel(const Context& context, QObject* parent = nullptr);
    void setColumns(const std::vector<ChainColumn>& columns);

    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
    QString cellText(int row, const ChainColumn& column) const;

    Context context_;
    std::vector<ChainColumn> columns_;
};

/// View of it with columns that stand under the tiles of a ChainView.
class DriveTable : public QTableView {
    Q_OBJECT
public:
    explicit DriveTable(const Context& context, QWidget* parent = nullptr);
    void setColumns(const std::vector<ChainColumn>& columns);
    void setLabelWidth(int width) { labelWidth_ = width; }
    static constexpr int rowHeight = 22;

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    void placeColumns();

    DriveTableModel model_;
    int labelWidth_ = 92;
};

} // namespace gantry::app
