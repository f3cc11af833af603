// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

#include <QAbstractTableModel>

namespace gantry::app {

/// The shots of the project, one row each, with what they ask of the chosen axis.
class ShotTableModel : public QAbstractTableModel {
    Q_OBJECT
public:
    explicit ShotTableModel(const Context& context, QObject* parent = nullptr);
    void refresh();
    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
    Context context_;
    int rows_ = 0;
};

} // namespace gantry::app
