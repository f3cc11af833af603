// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/evaluate/chain_table.h"

#include <QWidget>

namespace gantry::app {

/// The drive drawn link by link, pulse to picture: wheels with their true tooth counts, the carriage at its
/// slope. Click or arrow keys choose a part.
class ChainView : public QWidget {
    Q_OBJECT
public:
    explicit ChainView(const Context& context, QWidget* parent = nullptr);

    void setColumns(const std::vector<ChainColumn>& columns);
    void setSelected(int column);
    void setLabelWidth(int width) { labelWidth_ = width; }

    /// Name and short description of a part, also for the table and for screen readers.
    static QString partName(const Context& context, const ChainColumn& column);
    QString partDetail(const ChainColumn& column) const;

signals:
    void selected(int column);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    QRectF tile(int column) const;
    void paintPart(QPainter& painter, const QRectF& box, const ChainColumn& column) const;

    Context context_;
    std::vector<ChainColumn> columns_;
    int selected_ = 0;
    int labelWidth_ = 92;
};

} // namespace gantry::app
