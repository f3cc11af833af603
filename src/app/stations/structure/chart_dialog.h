// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/table_pane.h"
#include "app/shell/context.h"

namespace gantry::app {

/// Which discs where for each kit of camera and lens, to be printed and hung on the arm.
class ChartDialog : public TableWindow {
    Q_OBJECT
public:
    explicit ChartDialog(const Context& context, QWidget* parent);
    /// Writes the chart as PDF; false if the file cannot be written.
    QString savePdf(const QString& path) const;

private:
    void follow() override;
    void addKit();
    void removeKit();

    QList<QStringList> rows_;
};

} // namespace gantry::app
