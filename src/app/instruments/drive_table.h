// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/tools/chain_table.h"

#include <QAbstractTableModel>
#include <QTableView>

namespace gantry::app {

/// The drive-train table: one column a part, one row a quantity, the last column in the picture. A line under
/// a number is as long as the number may lie off: the whole cell stands for ±50 %.
class DriveTableModel : public QAbstractTableModel {
    Q_OBJECT
public:
    explicit DriveTableModel(const Context& context, QObject* parent = nullptr);
    /// `spread` holds the half-range of each cell, in the same order; empty where ranges are not known.
    void setColumns(const std::vector<ChainColumn>& columns, const std::vector<ChainColumn>& spread);
    /// Role of how far a cell may lie off, relative to its value; invalid where it has no range.
    static constexpr int relativeRangeRole = Qt::UserRole;

    /// What the figure of a cell is called in a path; null where it has none.
    const char* figureKey(const QModelIndex& index) const;

    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
    /// What every cell shows and how far it may lie off, row by row.
    std::vector<QVariant> cells() const;
    QString cellText(int row, const ChainColumn& column) const;
    /// "0.0988 N·m, between 0.078 N·m and 0.12 N·m"; the text alone where there is no range.
    QString cellWithRange(int row, const ChainColumn& column, const ChainColumn* spread) const;

    Context context_;
    std::vector<ChainColumn> columns_, spread_;
    std::vector<QVariant> shown_; ///< cells as the view was told last
};

/// View of it with columns that stand under the tiles of a ChainView.
class DriveTable : public QTableView {
    Q_OBJECT
public:
    explicit DriveTable(const Context& context, QWidget* parent = nullptr);
    void setColumns(const std::vector<ChainColumn>& columns, const std::vector<ChainColumn>& spread);
    void setLabelWidth(int width) { labelWidth_ = width; }
    static constexpr int rowHeight = 22;

signals:
    /// The cell that was chosen, with its range, as a sentence.
    void message(const QString& text);
    /// A number was pressed, by mouse or with Enter: its column from the driver on, and what it is called in
    /// the path of a figure: "needed".
    void numberPressed(int column, const char* key);

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    void placeColumns();

    DriveTableModel model_;
    int labelWidth_ = 92;
};

} // namespace gantry::app
